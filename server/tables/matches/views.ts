import type { MatchView, RowState } from '../../../contract/matches.ts';
import type { Learning, Model } from '../../../core/match/model.ts';
import { SURE_BY, type Limits, type SureBy } from '../../../core/match/outcome.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import type { Db } from '../../db/open.ts';
import { STATE } from './state.ts';

/** Matches as they are shown, with how many rows came to what, and how they were scored. */

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
  const sure = Object.fromEntries(SURE_BY.map((by) => [by, sum('sure', by)])) as Record<SureBy, number>;
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
