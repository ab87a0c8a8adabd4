import type { Tape } from '../core/tape/nodes.ts';

/** What the contenders of the bench are asked, over IPC. */

export type Contender = 'tally' | 'duckdb' | 'sqlite';
export type Ask = 'figures' | 'codes' | 'technologies' | 'first rows' | 'middle rows';
export const ASKS: readonly Ask[] = ['figures', 'codes', 'technologies', 'first rows', 'middle rows'];

export interface AskMessage {
  ask: Ask;
  tape: Tape;
  /** Where the middle window begins. */
  offset: number;
}
export interface AskReply {
  /** Milliseconds. */
  took: number;
  /** What all contenders must answer alike. */
  answer: unknown;
  /** Bytes. */
  peak: number;
}
