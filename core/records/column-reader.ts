import { CellError } from '../values/cell.ts';
import { saysNothing } from '../values/empty.ts';
import type { ColumnStyle } from './column-styles.ts';
import type { Mapping } from './mapping.ts';

/** One cell that could not be read. */
export interface CellProblem {
  /** Heading of the column, or a word for the whole row. */
  column: string;
  value: string;
  rule: string;
}

/** Is told of every cell how it was read; `at` is the place of its column in the file. */
export interface CellWatcher {
  understood(at: number, value: unknown): void;
  /** The cell is empty, or holds a word for that. */
  empty(at: number, cell: string): void;
  not(at: number, cell: string, rule: string): void;
  /** A cell that was told as understood cannot be used after all. */
  unused(at: number, cell: string, rule: string): void;
}

const LONGEST_CELL = 32_767;
/** Characters of a cell that are shown. */
export const LONGEST_SHOWN = 200;

/** Columns whose rows mean nothing where they are not understood: whom a row is about. */
const WHO: ReadonlySet<string> = new Set([
  'name',
  'registration',
  'company-number',
  'company-domain',
  'company-name',
]);
/** Columns of names, which words for "nothing" may also be. */
const NAMES: ReadonlySet<string> = new Set([
  'name',
  'company-name',
  'group',
  'first-name',
  'last-name',
  'town',
]);

/** A text that was written as a formula, so that programs for sheets leave it as it is: ="0012" is 0012. */
function asText(cell: string): string {
  return cell.charCodeAt(0) === EQUALS ? (/^="(.*)"$/s.exec(cell)?.[1]?.replaceAll('""', '"') ?? cell) : cell;
}

const EQUALS = 61;

/** What was answered of a cell; cells are answered as they are shown. */
function answered(answers: Readonly<Record<string, string | null>>, came: string): string | null | undefined {
  const shown = came.length > LONGEST_SHOWN ? came.slice(0, LONGEST_SHOWN) : came;
  return Object.hasOwn(answers, shown) ? answers[shown] : undefined;
}

/** Reads the cells of one row after the other by column, and notes what cannot be read. */
export class ColumnReader {
  private readonly header: readonly string[];
  private readonly mapping: Mapping;
  private readonly labels: ReadonlyMap<string, string>;
  private readonly watcher: CellWatcher | null;
  private cells: readonly string[] = [];
  /** What refuses the row. */
  problems: CellProblem[] = [];
  /** What was not understood and is left empty. */
  left: CellProblem[] = [];

  /** `labels` names the ids of columns to people. */
  constructor(
    header: readonly string[],
    mapping: Mapping,
    labels: ReadonlyMap<string, string>,
    watcher: CellWatcher | null = null,
  ) {
    this.header = header;
    this.mapping = mapping;
    this.labels = labels;
    this.watcher = watcher;
  }

  begin(cells: readonly string[]): void {
    this.cells = cells;
    this.problems = [];
    this.left = [];
  }

  /** Whether the file has any of some columns. */
  hasAny(...ids: string[]): boolean {
    return ids.some((id) => this.mapping.columns.includes(id));
  }

  /** How the column read as `id` is written. */
  style(id: string): ColumnStyle & Pick<Mapping, 'decimal' | 'dates'> {
    const at = this.mapping.columns.indexOf(id);
    const { decimal, dates, styles } = this.mapping;
    return { decimal, dates, ...(at < 0 ? {} : styles?.[at]) };
  }

  /** A reader of one column; null for empty cells and those that could not be read. */
  column<T>(id: string, reader: (cell: string) => T): () => T | null {
    const at = this.mapping.columns.indexOf(id);
    if (at < 0) return () => null;
    const answers = this.mapping.answers?.[at];
    const isName = NAMES.has(id);
    return () => {
      const came = this.cells[at]?.trim() ?? '';
      const answer = answers ? answered(answers, came) : undefined;
      const cell = answer ?? asText(came);
      if (answer === null) {
        this.refuse(at, came, 'another value; this one is refused');
        return null;
      }
      if (cell === '' || (answer === undefined && saysNothing(cell, isName))) {
        this.watcher?.empty(at, came);
        return null;
      }
      try {
        if (cell.length > LONGEST_CELL) throw new CellError(`at most ${LONGEST_CELL} characters`);
        if (cell.includes('\0')) throw new CellError('text without zero bytes');
        const value = reader(cell);
        this.watcher?.understood(at, value);
        return value;
      } catch (error) {
        if (!(error instanceof CellError)) throw error;
        if (this.mapping.unreadable === 'empty' && !WHO.has(id)) this.leave(at, came, error.rule);
        else this.refuse(at, came, error.rule);
        return null;
      }
    };
  }

  plain(id: string): () => string | null {
    return this.column(id, (cell) => cell);
  }

  /** Notes of a cell that was read that it cannot be used, and why. */
  leaveUnused(id: string, rule: string): void {
    const at = this.mapping.columns.indexOf(id);
    if (at < 0) return;
    const cell = this.cells[at]?.trim() ?? '';
    this.watcher?.unused(at, cell, rule);
    this.left.push(this.problem(at, cell, rule));
  }

  private leave(at: number, cell: string, rule: string): void {
    this.watcher?.not(at, cell, rule);
    this.left.push(this.problem(at, cell, rule));
  }

  private refuse(at: number, cell: string, rule: string): void {
    this.watcher?.not(at, cell, rule);
    this.problems.push(this.problem(at, cell, rule));
  }

  private problem(at: number, cell: string, rule: string): CellProblem {
    const column = this.header[at] || this.labels.get(this.mapping.columns[at]!)!;
    return { column, value: cell.slice(0, LONGEST_SHOWN), rule };
  }
}
