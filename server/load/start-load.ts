import type { Job } from '../../contract/responses.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';
import { rememberReading } from '../tables/remembered-readings.ts';
import type { LoadWorkerData } from './load-data.ts';
import type { Upload } from './uploads.ts';

/** What is loaded, and how it is read. */
export interface LoadWish extends Pick<
  LoadWorkerData,
  'reading' | 'header' | 'allOrNothing' | 'subject' | 'covers' | 'refreshes' | 'name' | 'licence' | 'asOf'
> {
  mapping: Mapping;
  /** Whether its companies are joined with those of other sources that they surely are. */
  joinSure: boolean;
}

/** @throws HttpProblem where something writes the universe already */
export function mayWrite({ jobs }: Pick<Services, 'jobs'>): void {
  if (jobs.writing)
    throw new HttpProblem(409, 'busy', 'Another load is running. Wait until it ends, or cancel it.', {
      rule: 'one load at a time',
    });
}

/** Starts the job that loads an upload as a source, or in the place of one; `done` forgets the upload. */
export function startLoad(
  services: Services,
  { path, fileName, fingerprint }: Pick<Upload, 'path' | 'fileName' | 'fingerprint'>,
  wish: LoadWish,
  done: () => void,
): Job {
  const { dir, jobs, engine, workspace } = services;
  const { name, subject, header, mapping, refreshes, allOrNothing, joinSure } = wish;
  const made = wish.reading.made ?? [];
  const own = header.slice(0, header.length - made.length);
  return jobs.start(
    'load',
    `${refreshes ? 'Refresh' : 'Load'} ${refreshes ? name : fileName}`,
    'server/load/worker',
    {
      ...{ dir, path, fileName, fingerprint },
      ...wish,
      // All or nothing means every cell, too.
      mapping: { ...mapping, ...(allOrNothing ? { unreadable: 'refuse' } : {}) },
    },
    async (result) => {
      done();
      await engine.reload();
      // Two that have a number are two; of the others one may be there under another name.
      if (result.came && !jobs.stopped)
        services.doubles.lookAfterLoad(joinSure ? (result.source as string) : null);
      rememberReading(workspace, { name, subject, header: own, made, mapping });
    },
  );
}
