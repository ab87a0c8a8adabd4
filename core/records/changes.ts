import type { CHANGED } from '../fields/companies/making.ts';
import type { CompanyRecord, Money, Quantity } from './record.ts';

type Told =
  | ('name' | 'status' | 'legalForm' | 'registration' | 'town' | 'street' | 'postcode' | 'country' | 'phone')
  | ('mail' | 'web' | 'headcount' | 'revenue' | 'profit' | 'assets' | 'ownership' | 'group' | 'description');

/** What of a company is told of where it changes. */
export interface ToldRecord extends Pick<CompanyRecord, Told> {
  codes: readonly { code: string }[];
  technologies: readonly { label: string }[];
}

/** What of a company is not as it was, by a word for the field: what it was and what it is now; null is unknown. */
export type Changes = Record<string, { was: string | null; is: string | null }>;

const quantity = (value: Quantity | null): string | null => {
  if (value === null) return null;
  if (value.point !== null) return `${value.basis === 'estimate' ? 'about ' : ''}${value.point}`;
  return value.high === Infinity ? `${value.low}+` : `${value.low}-${value.high}`;
};
const money = (value: Money | null): string | null =>
  value === null ? null : `${quantity(value)!} ${value.currency} (${value.year})`;

/** The fields that are told of, in the order in which they are told, and how each is written. */
const TOLD: Readonly<Record<string, (record: ToldRecord) => string | null>> = {
  name: ({ name }) => name,
  status: ({ status }) => status,
  'legal form': ({ legalForm }) => legalForm,
  number: ({ registration }) => registration,
  town: ({ town }) => town,
  street: ({ street }) => street,
  postcode: ({ postcode }) => postcode,
  country: ({ country }) => country,
  phone: ({ phone }) => phone,
  mail: ({ mail }) => mail,
  web: ({ web }) => web,
  headcount: ({ headcount }) => quantity(headcount),
  revenue: ({ revenue }) => money(revenue),
  profit: ({ profit }) => money(profit),
  assets: ({ assets }) => money(assets),
  codes: ({ codes }) => [...codes.map(({ code }) => code)].sort().join(', ') || null,
  ownership: ({ ownership }) => ownership,
  group: ({ group }) => group,
  technologies: ({ technologies }) =>
    technologies
      .map(({ label }) => label)
      .sort()
      .join(', ') || null,
  description: ({ description }) => description,
};

/** What two states of a company differ in, of what is told of. */
export function changesBetween(before: ToldRecord, after: ToldRecord): Changes {
  const changes: Changes = {};
  for (const [field, write] of Object.entries(TOLD)) {
    const [was, is] = [write(before), write(after)];
    if (was !== is) changes[field] = { was, is };
  }
  return changes;
}

/** The field of the registry that stands for what is told of, as the line on what changed names it. */
const CHANGED_FIELD: Readonly<Record<string, (typeof CHANGED)[number]>> = {
  ...{ name: 'name', status: 'status', 'legal form': 'legal-form', number: 'number' },
  ...{ town: 'place', street: 'place', postcode: 'place', country: 'place' },
  ...{ phone: 'contact', mail: 'contact', web: 'contact' },
  ...{ headcount: 'headcount', revenue: 'revenue', profit: 'profit', assets: 'assets' },
  ...{ codes: 'industry', ownership: 'ownership', group: 'group', technologies: 'technology' },
  ...{ description: 'description' },
};

export function changedField(told: string): (typeof CHANGED)[number] {
  return CHANGED_FIELD[told]!;
}
