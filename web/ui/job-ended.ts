import type { Job, JobAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';

const LOOK_MS = 150;

/** Waits for a short job. @throws Error that says why it failed or was cancelled */
export async function jobEnded({ id }: Pick<Job, 'id'>): Promise<Job> {
  for (;;) {
    const { job } = await call<JobAnswer>('GET', `/jobs/${id}`);
    if (job.state === 'done') return job;
    if (job.state !== 'running') throw new Error(job.message ?? 'It failed.');
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}
