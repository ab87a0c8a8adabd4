import { measuresOf, revenuePerHead, type Measure } from '../../core/records/derived.ts';
import type { CompanyRecord, Money, Quantity } from '../../core/records/record.ts';
import { toEuro } from '../../core/money/rates.ts';
import type { Reason } from '../../core/tally/columns.ts';
import { domainOf } from '../../core/text/domain.ts';
import { fold, foldedWords } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';
import { CompanyHistory, type Told } from './history.ts';

/** The columns of a figure: what it is, its year and why it is unknown, and for money its currency and what it is in euros. */
const quantityColumns = (stem: string, ...more: string[]) =>
  ['low', 'high', 'point', 'basis', 'year', ...more, 'why'].map((part) => `${stem}_${part}`);
const moneyColumns = (stem: string) =>
  quantityColumns(stem, 'currency').concat(['low', 'high', 'point'].map((part) => `${stem}_eur_${part}`));

const COLUMNS = [
  ...['name', 'legal_form', 'registration', 'status', 'country', 'region', 'town', 'postcode', 'street'],
  ...['lat', 'lon', 'phone', 'mail', 'web', 'description', 'founded'],
  ...quantityColumns('headcount'),
  ...['revenue', 'profit', 'assets', 'per_head'].flatMap(moneyColumns),
  ...['surveyed_on', 'checked_on', 'checked_how'],
  ...['ownership', 'group_name', 'listing', 'ticker', 'certificates_known', 'dwelling', 'followers'],
  ...[
    'site_answers',
    'site_state',
    'site_moved_to',
    'site_checked_on',
    'domain',
    'headcount_history',
    'revenue_history',
  ],
  ...['revenue_months', 'disputes_known'],
];

/** The key of technologies named by a product: "Rutavel ERP" → "rutavel-erp". */
export function technologyKey(label: string): string {
  return foldedWords(label).join('-') || 'unnamed';
}

/** A company as the tables keep it. */
export interface CompanyParts {
  /** In the order of COLUMNS. */
  values: (string | number | null)[];
  /** Rank 0 is the main code of its scheme. */
  codes: [scheme: string, code: string, rank: number][];
  technologies: [key: string, label: string, first: number | null, last: number | null][];
  offers: readonly string[];
  certificates: readonly string[];
  measures: Measure[];
  /** What its sources say differently, and what was corrected by hand. */
  disputes: readonly string[];
  corrected: readonly string[];
  /** Folded name and description. */
  words: [name: string, description: string | null];
}

/** @param merged what is known of a company beyond its values, where it is made of several records or corrected */
export function companyParts(
  record: CompanyRecord,
  merged: { disputes: readonly string[]; corrected: readonly string[] } = { disputes: [], corrected: [] },
): CompanyParts {
  const codes: CompanyParts['codes'] = [];
  const ranks = new Map<string, number>();
  for (const main of [true, false])
    for (const one of record.codes) {
      if (one.main !== main) continue;
      const rank = main ? 0 : (ranks.get(one.scheme) ?? 1);
      if (!main) ranks.set(one.scheme, rank + 1);
      codes.push([one.scheme, one.code, rank]);
    }
  return {
    values: values(record),
    codes,
    technologies: record.technologies.map(({ label, first, last }) => [
      technologyKey(label),
      label,
      first,
      last,
    ]),
    offers: record.offers,
    certificates: record.certificates ?? [],
    measures: measuresOf(record),
    disputes: merged.disputes,
    corrected: merged.corrected,
    words: [fold(record.name), record.description === null ? null : fold(record.description)],
  };
}

/**
 * Writes companies with their codes, technologies, sources and words, as part of a change of the universe.
 * @param told which of what becomes of them is kept; nothing where null
 */
export function companyWriter(db: Db, revision: number, told: Told | null = 'all') {
  const history = told && new CompanyHistory(db, revision, told);
  const came = db
    .prepare<[number], number>('SELECT day FROM revision_log WHERE revision = ?')
    .pluck()
    .get(revision);
  const noteChange = db.prepare('INSERT OR IGNORE INTO company_change (revision, company_id) VALUES (?, ?)');
  const find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  const insert = db.prepare(
    `INSERT INTO company (id, key, sources, came_on, came_with, ${COLUMNS.join(', ')}) VALUES (?, ?, ?, ?, ?, ${COLUMNS.map(() => '?').join(', ')})`,
  );
  const update = db.prepare(
    `UPDATE company SET sources = ?, ${COLUMNS.map((column) => `${column} = ?`).join(', ')} WHERE id = ?`,
  );
  const addCode = db.prepare('INSERT INTO company_code (company_id, scheme, code, rank) VALUES (?, ?, ?, ?)');
  const addTechnology = db.prepare(
    'INSERT OR IGNORE INTO company_technology (company_id, technology, first_seen, last_seen) VALUES (?, ?, ?, ?)',
  );
  const addOffer = db.prepare('INSERT OR IGNORE INTO company_offer (company_id, offer) VALUES (?, ?)');
  const addCertificate = db.prepare(
    'INSERT OR IGNORE INTO company_certificate (company_id, certificate) VALUES (?, ?)',
  );
  const addMeasure = db.prepare(
    'INSERT OR REPLACE INTO company_measure (company_id, measure, key, value) VALUES (?, ?, ?, ?)',
  );
  const addDispute = db.prepare('INSERT INTO company_dispute (company_id, part) VALUES (?, ?)');
  const addCorrected = db.prepare('INSERT INTO company_corrected (company_id, field) VALUES (?, ?)');
  const nameTechnology = db.prepare('INSERT OR IGNORE INTO technology (key, label) VALUES (?, ?)');
  const addSource = db.prepare('INSERT OR IGNORE INTO company_source (company_id, source) VALUES (?, ?)');
  const addWords = db.prepare('INSERT INTO company_words (rowid, name, description) VALUES (?, ?, ?)');
  const clear = [...LIST_TABLES, 'company_source'].map((table) =>
    db.prepare(`DELETE FROM ${table} WHERE company_id = ?`),
  );
  const noteGone = db.prepare(
    'INSERT OR IGNORE INTO company_change (revision, company_id) SELECT ?, value FROM json_each(?)',
  );
  const everyId = db.prepare<[], number>('SELECT id FROM company').pluck();
  const noteAllGone = db.prepare(
    'INSERT OR IGNORE INTO company_change (revision, company_id) SELECT ?, id FROM company',
  );
  const forget = [
    ...OF_COMPANY.map((table) => `${table} WHERE company_id`),
    'company_words WHERE rowid',
    'company WHERE id',
  ].map((which) => db.prepare(`DELETE FROM ${which} IN (SELECT value FROM json_each(?))`));
  const mergeWords = (segments: number) =>
    db.exec(`INSERT INTO company_words (company_words, rank) VALUES ('automerge', ${segments})`);
  const clearWords = db.prepare('DELETE FROM company_words WHERE rowid = ?');
  const wordsNow = db.prepare<[number], { name: string; description: string | null }>(
    'SELECT name, description FROM company WHERE id = ?',
  );
  const named = new Set<string>();

  const writeWords = (id: number, { words }: CompanyParts) => addWords.run(id, words[0], words[1]);
  const addParts = (id: number, parts: CompanyParts, sources: readonly string[]) => {
    for (const [scheme, code, rank] of parts.codes) addCode.run(id, scheme, code, rank);
    for (const [key, label, first, last] of parts.technologies) {
      if (!named.has(key)) {
        nameTechnology.run(key, label);
        named.add(key);
      }
      addTechnology.run(id, key, first, last);
    }
    for (const offer of parts.offers) addOffer.run(id, offer);
    for (const certificate of parts.certificates) addCertificate.run(id, certificate);
    for (const [measure, key, value] of parts.measures) addMeasure.run(id, measure, key, value);
    for (const part of parts.disputes) addDispute.run(id, part);
    for (const field of parts.corrected) addCorrected.run(id, field);
    for (const source of sources) addSource.run(id, source);
  };

  return {
    /** Id of the company under a key, or null. */
    find(key: string): number | null {
      return find.get(key) ?? null;
    },
    insert(id: number, key: string, parts: CompanyParts, sources: readonly string[]): void {
      insert.run(id, key, new Set(sources).size, came ?? null, revision, ...parts.values);
      addParts(id, parts, sources);
      writeWords(id, parts);
    },
    update(id: number, parts: CompanyParts, sources: readonly string[]): void {
      noteChange.run(revision, id);
      const was = history?.read(id);
      const before = wordsNow.get(id)!;
      update.run(new Set(sources).size, ...parts.values, id);
      for (const statement of clear) statement.run(id);
      addParts(id, parts, sources);
      const { name, description } = wordsNow.get(id)!;
      if (before.name !== name || before.description !== description) {
        clearWords.run(id);
        writeWords(id, parts);
      }
      if (was) history!.changed(id, was);
    },
    /** Takes all companies out, which costs next to nothing. */
    removeAll(): void {
      if (history) for (const id of everyId.all()) history.gone(id);
      noteAllGone.run(revision);
      db.exec(`INSERT INTO company_words (company_words) VALUES ('delete-all')`);
      for (const table of [...OF_COMPANY, 'company']) db.exec(`DELETE FROM ${table}`);
    },
    /** Takes companies out with all that is kept of them. */
    remove(ids: readonly number[]): void {
      if (history) for (const id of ids) history.gone(id);
      const list = JSON.stringify(ids);
      noteGone.run(revision, list);
      // Merging what is left of the index after each of many removals takes ten times as long as the removals.
      mergeWords(0);
      for (const statement of forget) statement.run(list);
      mergeWords(WORDS_MERGED);
    },
  };
}

/** Segments of one level from which FTS5 merges those of an index of words, as it comes. */
const WORDS_MERGED = 4;

/** Tables with any number of rows a company that a record fills. */
export const LIST_TABLES = [
  'company_code',
  'company_technology',
  'company_offer',
  'company_certificate',
  'company_measure',
  'company_dispute',
  'company_corrected',
] as const;

/** Tables in which only companies that are there stand. */
const OF_COMPANY = [...LIST_TABLES, 'company_source', 'company_changed'];

function values(record: CompanyRecord): CompanyParts['values'] {
  return [
    record.name,
    record.legalForm,
    record.registration,
    record.status,
    record.country,
    record.region,
    record.town,
    record.postcode,
    record.street,
    record.lat,
    record.lon,
    record.phone,
    record.mail,
    record.web,
    record.description,
    record.founded,
    ...quantity(record.headcount),
    record.headcountYear,
    record.headcountWhy,
    ...money(record.revenue, record.revenueWhy),
    ...money(record.profit, record.profitWhy),
    ...money(record.assets, record.assetsWhy),
    ...money(revenuePerHead(record), record.revenueWhy ?? record.headcountWhy),
    record.surveyedOn,
    record.checkedOn,
    record.checkedHow,
    record.ownership,
    record.group,
    record.listing,
    record.ticker,
    record.certificates && 1,
    flag(record.dwelling),
    record.followers,
    flag(record.siteAnswers),
    record.siteState,
    record.siteMovedTo,
    record.siteCheckedOn,
    domainOf(record.web),
    record.headcountHistory.length ? JSON.stringify(record.headcountHistory) : null,
    record.revenueHistory.length ? JSON.stringify(record.revenueHistory) : null,
    record.revenueMonths && JSON.stringify(record.revenueMonths),
    1,
  ];
}

function flag(value: boolean | null): number | null {
  return value === null ? null : Number(value);
}

/** A figure of money as its columns, in the order of `moneyColumns`. */
function money(value: Money | null, why: Reason | null): CompanyParts['values'] {
  const euro = (amount: number | null) =>
    amount === null || value === null ? null : toEuro(amount, value.currency, value.year);
  return [
    ...quantity(value),
    value?.year ?? null,
    value?.currency ?? null,
    value && euro(1) === null ? 'no exchange rate' : why,
    euro(value?.low ?? null),
    euro(value?.high ?? null),
    euro(value?.point ?? null),
  ];
}

function quantity(value: Quantity | null): [number | null, number | null, number | null, string | null] {
  return value === null ? [null, null, null, null] : [value.low, value.high, value.point, value.basis];
}
