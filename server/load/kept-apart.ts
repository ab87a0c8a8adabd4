import { fold } from '../../core/text/fold.ts';

/** How records that hang on companies are told apart from one version of a file to the next, and what of them is told where it changes. */
export interface Apart {
  /** What the keys are made of: SQL over a record `t`. */
  made: readonly string[];
  /** Keys, the surest first. */
  ways: readonly ((...made: (string | null)[]) => (string | null)[])[];
  /** From which way on a key counts only where one record alone has it. */
  sole: number;
  /** What is told where it changes, by its word: SQL over a record `t`. */
  told: Readonly<Record<string, string>>;
}

const HOLDER = `COALESCE('#' || t.company_id, t.reference)`;
const COMPANY = `COALESCE((SELECT c.name FROM company c WHERE c.id = t.company_id), json_extract(t.reference, '$[2]'))`;
const DAY = (column: string) => `date(${column} * 86400, 'unixepoch')`;
const party = (table: string, role: string, value: string) =>
  `(SELECT ${value} FROM ${table}_party p WHERE p.${table}_id = t.id AND p.role = '${role}' ORDER BY p.rowid LIMIT 1)`;
const PARTY = `COALESCE('#' || p.company_id, p.reference)`;
const PARTY_NAME = `COALESCE((SELECT c.name FROM company c WHERE c.id = p.company_id), json_extract(p.reference, '$[2]'))`;

const named = (name: string | null) => (name === null ? null : fold(name));

export const APART: Readonly<Record<string, Apart>> = {
  people: {
    made: ['t.name', HOLDER, 't.title', 'lower(t.recorded_mail)', 't.phone', 't.department'],
    ways: [
      (name, holder, title) => [named(name), holder, title],
      (name, holder) => [named(name), holder],
      (name, _holder, _title, mail) => [named(name), mail],
      (name, _holder, _title, _mail, phone) => [named(name), phone],
      // Who goes to another company mostly stays in the same line of work.
      (name, _holder, _title, _mail, _phone, department) => [named(name), department],
    ],
    sole: 2,
    told: {
      company: COMPANY,
      title: 't.title',
      department: 't.department',
      level: 't.level',
      since: DAY('t.since_on'),
      mail: 't.recorded_mail',
      phone: 't.phone',
      'earlier posts': 't.earlier',
    },
  },
  sites: {
    made: [HOLDER, 't.name', 't.country', 't.town', 't.street', 't.kind'],
    ways: [
      (holder, name, country, town, street) => [
        holder,
        named(name) ?? '',
        country,
        named(town),
        street ?? '',
      ],
      (holder, _name, country, town, street) => [holder, country, named(town), street],
      (holder, name) => [holder, named(name)],
      (holder, _name, country, town, _street, kind) => [holder, country, named(town), kind ?? ''],
    ],
    sole: 2,
    told: {
      company: COMPANY,
      name: 't.name',
      kind: 't.kind',
      town: 't.town',
      street: 't.street',
      postcode: 't.postcode',
      country: 't.country',
      headcount: 'CAST(t.headcount AS TEXT)',
      phone: 't.phone',
    },
  },
  events: {
    made: ['t.name', HOLDER, 'CAST(t.date_on AS TEXT)'],
    ways: [(name, holder, day) => [named(name), holder, day], (name, holder) => [named(name), holder]],
    sole: 1,
    told: { company: COMPANY, kind: 't.kind', date: DAY('t.date_on') },
  },
  deals: {
    made: ['t.name', party('deal', 'target', PARTY), 'CAST(t.date_on AS TEXT)', 't.kind'],
    ways: [
      (name, target, day) => [named(name), target, day],
      (_name, target, day, kind) => [target, day, kind],
      (name, target) => [named(name), target],
      (name) => [named(name)],
    ],
    sole: 2,
    told: {
      target: party('deal', 'target', PARTY_NAME),
      kind: 't.kind',
      date: DAY('t.date_on'),
      amount: `CASE WHEN t.amount_point IS NOT NULL THEN t.amount_point || ' ' || t.amount_currency
        WHEN t.amount_low IS NOT NULL THEN t.amount_low || '-' || t.amount_high || ' ' || t.amount_currency END`,
    },
  },
  brands: {
    made: ['t.name', party('brand', 'owner', PARTY), 't.category'],
    ways: [
      (name, owner, category) => [named(name), owner, category],
      (name, owner) => [named(name), owner],
      (name, _owner, category) => [named(name), category],
      (name) => [named(name)],
    ],
    sole: 2,
    told: {
      owner: party('brand', 'owner', PARTY_NAME),
      category: 't.category',
      products: 'CAST(t.products AS TEXT)',
      share: 'CAST(t.share AS TEXT)',
    },
  },
};
