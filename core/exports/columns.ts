import type { Cell, QuantityCell } from '../cells.ts';
import { fieldOf } from '../fields/registry.ts';
import { COUNT_COLUMN } from '../tape/nodes.ts';
import {
  CARRIED_COLUMN,
  MEMBER_COLUMN,
  REVIEW_COLUMN,
  SCORE_COLUMN,
  WHY_COLUMN,
} from '../tape/own-columns.ts';
import { fieldColumns, rangeOf, type ExportColumn, type Made } from './field-columns.ts';
import { computedColumns, type Computed } from './computed.ts';
import { inLanguage, type HeadingLanguage } from './headings/languages.ts';

/** What is chosen of the columns of a file beside which they are. */
export interface FileChoices {
  /** Headings of one's own, by column. */
  custom?: Readonly<Record<string, string>>;
  language?: HeadingLanguage;
  /** Columns computed of others, by the name they have among the columns. */
  computed?: readonly Computed[];
  /** Whether each amount stays in its own currency. Those computed of others are in the given one. */
  ownCurrency?: boolean;
}

/**
 * The columns that some fields make in an export, money in the given currency. `headings` has those of the tape's own columns.
 */
export function exportColumns(
  subject: string,
  fields: readonly string[],
  currency: string,
  headings: Readonly<Record<string, string>> = {},
  { custom = {}, language = 'en', computed = [], ownCurrency = false }: FileChoices = {},
): ExportColumn[] {
  return fields.flatMap((id): ExportColumn[] => {
    const making = computed.find((one) => one.id === id);
    const made: Made[] = making
      ? computedColumns(making, subject, currency, headings)
      : headings[id] === undefined
        ? fieldColumns(fieldOf(subject, id)!, currency, ownCurrency)
        : [ownColumn(id, headings[id])];
    const usual = made[0]!.heading;
    return made.map((column) => ({
      ...column,
      id,
      plain: column.heading,
      heading:
        custom[id] === undefined || custom[id] === ''
          ? inLanguage(column.heading, language)
          : column.heading === usual
            ? custom[id]
            : `${custom[id]}: ${inLanguage(restOf(column.heading, usual), language)}`,
    }));
  });
}

/** What a further column of a field says beyond the first: "year" of "Revenue year", "Region" beside "Town". */
function restOf(heading: string, usual: string): string {
  const stem = usual.replace(/, [A-Z%]{1,3}$/, '');
  return heading.startsWith(`${stem} `) ? heading.slice(stem.length + 1) : heading;
}

function ownColumn(id: string, heading: string): Made {
  const isReason = id.startsWith(WHY_COLUMN) || id.startsWith(`${REVIEW_COLUMN}doubts`);
  const inWords = isReason || id.startsWith(MEMBER_COLUMN) || id.startsWith(CARRIED_COLUMN);
  const isWhole = id.startsWith(COUNT_COLUMN) || id.startsWith(REVIEW_COLUMN);
  return {
    heading,
    kind: inWords ? 'text' : 'number',
    width: isReason ? 60 : inWords ? 24 : 14,
    ...(inWords || isWhole ? {} : { digits: id.startsWith(SCORE_COLUMN) ? 2 : 1 }),
    value: (row) => countText(row.cells[id] ?? null),
    ...(inWords ? {} : { range: (row) => rangeOf(row.cells[id] ?? null, (value) => value) }),
  };
}

/** A count, or from how many to how many where some records are unknown to the lines. */
function countText(cell: Cell): number | string | null {
  if (cell === null || typeof cell === 'number' || typeof cell === 'string') return cell;
  const { low, high } = cell as QuantityCell;
  return `${low} to ${high}`;
}
