import { useMemo } from 'react';
import { create } from 'zustand';
import { record } from '../app/history.ts';
import { READY_SETS } from '../../core/fields/column-sets.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { lineOf } from '../../core/tape/edit.ts';
import { emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { endsWithOrder, NO_PICKS, type Picks } from './picks.ts';
import { canBeKept, isOfAnyTape, isOwnColumn, ownColumnOf } from '../../core/tape/own-columns.ts';

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
export type View = 'sheet' | 'breakdown' | 'map' | 'check';

/** What comes with an edit of the tape, taken back together with it. */
interface More {
  sort?: readonly SortKey[];
  columns?: readonly string[];
}

interface DeskState extends DeskAddress {
  /** Edits with the same tag in a row are one step, of the history and of the address. */
  lastTag: string | null;
  /** By subject. */
  columns: Readonly<Record<string, readonly string[]>>;
  widths: Readonly<Record<string, number>>;
  picks: Picks;
  /** The company from whose page the open record was opened. */
  cameFrom: string | null;
  /** Key of the row that the keyboard is on. */
  cursor: number;
  folded: boolean;
  /** What Breakdown compares with: everybody, or a saved tape by id. */
  against: string | null;
  /** How many columns stay in view when the sheet is moved sideways. */
  frozen: number;
  /** Lines as one row each. */
  compact: boolean;
  /** An edit, which the history keeps. */
  change(tape: Tape, tag?: string, more?: More): void;
  show(address: DeskAddress): void;
  /** Leaves the open record, for the company it was opened from if any. */
  leave(): void;
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
    value.every((id) => typeof id === 'string' && canBeKept(subject, id));
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
  cameFrom: null,
  cursor: 0,
  folded: false,
  against: null,
  frozen: remembered('frozen', 1, (value): value is number => typeof value === 'number'),
  compact: remembered('compact', false, (value): value is boolean => typeof value === 'boolean'),
  change: (tape, tag, { sort, columns } = {}) =>
    step('an edit of the tape', tag, () => {
      set((state) => ({
        ...sameSubject(state, tape),
        // An order by the count of a has-line goes with the line.
        ...(state.sort.some(({ by }) => isOwnColumn(by) && !ownColumnOf(tape, by))
          ? { sort: state.sort.filter(({ by }) => !isOwnColumn(by) || ownColumnOf(tape, by)) }
          : {}),
        ...(sort ? { sort } : {}),
        tape,
        lastTag: tag ?? null,
        cursor: 0,
        picks: endsWithTape(state.picks) || tape.subject !== state.tape.subject ? NO_PICKS : state.picks,
      }));
      if (columns) keepColumns(columns);
    }),
  show: (address) => {
    const same = JSON.stringify(useDesk.getState().tape) === JSON.stringify(address.tape);
    if (same) set((state) => ({ ...address, tape: state.tape }));
    else step('opening another tape', undefined, () => set({ ...address, cursor: 0, lastTag: null }));
  },
  leave: () => set(({ cameFrom }) => ({ company: cameFrom, cameFrom: null })),
  set: (wish) => {
    const { sort, company } = useDesk.getState();
    // A company's page is left for one of its records, and found again after it.
    const within =
      typeof wish.company === 'string' && wish.company.includes('/') && company?.includes('/') === false;
    const part = wish.company === undefined ? wish : { ...wish, cameFrom: within ? company : null };
    if (part.sort === undefined || JSON.stringify(part.sort) === JSON.stringify(sort)) return set(part);
    step('the order', undefined, () =>
      set((state) => ({ ...part, ...(endsWithOrder(state.picks) ? { picks: NO_PICKS } : {}) })),
    );
  },
  setCompact: (compact) => {
    localStorage.setItem('compact', JSON.stringify(compact));
    set({ compact });
  },
  setColumns: (columns) => step('the columns', undefined, () => keepColumns(columns)),
  setFrozen: (frozen) => step('the columns that stay', 'frozen', () => keepFrozen(frozen)),
  useUsual: (subject, columns) =>
    set((state) =>
      localStorage.getItem(columnsKey(subject)) === null && isColumns(subject)(columns)
        ? { columns: { ...state.columns, [subject]: columns } }
        : {},
    ),
  setWidths: (widths) => step('the widths of columns', 'widths', () => keepWidths(widths)),
}));

function keepColumns(wanted: readonly string[]): void {
  const columns = [...new Set(wanted)];
  const { tape, columns: all } = useDesk.getState();
  // Counts belong to a tape, so that they are not kept for the next.
  const own = columns.filter(isOfAnyTape);
  if (own.length) localStorage.setItem(columnsKey(tape.subject), JSON.stringify(own));
  useDesk.setState({ columns: { ...all, [tape.subject]: columns } });
}

function keepFrozen(frozen: number): void {
  localStorage.setItem('frozen', JSON.stringify(frozen));
  useDesk.setState({ frozen });
}

function keepWidths(widths: Readonly<Record<string, number>>): void {
  localStorage.setItem('widths', JSON.stringify(widths));
  useDesk.setState({ widths });
}

/** Does something that the history takes back by putting what it changed as it was before. */
function step(name: string, tag: string | undefined, act: () => void): void {
  const before = kept();
  act();
  const after = kept();
  record({
    name,
    quiet: true,
    ...(tag === undefined ? {} : { tag }),
    undo: () => restore(before),
    redo: () => restore(after),
  });
}

type Kept = Pick<DeskState, 'tape' | 'sort' | 'columns' | 'frozen' | 'widths'>;

function kept(): Kept {
  const { tape, sort, columns, frozen, widths } = useDesk.getState();
  return { tape, sort, columns, frozen, widths };
}

function restore({ tape, sort, columns, frozen, widths }: Kept): void {
  const now = useDesk.getState();
  const other = tape !== now.tape;
  useDesk.setState({
    tape,
    lastTag: null,
    ...(other ? { ...sameSubject(now, tape), cursor: 0, openLine: stillThere(tape, now.openLine) } : {}),
    sort,
    ...(other && endsWithTape(now.picks) ? { picks: NO_PICKS } : {}),
  });
  if (columns !== now.columns) {
    useDesk.setState({ columns });
    keepColumns(columns[tape.subject]!);
  }
  if (frozen !== now.frozen) keepFrozen(frozen);
  if (widths !== now.widths) keepWidths(widths);
}

/** Picks of all, and runs of an order, mean the tape they were made on. */
function endsWithTape(picks: Picks): boolean {
  return picks.mode === 'all' || endsWithOrder(picks);
}

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
