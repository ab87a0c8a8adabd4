import { registrationKey, type CompanyRecord, type Quantity } from '../../core/records/record.ts';
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

/** Writes companies with their codes, technologies, sources and words. */
export function companyWriter(db: Db) {
  const find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  const insert = db.prepare(
    `INSERT INTO company (key, ${COLUMNS.join(', ')}) VALUES (?, ${COLUMNS.map(() => '?').join(', ')})`,
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

  const writeWords = (id: number, record: CompanyRecord) => {
    addWords.run(id, fold(record.name), record.description === null ? null : fold(record.description));
  };
  const addParts = (id: number, record: CompanyRecord, sources: readonly string[]) => {
    const ranks = new Map<string, number>();
    for (const { scheme, code, main } of [...record.codes].sort((a, b) => Number(b.main) - Number(a.main))) {
      const rank = main ? 0 : (ranks.get(scheme) ?? 1);
      if (!main) ranks.set(scheme, rank + 1);
      addCode.run(id, scheme, code, rank);
    }
    for (const label of record.technologies) {
      const key = technologyKey(label);
      if (!named.has(key)) {
        nameTechnology.run(key, label);
        named.add(key);
      }
      addTechnology.run(id, key);
    }
    for (const source of sources) addSource.run(id, source);
  };

  return {
    /** The company that a record belongs to by country and registration number, or null. */
    find(record: CompanyRecord): number | null {
      const key = registrationKey(record);
      return key === null ? null : (find.get(key) ?? null);
    },
    /** Adds a company; `ownKey` names it where the record has no registration number. */
    insert(record: CompanyRecord, sources: readonly string[], ownKey: string): number {
      const id = Number(insert.run(registrationKey(record) ?? ownKey, ...values(record)).lastInsertRowid);
      addParts(id, record, sources);
      writeWords(id, record);
      return id;
    },
    update(id: number, record: CompanyRecord, sources: readonly string[]): void {
      const before = wordsNow.get(id)!;
      update.run(...values(record), id);
      for (const statement of clear) statement.run(id);
      addParts(id, record, sources);
      if (before.name !== record.name || before.description !== record.description) {
        clearWords.run(id);
        writeWords(id, record);
      }
    },
    remove(id: number): void {
      for (const statement of clear) statement.run(id);
      clearWords.run(id);
      remove.run(id);
    },
  };
}

function values(record: CompanyRecord): unknown[] {
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
