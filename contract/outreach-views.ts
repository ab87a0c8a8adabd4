import type { FactsOfPerson } from '../core/outreach/facts.ts';
import type { Fit, Proof } from '../core/outreach/proofs.ts';
import type { ReplyKind } from '../core/outreach/reply-kind.ts';
import type { Step } from '../core/outreach/steps.ts';
import type { TriggerWay } from '../core/outreach/trigger.ts';
import type { Roll } from '../core/lists/roll.ts';
import type { PersonFunction } from '../core/people/functions.ts';
import type { AddressStanding } from '../core/people/standing.ts';
import type { OutreachSettingsBody, TemplateBody } from './outreach.ts';

/** What the API answers about what is written to people. */

export interface TemplateView extends TemplateBody {
  id: string;
}

/** A proof with what came of naming it. */
export interface ProofView extends Proof {
  named: number;
  answered: number;
}

export interface CampaignView {
  id: string;
  name: string;
  person: string;
  /** ISO time. */
  madeAt: string;
  what: string;
  functions: PersonFunction[] | null;
  /** Companies where nobody holds any of the functions. */
  without: number;
  template: string;
  trigger: TriggerWay;
  certainty: number;
  words: number;
  quietDays: number;
  askProof: boolean;
  people: number;
  outbox: number;
  sent: number;
  replies: number;
}

export interface OutboxState {
  paused: boolean;
  waiting: number;
  /** Sent since the day began. */
  today: number;
  daily: number;
  /** ISO time of the next message, as far as is known; null where none waits. */
  next: string | null;
  /** Where it goes: the stand-in of this machine, or one's own server. */
  through: { own: false } | { own: true; host: string; port: number; user: string };
  /** What keeps it from going, in words. */
  trouble: string | null;
}

export interface OutreachAnswer {
  settings: OutreachSettingsBody;
  templates: TemplateView[];
  proofs: ProofView[];
  campaigns: CampaignView[];
  outbox: OutboxState;
  /** Replies that are not done, of all. */
  replies: { open: number; all: number };
  /** Addresses that came back or were answered from, and that the universe has not taken in yet. */
  outcomes: number;
}

export interface CampaignAnswer {
  campaign: CampaignView;
  roll: Roll;
  /** Of those who go out today, how many messages were looked at. */
  seen: number;
  /** Keys of those who go out today, in their order. */
  today: string[];
}

/** Somebody of a campaign, as the table has them. */
export interface AddresseeView {
  person: string;
  company: string | null;
  name: string;
  title: string | null;
  companyName: string | null;
  country: string | null;
  mail: string | null;
  certainty: number | null;
  address: AddressStanding | null;
  /** Why not today; null for those who are. */
  step: Step | null;
  state: MessageState;
  words: number;
  seen: boolean;
  edited: boolean;
}

export const MESSAGE_STATES = ['draft', 'outbox', 'sending', 'sent', 'perhaps', 'bounced'] as const;
export type MessageState = (typeof MESSAGE_STATES)[number];

export interface AddresseesAnswer {
  total: number;
  people: AddresseeView[];
}

export interface MessageView {
  id: number;
  campaign: string;
  campaignName: string;
  person: string;
  name: string;
  companyName: string | null;
  mail: string | null;
  certainty: number | null;
  state: MessageState;
  subject: string;
  body: string;
  words: number;
  unfilled: string[];
  template: string | null;
  language: string | null;
  trigger: TriggerWay;
  proof: string | null;
  proofText: string | null;
  edited: boolean;
  seen: boolean;
  version: number;
  putBy: string | null;
  /** ISO times. */
  putAt: string | null;
  sentAt: string | null;
  /** Why it did not go yet, or did not arrive. */
  trouble: string | null;
}

export interface WrittenView {
  message: number;
  /** Key and name of whom it was written to. */
  person: string;
  name: string;
  campaign: string;
  by: string;
  /** ISO time; null while it waits. */
  at: string | null;
  state: MessageState;
  answer: ReplyKind | null;
}

export interface WritingAnswer {
  message: MessageView;
  facts: FactsOfPerson | null;
  step: Step | null;
  /** Proofs, what fits best first. */
  proofs: (ProofView & Fit)[];
  /** All that was written to this address or person before. */
  written: WrittenView[];
  /** Whom we know there. */
  known: { name: string; title: string | null }[];
  optedOut: boolean;
}

export interface PutOutAnswer {
  /** Messages put in the outbox. */
  put: number[];
  campaign: CampaignAnswer;
}

export interface OutboxAnswer {
  state: OutboxState;
  messages: MessageView[];
}

export interface ReplyView {
  id: number;
  message: MessageView | null;
  sender: string;
  subject: string;
  body: string;
  kind: ReplyKind;
  backOn: string | null;
  /** ISO time. */
  at: string;
  done: boolean;
  meeting: boolean;
}

export interface RepliesAnswer {
  total: number;
  replies: ReplyView[];
  counts: Record<ReplyKind, number>;
}

/** What came of messages, by what they have in common. */
export interface OutreachFigure {
  key: string;
  label: string;
  sent: number;
  answered: number;
  meetings: number;
  /** Share answered with its interval, from 0 to 1; null where nothing was sent. */
  share: { share: number; low: number; high: number } | null;
}

export const FIGURES_BY = ['template', 'proof', 'industry', 'level', 'trigger'] as const;
export type FiguresBy = (typeof FIGURES_BY)[number];

export interface FiguresAnswer {
  by: FiguresBy;
  figures: OutreachFigure[];
}

/** A campaign that more people were put into, and by what that is taken back. */
export interface MorePeopleAnswer extends CampaignAnswer {
  added: number;
  /** The place of the last one before them. */
  after: number;
  /** Companies without anybody of the functions that were not noted before. */
  without: string[];
}

/** All that was written to people of a company. */
export interface CompanyWrittenAnswer {
  written: WrittenView[];
}

/** All that was written to somebody, for their page. */
export interface WrittenToAnswer {
  written: WrittenView[];
  optedOut: boolean;
  /** What became of the address, in words. */
  outcome: string | null;
}
