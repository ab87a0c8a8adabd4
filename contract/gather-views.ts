import type { PageForm } from '../core/gather/forms.ts';
import type { TaughtField } from '../core/gather/lesson.ts';
import type { RowChoice } from '../core/gather/pointed.ts';
import type { Roll } from '../core/lists/roll.ts';
import type { GatherSpecBody } from './gather.ts';

/** Answers about gatherers, their pages and their runs. */

export const GATHER_STATES = ['running', 'paused', 'asks', 'done', 'stopped'] as const;
export type GatherState = (typeof GATHER_STATES)[number];

export interface GathererView {
  id: string;
  name: string;
  /** Where it begins, in words. */
  start: string;
  /** Words times places. */
  searches: number;
  madeAt: string;
  changedAt: string;
  /** Its newest run; null where it has none. */
  run: { id: string; state: GatherState; records: number; startedAt: string } | null;
}

export interface GatherAnswer {
  gatherers: GathererView[];
  /** Machines that pages may be read from. */
  hosts: { name: string; private: boolean }[];
  /** Directories that ship as stand-ins, and where they are seen in a browser. */
  standIns: { name: string; address: string; seen: string }[];
}

export interface GatherPageView {
  id: number;
  url: string;
  /** Whether it came in a file or was pasted, rather than fetched. */
  saved: boolean;
  fetchedAt: string;
  /** Bytes of it. */
  size: number;
}

export interface GathererAnswer {
  id: string;
  name: string;
  spec: GatherSpecBody;
  /** Pages to point at, the newest first. */
  pages: GatherPageView[];
  runs: { id: string; nth: number; state: GatherState; records: number; startedAt: string }[];
}

export interface PageAnswer {
  page: GatherPageView;
}

export interface PagesAnswer {
  pages: GatherPageView[];
}

export interface LookValue {
  field: string;
  value: string;
  node: number;
}

export interface LookRow {
  node: number;
  /** All its elements, where a row is several neighbours. */
  nodes: number[];
  look: number;
  values: LookValue[];
  /** How surely it is a row, from 0 to 1. */
  sure: number;
  /** The example it is, by its place; null where it is learned. */
  example: number | null;
}

/** What a page comes to with what is taught. */
export interface LookAnswer {
  rows: LookRow[];
  adverts: number[];
  /** Elements that are somewhat like a row, and are taken for none. */
  perhaps: number[];
  /** Rows of each look. */
  looks: number[];
  /** How sure all of it is, from 0 to 1; null where there are no rows. */
  sure: number | null;
  /** Rows without a name or another field that is asked for. */
  lacking: number;
  /** Where the next page is; null where there is none. */
  next: string | null;
  forms: PageForm[];
  /** What a page of one company seems to say. */
  guess: TaughtField[];
  /** Fields of this page, where it is one that tells of one company. */
  detail: LookValue[];
  /** Whether the page was larger than is read. */
  cut: boolean;
}

/** What may be meant by a place on a page. */
export interface AroundAnswer {
  /** Rows that it may be within, from the narrowest. */
  choices: RowChoice[];
  best: number;
  /** What the likeliest row seems to hold. */
  fields: TaughtField[];
  /** A row like it that holds more; null where none does. */
  another: { node: number; fields: TaughtField[] } | null;
  /** What its value may be, and its words. */
  field: string;
  text: string;
  cell: number;
  /** What follows from taking it as the way to the next page; null where it leads nowhere. */
  next: string | null;
}

export interface SearchFigures {
  word: string;
  place: string;
  /** Records that it found, those that others found too included. */
  records: number;
  pages: number;
  state: 'waits' | 'reads' | 'done';
}

export interface GatherRunView {
  id: string;
  gatherer: string;
  name: string;
  nth: number;
  state: GatherState;
  /** What it asks, or why it stopped. */
  why: string | null;
  person: string;
  startedAt: string;
  endedAt: string | null;
  roll: Roll;
  searches: SearchFigures[];
  searchesDone: number;
  pagesRead: number;
  pagesWaiting: number;
  pagesFailed: number;
  pagesNotAllowed: number;
  /** Seconds between two pages of the host. */
  pause: number;
  /** Seconds; null where nothing is known of it. */
  timeLeft: number | null;
}

export interface GatherRunAnswer {
  run: GatherRunView;
}

export const RUN_PARTS = ['records', 'twice', 'refused', 'adverts', 'failed', 'not-allowed'] as const;
export type RunPart = (typeof RUN_PARTS)[number];

/** One row of a run: a record, or what came to none. */
export interface GatheredRow {
  id: number;
  values: Record<string, string>;
  /** Words and places that found it. */
  tags: string[];
  /** Address of the page. */
  page: string;
  at: string | null;
  /** Why it is no record; what went wrong with a page. */
  reason: string | null;
}

export interface GatheredAnswer {
  total: number;
  /** Fields that any of the run's records has, in their order. */
  fields: { field: string; heading: string }[];
  rows: GatheredRow[];
}

/** What a delivery began: a job whose end is waited for, or what is under way. */
export interface DeliveredAnswer {
  job: string | null;
  /** A file that could not be loaded as it is; it is to be mapped by hand. */
  upload: string | null;
  message: string;
}
