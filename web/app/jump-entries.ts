import { fold } from '../../core/text/fold.ts';

/** Something that the jump box can go to or do. */
export interface Entry<Act> {
  id: string;
  kind: Kind;
  name: string;
  /** Other names that it goes by. */
  also?: readonly string[];
  note?: string;
  count?: number;
  /** Only spelled like what was typed: it follows all else, and Enter alone never takes it. */
  alike?: boolean;
  act: Act;
  /** Puts it on a list instead. */
  list?: Act;
}

/** In the order in which exact names stand. */
export const KINDS = {
  command: 'Do',
  field: 'Conditions',
  line: 'As a line',
  list: 'Lists',
  tape: 'Saved tapes and parts',
  company: 'Companies',
  related: 'People, brands and deals',
} as const;
export type Kind = keyof typeof KINDS;

export interface Group<Act> {
  heading: string;
  entries: Entry<Act>[];
}

/** The order of groups below what is called just so. */
const BELOW: readonly Kind[] = ['company', 'related', 'line', 'field', 'list', 'tape', 'command'];

/**
 * What the jump box shows for a text: first what is called exactly that, then lists and tapes whose name begins so, then the
 * rest by kind, and at last what is only spelled alike.
 */
export function groupEntries<Act>(entries: readonly Entry<Act>[], text: string): Group<Act>[] {
  const wanted = fold(text.trim());
  const names = ({ name, also }: Entry<Act>) => [name, ...(also ?? [])].map(fold);
  const isExact = (entry: Entry<Act>) => !entry.alike && names(entry).some((name) => name === wanted);
  const begins = (entry: Entry<Act>) =>
    !entry.alike &&
    (entry.kind === 'tape' || entry.kind === 'list') &&
    names(entry).some((name) => name.startsWith(wanted));
  const left = new Set(entries);
  const take = (heading: string, which: (entry: Entry<Act>) => boolean): Group<Act> => {
    const taken = [...left].filter(which);
    for (const entry of taken) left.delete(entry);
    return { heading, entries: taken };
  };
  const exact = take('Called just that', isExact);
  const order = Object.keys(KINDS);
  exact.entries.sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
  return [
    exact,
    take('Lists and tapes', begins),
    ...BELOW.map((kind) => take(KINDS[kind], (entry) => entry.kind === kind && !entry.alike)),
    take('Spelled alike', () => true),
  ].filter((group) => group.entries.length > 0);
}
