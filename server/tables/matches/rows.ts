import type { RowSort, RowState, SettledAs } from '../../../contract/matches.ts';
import type { Firm } from '../../../core/match/firm.ts';
import type { SureBy } from '../../../core/match/outcome.ts';
import type { Db } from '../../db/open.ts';
import { settler, STATE } from './state.ts';

/** Rows of matches: which are shown, their candidates, and settling them. */

export interface StoredRow {
  row: number;
  cells: string[];
  firm: Firm | null;
  state: RowState;
  by: SureBy | null;
  twiceOf: number | null;
  key: string | null;
  chance: number | null;
  settledBy: string | null;
  /** What it came to before it was last matched again; null where that did not move. */
  was: { state: RowState; key: string | null } | null;
}

interface RowColumns {
  row: number;
  cells: string;
  firm: string | null;
  state: RowState;
  by: SureBy | null;
  twiceOf: number | null;
  key: string | null;
  chance: number | null;
  settledBy: string | null;
  was: string | null;
}

const ROW = `SELECT row, cells, firm, ${STATE} AS state, by, twice_of AS twiceOf, key, chance, settled_by AS settledBy, was FROM match_row`;

const read = (row: RowColumns): StoredRow => ({
  ...row,
  cells: JSON.parse(row.cells) as string[],
  firm: row.firm === null ? null : (JSON.parse(row.firm) as Firm),
  was: row.was === null ? null : (JSON.parse(row.was) as StoredRow['was']),
});

/** Which rows are shown: those of some states, of the sure ones perhaps only those by one thing. */
export interface RowsWish {
  states: readonly RowState[];
  by: SureBy | null;
  /** Whether only those are meant that moved when they were last matched again. */
  moved?: boolean;
  /** By row where left out. */
  sort?: { by: RowSort; descending: boolean };
}

/** What rows are put in order by: names as they are shown, certainty of the best candidate. What has none comes last. */
const ORDERS: Record<RowSort, string> = {
  row: 'row',
  name: `COALESCE(firm ->> '$.name', firm ->> '$.web', firm ->> '$.mail', firm ->> '$.registration') COLLATE NOCASE`,
  state: STATE,
  certainty: 'chance',
};

const WHERE = `match = ? AND ${STATE} IN (SELECT value FROM json_each(?)) AND (? IS NULL OR (by = ? AND settled IS NULL)) AND (? = 0 OR was IS NOT NULL)`;
const wished = (id: string, { states, by, moved = false }: RowsWish) =>
  [id, JSON.stringify(states), by, by, Number(moved)] as const;

export function rowsOfMatch(db: Db, id: string, wish: RowsWish, offset: number, limit: number): StoredRow[] {
  return db
    .prepare<unknown[], RowColumns>(`${ROW} WHERE ${WHERE} ORDER BY ${orderOf(wish)} LIMIT ? OFFSET ?`)
    .all(...wished(id, wish), limit, offset)
    .map(read);
}

const orderOf = ({ sort = { by: 'row', descending: false } }: RowsWish): string =>
  `${ORDERS[sort.by]} ${sort.descending ? 'DESC' : 'ASC'} NULLS LAST, row`;

export function countRows(db: Db, id: string, wish: RowsWish): number {
  return db
    .prepare<unknown[], number>(`SELECT count(*) FROM match_row WHERE ${WHERE}`)
    .pluck()
    .get(...wished(id, wish))!;
}

export function rowOfMatch(db: Db, id: string, row: number): StoredRow | null {
  const found = db.prepare<[string, number], RowColumns>(`${ROW} WHERE match = ? AND row = ?`).get(id, row);
  return found ? read(found) : null;
}

export function candidatesOf(
  db: Db,
  id: string,
  row: number,
): { key: string; chance: number; by: SureBy | null }[] {
  return db
    .prepare<[string, number], { key: string; chance: number; by: SureBy | null }>(
      'SELECT key, chance, by FROM match_candidate WHERE match = ? AND row = ? ORDER BY nth',
    )
    .all(id, row);
}

/** Where a row stands among those that were doubtful, settled since or not, and the ones before and after it that are left. */
export function placeAmongDoubtful(
  db: Db,
  id: string,
  row: number,
): { nth: number; of: number; next: number | null; back: number | null } {
  const one = <T>(sql: string, ...values: unknown[]) =>
    db
      .prepare<unknown[], T>(sql)
      .pluck()
      .get(...values);
  const doubtful = "FROM match_row WHERE match = ? AND outcome = 'doubtful'";
  const left = `${doubtful} AND settled IS NULL`;
  return {
    nth: one<number>(`SELECT count(*) ${doubtful} AND row <= ?`, id, row)!,
    of: one<number>(`SELECT count(*) ${doubtful}`, id)!,
    next:
      one<number | null>(`SELECT min(row) ${left} AND row > ?`, id, row) ??
      one<number | null>(`SELECT min(row) ${left} AND row <> ?`, id, row) ??
      null,
    back: one<number | null>(`SELECT max(row) ${left} AND row < ?`, id, row) ?? null,
  };
}

/** Doubtful rows that are left with one likely candidate, with the fields in which that agrees. */
export function singleCandidates(
  db: Db,
  id: string,
  least: number,
): { row: number; key: string; agrees: string }[] {
  return db
    .prepare<[string, number, number], { row: number; key: string; agrees: string }>(
      `SELECT r.row, c.key, c.agrees FROM match_row r JOIN match_candidate c ON c.match = r.match AND c.row = r.row AND c.nth = 0
       WHERE r.match = ? AND r.outcome = 'doubtful' AND r.settled IS NULL AND NOT EXISTS (
         SELECT 1 FROM match_candidate o WHERE o.match = r.match AND o.row = r.row AND o.nth = 1 AND o.chance >= ?)
         AND c.chance >= ? ORDER BY r.row`,
    )
    .all(id, least, least);
}

/** Settles rows, all of them or none. What they were before is returned, by which it is taken back. */
export function settleRows(
  db: Db,
  id: string,
  rows: readonly { row: number; as: SettledAs; key?: string }[],
  person: string,
): { row: number; as: SettledAs; key?: string }[] {
  const had = db.prepare<[string, number], { settled: 'taken' | 'none' | null; key: string | null }>(
    'SELECT settled, key FROM match_row WHERE match = ? AND row = ?',
  );
  const best = db
    .prepare<[string, number], string>(
      'SELECT key FROM match_candidate WHERE match = ? AND row = ? AND nth = 0',
    )
    .pluck();
  const settle = settler(db);
  return db.transaction(() =>
    rows.map(({ row, as, key }) => {
      const before = had.get(id, row)!;
      if (as === 'open') settle.run(null, best.get(id, row) ?? null, null, null, id, row);
      else settle.run(as, as === 'taken' ? key! : null, person, Date.now(), id, row);
      db.prepare('UPDATE match SET revision = revision + 1 WHERE id = ?').run(id);
      return {
        row,
        as: before.settled ?? ('open' as const),
        ...(before.settled === 'taken' ? { key: before.key! } : {}),
      };
    }),
  )();
}
