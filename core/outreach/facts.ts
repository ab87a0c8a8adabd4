import type { AddressStanding } from '../people/standing.ts';

/** What is known of somebody while writing to them. Days are ISO days. */
export interface FactsOfPerson {
  key: string;
  name: string;
  title: string | null;
  department: string | null;
  level: string | null;
  since: string | null;
  /** Posts held before, the latest first, by semicolons. */
  earlier: string | null;
  phone: string | null;
  mail: string | null;
  /** In percent. */
  certainty: number | null;
  address: AddressStanding | null;
  madeBy: string | null;
  source: string;
  checked: string | null;
  company: FactsOfCompany | null;
}

export interface FactsOfCompany {
  key: string;
  name: string;
  legalForm: string | null;
  town: string | null;
  region: string | null;
  country: string | null;
  headcount: number | null;
  revenue: {
    low: number | null;
    high: number | null;
    point: number | null;
    currency: string | null;
    basis: string | null;
  } | null;
  /** The main industry code in words. */
  industry: string | null;
  /** NACE codes, the main one first. */
  codes: string[];
  technologies: { key: string; label: string }[];
  /** The latest of each. */
  event: Happening | null;
  deal: Happening | null;
  /** What of late a message may be set off by: the later of the two, where it is no older than a year. */
  trigger: Happening | null;
}

export interface Happening {
  name: string;
  kind: string | null;
  date: string | null;
}
