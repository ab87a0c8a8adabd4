import type { MatchView, RowState } from '../../../contract/matches.ts';
import type { Firm } from '../../../core/match/firm.ts';
import type { Learning, Model } from '../../../core/match/model.ts';
import type { Limits, Outcome, SureBy } from '../../../core/match/outcome.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import type { Db } from '../../db/open.ts';
import { settler, STATE } from './state.ts';

/** Matches as they are written: made whole, and made again once the universe has changed. */

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

/** Writes a match whole, in one transaction, which waits for that of another. */
export function addMatch(db: Db, match: MatchMade, rows: Iterable<MatchRowMade>): void {
  const addRow = db.prepare(
    'INSERT INTO match_row (match, row, cells, firm, outcome, by, twice_of, key, chance) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const addCandidate = candidateAdder(db, match.id);
  const settle = settler(db);
  db.transaction(() => {
    const settled = match.of === 'doubles' ? settledDoubles(db) : new Map<string, SettledDouble>();
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
      const text = JSON.stringify(cells);
      addRow.run(
        match.id,
        row,
        text,
        firm && JSON.stringify(firm),
        outcome,
        found.by,
        twiceOf,
        found.key,
        candidates[0]?.chance ?? null,
      );
      addCandidate(row, candidates);
      const own = settled.get(text);
      // What was taken may be no candidate any more, such as one that was joined.
      if (own && (own.settled === 'none' || candidates.some(({ key }) => key === own.key)))
        settle.run(own.settled, own.key, own.settled_by, own.settled_at, match.id, row);
    }
  }).immediate();
}

/** What was settled by hand. */
interface SettledDouble {
  cells: string;
  settled: 'taken' | 'none';
  key: string | null;
  settled_by: string | null;
  settled_at: number | null;
}

/** What was settled of the search for doubles that is kept, by the cells of its rows as JSON, which are the key of a company. */
function settledDoubles(db: Db): Map<string, SettledDouble> {
  const rows = db
    .prepare<[], SettledDouble>(
      `SELECT r.cells, r.settled, r.key, r.settled_by, r.settled_at FROM match_row r JOIN match m ON m.id = r.match
       WHERE m.of = 'doubles' AND r.settled IS NOT NULL`,
    )
    .all();
  return new Map(rows.map((row) => [row.cells, row]));
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
  return db
    .transaction(() => {
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
    })
    .immediate();
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
