import { hashOf } from '../text/hash.ts';

/** What of an export changed since an earlier one of the same. */

/** A print of a cell, by which it is told from what it was: 32 bits, so one change in four thousand million goes unseen. */
export function printOf(value: string | number | null): number {
  if (value === null) return 0;
  return typeof value === 'number' ? hashOf(`#${value}`) : hashOf(`"${value}`);
}

export interface Earlier {
  keys: readonly string[];
  columns: readonly string[];
  /** Of each cell, row by row. */
  prints: Uint32Array;
}

/** What became of a row since: new, or which of its columns have changed. */
export type Since = { fresh: true } | { fresh: false; changed: number[] };

/** Compares rows of an export with an earlier one. Columns that the earlier one did not have are no change. */
export class Comparison {
  private readonly earlier: Earlier;
  private readonly rowOf: ReadonlyMap<string, number>;
  private readonly columnOf: readonly number[];
  private readonly met: Uint8Array;

  constructor(earlier: Earlier, columns: readonly string[]) {
    this.earlier = earlier;
    this.rowOf = new Map(earlier.keys.map((key, row) => [key, row]));
    this.columnOf = columns.map((name) => earlier.columns.indexOf(name));
    this.met = new Uint8Array(earlier.keys.length);
  }

  /** @param prints those of the row's cells, from `at` on */
  row(key: string, prints: Uint32Array, at: number): Since {
    const row = this.rowOf.get(key);
    if (row === undefined) return { fresh: true };
    this.met[row] = 1;
    const { columns, prints: before } = this.earlier;
    const changed: number[] = [];
    this.columnOf.forEach((column, i) => {
      if (column >= 0 && before[row * columns.length + column] !== prints[at + i]) changed.push(i);
    });
    return { fresh: false, changed };
  }

  /** Keys of rows that were there and were not met. */
  gone(): string[] {
    return this.earlier.keys.filter((_, row) => this.met[row] === 0);
  }
}
