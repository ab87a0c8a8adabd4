import type { Job } from '../../contract/responses.ts';
import { HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { matchById } from '../tables/matches/views.ts';
import type { AgainJobData } from './again-worker.ts';
import { universeMark } from './universe-firms.ts';

/** Starts the job that matches a file again, with the universe as it is now. @throws HttpProblem where there is no such match, or it is of no file */
export function startMatchAgain(
  { dir, universe, matches, jobs }: Pick<Services, 'dir' | 'universe' | 'matches' | 'jobs'>,
  id: string,
): Job {
  const match = matchById(matches, id, universeMark(universe));
  if (!match)
    throw new HttpProblem(404, 'unknown-match', `There is no match "${id}"; it may have been removed.`, {
      field: 'id',
      value: id,
    });
  if (match.of === 'doubles')
    throw new HttpProblem(409, 'not-a-file', 'Doubles are looked for anew, not matched again.', {
      rule: 'a matched file',
    });
  const data: AgainJobData = { dir, match: id, precision: match.precision };
  return jobs.start('match', `Match ${match.name} again`, 'server/match/again-worker', data, () => {});
}
