import type { MatchView, RowState, SettledAs } from '../../contract/matches.ts';
import type { Firm } from '../../core/match/firm.ts';
import type { Learning, Model } from '../../core/match/model.ts';
import type { Limits, Outcome, SureBy } from '../../core/match/outcome.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Db } from '../db/open.ts';

/** Files lined up with the universe: their rows, what was found for each, and what was settled by hand. */

export interface MatchMade {
  id: string;
  of: MatchView['of'];
  name: string;
  fileName: string;
  header: string[];
  mapping: Mapping;
  person: string;
  madeAt: number;
  /** As `universeMark` gives it. */
  universe: string;
  companies: number;
  rows: number;
  notData: number;
  model: Model;
  limits: Limits;
  learning: Learning;
  precision: number;
  shared: Readonly<Record<number, number>>;
}

export interface MatchRowMade {
  row: number;
  cells: readonly string[];
  firm: Firm | null;
  outcome: Outcome | 'unreadable' | 'twice';
  twiceOf: number | null;
  candidates: readonly { key: string; chance: number; by: SureBy | null; agrees: readonly string[] }[];
}

/** What a row comes to, as SQL: what was settled goes before what was found. */
const STATE = "CASE settled WHEN 'taken' THEN 'settled' WHEN 'none' THEN 'none' ELSE outcome END";

/** Writes a match whole, in one transaction. */
export function addMatch(db: Db, match: MatchMade, rows: Iterable<MatchRowMade>): void {
  const addRow = db.prepare(
    'INSERT INTO match_row (match, row, cells, firm, outcome, by, twice_of, key, chance) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const addCandidate = candidateAdder(db, match.id);
  db.transaction(() => {
    // Of searches for doubles only the last is of use.
    if (match.of === 'doubles') db.prepare("DELETE FROM match WHERE of = 'doubles'").run();
    db.prepare(
      `INSERT INTO match (id, of, name, file_name, header, mapping, person, made_at, universe, companies, rows, not_data, model, limits, learning, precision, shared)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    ).run(
      match.id,
      match.of,
      match.name,
      match.fileName,
      JSON.stringify(match.header),
      JSON.stringify(match.mapping),
      match.person,
      match.madeAt,
      match.universe,
      match.companies,
      match.rows,
      match.notData,
      JSON.stringify(match.model),
      JSON.stringify(match.limits),
      JSON.stringify(match.learning),
      match.precision,
      JSON.stringify(match.shared),
    );
    for (const { row, cells, firm, outcome, twiceOf, candidates } of rows) {
      const found = keyed(outcome, candidates);
      addRow.run(
        match.id,
        row,
        JSON.stringify(cells),
        firm && JSON.stringify(firm),
        outcome,
        found.by,
        twiceOf,
        found.key,
        candidates[0]?.chance ?? null,
      );
      addCandidate(row, candidates);
    }
  })();
}

/** The rows of a match that are looked for in the universe. */
export function rowsToMatch(db: Db, id: string): { row: number; firm: Firm }[] {
  return db
    .prepare<[string], { row: number; firm: string }>(
      "SELECT row, firm FROM match_row WHERE match = ? AND outcome IN ('sure', 'doubtful', 'none') ORDER BY row",
    )
    .all(id)
    .map(({ row, firm }) => ({ row, firm: JSON.parse(firm) as Firm }));
}

/**
 * Puts what was found anew in place of what was, in one transaction; rows that were settled stay so. Of each row that came to
 * another state or company it is noted what it was. Returns how many.
 */
export function renewMatch(
  db: Db,
  id: string,
  job: string,
  match: Pick<MatchMade, 'universe' | 'companies' | 'model' | 'limits' | 'learning' | 'shared'>,
  rows: readonly Pick<MatchRowMade, 'row' | 'outcome' | 'candidates'>[],
): number {
  const had = db.prepare<[string, number], { state: RowState; key: string | null; settled: string | null }>(
    `SELECT ${STATE} AS state, key, settled FROM match_row WHERE match = ? AND row = ?`,
  );
  const renew = db.prepare(
    `UPDATE match_row SET outcome = ?, by = ?, chance = ?, key = CASE WHEN settled IS NULL THEN ? ELSE key END, was = ?
     WHERE match = ? AND row = ?`,
  );
  const forget = db.prepare('DELETE FROM match_candidate WHERE match = ?');
  const addCandidate = candidateAdder(db, id);
  return db.transaction(() => {
    let moved = 0;
    forget.run(id);
    for (const { row, outcome, candidates } of rows) {
      const before = had.get(id, row)!;
      const found = keyed(outcome, candidates);
      const same = before.settled !== null || (before.state === outcome && before.key === found.key);
      const was = same ? null : JSON.stringify({ state: before.state, key: before.key });
      renew.run(outcome, found.by, candidates[0]?.chance ?? null, found.key, was, id, row);
      addCandidate(row, candidates);
      if (!same) moved++;
    }
    db.prepare(
      `UPDATE match SET universe = ?, companies = ?, model = ?, limits = ?, learning = ?, shared = ?, again = ?, revision = revision + 1 WHERE id = ?`,
    ).run(
      match.universe,
      match.companies,
      ...[match.model, match.limits, match.learning, match.shared].map((part) => JSON.stringify(part)),
      job,
      id,
    );
    return moved;
  })();
}

/** The company that a row is taken for by what was found, and what it is sure by. */
function keyed(outcome: MatchRowMade['outcome'], candidates: MatchRowMade['candidates']) {
  const [best] = outcome === 'sure' || outcome === 'doubtful' ? candidates : [];
  return { key: best?.key ?? null, by: outcome === 'sure' ? best!.by : null };
}

function candidateAdder(db: Db, id: string): (row: number, candidates: MatchRowMade['candidates']) => void {
  const add = db.prepare(
    'INSERT INTO match_candidate (match, row, nth, key, chance, by, agrees) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  return (row, candidates) =>
    candidates.forEach(({ key, chance, by, agrees }, nth) =>
      add.run(id, row, nth, key, chance, by, agrees.join(' ')),
    );
}

interface MatchRow {
  id: string;
  of: MatchView['of'];
  name: string;
  file_name: string;
  person: string;
  made_at: number;
  universe: string;
  companies: number;
  rows: number;
  not_data: number;
  precision: number;
  list: string | null;
}

/** @param now the universe as it is, by `universeMark` */
export function allMatches(db: Db, now: string): MatchView[] {
  return db
    .prepare<[], MatchRow>('SELECT * FROM match ORDER BY made_at DESC, id')
    .all()
    .map((row) => viewOf(db, row, now));
}

export function matchById(db: Db, id: string, now: string): MatchView | null {
  const row = db.prepare<[string], MatchRow>('SELECT * FROM match WHERE id = ?').get(id);
  return row ? viewOf(db, row, now) : null;
}

function viewOf(db: Db, match: MatchRow, now: string): MatchView {
  const counts = db
    .prepare<[string], { state: RowState; by: SureBy | null; count: number }>(
      `SELECT ${STATE} AS state, CASE WHEN settled IS NULL THEN by END AS by, count(*) AS count
       FROM match_row WHERE match = ? GROUP BY 1, 2`,
    )
    .all(match.id);
  const sum = (state: RowState, by?: SureBy) =>
    counts.reduce(
      (all, one) => all + (one.state === state && (by === undefined || one.by === by) ? one.count : 0),
      0,
    );
  const foundCompanies = db
    .prepare<[string], number>(
      `SELECT count(DISTINCT key) FROM match_row WHERE match = ? AND ${STATE} IN ('sure', 'settled')`,
    )
    .pluck()
    .get(match.id)!;
  const sure = { number: sum('sure', 'number'), domain: sum('sure', 'domain'), name: sum('sure', 'name') };
  return {
    id: match.id,
    of: match.of,
    name: match.name,
    fileName: match.file_name,
    person: match.person,
    madeAt: new Date(match.made_at).toISOString(),
    precision: match.precision,
    companies: match.companies,
    changed: match.universe !== now,
    rows: match.rows,
    notData: match.not_data,
    unreadable: sum('unreadable'),
    twice: sum('twice'),
    toMatch: match.rows - match.not_data - sum('unreadable') - sum('twice'),
    sure,
    settled: sum('settled'),
    doubtful: sum('doubtful'),
    none: sum('none'),
    found: sum('sure') + sum('settled'),
    foundCompanies,
    moved: db
      .prepare<[string], number>('SELECT count(*) FROM match_row WHERE match = ? AND was IS NOT NULL')
      .pluck()
      .get(match.id)!,
    list: match.list,
  };
}

/** How the pairs of a match were scored. */
export interface MatchModel {
  header: string[];
  mapping: Mapping;
  model: Model;
  limits: Limits;
  learning: Learning;
  companies: number;
  shared: Record<number, number>;
}

export function modelOfMatch(db: Db, id: string): MatchModel {
  const row = db
    .prepare<
      [string],
      Record<'header' | 'mapping' | 'model' | 'limits' | 'learning' | 'shared', string> & {
        companies: number;
      }
    >('SELECT header, mapping, model, limits, learning, shared, companies FROM match WHERE id = ?')
    .get(id)!;
  return {
    header: JSON.parse(row.header) as string[],
    mapping: JSON.parse(row.mapping) as Mapping,
    model: JSON.parse(row.model) as Model,
    limits: JSON.parse(row.limits) as Limits,
    learning: JSON.parse(row.learning) as Learning,
    shared: JSON.parse(row.shared) as Record<number, number>,
    companies: row.companies,
  };
}

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
}

const WHERE = `match = ? AND ${STATE} IN (SELECT value FROM json_each(?)) AND (? IS NULL OR (by = ? AND settled IS NULL)) AND (? = 0 OR was IS NOT NULL)`;
const wished = (id: string, { states, by, moved = false }: RowsWish) =>
  [id, JSON.stringify(states), by, by, Number(moved)] as const;

export function rowsOfMatch(db: Db, id: string, wish: RowsWish, offset: number, limit: number): StoredRow[] {
  return db
    .prepare<unknown[], RowColumns>(`${ROW} WHERE ${WHERE} ORDER BY row LIMIT ? OFFSET ?`)
    .all(...wished(id, wish), limit, offset)
    .map(read);
}

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
  const settle = db.prepare(
    'UPDATE match_row SET settled = ?, key = ?, settled_by = ?, settled_at = ? WHERE match = ? AND row = ?',
  );
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

export function noteList(db: Db, id: string, list: string): void {
  db.prepare('UPDATE match SET list = ? WHERE id = ?').run(list, id);
}

export function removeMatch(db: Db, id: string): void {
  db.prepare('DELETE FROM match WHERE id = ?').run(id);
}

/** The match that a job made, or matched again last; null where there is none. */
export function matchOfJob(db: Db, job: string): string | null {
  return (
    db
      .prepare<[string, string], string>('SELECT id FROM match WHERE id = ? OR again = ?')
      .pluck()
      .get(job, job) ?? null
  );
}

/** The search for doubles that is kept; the newest where there are several. */
export function doublesMatch(db: Db): string | null {
  return (
    db
      .prepare<[], string>("SELECT id FROM match WHERE of = 'doubles' ORDER BY made_at DESC LIMIT 1")
      .pluck()
      .get() ?? null
  );
}

/** Notes that two companies stay apart. */
export function keepApart(db: Db, pairs: readonly (readonly [string, string])[]): void {
  const note = db.prepare('INSERT OR IGNORE INTO company_apart (a, b) VALUES (?, ?)');
  db.transaction(() => {
    for (const [a, b] of pairs)
      if (a < b) note.run(a, b);
      else note.run(b, a);
  })();
}

/** Pairs that stay apart, as "a b" with the lesser key first. */
export function apartPairs(db: Db): ReadonlySet<string> {
  return new Set(db.prepare<[], string>("SELECT a || ' ' || b FROM company_apart").pluck().all());
}

/** Takes rows of a search for doubles away whose companies are not there any more. */
export function forgetRows(db: Db, id: string, gone: ReadonlySet<string>): void {
  const remove = db.prepare('DELETE FROM match_row WHERE match = ? AND row = ?');
  db.transaction(() => {
    let count = 0;
    const rows = db
      .prepare<[string], [number, string]>('SELECT row, cells FROM match_row WHERE match = ?')
      .raw()
      .all(id);
    for (const [row, cells] of rows)
      if (gone.has((JSON.parse(cells) as string[])[0]!)) count += remove.run(id, row).changes;
    db.prepare('UPDATE match SET rows = rows - ? WHERE id = ?').run(count, id);
  })();
}

/** Notes that a match holds for the universe as it is now. */
export function noteUniverse(db: Db, id: string, universe: string): void {
  db.prepare('UPDATE match SET universe = ? WHERE id = ?').run(universe, id);
}
