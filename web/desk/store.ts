import { useMemo } from 'react';
import { create } from 'zustand';
import { READY_SETS } from '../../core/fields/column-sets.ts';
import { columnFields, SUBJECTS } from '../../core/fields/registry.ts';
import { lineOf } from '../../core/tape/edit.ts';
import { emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { isOfAnyTape, isOwnColumn, ownColumnOf } from '../../core/tape/own-columns.ts';

/** Which rows are picked: some by key, or all of the tape but some. */
export type Picks =
  { mode: 'some'; keys: ReadonlySet<string> } | { mode: 'all'; except: ReadonlySet<string> };

export const NO_PICKS: Picks = { mode: 'some', keys: new Set() };

/** Everything of the Desk that an address says. */
export interface DeskAddress {
  tape: Tape;
  sort: readonly SortKey[];
  /** Id of the open line, or `new:<field>` for one that is not on the tape yet. */
  openLine: string | null;
  /** Key of the company that is open; of another record its subject and key, as "people/person-12". */
  company: string | null;
  view: View;
}

/** Ways to look at who is left. */
export type View = 'sheet' | 'breakdown' | 'map';

interface DeskState extends DeskAddress {
  past: readonly Tape[];
  future: readonly Tape[];
  /** Edits with the same tag in a row are undone as one. */
  lastTag: string | null;
  /** By subject. */
  columns: Readonly<Record<string, readonly string[]>>;
  widths: Readonly<Record<string, number>>;
  picks: Picks;
  /** Key of the row that the keyboard is on. */
  cursor: number;
  folded: boolean;
  /** What Breakdown compares with: everybody, or a saved tape by id. */
  against: string | null;
  /** How many columns stay in view when the sheet is moved sideways. */
  frozen: number;
  /** Lines as one row each. */
  compact: boolean;
  change(tape: Tape, tag?: string): void;
  undo(): void;
  redo(): void;
  show(address: DeskAddress): void;
  set(
    part: Partial<
      Pick<DeskState, 'sort' | 'openLine' | 'company' | 'view' | 'picks' | 'cursor' | 'folded' | 'against'>
    >,
  ): void;
  setCompact(compact: boolean): void;
  setColumns(columns: readonly string[]): void;
  setWidths(widths: Readonly<Record<string, number>>): void;
  setFrozen(frozen: number): void;
  /** Takes the workspace's usual columns of a subject where none were chosen by hand. */
  useUsual(subject: string, columns: readonly string[]): void;
}

const MOST_UNDONE = 200;
function remembered<T>(key: string, fallback: T, right: (value: unknown) => value is T): T {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    return right(value) ? value : fallback;
  } catch {
    return fallback;
  }
}

const isColumns =
  (subject: string) =>
  (value: unknown): value is readonly string[] =>
    Array.isArray(value) &&
    value.length > 0 &&
    value.every(
      (id) =>
        typeof id === 'string' &&
        (columnFields(subject).some((field) => field.id === id) || ownColumnOf(emptyTape(subject), id)),
    );
const columnsKey = (subject: string) => (subject === 'companies' ? 'columns' : `columns ${subject}`);
const isWidths = (value: unknown): value is Record<string, number> =>
  typeof value === 'object' &&
  value !== null &&
  Object.values(value).every((width) => typeof width === 'number');

export const useDesk = create<DeskState>((set) => ({
  tape: emptyTape(),
  sort: [],
  openLine: null,
  company: null,
  view: 'sheet',
  past: [],
  future: [],
  lastTag: null,
  columns: Object.fromEntries(
    [...SUBJECTS.keys()].map((subject) => [
      subject,
      remembered(
        columnsKey(subject),
        READY_SETS.find((set) => set.subject === subject)!.columns,
        isColumns(subject),
      ),
    ]),
  ),
  widths: remembered('widths', {}, isWidths),
  picks: NO_PICKS,
  cursor: 0,
  folded: false,
  against: null,
  frozen: remembered('frozen', 1, (value): value is number => typeof value === 'number'),
  compact: remembered('compact', false, (value): value is boolean => typeof value === 'boolean'),
  change: (tape, tag) =>
    set((state) => ({
      ...sameSubject(state, tape),
      // An order by the count of a has-line goes with the line.
      ...(state.sort.some(({ by }) => isOwnColumn(by) && !ownColumnOf(tape, by))
        ? { sort: state.sort.filter(({ by }) => !isOwnColumn(by) || ownColumnOf(tape, by)) }
        : {}),
      tape,
      past:
        tag !== undefined && tag === state.lastTag
          ? state.past
          : [...state.past, state.tape].slice(-MOST_UNDONE),
      future: [],
      lastTag: tag ?? null,
      cursor: 0,
      picks: state.picks.mode === 'all' || tape.subject !== state.tape.subject ? NO_PICKS : state.picks,
    })),
  undo: () =>
    set((state) => {
      const before = state.past.at(-1);
      if (!before) return {};
      return {
        tape: before,
        past: state.past.slice(0, -1),
        future: [state.tape, ...state.future],
        lastTag: null,
        openLine: stillThere(before, state.openLine),
        ...sameSubject(state, before),
        cursor: 0,
      };
    }),
  redo: () =>
    set((state) => {
      const [after, ...future] = state.future;
      if (!after) return {};
      return {
        tape: after,
        past: [...state.past, state.tape],
        future,
        lastTag: null,
        openLine: stillThere(after, state.openLine),
        ...sameSubject(state, after),
        cursor: 0,
      };
    }),
  show: (address) =>
    set((state) =>
      JSON.stringify(state.tape) === JSON.stringify(address.tape)
        ? { ...address, tape: state.tape }
        : {
            ...address,
            cursor: 0,
            lastTag: null,
            past: [...state.past, state.tape].slice(-MOST_UNDONE),
            future: [],
          },
    ),
  set: (part) => set(part),
  setCompact: (compact) => {
    localStorage.setItem('compact', JSON.stringify(compact));
    set({ compact });
  },
  setColumns: (columns) =>
    set((state) => {
      const { subject } = state.tape;
      // Counts belong to a tape, so that they are not kept for the next.
      const own = columns.filter(isOfAnyTape);
      if (own.length) localStorage.setItem(columnsKey(subject), JSON.stringify(own));
      return { columns: { ...state.columns, [subject]: columns } };
    }),
  setFrozen: (frozen) => {
    localStorage.setItem('frozen', JSON.stringify(frozen));
    set({ frozen });
  },
  useUsual: (subject, columns) =>
    set((state) =>
      localStorage.getItem(columnsKey(subject)) === null && isColumns(subject)(columns)
        ? { columns: { ...state.columns, [subject]: columns } }
        : {},
    ),
  setWidths: (widths) => {
    localStorage.setItem('widths', JSON.stringify(widths));
    set({ widths });
  },
}));

function stillThere(tape: Tape, open: string | null): string | null {
  return lineOf(tape, open) ? open : null;
}

/** What of the Desk belongs to the subject: an order by its columns, its rows and the record that is open. */
function sameSubject(state: DeskState, tape: Tape): Partial<DeskState> {
  if (tape.subject === state.tape.subject) return {};
  return { sort: [], picks: NO_PICKS, company: null, cursor: 0 };
}

/** The columns of the tape at hand; counts of has-lines that it does not have are left out. */
export function useColumns(): readonly string[] {
  const tape = useDesk((state) => state.tape);
  const columns = useDesk((state) => state.columns[tape.subject]!);
  return useMemo(() => columns.filter((id) => !isOwnColumn(id) || ownColumnOf(tape, id)), [columns, tape]);
}

export function isPicked(picks: Picks, key: string): boolean {
  return picks.mode === 'some' ? picks.keys.has(key) : !picks.except.has(key);
}

export function pickedCount(picks: Picks, total: number): number {
  return picks.mode === 'some' ? picks.keys.size : total - picks.except.size;
}

/** The picks with some keys picked or let go. */
export function withPicked(picks: Picks, keys: Iterable<string>, picked: boolean): Picks {
  const listed = new Set(picks.mode === 'some' ? picks.keys : picks.except);
  for (const key of keys) {
    if ((picks.mode === 'some') === picked) listed.add(key);
    else listed.delete(key);
  }
  return picks.mode === 'some' ? { mode: 'some', keys: listed } : { mode: 'all', except: listed };
}
