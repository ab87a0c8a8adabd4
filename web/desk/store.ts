import { create } from 'zustand';
import { columnFields } from '../../core/fields/registry.ts';
import { emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';

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
  company: string | null;
}

interface DeskState extends DeskAddress {
  past: readonly Tape[];
  future: readonly Tape[];
  /** Edits with the same tag in a row are undone as one. */
  lastTag: string | null;
  columns: readonly string[];
  widths: Readonly<Record<string, number>>;
  picks: Picks;
  /** Key of the row that the keyboard is on. */
  cursor: number;
  folded: boolean;
  /** Lines as one row each. */
  compact: boolean;
  change(tape: Tape, tag?: string): void;
  undo(): void;
  redo(): void;
  show(address: DeskAddress): void;
  set(part: Partial<Pick<DeskState, 'sort' | 'openLine' | 'company' | 'picks' | 'cursor' | 'folded'>>): void;
  setCompact(compact: boolean): void;
  setColumns(columns: readonly string[]): void;
  setWidths(widths: Readonly<Record<string, number>>): void;
}

const MOST_UNDONE = 200;
const DEFAULT_COLUMNS = ['name', 'industry', 'headcount', 'revenue', 'checked', 'web'];

function remembered<T>(key: string, fallback: T, right: (value: unknown) => value is T): T {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    return right(value) ? value : fallback;
  } catch {
    return fallback;
  }
}

const isColumns = (value: unknown): value is string[] =>
  Array.isArray(value) &&
  value.length > 0 &&
  value.every((id) => columnFields('companies').some((field) => field.id === id));
const isWidths = (value: unknown): value is Record<string, number> =>
  typeof value === 'object' &&
  value !== null &&
  Object.values(value).every((width) => typeof width === 'number');

export const useDesk = create<DeskState>((set) => ({
  tape: emptyTape(),
  sort: [],
  openLine: null,
  company: null,
  past: [],
  future: [],
  lastTag: null,
  columns: remembered('columns', DEFAULT_COLUMNS, isColumns),
  widths: remembered('widths', {}, isWidths),
  picks: NO_PICKS,
  cursor: 0,
  folded: false,
  compact: remembered('compact', false, (value): value is boolean => typeof value === 'boolean'),
  change: (tape, tag) =>
    set((state) => ({
      tape,
      past:
        tag !== undefined && tag === state.lastTag
          ? state.past
          : [...state.past, state.tape].slice(-MOST_UNDONE),
      future: [],
      lastTag: tag ?? null,
      cursor: 0,
      picks: state.picks.mode === 'all' ? NO_PICKS : state.picks,
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
        openLine: lineOf(before, state.openLine),
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
        openLine: lineOf(after, state.openLine),
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
  setColumns: (columns) => {
    localStorage.setItem('columns', JSON.stringify(columns));
    set({ columns });
  },
  setWidths: (widths) => {
    localStorage.setItem('widths', JSON.stringify(widths));
    set({ widths });
  },
}));

function lineOf(tape: Tape, open: string | null): string | null {
  return open !== null && tape.lines.some((line) => line.id === open) ? open : null;
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
