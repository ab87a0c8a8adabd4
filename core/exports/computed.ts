import type { Cell, MoneyCell, Row } from '../cells.ts';
import { fieldOf } from '../fields/registry.ts';
import { converted } from '../money/rates.ts';
import { Problem } from '../tape/problem.ts';
import { fieldColumns, type Made } from './field-columns.ts';

/** How a computed column is made of two or more others. */
export const COMPUTED_WAYS = ['ratio', 'percent', 'difference', 'join'] as const;
export type ComputedWay = (typeof COMPUTED_WAYS)[number];

/** A column computed of others of the same record, named "made:" and a number among the columns. */
export interface Computed {
  id: string;
  heading: string;
  way: ComputedWay;
  /** Fields, or columns of a tape's own: two for figures, two or more for texts. */
  of: readonly string[];
  /** What stands between texts. */
  between?: string;
}

export const COMPUTED = 'made:';

/** Columns of a computed one that are read beside those of the file. */
export function readFor(columns: readonly string[], computed: readonly Computed[]): string[] {
  const needed = columns.flatMap((id) => computed.find((one) => one.id === id)?.of ?? [id]);
  return [...new Set(needed)];
}

/** Columns beyond those of fields that are figures. */
const OWN_FIGURES = /^(?:count|score|km|of|group|review:doubt|review:likeness):/;

/** Whether a column has figures that can be reckoned with. */
export function isFigure(subject: string, id: string): boolean {
  if (OWN_FIGURES.test(id)) return true;
  const field = fieldOf(subject, id);
  return field?.column != null && unitOf(subject, id, 'EUR') !== null;
}

/** The unit of a column's figures: a currency, "%", what is counted, or "" for plain numbers; null for texts. */
function unitOf(subject: string, id: string, currency: string): string | null {
  if (id === 'group:revenue') return 'EUR k';
  if (id.includes(':')) return OWN_FIGURES.test(id) ? '' : null;
  const field = fieldOf(subject, id);
  if (field?.kind === 'money') return currency;
  if (field?.kind === 'growth') return '%';
  if (field?.kind === 'number' || (field?.kind === 'keyed' && field.column?.key !== undefined))
    return field.unit ?? '';
  return null;
}

/** @throws Problem where the columns cannot be reckoned with so */
export function checkComputed({ id, heading, way, of }: Computed, subject: string): void {
  const refuse = (message: string, rule: string) =>
    new Problem('wrong-computed', `“${heading}” ${message}`, {
      field: 'computed',
      value: of.join(', '),
      rule,
    });
  if (!id.startsWith(COMPUTED))
    throw new Problem('wrong-computed', `A computed column cannot be called "${id}".`, {
      field: 'computed',
      value: id,
      rule: '"made:" and a number',
    });
  if (way === 'join') {
    if (of.length < 2) throw refuse('joins fewer than two columns.', 'two or more columns');
    return;
  }
  if (of.length !== 2) throw refuse(`is reckoned of ${of.length} columns.`, 'exactly two columns');
  const text = of.find((one) => !isFigure(subject, one));
  if (text !== undefined)
    throw refuse(`is reckoned of ${text}, which has no figures.`, 'columns with figures');
  const [one, other] = of.map((column) => unitOf(subject, column, 'EUR'));
  if (way !== 'ratio' && one !== other)
    throw refuse(
      `takes ${other || 'plain numbers'} from ${one || 'plain numbers'}.`,
      'two columns of the same unit; a ratio may be of two',
    );
}

/** The column and, where a part of it may be estimated, how it is known. Both parts unknown or a zero below the line is unknown. */
export function computedColumns(
  { heading, way, of, between = ', ' }: Computed,
  subject: string,
  currency: string,
  headings: Readonly<Record<string, string>>,
): Made[] {
  if (way === 'join') {
    const parts = of.map((id) => {
      const field = fieldOf(subject, id);
      return headings[id] === undefined && field
        ? fieldColumns(field, currency)[0]!
        : { value: (row: Row) => plainText(row.cells[id] ?? null) };
    });
    return [
      {
        heading,
        kind: 'text',
        width: 40,
        value: (row) =>
          parts
            .map((part) => part.value(row))
            .filter((value) => value !== null && value !== '')
            .join(between) || null,
      },
    ];
  }
  const [a, b] = of as readonly [string, string];
  const both = (row: Row) => [figure(row.cells[a] ?? null, currency), figure(row.cells[b] ?? null, currency)];
  const value = (row: Row) => {
    const [one, other] = both(row) as [Figure | null, Figure | null];
    if (!one || !other) return null;
    if (way === 'difference') return rounded(one.value - other.value);
    return other.value === 0 ? null : rounded((way === 'percent' ? 100 : 1) * (one.value / other.value));
  };
  const units = of.map((id) => unitOf(subject, id, currency));
  const unit = way === 'percent' ? '%' : way === 'difference' ? units[0]! : ratioUnit(units);
  const column: Made = {
    heading: unit === '' ? heading : `${heading}, ${unit}`,
    kind: 'number',
    width: 16,
    digits: 2,
    ...(unit === '' ? {} : { unit }),
    value,
  };
  const estimated = (row: Row) => {
    if (value(row) === null) return 'unknown';
    return both(row).some((one) => one?.estimated) ? 'estimate' : 'reported';
  };
  return of.some((id) => ['range', undefined].includes(fieldOf(subject, id)?.store.at)) && !headings[a]
    ? [column, { heading: `${heading} basis`, kind: 'text', width: 14, value: estimated }]
    : [column];
}

/** "EUR per staff"; nothing where both are the same. */
function ratioUnit([one, other]: readonly (string | null)[]): string {
  if (one === other) return '';
  return other ? `${one || 'number'} per ${other}` : (one ?? '');
}

interface Figure {
  value: number;
  estimated: boolean;
}

/** The single figure of a cell in a currency; null where it is unknown or a band. */
function figure(cell: Cell, currency: string): Figure | null {
  if (typeof cell === 'number') return { value: cell, estimated: false };
  if (cell === null || typeof cell !== 'object' || !('basis' in cell)) return null;
  const { amount, basis } = cell;
  if (amount === null) return null;
  const { currency: own, year } = cell as MoneyCell;
  const value = own === undefined ? amount : converted(amount, own, currency, year);
  return value === null ? null : { value, estimated: basis === 'estimate' };
}

function plainText(cell: Cell): string | number | null {
  return typeof cell === 'string' || typeof cell === 'number' || cell === null ? cell : null;
}

function rounded(value: number): number {
  return Math.round(value * 100) / 100;
}
