import type { CompanyRecord, Money, Quantity } from './record.ts';

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
const TOLD: Readonly<Record<string, (record: CompanyRecord) => string | null>> = {
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
export function changesBetween(before: CompanyRecord, after: CompanyRecord): Changes {
  const changes: Changes = {};
  for (const [field, write] of Object.entries(TOLD)) {
    const [was, is] = [write(before), write(after)];
    if (was !== is) changes[field] = { was, is };
  }
  return changes;
}
