import type { Job, JobAnswer } from '../contract/responses.ts';
import { checkDatabases } from './databases.ts';
import { hold } from './harness.ts';
import { pause, Program } from './program.ts';

interface Killed {
  program: Program;
  /** What the job says of itself after the restart. */
  job: Job;
}

/** Begins a job, kills the program after a while, and starts it again. */
export async function killedDuring(
  program: Program,
  begin: () => Promise<string>,
  ms: number,
): Promise<Killed> {
  const id = await begin();
  await pause(ms);
  await program.end('SIGKILL');
  checkDatabases(program.dir);
  const again = await Program.started(program.dir);
  const { job } = await again.get<JobAnswer>(`/jobs/${id}`);
  hold(job.state !== 'running', `A job that was killed says it is running: ${job.title}`);
  return { program: again, job };
}
