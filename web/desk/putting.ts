import { create } from 'zustand';
import type { Tape } from '../../core/tape/nodes.ts';
import { actedOnOne, type Acted } from './acted.ts';
import { NO_PICKS } from './picks.ts';

interface Putting {
  acted: Acted | null;
  /** The list of each subject that records were put on last, which takes the next ones without asking. */
  last: Readonly<Record<string, { key: string; name: string }>>;
}

const LAST = 'lists put on last';

/** Records seen somewhere that are to be put on a list: the frame shows the dialog over whatever place one is in. */
export const usePutting = create<Putting>(() => ({ acted: null, last: remembered() }));

function remembered(): Putting['last'] {
  try {
    return (JSON.parse(localStorage.getItem(LAST) ?? '{}') ?? {}) as Putting['last'];
  } catch {
    return {};
  }
}

/** Remembers where records of a subject were put. */
export function notePut(subject: string, { key, name }: { key: string; name: string }): void {
  const last = { ...usePutting.getState().last, [subject]: { key, name } };
  localStorage.setItem(LAST, JSON.stringify(last));
  usePutting.setState({ last });
}

/** Asks which list all records of a tape go on. `count` is how many they are, null where that is not known. */
export function putTapeOnList(tape: Tape, count: number | null): void {
  const acted = { tape, sort: [], picks: NO_PICKS, one: false, count, gone: 0, total: count ?? 0 };
  usePutting.setState({ acted });
}

/** Asks which list one record goes on. */
export function putOneOnList(subject: string, key: string): void {
  usePutting.setState({ acted: actedOnOne(subject, key) });
}
