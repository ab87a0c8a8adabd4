import type { Cell, CodeCell, MoneyCell, QuantityCell } from '../../core/cells.ts';
import { SCHEMES, type CodeTree, type Scheme } from '../../core/codes/tree.ts';
import { isoOf } from '../../core/dates.ts';
import type { Field } from '../../core/fields/field.ts';
import { hasBit } from '../../core/tally/bits.ts';
import {
  Basis,
  NO_DAY,
  REASONS,
  type CategoryColumn,
  type CodesColumn,
  type DateColumn,
  type RangeColumn,
  type Reason,
} from '../../core/tally/columns.ts';
import type { StoredColumn } from '../engine/opening/stored-universe.ts';

/** Cells of an export from the columns that counting has in memory, each the same as what is read from the tables. */
export interface StoredCells {
  cell(record: number): Cell;
  /** Why a figure is unknown. */
  why?(record: number): Reason;
}

/** How a field's cells come from its column; null where they are read from the tables. */
export function storedCells(
  field: Field,
  column: StoredColumn | undefined,
  trees: (scheme: Scheme) => CodeTree,
): StoredCells | null {
  const { kind, store, yearsSince } = field;
  if (!column) return null;
  if (kind === 'codes') return codes(column as Map<Scheme, CodesColumn>, trees);
  if (column instanceof Map) return null;
  if (store.at === 'range' && column.kind === 'range') return quantities(column);
  if (store.at !== 'column' || yearsSince || field.id === 'source') return null;
  switch (column.kind) {
    case 'date':
      return days(column);
    case 'category':
      return categories(column);
    case 'range':
      return { cell: (r) => (column.basis[r] === Basis.Unknown ? null : column.low[r]!) };
    default:
      return null;
  }
}

function days({ days: own }: DateColumn): StoredCells {
  return { cell: (r) => (own[r] === NO_DAY ? null : isoOf(own[r]!)) };
}

function categories({ dictionary, values }: CategoryColumn): StoredCells {
  return { cell: (r) => (values[r] === 0 ? null : dictionary[values[r]! - 1]!) };
}

const BASES = { [Basis.Reported]: 'reported', [Basis.Band]: 'band', [Basis.Estimate]: 'estimate' } as const;

function quantities(column: RangeColumn): StoredCells {
  const { low, rangeLow, rangeHigh, basis, why, year, currency, currencies } = column;
  const finite = (value: number) => (Number.isFinite(value) ? value : null);
  return {
    cell: (r) => {
      const how = basis[r] as Basis;
      if (how === Basis.Unknown) return null;
      const cell: QuantityCell = {
        basis: BASES[how],
        low: finite(rangeLow[r]!),
        high: finite(rangeHigh[r]!),
        amount: how === Basis.Band ? null : finite(low[r]!),
        year: year[r] || null,
      };
      return currency ? ({ ...cell, currency: currencies[currency[r]!]! } satisfies MoneyCell) : cell;
    },
    why: (r) => REASONS[why[r]!]!,
  };
}

/** Codes by rank, then by scheme, as the tables give them: those of a scheme stand in the order of their ranks, the main one at 0. */
function codes(columns: ReadonlyMap<Scheme, CodesColumn>, trees: (scheme: Scheme) => CodeTree): StoredCells {
  const schemes = (Object.keys(SCHEMES) as Scheme[])
    .filter((scheme) => columns.has(scheme))
    .sort()
    .map((scheme) => ({ scheme, tree: trees(scheme), column: columns.get(scheme)! }));
  return {
    cell: (r) => {
      const found: (CodeCell & { rank: number })[] = [];
      for (const { scheme, tree, column } of schemes) {
        const first = column.offsets[r]!;
        const main = hasBit(column.hasMain, r);
        for (let i = first; i < column.offsets[r + 1]!; i++) {
          const node = column.nodes[i]!;
          const rank = i - first + (main ? 0 : 1);
          found.push({ scheme, code: tree.codes[node]!, title: tree.titles[node]!, main: rank === 0, rank });
        }
      }
      if (found.length === 0) return null;
      // The sort is stable: those of one rank stay in the order of schemes.
      if (schemes.length > 1) found.sort((one, other) => one.rank - other.rank);
      return found.map(({ scheme, code, title, main }) => ({ scheme, code, title, main }));
    },
  };
}
