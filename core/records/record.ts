import type { Scheme } from '../codes/tree.ts';
import { plainRegistration } from '../values/identifiers.ts';
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

/** A figure of one calendar year. Money is in the currency of the record's revenue. */
export interface HistoryPoint {
  year: number;
  value: number;
  estimate: boolean;
}

/** A product seen by a survey, with the days on which it was first and last seen. */
export interface SeenTechnology {
  label: string;
  first: number | null;
  last: number | null;
}

/** Staff of one department now, one year ago and three years ago; null where that is not known. */
export interface DepartmentStaff {
  key: string;
  now: number;
  before1: number | null;
  before3: number | null;
}

/** How a website answered. */
export const SITE_STATES = ['works', 'moved', 'parked', 'dead'] as const;
export type SiteState = (typeof SITE_STATES)[number];

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
  profit: Money | null;
  profitWhy: Reason | null;
  assets: Money | null;
  assetsWhy: Reason | null;
  /** By calendar year, ascending; empty where nothing is known. */
  headcountHistory: HistoryPoint[];
  revenueHistory: HistoryPoint[];
  /** Revenue of each month from `start` (such as "2024-01") on, in the currency of the revenue. */
  revenueMonths: { start: string; values: number[] } | null;
  /** Null where the split is not known; departments left out have nobody. */
  departments: DepartmentStaff[] | null;
  ownership: 'independent' | 'subsidiary' | 'top' | null;
  /** Name of the top company of its group. */
  group: string | null;
  listing: 'listed' | 'private' | 'public-body' | null;
  ticker: string | null;
  certificates: string[] | null;
  dwelling: boolean | null;
  followers: number | null;
  siteAnswers: boolean | null;
  siteState: SiteState | null;
  /** The host that a site that moved leads to. */
  siteMovedTo: string | null;
  siteCheckedOn: number | null;
  /** Empty where none was seen or nothing surveyed. */
  technologies: SeenTechnology[];
  /** What the site offers; empty where nothing was found or nothing surveyed. */
  offers: string[];
  /** Day of the survey of the site; null where it never was. */
  surveyedOn: number | null;
  checkedOn: number | null;
  checkedHow: 'phone' | 'register' | 'web' | null;
}

/**
 * The key under which records of one company meet: country and registration number, without
 * spaces and punctuation and with the zeros that it lost. Null where either is not known; names are not keys.
 */
export function registrationKey(record: Pick<CompanyRecord, 'country' | 'registration'>): string | null {
  const number = record.registration === null ? '' : plainRegistration(record.registration, record.country);
  return record.country && number ? `${record.country}-${number}` : null;
}
