import type { Scheme } from '../codes/tree.ts';
import type { Reason } from '../tally/columns.ts';

/** A number as a source gives it: exact (low = point = high), a band without a point, or an estimate with its range. */
export interface Quantity {
  basis: 'reported' | 'band' | 'estimate';
  /** -Infinity or Infinity where a band is open. */
  low: number;
  high: number;
  point: number | null;
}

export interface Money extends Quantity {
  /** ISO 4217. */
  currency: string;
  year: number;
}

/** What one row of a source says of a company. Null is unknown. */
export interface CompanyRecord {
  name: string;
  legalForm: string | null;
  registration: string | null;
  status: 'active' | 'dormant' | 'closed' | null;
  country: string | null;
  region: string | null;
  town: string | null;
  postcode: string | null;
  street: string | null;
  lat: number | null;
  lon: number | null;
  phone: string | null;
  mail: string | null;
  web: string | null;
  description: string | null;
  founded: number | null;
  /** The main code of each scheme first, if the source says which is main. */
  codes: { scheme: Scheme; code: string; main: boolean }[];
  headcount: Quantity | null;
  headcountYear: number | null;
  headcountWhy: Reason | null;
  revenue: Money | null;
  revenueWhy: Reason | null;
  /** Names of products; empty where none was seen or nothing surveyed. */
  technologies: string[];
  /** Day of the survey of the site; null where it never was. */
  surveyedOn: number | null;
  checkedOn: number | null;
  checkedHow: 'phone' | 'register' | 'web' | null;
}

/**
 * The key under which records of one company meet: country and registration number, without
 * spaces and punctuation. Null where either is not known; names are not keys.
 */
export function registrationKey(record: Pick<CompanyRecord, 'country' | 'registration'>): string | null {
  const number = record.registration?.toUpperCase().replace(/[^A-Z0-9]/g, '');
  return record.country && number ? `${record.country}-${number}` : null;
}
