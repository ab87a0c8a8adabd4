import type { Services } from '../../services.ts';
import type { Job } from '../../../contract/responses.ts';
import type { Jobs } from '../../jobs/jobs.ts';
import { Left, type Errand } from '../errand.ts';

/** An errand with all that it may need. */
export interface OwnErrand extends Errand {
  services: Services;
}

/** How a kind of plan is carried out: what came of it, in a few words. @throws Error with what went wrong, Left */
export type Carry = (errand: OwnErrand) => Promise<string>;

/** The job that does the work, once it is done. @throws Left where it was cancelled, Error where it failed */
export async function doneJob(jobs: Jobs, id: string): Promise<Job> {
  const job = await jobs.ended(id);
  if (job?.state === 'cancelled') throw new Left();
  if (job?.state !== 'done') throw new Error(job?.message ?? 'The job ended without a word.');
  return job;
}
