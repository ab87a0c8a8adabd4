import { create } from 'zustand';
import type { Tape } from '../../core/tape/nodes.ts';
import { actedOnOne, type Acted } from './acted.ts';
import { NO_PICKS } from './picks.ts';

/** Records seen somewhere that are to be put on a list: the frame shows the dialog over whatever place one is in. */
export const usePutting = create<{ acted: Acted | null }>(() => ({ acted: null }));

/** Asks which list all records of a tape go on. `count` is how many they are, null where that is not known. */
export function putTapeOnList(tape: Tape, count: number | null): void {
  const acted = { tape, sort: [], picks: NO_PICKS, one: false, count, gone: 0, total: count ?? 0 };
  usePutting.setState({ acted });
}

/** Asks which list one record goes on. */
export function putOneOnList(subject: string, key: string): void {
  usePutting.setState({ acted: actedOnOne(subject, key) });
}
