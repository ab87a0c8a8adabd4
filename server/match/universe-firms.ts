import type { Firm } from '../../core/match/firm.ts';
import type { Db } from '../db/open.ts';
import { revisionOf } from '../tables/revision.ts';

/** The companies of the universe as the matcher compares them. */

const COLUMNS =
  'c.name, c.legal_form, c.registration, c.country, c.web, c.mail, c.phone, c.street, c.postcode, c.town, c.lat, c.lon, c.headcount_point';

type FirmRow = [string, ...(string | null)[]];

/** A row of COLUMNS from `at` on. */
function firmOf(row: FirmRow, at: number): Firm {
  const text = (nth: number) => row[at + nth] as string | null;
  const number = (nth: number) => row[at + nth] as unknown as number | null;
  return {
    name: text(0),
    legalForm: text(1),
    registration: text(2),
    country: text(3),
    web: text(4),
    mail: text(5),
    phone: text(6),
    street: text(7),
    postcode: text(8),
    town: text(9),
    lat: number(10),
    lon: number(11),
    headcount: number(12),
  };
}

/** A company of the universe. */
export interface OwnFirm {
  id: number;
  key: string;
  firm: Firm;
}

const ownFirm = (row: unknown[]): OwnFirm => ({
  id: row[0] as number,
  key: row[1] as string,
  firm: firmOf(row as FirmRow, 2),
});

/** All companies in the order of their ids. */
export function* allFirms(universe: Db): Generator<OwnFirm> {
  const rows = universe
    .prepare(`SELECT c.id, c.key, ${COLUMNS} FROM company c ORDER BY c.id`)
    .raw()
    .iterate();
  for (const row of rows as IterableIterator<unknown[]>) yield ownFirm(row);
}

/** Of some companies those that are there, and those whose ids are above one, at most `most`; in the order of their ids. */
export function firmsOf(universe: Db, ids: readonly number[], above: number, most: number): OwnFirm[] {
  const rows = universe
    .prepare(
      `SELECT c.id, c.key, ${COLUMNS} FROM company c
       WHERE c.id > @above OR c.id IN (SELECT value FROM json_each(@ids)) ORDER BY c.id LIMIT @most`,
    )
    .raw()
    .all({ above, ids: JSON.stringify(ids), most });
  return (rows as unknown[][]).map(ownFirm);
}

/** Ids of the companies that have no registration number, in their order. */
export function withoutNumber(universe: Db): number[] {
  return universe
    .prepare<[], number>('SELECT id FROM company WHERE registration IS NULL ORDER BY id')
    .pluck()
    .all();
}

export function countWithoutNumber(universe: Db): number {
  return universe
    .prepare<[], number>('SELECT count(*) FROM company WHERE registration IS NULL')
    .pluck()
    .get()!;
}

/** Looks companies up, by id. */
export function firmFinder(universe: Db): (id: number) => { key: string; firm: Firm } {
  const one = universe.prepare(`SELECT c.key, ${COLUMNS} FROM company c WHERE c.id = ?`).raw();
  return (id) => {
    const row = one.get(id) as FirmRow;
    return { key: row[0], firm: firmOf(row, 1) };
  };
}

/** Name of the group of a company by its key; null where it belongs to none. */
export function groupOf(universe: Db, key: string): string | null {
  return (
    universe
      .prepare<[string], string | null>('SELECT group_name FROM company WHERE key = ?')
      .pluck()
      .get(key) ?? null
  );
}

/** A company by its key; null where the universe has none of that key now. */
export function firmByKey(universe: Db, key: string): Firm | null {
  const row = universe.prepare(`SELECT ${COLUMNS} FROM company c WHERE c.key = ?`).raw().get(key) as
    FirmRow | undefined;
  return row ? firmOf(row, 0) : null;
}

/** Names a universe and its state: equal marks are equal companies. */
export function universeMark(universe: Db): string {
  const { stamp, revision } = revisionOf(universe);
  return `${stamp} ${revision}`;
}

/** How many companies have a word in their names, by the index of words: for looking at one pair, not for many. */
export function wordCounter(universe: Db): (word: string) => number {
  universe.exec(
    'CREATE VIRTUAL TABLE IF NOT EXISTS temp.name_word USING fts5vocab(main, company_words, col)',
  );
  const one = universe
    .prepare<[string], number>("SELECT doc FROM temp.name_word WHERE term = ? AND col = 'name'")
    .pluck();
  return (word) => one.get(word) ?? 0;
}

export function countCompanies(universe: Db): number {
  return universe.prepare<[], number>('SELECT count(*) FROM company').pluck().get()!;
}
