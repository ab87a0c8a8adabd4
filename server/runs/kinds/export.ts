import type { Roll } from '../../../core/lists/roll.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { exportAgain } from '../../exports/again.ts';
import { exportById } from '../../tables/exports.ts';
import { setRunRoll } from '../../tables/runs/runs.ts';
import { doneJob, type Carry } from './carry.ts';

/** Makes an export again. */
export const runExportAgain: Carry = async ({ services, plan, run, say, carriedBy }) => {
  const { workspace, jobs } = services;
  const row = exportById(workspace, plan.target.export!);
  if (!row)
    throw new Problem('unknown-export', 'The export that this makes again is not there any more.', {
      field: 'target.export',
      value: plan.target.export,
    });
  const made = await exportAgain(services, row, plan.target.rows ?? 'plain');
  carriedBy({ export: made.export, job: made.job.id });
  await doneJob(jobs, made.job.id);
  const written = exportById(workspace, made.export)!;
  const count = written.count ?? 0;
  if (written.roll !== null)
    setRunRoll(services.runs.db, run.id, JSON.parse(written.roll) as Roll, written.subject);
  say(`${count.toLocaleString('en-GB')} rows written`);
  return `${count.toLocaleString('en-GB')} rows`;
};
