import { stringify } from 'csv-stringify/sync';
import { createWriteStream, mkdirSync, rmSync, type WriteStream } from 'node:fs';
import { dirname, join } from 'node:path';
import { safeText } from '../../core/exports/safe-text.ts';
import type { CellProblem } from '../../core/records/column-reader.ts';

/** A row that a load refused, as it came, with what is wrong with it. */
export interface RefusedRow {
  /** Its number in the file, from 1. */
  row: number;
  cells: string[];
  problems: CellProblem[];
}

/** Where the refused rows of a load are kept as CSV. */
export function refusalsPath(dir: string, job: string): string {
  return join(dir, 'refusals', `${job}.csv`);
}

const MOST_SHOWN = 100;

/**
 * The refused rows of a load, written to a file in the form they came in, with two columns more: their row in the file
 * and why. Mended, it can be loaded as it is.
 */
export class Refusals {
  /** The first cells that were refused. */
  readonly shown: (CellProblem & { row: number })[] = [];
  cells = 0;
  private readonly path: string;
  private readonly file: WriteStream;
  private readonly width: number;
  private readonly delimiter: string;

  constructor(dir: string, job: string, header: readonly string[], delimiter: string) {
    this.path = refusalsPath(dir, job);
    this.width = header.length;
    this.delimiter = delimiter;
    mkdirSync(dirname(this.path), { recursive: true });
    this.file = createWriteStream(this.path);
    this.file.write('\ufeff');
    this.write([...header, 'row', 'why']);
  }

  add({ row, cells, problems }: RefusedRow): void {
    this.cells += problems.length;
    for (const problem of problems) if (this.shown.length < MOST_SHOWN) this.shown.push({ row, ...problem });
    const why = problems.map(
      ({ column, value, rule }) => `${column}: ${value === '' ? 'empty' : `“${value}”`}, expected ${rule}`,
    );
    this.write([
      ...Array.from({ length: Math.max(this.width, cells.length) }, (_, i) => safeText(cells[i] ?? '')),
      String(row),
      why.join('; '),
    ]);
  }

  /** Ends the file; without any refused row there is none. */
  async end(): Promise<void> {
    await new Promise<void>((resolve) => this.file.end(resolve));
    if (this.cells === 0) rmSync(this.path);
  }

  /** Leaves the file as it is, after something went wrong. */
  abandon(): void {
    this.file.destroy();
  }

  private write(cells: readonly string[]): void {
    this.file.write(stringify([cells], { delimiter: this.delimiter }));
  }
}
