import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../cells.ts';
import type { Field } from '../fields/field.ts';
import { SCHEMES } from '../codes/tree.ts';
import { converted } from '../money/rates.ts';
import { codesText, usualScheme } from '../values/codes.ts';

/** One column of an exported file. A field may make several: a place is town, region and country. */
export interface ExportColumn {
  /** The field, or the column of the tape's own, that it is made of. */
  id: string;
  /** The heading that it has unless one is chosen, in English: what machines call it by. */
  plain: string;
  heading: string;
  kind: 'text' | 'number' | 'date';
  /** Width in characters, for sheets. */
  width: number;
  /** Digits after the decimal point that a sheet shows of numbers; none where left out. */
  digits?: number;
  /** The currency of amounts, or the percent sign. */
  unit?: string;
  /** Numbers that are years, which have no thousands. */
  year?: true;
  /** Dates as ISO text; null is an empty cell. */
  value(row: Row): string | number | null;
  /** Of numbers that may be bands or estimates: from how much to how much, an open end null; null where it is exact or unknown. */
  range?(row: Row): readonly [from: number | null, to: number | null] | null;
}

/** A column before it has its place and heading. */
export type Made = Omit<ExportColumn, 'id' | 'plain'>;

/** The columns of one field, money in a currency, or each amount in its own with that in a column beside it. */
export function fieldColumns(field: Field, currency: string, ownCurrency = false): Made[] {
  const { id } = field;
  const heading = field.column!.heading;
  const width = Math.round(field.column!.width / 8);
  const cell = <T>(row: Row) => (row.cells[id] ?? null) as T | null;
  switch (field.kind) {
    case 'place':
      return [
        { heading: 'Town', kind: 'text', width: 22, value: (row) => cell<PlaceCell>(row)?.town ?? null },
        { heading: 'Region', kind: 'text', width: 22, value: (row) => cell<PlaceCell>(row)?.region ?? null },
        {
          heading: 'Country',
          kind: 'text',
          width: 16,
          value: (row) => cell<PlaceCell>(row)?.countryName ?? null,
        },
      ];
    case 'codes': {
      const main = (row: Row) => cell<CodeCell[]>(row)?.find((code) => code.main);
      return [
        { heading: 'Main industry code', kind: 'text', width: 12, value: (row) => main(row)?.code ?? null },
        { heading: 'Main industry', kind: 'text', width: 44, value: (row) => main(row)?.title ?? null },
        {
          heading: 'Industry scheme',
          kind: 'text',
          width: 14,
          value: (row) => {
            const scheme = usualScheme(cell<CodeCell[]>(row) ?? []);
            return scheme && SCHEMES[scheme];
          },
        },
        {
          heading: 'All industry codes',
          kind: 'text',
          width: 30,
          value: (row) => codesText(cell<CodeCell[]>(row) ?? []) || null,
        },
      ];
    }
    case 'number':
      if (field.store.at === 'column')
        return [
          {
            heading,
            kind: 'number',
            width,
            ...(heading === 'Founded' ? { year: true as const } : {}),
            value: (row) => cell<number>(row),
          },
        ];
      return [
        {
          heading,
          kind: 'number',
          width,
          value: (row) => quantity(cell(row), (value) => value),
          range: (row) => rangeOf(cell(row), (value) => value),
        },
        {
          heading: `${heading} year`,
          kind: 'number',
          width: 9,
          year: true,
          value: (row) => cell<QuantityCell>(row)?.year ?? null,
        },
        {
          heading: `${heading} basis`,
          kind: 'text',
          width: 14,
          value: (row) => basis(row, id, (value) => value),
        },
      ];
    case 'money': {
      const scale = (row: Row) => (amount: number) =>
        ownCurrency ? amount : inCurrency(cell<MoneyCell>(row), amount, currency);
      return [
        {
          heading: ownCurrency ? heading : `${heading}, ${currency}`,
          kind: 'number',
          width,
          ...(ownCurrency ? {} : { unit: currency }),
          value: (row) => quantity(cell(row), scale(row)),
          range: (row) => rangeOf(cell(row), scale(row)),
        },
        ...(ownCurrency
          ? [
              {
                heading: `${heading} currency`,
                kind: 'text' as const,
                width: 9,
                value: (row: Row) => cell<MoneyCell>(row)?.currency ?? null,
              },
            ]
          : []),
        {
          heading: `${heading} year`,
          kind: 'number',
          width: 9,
          year: true,
          value: (row) => cell<MoneyCell>(row)?.year ?? null,
        },
        {
          heading: `${heading} basis`,
          kind: 'text',
          width: 14,
          value: (row) => basis(row, id, scale(row)),
        },
      ];
    }
    case 'growth':
      return [
        {
          heading: `${heading}, %`,
          kind: 'number',
          width,
          digits: 1,
          unit: '%',
          value: (row) => cell<number>(row),
        },
      ];
    case 'date':
      return [{ heading, kind: 'date', width, value: (row) => cell<string>(row) }];
    default:
      if (field.kind === 'label' && field.column!.numeric)
        return [{ heading, kind: 'number', width, digits: 5, value: (row) => cell<number>(row) }];
      return [
        {
          heading,
          kind: 'text',
          width,
          value: (row) => {
            const value = cell<string | string[]>(row);
            // Of a category known to be none is not the same as unknown.
            if (Array.isArray(value)) return value.join('; ') || (field.kind === 'category' ? 'none' : '');
            return labelOf(field, value) ?? null;
          },
        },
      ];
  }
}

/** A value of a category by its label. */
export function labelOf(field: Field, value: string | null): string | null {
  return field.values?.find(({ key }) => key === value)?.label ?? value;
}

function inCurrency(cell: MoneyCell | null, amount: number, currency: string): number | null {
  return cell && converted(amount, cell.currency, currency, cell.year);
}

/** To a hundredth, as every figure of an export is. */
function hundredth(value: number | null): number | null {
  return value === null ? null : Math.round(value * 100) / 100;
}

/** The figure where there is one, else the band as text: 10-49, 250+. */
function quantity(
  cell: QuantityCell | null,
  scale: (value: number) => number | null,
): string | number | null {
  if (!cell) return null;
  if (cell.amount !== null) return hundredth(scale(cell.amount));
  const low = hundredth(scale(cell.low ?? 0));
  if (low === null) return null;
  return cell.high === null ? `${low}+` : `${low}-${hundredth(scale(cell.high))}`;
}

/** The ends of a band or of an estimate's range; null where the figure is exact or there is none. */
export function rangeOf(
  cell: Cell,
  scale: (value: number) => number | null,
): readonly [from: number | null, to: number | null] | null {
  if (cell === null || typeof cell !== 'object' || !('basis' in cell)) return null;
  const { basis, low, high, amount } = cell;
  if (basis === 'reported' || (amount !== null && low === high)) return null;
  const scaled = (end: number | null) => (end === null ? null : hundredth(scale(end)));
  return [scaled(low), scaled(high)];
}

/** How a figure is known, an estimate with its range in the figures beside it, or why it is not. */
function basis(row: Row, id: string, scale: (value: number) => number | null): string {
  const cell = row.cells[id] as QuantityCell | null;
  if (!cell) return `unknown: ${row.why?.[id] ?? 'not collected'}`;
  const { low, high } = cell;
  if (cell.basis !== 'estimate' || low === null || high === null || low === high) return cell.basis;
  const [from, to] = [low, high].map((value) => hundredth(scale(value)));
  return from === null || to === null ? cell.basis : `estimate (${from}-${to})`;
}
