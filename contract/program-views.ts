/** Answers about other programs that are given what is exported. */

export interface FeedView {
  id: string;
  name: string;
  format: 'csv' | 'jsonl';
  /** The tape in words. */
  wording: string[];
  madeAt: string;
  readAt: string | null;
  timesRead: number;
}

/** A feed as it is made: the only time its address is said. */
export interface NewFeed {
  feed: FeedView;
  address: string;
}

export interface FolderView {
  id: string;
  name: string;
  path: string;
  /** What is wrong with it now; null where it can be written to. */
  trouble: string | null;
}

export interface HostView {
  name: string;
  private: boolean;
}

export interface HookView {
  id: string;
  name: string;
  url: string;
  /** Shared with the receiver, who verifies signatures by it. */
  secret: string;
  batch: number;
  waiting: number;
  delivered: number;
  givenUp: number;
}

export const DELIVERY_STATES = ['waiting', 'delivered', 'given-up'] as const;
export type DeliveryState = (typeof DELIVERY_STATES)[number];

/** One request to a webhook, or one copy in a folder. */
export interface DeliveryView {
  id: string;
  to: string;
  kind: 'hook' | 'folder';
  export: string;
  exportName: string;
  nth: number;
  of: number;
  rows: number;
  state: DeliveryState;
  attempts: number;
  /** When it is tried next, and was tried last. */
  dueAt: string | null;
  triedAt: string | null;
  /** What the receiver said, or why it was not reached. */
  answer: string | null;
}

export interface ProgramsAnswer {
  feeds: FeedView[];
  folders: FolderView[];
  hosts: HostView[];
  hooks: HookView[];
  /** The latest first. */
  deliveries: DeliveryView[];
  /** What the stand-in has received since the program was started. */
  standIn: { requests: number; refused: number; rows: number; wrongSignatures: number };
}
