import type { Scheme } from './codes/tree.ts';
import type { Reason } from './tally/columns.ts';

/** The cells of a row as the API gives them. A null cell is unknown; `why` of the row says so where known. */

export interface QuantityCell {
  basis: 'reported' | 'band' | 'estimate';
  /** Null where a band is open on that side. */
  low: number | null;
  high: number | null;
  /** The figure, or an estimate's point; null for a band. */
  amount: number | null;
  year: number | null;
}

export interface MoneyCell extends QuantityCell {
  currency: string;
}

export interface PlaceCell {
  town: string | null;
  region: string | null;
  /** ISO code, and the name in English. */
  country: string | null;
  countryName: string | null;
  /** Key that a tape names the town by. */
  townKey: string | null;
  lat: number | null;
  lon: number | null;
}

export interface CodeCell {
  scheme: Scheme;
  code: string;
  title: string;
  main: boolean;
}

export type Cell = string | number | QuantityCell | MoneyCell | PlaceCell | CodeCell[] | string[] | null;

export interface Row {
  key: string;
  /** Key of the one company that the record hangs on, where it hangs on one. */
  company?: string;
  cells: Record<string, Cell>;
  /** Why headcount or revenue is unknown, by field. */
  why?: Record<string, Reason>;
}
