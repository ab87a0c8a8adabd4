import { nanoid } from 'nanoid';
import type { Worker } from 'node:worker_threads';
import type { Job, JobState } from '../../contract/responses.ts';
import { JOBS_BESIDE } from '../../core/jobs-beside.ts';
import type { Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import { HttpProblem } from '../http/check.ts';
import { startWorker } from '../threads.ts';

/** What a job's thread says while it works. */
export type JobMessage =
  | { progress: { done: number; total: number | null; message?: string } }
  | { result: Record<string, unknown> }
  | { problem: string };

const READINGS_KEPT = 10;

/** Whether jobs of a kind write the universe. */
const writes = (kind: Job['kind']) => !JOBS_BESIDE.has(kind);

/**
 * Long work, each in a thread of its own, with progress and cancelling. Jobs are written to the
 * workspace, so that they are still listed after a restart; one that was running then has failed.
 */
export class Jobs {
  private readonly db: Db;
  private readonly landed: (job: string) => Record<string, unknown> | null;
  private readonly log: Log;
  private readonly ends = new Map<string, ((job: Job) => void)[]>();
  private readonly running = new Map<string, { job: Job; worker: Worker; cancel: Int32Array }>();

  /**
   * @param landed the result of a job whose change was written whole; null where it was not
   * @param wroteFile whether the file of an export's job was written whole
   */
  constructor(
    db: Db,
    landed: (job: string) => Record<string, unknown> | null,
    log: Log,
    wroteFile: (job: string) => boolean,
  ) {
    this.db = db;
    this.landed = landed;
    this.log = log;
    for (const job of this.stored("WHERE state = 'running'")) {
      const result = landed(job.id);
      if (result) {
        job.result = result;
        this.end(job, 'done', 'The program was stopped just after this was done; all of it is kept.');
      } else if (job.kind === 'export' && wroteFile(job.id))
        this.end(job, 'done', 'The program was stopped just after the file was written; it is whole.');
      else
        this.end(
          job,
          'failed',
          'The program was stopped while this ran. Nothing of it was kept; start it again.',
        );
    }
  }

  /**
   * Starts a job in the worker at `path`. `after` runs when the thread has ended well, before the
   * job counts as done; the thread finds a cancel flag at `workerData.cancel[0]`.
   * @throws HttpProblem where it writes the universe and another does so already
   */
  start(
    kind: Job['kind'],
    title: string,
    path: string,
    workerData: Record<string, unknown>,
    after: (result: Record<string, unknown>, job: Job) => Promise<void> | void,
  ): Job {
    if (writes(kind) && this.writing)
      throw new HttpProblem(409, 'busy', 'Another load is running. Wait until it ends, or cancel it.', {
        rule: 'one load at a time',
      });
    const job: Job = {
      id: nanoid(12),
      kind,
      title,
      state: 'running',
      done: 0,
      total: null,
      message: null,
      result: null,
      startedAt: new Date().toISOString(),
      endedAt: null,
    };
    if (kind === 'read') this.forgetReadings();
    this.db
      .prepare('INSERT INTO job (id, kind, title, state, started_at) VALUES (?, ?, ?, ?, ?)')
      .run(job.id, kind, title, job.state, job.startedAt);
    const cancel = new Int32Array(new SharedArrayBuffer(4));
    const worker = startWorker(path, { ...workerData, job: job.id, cancel });
    this.running.set(job.id, { job, worker, cancel });
    let result: Record<string, unknown> | null = null;
    let failure: string | null = null;
    worker.on('message', (message: JobMessage) => {
      if ('progress' in message) Object.assign(job, message.progress);
      else if ('result' in message) result = message.result;
      else failure = message.problem;
    });
    worker.on('error', (error) => (failure ??= `It stopped by an error of the program: ${error.message}`));
    worker.on('exit', () => {
      void (async () => {
        // What was written decides, not how the thread ended.
        result ??= this.landed(job.id);
        job.result = result;
        if (result) {
          try {
            await after(result, job);
            this.end(job, 'done', null);
          } catch (error) {
            this.end(
              job,
              'done',
              `It is done, but what is counted could not be brought up to date: ${error instanceof Error ? error.message : String(error)} Start the program again.`,
            );
          }
        } else if (failure !== null) this.end(job, 'failed', failure);
        else if (cancel[0]) this.end(job, 'cancelled', 'Cancelled; nothing of it was kept.');
        else this.end(job, 'failed', 'The thread ended without a result.');
      })();
    });
    return job;
  }

  /** Readings of files are asked for at every change of how one is read; only the last few are of use to anyone. */
  forgetReadings(): void {
    this.db
      .prepare(
        `DELETE FROM job WHERE kind = 'read' AND state <> 'running' AND id NOT IN
           (SELECT id FROM job WHERE kind = 'read' ORDER BY started_at DESC LIMIT ?)`,
      )
      .run(READINGS_KEPT);
  }

  private end(job: Job, state: JobState, message: string | null): void {
    Object.assign(job, { state, message, endedAt: new Date().toISOString() });
    if (state === 'done' && job.total !== null) job.done = job.total;
    try {
      this.db
        .prepare(
          'UPDATE job SET state = ?, done = ?, total = ?, message = ?, result = ?, ended_at = ? WHERE id = ?',
        )
        .run(state, job.done, job.total, message, JSON.stringify(job.result), job.endedAt, job.id);
      this.running.delete(job.id);
      for (const tell of this.ends.get(job.id) ?? []) tell(job);
      this.ends.delete(job.id);
    } catch (error) {
      // Such as on a full disk: how it ended is known here until it can be told anew at the next start.
      this.log.error({ job: job.id, error }, 'The end of a job could not be written');
    }
  }

  /** The job once it has ended; undefined where there is none of this id. */
  async ended(id: string): Promise<Job | undefined> {
    const job = this.get(id);
    if (job?.state !== 'running') return job;
    return new Promise((resolve) => this.ends.set(id, [...(this.ends.get(id) ?? []), resolve]));
  }

  /** True where there was something to cancel. */
  cancel(id: string): boolean {
    const found = this.running.get(id);
    if (found?.job.state !== 'running') return false;
    Atomics.store(found.cancel, 0, 1);
    return true;
  }

  get(id: string): Job | undefined {
    return this.running.get(id)?.job ?? this.stored('WHERE id = ?', id)[0];
  }

  /** The newest jobs, running ones included. */
  list(): Job[] {
    return this.stored("WHERE kind <> 'read' ORDER BY started_at DESC LIMIT 50").map(
      (job) => this.running.get(job.id)?.job ?? job,
    );
  }

  /** Whether no more jobs are to be started, since the program ends. */
  stopped = false;

  /** Waits until the jobs that run have ended, asking them to leave their work. */
  async stop(): Promise<void> {
    this.stopped = true;
    const ends = [...this.running.values()].map(
      ({ worker, cancel }) =>
        new Promise((resolve) => {
          Atomics.store(cancel, 0, 1);
          worker.once('exit', resolve);
        }),
    );
    await Promise.all(ends);
  }

  /** How many run. */
  get count(): number {
    return [...this.running.values()].filter(({ job }) => job.state === 'running').length;
  }

  /** Whether a job that writes the universe is running. */
  get writing(): boolean {
    return [...this.running.values()].some(({ job }) => job.state === 'running' && writes(job.kind));
  }

  private stored(clause: string, ...values: string[]): Job[] {
    const rows = this.db
      .prepare<string[], Record<string, string | number | null>>(`SELECT * FROM job ${clause}`)
      .all(...values);
    return rows.map((row) => ({
      id: row.id as string,
      kind: row.kind as Job['kind'],
      title: row.title as string,
      state: row.state as JobState,
      done: row.done as number,
      total: row.total as number | null,
      message: row.message as string | null,
      result: row.result === null ? null : (JSON.parse(row.result as string) as Record<string, unknown>),
      startedAt: row.started_at as string,
      endedAt: row.ended_at as string | null,
    }));
  }
}
