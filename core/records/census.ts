import { isoOf } from '../dates.ts';
import { DATE_COLUMNS } from './column-styles.ts';
import { LONGEST_SHOWN, type CellWatcher } from './column-reader.ts';
import type { Quantity } from './record.ts';

/** What a whole file comes to before any of it is loaded, column by column. */

/** A cell that was not understood: how often it stands in its column, and what a right one looks like. */
export interface NotUnderstood {
  value: string;
  count: number;
  rule: string;
}

export interface ColumnReading {
  understood: number;
  /** Cells that are blank or hold a word for that. */
  empty: number;
  /** The words that stand for an empty cell, with how often they do. */
  emptyWords: { word: string; count: number }[];
  notUnderstood: number;
  /** Different cells that were not understood, the most frequent first; at most `MOST_VALUES`. */
  values: NotUnderstood[];
  /** Different ones beyond those. */
  more: number;
}

const MOST_VALUES = 200;
/** Different cells that are told apart in a column. */
const MOST_TOLD_APART = 20_000;
const MOST_WORDS = 20;

class ColumnCensus {
  understood = 0;
  empty = 0;
  private readonly words = new Map<string, number>();
  private notUnderstood = 0;
  private readonly values = new Map<string, NotUnderstood>();

  addEmpty(cell: string): void {
    this.empty++;
    if (cell !== '' && (this.words.has(cell) || this.words.size < MOST_TOLD_APART))
      this.words.set(cell, (this.words.get(cell) ?? 0) + 1);
  }

  addNot(cell: string, rule: string): void {
    this.notUnderstood++;
    const value = cell.slice(0, LONGEST_SHOWN);
    const known = this.values.get(value);
    if (known) known.count++;
    else if (this.values.size < MOST_TOLD_APART) this.values.set(value, { value, count: 1, rule });
  }

  reading(): ColumnReading {
    const byCount = (a: { count: number }, b: { count: number }) => b.count - a.count;
    const values = [...this.values.values()].sort(byCount);
    return {
      understood: this.understood,
      empty: this.empty,
      emptyWords: [...this.words]
        .map(([word, count]) => ({ word, count }))
        .sort(byCount)
        .slice(0, MOST_WORDS),
      notUnderstood: this.notUnderstood,
      values: values.slice(0, MOST_VALUES),
      more: Math.max(0, values.length - MOST_VALUES),
    };
  }
}

/** Rows of which is kept how they were understood. */
const SHOWN_ROWS = 12;

/** Counts how the cells of a file are read; to be handed to the reader of its rows. */
export class Census implements CellWatcher {
  private readonly ids: readonly (string | null)[];
  private readonly columns: ColumnCensus[];
  private readonly texts: string[][] = [];

  /** @param ids what each column of the file is read as, or null */
  constructor(ids: readonly (string | null)[]) {
    this.ids = ids;
    this.columns = ids.map(() => new ColumnCensus());
  }

  /** How many of the first rows are kept. */
  readonly shown = SHOWN_ROWS;

  /** To be told before each row is read. */
  begin(row: number): void {
    this.row = row < SHOWN_ROWS ? (this.texts[row] = new Array<string>(this.columns.length).fill('')) : null;
  }
  private row: string[] | null = null;

  understood(at: number, value: unknown): void {
    this.columns[at]!.understood++;
    if (this.row)
      this.row[at] = DATE_COLUMNS.has(this.ids[at] ?? '') ? isoOf(value as number) : understoodText(value);
  }

  empty(at: number, cell: string): void {
    this.columns[at]!.addEmpty(cell);
  }

  not(at: number, cell: string, rule: string): void {
    this.columns[at]!.addNot(cell, rule);
    if (this.row) this.row[at] = '';
  }

  unused(at: number, cell: string, rule: string): void {
    this.columns[at]!.understood--;
    this.not(at, cell, rule);
  }

  get readings(): ColumnReading[] {
    return this.columns.map((column) => column.reading());
  }

  /** The first rows as they were understood; a cell that was not is empty. */
  get understoodRows(): string[][] {
    return this.texts;
  }
}

/** What a cell was understood as, for people. */
function understoodText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  // A list of pairs, such as a figure by word, is one list and not several.
  if (Array.isArray(value))
    return value.length
      ? value
          .map((one) => (Array.isArray(one) ? one.map(understoodText).join(' ') : understoodText(one)))
          .join('; ')
      : 'none';
  if (typeof value !== 'object') return `${value as string | number}`;
  if ('quantity' in value) {
    const { quantity, currency } = value as { quantity: Quantity; currency: string | null };
    return [quantityText(quantity), currency].filter(Boolean).join(' ');
  }
  if ('basis' in value && 'low' in value) return quantityText(value as Quantity);
  if ('scheme' in value && 'code' in value) return (value as { code: string }).code;
  if ('label' in value) return (value as { label: string }).label;
  return Object.values(value as Record<string, unknown>)
    .filter((part) => part !== null)
    .map(understoodText)
    .join(' ');
}

function quantityText({ basis, low, high, point }: Quantity): string {
  const figure = (value: number) => value.toLocaleString('en-GB', { maximumFractionDigits: 2 });
  if (basis === 'reported') return figure(point!);
  const range =
    high === Infinity
      ? `${figure(low)}+`
      : low === -Infinity
        ? `up to ${figure(high)}`
        : `${figure(low)}-${figure(high)}`;
  if (basis === 'band') return range;
  return low === high ? `≈${figure(point!)}` : `≈${figure(point!)} (${range})`;
}
