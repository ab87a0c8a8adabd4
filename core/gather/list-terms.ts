import type { Cell, CodeCell, PlaceCell } from '../cells.ts';
import { fieldOf } from '../fields/registry.ts';

/** What of the members of a list can be words or places of a search. */
export interface TermColumn {
  key: string;
  label: string;
  /** Column of the sheet that is asked for. */
  column: string;
  termOf(cell: Cell): string | null;
}

const text = (cell: Cell) => (typeof cell === 'string' && cell.trim() !== '' ? cell : null);
const place = (part: 'town' | 'region' | 'countryName') => (cell: Cell) =>
  (cell as PlaceCell | null)?.[part] ?? null;
const mainCode = (cell: Cell) => (cell as CodeCell[] | null)?.find(({ main }) => main)?.title ?? null;

const COLUMNS: readonly TermColumn[] = [
  { key: 'name', label: 'Name', column: 'name', termOf: text },
  { key: 'town', label: 'Town', column: 'place', termOf: place('town') },
  { key: 'region', label: 'Region', column: 'place', termOf: place('region') },
  { key: 'country', label: 'Country', column: 'place', termOf: place('countryName') },
  { key: 'postcode', label: 'Postcode', column: 'postcode', termOf: text },
  { key: 'industry', label: 'Main industry', column: 'industry', termOf: mainCode },
  { key: 'group', label: 'Group', column: 'group', termOf: text },
  { key: 'title', label: 'Title', column: 'title', termOf: text },
  { key: 'company', label: 'Company', column: 'company', termOf: text },
  { key: 'category', label: 'Category', column: 'category', termOf: text },
];

/** The columns of a subject's records that can be words or places. */
export function termColumns(subject: string): readonly TermColumn[] {
  return COLUMNS.filter(({ column }) => fieldOf(subject, column)?.column);
}

/** What the cells of a column say, each once and in their order; unknown ones are left out. */
export function termsOf(cells: readonly Cell[], { termOf }: Pick<TermColumn, 'termOf'>): string[] {
  return [...new Set(cells.flatMap((cell) => termOf(cell) ?? []))];
}
