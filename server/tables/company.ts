import type { CompanyRecord, Quantity } from '../../core/records/record.ts';
import { toEuro } from '../../core/money/rates.ts';
import { fold, foldedWords } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';

const COLUMNS = [
  'name',
  'legal_form',
  'registration',
  'status',
  'country',
  'region',
  'town',
  'postcode',
  'street',
  'lat',
  'lon',
  'phone',
  'mail',
  'web',
  'description',
  'founded',
  'headcount_low',
  'headcount_high',
  'headcount_point',
  'headcount_basis',
  'headcount_year',
  'headcount_why',
  'revenue_low',
  'revenue_high',
  'revenue_point',
  'revenue_basis',
  'revenue_year',
  'revenue_currency',
  'revenue_why',
  'revenue_eur_low',
  'revenue_eur_high',
  'revenue_eur_point',
  'surveyed_on',
  'checked_on',
  'checked_how',
] as const;

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
  technologies: [key: string, label: string][];
  /** Folded name and description. */
  words: [name: string, description: string | null];
}

export function companyParts(record: CompanyRecord): CompanyParts {
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
    technologies: record.technologies.map((label) => [technologyKey(label), label]),
    words: [fold(record.name), record.description === null ? null : fold(record.description)],
  };
}

/** Writes companies with their codes, technologies, sources and words, as part of a change of the universe. */
export function companyWriter(db: Db, revision: number) {
  const noteChange = db.prepare('INSERT OR IGNORE INTO company_change (revision, company_id) VALUES (?, ?)');
  const find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  const insert = db.prepare(
    `INSERT INTO company (id, key, ${COLUMNS.join(', ')}) VALUES (?, ?, ${COLUMNS.map(() => '?').join(', ')})`,
  );
  const update = db.prepare(
    `UPDATE company SET ${COLUMNS.map((column) => `${column} = ?`).join(', ')} WHERE id = ?`,
  );
  const remove = db.prepare('DELETE FROM company WHERE id = ?');
  const addCode = db.prepare('INSERT INTO company_code (company_id, scheme, code, rank) VALUES (?, ?, ?, ?)');
  const addTechnology = db.prepare(
    'INSERT OR IGNORE INTO company_technology (company_id, technology) VALUES (?, ?)',
  );
  const nameTechnology = db.prepare('INSERT OR IGNORE INTO technology (key, label) VALUES (?, ?)');
  const addSource = db.prepare('INSERT OR IGNORE INTO company_source (company_id, source) VALUES (?, ?)');
  const addWords = db.prepare('INSERT INTO company_words (rowid, name, description) VALUES (?, ?, ?)');
  const clear = ['company_code', 'company_technology', 'company_source'].map((table) =>
    db.prepare(`DELETE FROM ${table} WHERE company_id = ?`),
  );
  const clearWords = db.prepare('DELETE FROM company_words WHERE rowid = ?');
  const wordsNow = db.prepare<[number], { name: string; description: string | null }>(
    'SELECT name, description FROM company WHERE id = ?',
  );
  const named = new Set<string>();

  const writeWords = (id: number, { words }: CompanyParts) => addWords.run(id, words[0], words[1]);
  const addParts = (id: number, parts: CompanyParts, sources: Iterable<string>) => {
    for (const [scheme, code, rank] of parts.codes) addCode.run(id, scheme, code, rank);
    for (const [key, label] of parts.technologies) {
      if (!named.has(key)) {
        nameTechnology.run(key, label);
        named.add(key);
      }
      addTechnology.run(id, key);
    }
    for (const source of sources) addSource.run(id, source);
  };

  return {
    /** Id of the company under a key, or null. */
    find(key: string): number | null {
      return find.get(key) ?? null;
    },
    insert(id: number, key: string, parts: CompanyParts, sources: Iterable<string>): void {
      insert.run(id, key, ...parts.values);
      addParts(id, parts, sources);
      writeWords(id, parts);
    },
    update(id: number, parts: CompanyParts, sources: Iterable<string>): void {
      noteChange.run(revision, id);
      const before = wordsNow.get(id)!;
      update.run(...parts.values, id);
      for (const statement of clear) statement.run(id);
      addParts(id, parts, sources);
      const { name, description } = wordsNow.get(id)!;
      if (before.name !== name || before.description !== description) {
        clearWords.run(id);
        writeWords(id, parts);
      }
    },
    remove(id: number): void {
      noteChange.run(revision, id);
      for (const statement of clear) statement.run(id);
      clearWords.run(id);
      remove.run(id);
    },
  };
}

function values(record: CompanyRecord): CompanyParts['values'] {
  const { revenue } = record;
  const euro = (amount: number | null) =>
    amount === null || revenue === null ? null : toEuro(amount, revenue.currency, revenue.year);
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
    ...quantity(revenue),
    revenue?.year ?? null,
    revenue?.currency ?? null,
    revenue && euro(1) === null ? 'no exchange rate' : record.revenueWhy,
    euro(revenue?.low ?? null),
    euro(revenue?.high ?? null),
    euro(revenue?.point ?? null),
    record.surveyedOn,
    record.checkedOn,
    record.checkedHow,
  ];
}

function quantity(value: Quantity | null): [number | null, number | null, number | null, string | null] {
  return value === null ? [null, null, null, null] : [value.low, value.high, value.point, value.basis];
}
