import { toEuro } from '../../core/money/rates.ts';
import type {
  BrandRecord,
  DealRecord,
  EventRecord,
  PersonRecord,
  SiteRecord,
} from '../../core/records/related.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { wordsColumn } from '../../core/tape/sql/words-column.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';
import { nextId, revisionOf } from './revision.ts';

/** Subjects whose records have names that the jump box finds, by the number that `related_words` has for each. */
export const NAMED_SUBJECTS = ['people', 'brands', 'deals'] as const;

/** A company that a record hangs on: its id where it was found, and how the source names it where that may be needed again. */
export interface Hold {
  id: number | null;
  reference: string | null;
}

export interface HeldParty extends Hold {
  role: string;
}

const SITE =
  'name, kind, head, country, region, town, postcode, street, lat, lon, headcount, phone, checked_on, came_with';
const PERSON =
  'name, title, title_words, department, level, since_on, recorded_mail, stated_certainty, stated_standing, stated_made_by, phone, earlier, earlier_words, checked_on, came_with';
const EVENT = 'name, name_words, kind, date_on, came_with';
const MONEY = ['low', 'high', 'point', 'basis', 'year', 'currency', 'eur_low', 'eur_high', 'eur_point'];
const DEAL = `name, kind, date_on, ${MONEY.map((part) => `amount_${part}`).join(', ')}, bidders, came_with`;
const BRAND =
  'name, category, products, products_change, products_history, share, countries_known, checked_on, came_with';

/** Writes records that hang on companies, under ids that go on from the last. Runs inside a transaction that the caller opens. */
export function relatedWriter(db: Db) {
  const { revision } = revisionOf(db);
  const insert = (table: string, columns: string) => {
    const marks = columns.split(',').map(() => '?');
    let last = nextId(db, table) - 1;
    const statement = db.prepare(`INSERT INTO ${table} (id, ${columns}) VALUES (?, ${marks.join(', ')})`);
    return (...values: unknown[]): number => {
      statement.run(++last, ...values);
      return last;
    };
  };
  const addSite = insert('site', `source, company_id, reference, ${SITE}`);
  const addPerson = insert('person', `source, company_id, reference, ${PERSON}`);
  const addEvent = insert('event', `source, company_id, reference, ${EVENT}`);
  const addDeal = insert('deal', DEAL);
  const addBrand = insert('brand', `source, ${BRAND}`);
  const addDealParty = db.prepare(
    'INSERT INTO deal_party (deal_id, company_id, role, reference) VALUES (?, ?, ?, ?)',
  );
  const addBrandParty = db.prepare(
    'INSERT INTO brand_party (brand_id, company_id, role, reference) VALUES (?, ?, ?, ?)',
  );
  const addDealSource = db.prepare('INSERT OR IGNORE INTO deal_source (deal_id, source) VALUES (?, ?)');
  const addCountry = db.prepare('INSERT OR IGNORE INTO brand_country (brand_id, country) VALUES (?, ?)');
  const addMeasure = db.prepare(
    'INSERT OR REPLACE INTO brand_measure (brand_id, measure, key, value) VALUES (?, ?, ?, ?)',
  );
  const addName = db.prepare('INSERT INTO related_words (rowid, name) VALUES (?, ?)');
  const named = (subject: (typeof NAMED_SUBJECTS)[number], id: number, name: string) =>
    addName.run(id * 8 + NAMED_SUBJECTS.indexOf(subject), fold(name));

  return {
    site(source: string, { id, reference }: Hold, one: SiteRecord): void {
      const { name, kind, head, country, region, town, postcode, street, lat, lon } = one;
      addSite(
        ...[source, id, reference, name, kind, head === null ? null : Number(head)],
        ...[country, region, town, postcode, street, lat, lon, one.headcount, one.phone, one.checkedOn],
        revision,
      );
    },
    person(source: string, { id, reference }: Hold, one: PersonRecord): void {
      const { name, title, department, level, sinceOn, mail, certainty, phone, earlier, checkedOn } = one;
      const added = addPerson(
        ...[source, id, reference, name, title, wordsColumn(title), department, level, sinceOn],
        ...[mail, certainty, one.address ?? null, one.madeBy ?? null, phone],
        ...[earlier, wordsColumn(earlier), checkedOn, revision],
      );
      named('people', added, name);
    },
    event(source: string, { id, reference }: Hold, { name, kind, date }: EventRecord): void {
      addEvent(source, id, reference, name, wordsColumn(name), kind, date, revision);
    },
    deal(sources: readonly string[], parties: readonly HeldParty[], one: DealRecord): void {
      const { name, kind, date, amount, bidders } = one;
      const euro = (value: number | null) =>
        value === null || amount === null ? null : toEuro(value, amount.currency, amount.year);
      const deal = addDeal(
        ...[name, kind, date, amount?.low ?? null, amount?.high ?? null, amount?.point ?? null],
        ...[amount?.basis ?? null, amount?.year ?? null, amount?.currency ?? null],
        ...[
          euro(amount?.low ?? null),
          euro(amount?.high ?? null),
          euro(amount?.point ?? null),
          bidders,
          revision,
        ],
      );
      for (const { id, role, reference } of parties) addDealParty.run(deal, id, role, reference);
      for (const source of sources) addDealSource.run(deal, source);
      named('deals', deal, name);
    },
    brand(source: string, parties: readonly HeldParty[], one: BrandRecord): void {
      const { name, category, products, productsChange, productsHistory, share, countries, channels } = one;
      const brand = addBrand(
        ...[source, name, category, products, productsChange, productsHistory, share],
        ...[countries && 1, one.checkedOn, revision],
      );
      for (const { id, role, reference } of parties) addBrandParty.run(brand, id, role, reference);
      for (const country of countries ?? []) addCountry.run(brand, country);
      for (const [measure, key, value] of channels) addMeasure.run(brand, measure, key, value);
      named('brands', brand, name);
    },
  };
}

/** Tables of what belongs to a record, which they name by the table of its subject and "_id"; sources of deals left out. */
export const PARTS: Readonly<Record<string, readonly string[]>> = {
  brands: ['brand_party', 'brand_country', 'brand_measure'],
  deals: ['deal_party'],
};

/** Takes single records away that hang on companies, with what belongs to them. Runs inside a transaction that the caller opens. */
export function dropRelated(db: Db, subject: string) {
  const { table } = subjectOf(subject);
  const parts = [...(PARTS[subject] ?? []), ...(subject === 'deals' ? ['deal_source'] : [])];
  const dropParts = parts.map((part) => db.prepare(`DELETE FROM ${part} WHERE ${table}_id = ?`));
  const drop = db.prepare(`DELETE FROM ${table} WHERE id = ?`);
  const nth = (NAMED_SUBJECTS as readonly string[]).indexOf(subject);
  const dropName = db.prepare('DELETE FROM related_words WHERE rowid = ?');
  const addName = db.prepare('INSERT INTO related_words (rowid, name) VALUES (?, ?)');
  const nameOf = db.prepare<[number], string>(`SELECT name FROM ${table} WHERE id = ?`).pluck();
  return {
    record(id: number): void {
      for (const part of dropParts) part.run(id);
      drop.run(id);
      if (nth >= 0) dropName.run(id * 8 + nth);
    },
    /** Lets a record be found by the name that it has now. */
    renamed(id: number): void {
      if (nth < 0) return;
      dropName.run(id * 8 + nth);
      addName.run(id * 8 + nth, fold(nameOf.get(id)!));
    },
  };
}

export type RelatedWriter = ReturnType<typeof relatedWriter>;

/** Tables of records that hang on companies, and of what belongs to them, to be emptied in this order. */
export const RELATED_TABLES = [
  ...['site', 'person', 'event', 'deal_party', 'deal_source', 'deal'],
  ...['brand_party', 'brand_country', 'brand_measure', 'brand', 'related_words'],
  ...['company_market', 'company_country', 'source_cover', 'subject_change'],
] as const;
