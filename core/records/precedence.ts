import type { CompanyRecord } from './record.ts';

/** Which source a company's values are taken from, by groups of fields. */

/** Groups of fields, each with the parts of a record that are taken by its rule. */
export const PRECEDENCE_GROUPS = {
  identity: {
    label: 'Name, legal form, number, status',
    parts: ['name', 'legalForm', 'registration', 'status'],
  },
  address: {
    label: 'Address',
    parts: ['country', 'region', 'town', 'postcode', 'street', 'lat', 'lon'],
  },
  contact: { label: 'Phone, mail, web', parts: ['phone', 'mail', 'web'] },
  activity: { label: 'Codes, description, founded', parts: ['codes', 'description', 'founded'] },
  size: { label: 'Headcount, departments, followers', parts: ['headcount', 'departments', 'followers'] },
  money: { label: 'Revenue, profit, assets', parts: ['revenue', 'profit', 'assets', 'revenueMonths'] },
  standing: {
    label: 'Ownership, group, listing, certificates',
    parts: ['ownership', 'group', 'listing', 'ticker', 'certificates', 'dwelling'],
  },
} as const satisfies Record<string, { label: string; parts: readonly (keyof CompanyRecord)[] }>;

export type PrecedenceGroup = keyof typeof PRECEDENCE_GROUPS;
export const PRECEDENCE_GROUP_KEYS = Object.keys(PRECEDENCE_GROUPS) as PrecedenceGroup[];

/**
 * How a group is taken: from the record checked last, or whose source speaks of the latest day where none says when it was checked; from the most exact (reported before estimated before banded, then the latest
 * year), which figures alone can be; or from the first source of an order that knows it, those not named after them.
 */
export type PrecedenceRule = { by: 'newest' } | { by: 'exact' } | { by: 'order'; sources: readonly string[] };

export type Precedence = Readonly<Record<PrecedenceGroup, PrecedenceRule>>;

/** Groups whose values can be more or less exact. */
export const EXACT_GROUPS: readonly PrecedenceGroup[] = ['size', 'money'];

export const USUAL_PRECEDENCE: Precedence = {
  identity: { by: 'newest' },
  address: { by: 'newest' },
  contact: { by: 'newest' },
  activity: { by: 'newest' },
  size: { by: 'exact' },
  money: { by: 'exact' },
  standing: { by: 'newest' },
};
