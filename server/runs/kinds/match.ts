import { matchRunRoll } from '../../../core/runs/roll.ts';
import { addFoundToList } from '../../match/found-to-list.ts';
import { startMatchAgain } from '../../match/match-again.ts';
import { universeMark } from '../../match/universe-firms.ts';
import { listByKey } from '../../tables/lists/list-rows.ts';
import { matchById } from '../../tables/matches/views.ts';
import { setRunRoll } from '../../tables/runs/runs.ts';
import { doneJob, type Carry } from './carry.ts';

/** Matches a file again, with the universe as it is now; who is found now goes on the list that was made of it. */
export const runMatchAgain: Carry = async ({ services, plan, run, say, carriedBy }) => {
  const { universe, matches, listsDb, jobs } = services;
  const id = plan.target.match!;
  const job = startMatchAgain(services, id);
  carriedBy({ job: job.id });
  await doneJob(jobs, job.id);
  const match = matchById(matches, id, universeMark(universe))!;
  setRunRoll(services.runs.db, run.id, matchRunRoll(match), 'companies');
  const n = (count: number) => count.toLocaleString('en-GB');
  const said = [`${n(match.found)} of ${n(match.toMatch)} rows found`, `${n(match.doubtful)} doubtful`];
  if (match.moved > 0) said.push(`${n(match.moved)} came to something else`);
  const list = match.list === null ? null : listByKey(listsDb, match.list);
  if (list) {
    const { added } = await addFoundToList(services, id, { list: list.key });
    carriedBy({ job: job.id, list: list.key });
    if (added > 0) said.push(`${n(added)} more on ${list.name}`);
  }
  say(`${match.name}: ${said.join(', ')}`);
  return said.join(', ');
};
