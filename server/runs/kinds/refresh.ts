import { nanoid } from 'nanoid';
import { copyFile, mkdir, rm, stat } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { Refreshed } from '../../../contract/responses.ts';
import { dayOf, isoOf } from '../../../core/dates.ts';
import { refreshRoll } from '../../../core/runs/roll.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { todayOf } from '../../days.ts';
import { startLoad } from '../../load/start-load.ts';
import { fingerprintOf, partsOf, Uploads, type Upload } from '../../load/uploads.ts';
import { setRunRoll } from '../../tables/runs/runs.ts';
import { sourceByKey } from '../../tables/source.ts';
import { doneJob, type Carry } from './carry.ts';

/** Reads the newer version of a source's file from where it lies, in the place of what was loaded. */
export const runRefresh: Carry = async ({ services, plan, run, say, carriedBy }) => {
  const { dir, universe, workspace, jobs } = services;
  const { source: key, path } = plan.target;
  const source = sourceByKey(universe, key!);
  if (!source)
    throw new Problem('unknown-source', 'The source that this refreshes is not there any more.', {
      field: 'target.source',
      value: key,
    });
  const found = await stat(path!).catch(() => null);
  if (!found?.isFile())
    throw new Error(`There is no file ${path}. Put it there, or change what this run reads.`);
  if (found.size > services.uploadLimit * 2 ** 20)
    throw new Error(`${path} is larger than the ${services.uploadLimit} MB that are read.`);
  const own = join(dir, 'uploads', nanoid(16));
  await mkdir(join(dir, 'uploads'), { recursive: true });
  await copyFile(path!, own);
  try {
    const fingerprint = await fingerprintOf(own);
    const upload: Upload = { path: own, fileName: basename(path!), fingerprint, was: null, last: null };
    const { preview } = await new Uploads(workspace).preview(upload, {}, source.subject, true);
    const header = JSON.parse(source.header) as string[];
    if (JSON.stringify(preview.header) !== JSON.stringify(header))
      throw new Error(
        `The headings of ${basename(path!)} are not those that ${source.name} was read by. Refresh it by hand once, under Sources, to say what its columns mean.`,
      );
    const asOf = dayOf(isoOf(todayOf(found.mtime)))!;
    const job = startLoad(
      services,
      upload,
      {
        ...{ name: source.name, licence: source.licence, asOf, reading: partsOf(preview), header },
        ...{ mapping: JSON.parse(source.mapping) as Mapping, allOrNothing: false, subject: source.subject },
        ...{ covers: [], refreshes: { key: source.key, gone: 'removed' }, joinSure: true },
      },
      () => {},
    );
    carriedBy({ job: job.id });
    const { result } = await doneJob(jobs, job.id);
    const refreshed = result!.refreshed as Refreshed;
    const { added, gone, changed, now } = refreshed;
    setRunRoll(services.runs.db, run.id, refreshRoll(refreshed), source.subject);
    const said = `${now.toLocaleString('en-GB')} records; ${added} new, ${gone} gone, ${changed} changed`;
    say(`${source.name}: ${said}`);
    return said;
  } finally {
    await rm(own, { force: true });
  }
};
