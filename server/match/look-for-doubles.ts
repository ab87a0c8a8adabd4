import { DOUBLES_JOB } from '../../contract/matches.ts';
import type { Job } from '../../contract/responses.ts';
import type { Services } from '../services.ts';
import { readSettings } from '../tables/workspace.ts';
import { countWithoutNumber, MOST_WITHOUT_NUMBER } from './universe-firms.ts';

/** Starts the search for companies that the universe has twice, or gives the one that is going on. */
export function lookForDoubles({ dir, jobs, workspace }: Services): Job {
  const going = jobs.list().find(({ title, state }) => title === DOUBLES_JOB && state === 'running');
  if (going) return going;
  const { person } = readSettings(workspace);
  return jobs.start('match', DOUBLES_JOB, 'server/match/doubles-worker', { dir, person }, () => {});
}

/**
 * The same after a load that brought companies without a number beside others: they may be there under another name. Not where there
 * are too many to look for. Where one is looking already, it will be said that the universe has changed since.
 */
export function lookAfterLoad(services: Services): void {
  if (countWithoutNumber(services.universe) <= MOST_WITHOUT_NUMBER) lookForDoubles(services);
}
