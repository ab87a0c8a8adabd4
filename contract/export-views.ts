import type { FormatId } from '../core/exports/formats.ts';
import type { Roll } from '../core/lists/roll.ts';
import type { Tape } from '../core/tape/nodes.ts';
import type { Job } from './responses.ts';
import type { FileWish } from './file-wish.ts';

/** Answers about exports. */

export interface ExportView {
  id: string;
  name: string;
  subject: string;
  format: FormatId;
  /** Of its file: that of the format, or zip. */
  ending: string;
  /** Whom it is for; empty where nobody said. */
  receiver: string;
  /** The name of the template it was made by. */
  template: string | null;
  /** Who made it. */
  person: string;
  /** From what was chosen to its rows; null for exports of earlier versions. */
  roll: Roll | null;
  /** The export that it was made again of. */
  repeats: string | null;
  /** Whether it can be made again, and whether with what changed since. */
  again: 'no' | 'plain' | 'changes';
  /** ISO time; null where it is there. */
  removedAt: string | null;
  tape: unknown;
  wording: string[];
  columns: string[];
  picked: number | null;
  count: number | null;
  madeAt: string;
  bytes: number | null;
  job: Job | null;
}

/** What goes out of an export, and what keeps the others off: each record at the first step that does. */
export interface BeforeExportAnswer {
  /** Of the tape, or of what was picked. */
  of: number;
  goes: number;
  /** By suppression list; those taken `along` go out all the same. */
  off: { list: string; name: string; count: number; along: boolean }[];
  roll: Roll;
}

/** The records behind one step, as a tape; null with the reason where no tape can name them. */
export interface ExportStepAnswer {
  tape: Tape | null;
  why: string | null;
}

/** Whom one record was handed over to. */
export interface HandedAnswer {
  /** The latest first; the day on which each last had it. */
  handed: { receiver: string; name: string; day: string }[];
}

export interface ReceiverView {
  key: string;
  name: string;
  /** How many exports it had, and the day of the last. */
  exports: number;
  last: string;
  /** How many records in all, each once. */
  records: number;
}

export interface ExportTemplateView {
  id: string;
  name: string;
  subject: string;
  fileName: string;
  file: FileWish;
  /** Ships with the program, and cannot be changed. */
  ready: boolean;
  changedAt: string | null;
}
