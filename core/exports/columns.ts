import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../cells.ts';
import type { Field } from '../fields/field.ts';
import { fieldOf } from '../fields/registry.ts';
import { COUNT_COLUMN } from '../tape/nodes.ts';
import { MEMBER_COLUMN, SCORE_COLUMN, WHY_COLUMN } from '../tape/own-columns.ts';
import { converted } from '../money/rates.ts';

/** One column of an exported file. A field may make several: a place is town, region and country. */
export interface ExportColumn {
  heading: string;
  kind: 'text' | 'number' | 'date';
  /** Width in characters, for sheets. */
  width: number;
  /** Digits after the decimal point that a sheet shows of numbers; none where left out. */
  digits?: number;
  /** Dates as ISO text; null is an empty cell. */
  value(row: Row): string | number | null;
}

/** The columns that some fields make in an export, money in the given currency. `headings` has those of the tape's own columns. */
export function exportColumns(
  subject: string,
  fields: readonly string[],
  currency: string,
  headings: Readonly<Record<string, string>> = {},
): ExportColumn[] {
  return fields.flatMap((id): ExportColumn[] => {
    if (headings[id] !== undefined)
      return [
        {
          heading: headings[id],
          kind: id.startsWith(WHY_COLUMN) || id.startsWith(MEMBER_COLUMN) ? 'text' : 'number',
          width: id.startsWith(WHY_COLUMN) ? 60 : id.startsWith(MEMBER_COLUMN) ? 24 : 14,
          ...(id.startsWith(SCORE_COLUMN) ? { digits: 2 } : id.startsWith(COUNT_COLUMN) ? {} : { digits: 1 }),
          value: (row) => countText(row.cells[id] ?? null),
        },
      ];
    const field = fieldOf(subject, id)!;
    const heading = field.column!.heading;
    const width = Math.round(field.column!.width / 8);
    const cell = <T>(row: Row) => row.cells[id] as T | null;
    switch (field.kind) {
      case 'place':
        return [
          { heading: 'Town', kind: 'text', width: 22, value: (row) => cell<PlaceCell>(row)?.town ?? null },
          {
            heading: 'Region',
            kind: 'text',
            width: 22,
            value: (row) => cell<PlaceCell>(row)?.region ?? null,
          },
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
            heading: 'All industry codes',
            kind: 'text',
            width: 30,
            value: (row) =>
              cell<CodeCell[]>(row)
                ?.map((code) => code.code)
                .join('; ') || null,
          },
        ];
      }
      case 'number':
        if (field.store.at === 'column')
          return [{ heading, kind: 'number', width, value: (row) => cell<number>(row) }];
        return [
          { heading, kind: 'number', width, value: (row) => quantity(cell(row), (value) => value) },
          {
            heading: `${heading} basis`,
            kind: 'text',
            width: 14,
            value: (row) => basis(row, id, (value) => value),
          },
        ];
      case 'money':
        return [
          {
            heading: `${heading}, ${currency}`,
            kind: 'number',
            width,
            value: (row) => moneyIn(cell(row), currency),
          },
          {
            heading: `${heading} year`,
            kind: 'number',
            width: 9,
            value: (row) => cell<MoneyCell>(row)?.year ?? null,
          },
          {
            heading: `${heading} basis`,
            kind: 'text',
            width: 14,
            value: (row) => basis(row, id, (amount) => inCurrency(cell(row), amount, currency)),
          },
        ];
      case 'growth':
        return [
          { heading: `${heading}, %`, kind: 'number', width, digits: 1, value: (row) => cell<number>(row) },
        ];
      case 'date':
        return [{ heading, kind: 'date', width, value: (row) => cell<string>(row) }];
      default:
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
  });
}

/** A value of a category by its label. */
export function labelOf(field: Field, value: string | null): string | null {
  return field.values?.find(({ key }) => key === value)?.label ?? value;
}

/** A count, or from how many to how many where some records are unknown to the lines. */
function countText(cell: Cell): number | string | null {
  if (cell === null || typeof cell === 'number' || typeof cell === 'string') return cell;
  const { low, high } = cell as QuantityCell;
  return `${low} to ${high}`;
}

function moneyIn(cell: MoneyCell | null, currency: string): string | number | null {
  return cell && quantity(cell, (amount) => inCurrency(cell, amount, currency));
}

function inCurrency(cell: MoneyCell | null, amount: number, currency: string): number | null {
  return cell && converted(amount, cell.currency, currency, cell.year);
}

/** The figure where there is one, else the band as text: 10-49, 250+. */
function quantity(
  cell: QuantityCell | null,
  scale: (value: number) => number | null,
): string | number | null {
  if (!cell) return null;
  const scaled = (value: number) => {
    const one = scale(value);
    return one === null ? null : Math.round(one * 100) / 100;
  };
  if (cell.amount !== null) return scaled(cell.amount);
  const low = scaled(cell.low ?? 0);
  if (low === null) return null;
  return cell.high === null ? `${low}+` : `${low}-${scaled(cell.high)}`;
}

/** How a figure is known, an estimate with its range in the figures beside it, or why it is not. */
function basis(row: Row, id: string, scale: (value: number) => number | null): string {
  const cell = row.cells[id] as QuantityCell | null;
  if (!cell) return `unknown: ${row.why?.[id] ?? 'not collected'}`;
  const { low, high } = cell;
  if (cell.basis !== 'estimate' || low === null || high === null || low === high) return cell.basis;
  const [from, to] = [scale(low), scale(high)].map((value) => value && Math.round(value * 100) / 100);
  return from === null || to === null ? cell.basis : `estimate (${from}-${to})`;
}
