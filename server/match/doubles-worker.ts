import { workerData } from 'node:worker_threads';
import { PRECISION } from '../../core/match/outcome.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openMatches, openUniverse } from '../db/open.ts';
import { runJob } from '../jobs/thread.ts';
import { apartPairs } from '../tables/matches/doubles.ts';
import { keepMatch, tellMatching } from './keep-match.ts';
import { matchUniverse } from './match-universe.ts';
import { firmsWithoutNumber, MOST_WITHOUT_NUMBER } from './universe-firms.ts';

/**
 * The thread that looks for companies which the universe has twice. Two that have a number in one register are two, so that only
 * those without a number are looked for among all others.
 */

export interface DoublesJobData extends Record<string, unknown> {
  dir: string;
  person: string;
}

function search({ dir, person, job }: DoublesJobData & { job: string }): Record<string, unknown> {
  const universe = openUniverse(dir, { readonly: true });
  universe.exec('BEGIN');
  const matches = openMatches(dir);
  const apart = apartPairs(matches);
  matches.close();
  const rows = firmsWithoutNumber(universe, MOST_WITHOUT_NUMBER + 1);
  if (rows.length > MOST_WITHOUT_NUMBER)
    throw new Problem(
      'too-many-rows',
      `More than ${MOST_WITHOUT_NUMBER.toLocaleString('en-GB')} companies have no registration number; so many are not looked for at once. Load a source that has their numbers.`,
    );
  const matching = matchUniverse(
    dir,
    universe,
    rows.map(({ firm }) => firm),
    PRECISION,
    tellMatching,
    {
      ids: rows.map(({ id }) => id),
      apart: (row, key) => apart.has([rows[row]!.key, key].sort().join(' ')),
    },
  );
  keepMatch(
    dir,
    universe,
    {
      ...{ id: job, of: 'doubles', name: 'Doubles', fileName: '', header: [], person, precision: PRECISION },
      ...{ mapping: NOTHING_READ, rows: rows.length, notData: 0 },
    },
    matching,
    rows.map(({ key, firm }, i) => ({
      ...{ row: i + 1, cells: [key], firm, twiceOf: null },
      found: matching.rows[i]!,
    })),
  );
  return { match: job };
}

/** There is no file that was read. */
const NOTHING_READ: Mapping = {
  columns: [],
  scheme: 'nace-2.1',
  decimal: '.',
  dates: 'dmy',
  country: null,
  currency: 'EUR',
  year: 2000,
  revenueUnit: 1,
};

void runJob(() => search(workerData as DoublesJobData & { job: string }));
