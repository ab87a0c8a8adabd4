import type { AddressStanding } from '../people/standing.ts';
import type { CompanyRecord, Money } from './record.ts';

/** Records that hang on companies, as one row of a source tells them. Null is unknown; days are since 1970-01-01. */

/** How a source names a company: the first that is found counts. */
export interface CompanyReference {
  /** Its key in this universe, of a file that was written here. */
  key?: string;
  number: string | null;
  domain: string | null;
  name: string | null;
  /** ISO 3166-1 alpha-2. */
  country: string | null;
}

export interface SiteRecord extends Pick<
  CompanyRecord,
  'country' | 'region' | 'town' | 'postcode' | 'street' | 'lat' | 'lon' | 'phone' | 'checkedOn'
> {
  name: string | null;
  kind: string | null;
  head: boolean | null;
  headcount: number | null;
}

export interface PersonRecord {
  name: string;
  title: string | null;
  department: string | null;
  level: string | null;
  sinceOn: number | null;
  mail: string | null;
  /** In percent. */
  certainty: number | null;
  /** How far the source says that the address is to be trusted, and what it was made by where it was. */
  address?: AddressStanding | null;
  madeBy?: string | null;
  phone: string | null;
  /** Posts held before, the latest first, by semicolons. */
  earlier: string | null;
  checkedOn: number | null;
}

export interface EventRecord {
  name: string;
  kind: string | null;
  date: number | null;
}

export interface DealRecord {
  name: string;
  kind: string | null;
  date: number | null;
  amount: Money | null;
  bidders: number | null;
}

export interface BrandRecord {
  name: string;
  category: string | null;
  products: number | null;
  productsChange: number | null;
  /** By calendar year, as "2024:120; 2025:131". */
  productsHistory: string | null;
  /** Of the sales of its category, in percent. */
  share: number | null;
  /** Null where nothing says where it is sold. */
  countries: readonly string[] | null;
  channels: readonly (readonly [measure: 'channel' | 'channel-change', key: string, value: number])[];
  checkedOn: number | null;
}

/** A company in a role, as its source names it. */
export interface Party {
  role: string;
  reference: CompanyReference;
}

/** A site, person or event with its company, or a deal or brand with its parties. */
export type RelatedRecord =
  | { subject: 'sites'; record: SiteRecord; company: CompanyReference }
  | { subject: 'people'; record: PersonRecord; company: CompanyReference }
  | { subject: 'events'; record: EventRecord; company: CompanyReference }
  | { subject: 'deals'; record: DealRecord; parties: readonly Party[] }
  | { subject: 'brands'; record: BrandRecord; parties: readonly Party[] };
