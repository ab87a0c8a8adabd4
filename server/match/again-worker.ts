import { workerData } from 'node:worker_threads';
import { openMatchesToFill, openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled } from '../jobs/thread.ts';
import { renewMatch, rowsToMatch } from '../tables/matches/made.ts';
import { foundMaker, tellMatching } from './keep-match.ts';
import { matchUniverse } from './match-universe.ts';
import { universeMark } from './universe-firms.ts';

/** The thread that matches a file again, with the universe as it is now. What was settled by hand stays settled. */

export interface AgainJobData extends Record<string, unknown> {
  dir: string;
  match: string;
  precision: number;
}

function again({ dir, match, precision, job }: AgainJobData & { job: string }): Record<string, unknown> {
  const universe = openUniverse(dir, { readonly: true });
  universe.exec('BEGIN');
  const db = openMatchesToFill(dir);
  try {
    const rows = rowsToMatch(db, match);
    const matching = matchUniverse(
      { dir, universe, told: tellMatching },
      rows.map(({ firm }) => firm),
      precision,
    );
    const foundOf = foundMaker(universe, matching);
    stopIfCancelled();
    const moved = renewMatch(
      db,
      match,
      job,
      { ...matching, universe: universeMark(universe) },
      rows.map(({ row, firm }, i) => ({ row, ...foundOf(firm, matching.rows[i]!) })),
    );
    return { match, moved };
  } finally {
    db.close();
    universe.close();
  }
}

void runJob(() => again(workerData as AgainJobData & { job: string }));
