import { CellError } from './cells.ts';

/** One cell that could not be read. */
export interface CellProblem {
  /** Heading of the column, or a word for the whole row. */
  column: string;
  value: string;
  rule: string;
}

const LONGEST_CELL = 32_767;

/** Reads the cells of one row after the other by column, and notes what cannot be read. */
export class ColumnReader {
  private readonly header: readonly string[];
  private readonly columns: readonly (string | null)[];
  private readonly labels: ReadonlyMap<string, string>;
  private cells: readonly string[] = [];
  problems: CellProblem[] = [];

  /** `columns` has for each column of the file the id that it is read as; `labels` names the ids to people. */
  constructor(
    header: readonly string[],
    columns: readonly (string | null)[],
    labels: ReadonlyMap<string, string>,
  ) {
    this.header = header;
    this.columns = columns;
    this.labels = labels;
  }

  begin(cells: readonly string[]): void {
    this.cells = cells;
    this.problems = [];
  }

  private text(at: number): string | null {
    const cell = at < 0 ? undefined : this.cells[at]?.trim();
    return cell === undefined || cell === '' ? null : cell;
  }

  /** A reader of one column; null for empty cells and those that could not be read. */
  column<T>(id: string, reader: (cell: string) => T): () => T | null {
    const at = this.columns.indexOf(id);
    return () => {
      const cell = this.text(at);
      if (cell === null) return null;
      try {
        if (cell.length > LONGEST_CELL) throw new CellError(`at most ${LONGEST_CELL} characters`);
        if (cell.includes('\0')) throw new CellError('text without zero bytes');
        return reader(cell);
      } catch (error) {
        if (!(error instanceof CellError)) throw error;
        this.problems.push({
          column: this.header[at] || this.labels.get(id)!,
          value: cell.slice(0, 200),
          rule: error.rule,
        });
        return null;
      }
    };
  }

  plain(id: string): () => string | null {
    return this.column(id, (cell) => cell);
  }
}
