import type { Field, FileColumn, Store } from '../field.ts';

/** Short forms for fields that differ in little else than their words. */

/** Departments that headcount is split by. */
export const DEPARTMENTS = [
  'management',
  'production',
  'engineering',
  'sales',
  'purchasing',
  'logistics',
  'finance',
  'administration',
] as const;

/** What a site may offer its visitors. */
export const OFFERS = ['quote-form', 'sample-request', 'visit-booking', 'shop', 'price-list'] as const;

/** What of a company is noted as changed. */
export const CHANGED = [
  ...(['name', 'status', 'place', 'industry', 'headcount', 'revenue', 'profit', 'assets'] as const),
  ...(['ownership', 'group', 'technology', 'contact', 'description', 'legal-form', 'number'] as const),
] as const;

/** Bars of a share in percent, and of a change of one in points. */
export const SHARE_BARS = [0, 5, 10, 20, 30, 40, 50, 60, 70, 80, 90];
export const CHANGE_BARS = [-100, -10, -5, -2, -1, -0.5, 0, 0.5, 1, 2, 5, 10];
export const SMALL_SHARE_BARS = [0, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20];

export const column = (name: string) => ({ at: 'column', column: name }) as const;

/** Headings written in one text, by commas. */
export const words = (text: string): string[] => text.split(', ');

const columnOf = (id: string): Extract<Store, { at: 'column' }> => column(id.replaceAll('-', '_'));

/** The one column of a file that a field is read from. */
export const files = (id: string, label: string, headings: string): FileColumn[] => [
  { id, label, headings: words(headings) },
];

export const label = (
  id: string,
  heading: string,
  width: number,
  meaning: string,
  headings: string[],
  store = columnOf(id),
): Field => ({
  id,
  subject: 'companies',
  section: 'what',
  kind: 'label',
  label: heading,
  meaning,
  store,
  openers: [],
  column: { heading, width },
  files: [{ id, label: heading, headings }],
});

export const category = (
  id: string,
  heading: string,
  meaning: string,
  rest: { values?: Field['values']; openers: string; headings: string },
): Field => ({
  id,
  subject: 'companies',
  section: 'standing',
  dated: 'checked',
  kind: 'category',
  label: heading,
  meaning,
  store: columnOf(id),
  openers: words(rest.openers),
  column: { heading, width: 108 },
  ...(rest.values ? { values: rest.values } : {}),
  files: files(id, heading, rest.headings),
});

export const flag = (
  id: string,
  heading: string,
  meaning: string,
  openers: string,
  columnHeading: string,
  width: number,
  dated = 'checked',
): Field => ({
  id,
  subject: 'companies',
  section: 'standing',
  dated,
  kind: 'flag',
  label: heading,
  meaning,
  store: columnOf(id),
  openers: words(openers),
  column: { heading: columnHeading, width },
  files: files(id, heading, `${openers}, ${heading.toLowerCase()}`),
});

export const number = (
  id: string,
  heading: string,
  meaning: string,
  openers: string,
  headings: string,
): Field => ({
  id,
  subject: 'companies',
  section: 'standing',
  dated: 'checked',
  kind: 'number',
  label: heading,
  meaning,
  store: columnOf(id),
  openers: words(openers),
  column: { heading, width: 92, numeric: true },
  files: files(id, heading, headings),
});

export const date = (
  id: string,
  heading: string,
  section: Field['section'],
  meaning: string,
  store: string,
  [openers, headings]: readonly [openers: string, headings: string],
): Field => ({
  id,
  subject: 'companies',
  section,
  kind: 'date',
  label: heading,
  meaning,
  store: column(store),
  openers: words(openers),
  column: { heading, width: 108 },
  files: files(id, `${heading} on`, headings),
});

/** Money read from five columns: figure, currency, year, basis, reason. */
export const money = (
  id: string,
  heading: string,
  meaning: string,
  headings: readonly [amount: string, currency: string, year: string, basis: string, why: string],
): Field => {
  const [amount, currency, year, basis, why] = headings.map(words) as [
    string[],
    string[],
    string[],
    string[],
    string[],
  ];
  return {
    id,
    subject: 'companies',
    section: 'size',
    dated: 'year',
    kind: 'money',
    label: heading,
    meaning,
    store: { at: 'range', stem: id },
    openers: id === 'assets' ? ['total assets', 'assets'] : [id],
    column: { heading, width: 112, numeric: true },
    files: [
      { id, label: heading, headings: amount },
      { id: `${id}-currency`, label: `Currency of ${heading.toLowerCase()}`, headings: currency },
      { id: `${id}-year`, label: `Year of ${heading.toLowerCase()}`, headings: year },
      { id: `${id}-basis`, label: `Basis of ${heading.toLowerCase()}`, headings: basis },
      { id: `${id}-unknown`, label: `Why ${heading.toLowerCase()} is unknown`, headings: why },
    ],
  };
};

/** Figures by year or month: a column to hand on what growth is reckoned from. */
export const history = (id: string, heading: string, meaning: string, headings: string): Field => ({
  ...{ id, subject: 'companies', section: 'growth', kind: 'label', label: heading, meaning },
  store: { at: 'history', column: id.replaceAll('-', '_') },
  openers: [],
  column: { heading, width: 200, sortable: false },
  files: files(id, heading, headings),
});
