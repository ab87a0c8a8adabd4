import { nanoid } from 'nanoid';
import { mkdirSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { countryOfPhones } from '../../core/gather/country-of-phones.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { startLoad } from '../load/start-load.ts';
import { partsOf, type Uploads } from '../load/uploads.ts';
import { deliver } from '../programs/deliver.ts';
import type { Services } from '../services.ts';
import { hookById } from '../tables/handover/programs.ts';
import type { GatherSpec } from './spec.ts';
import { addFoundToList } from '../match/found-to-list.ts';
import { recordsOf } from '../tables/gather/gathered.ts';
import { runById } from '../tables/gather/runs.ts';
import { readSettings } from '../tables/workspace.ts';

/** What a run's records become: a source by the rules of any file, a list by way of a match, or posts to a webhook. */

export interface Delivered {
  job: string | null;
  upload: string | null;
  message: string;
}

/** Records of a run as an upload that is read as any file is. */
async function uploaded(services: Services, uploads: Uploads, run: string, name: string) {
  const folder = join(services.dir, 'uploads');
  mkdirSync(folder, { recursive: true });
  const path = join(folder, nanoid(16));
  await writeFile(path, await services.gather.thread.call('sheet', run, 'csv'));
  const upload = { path, fileName: `${name}.csv`, fingerprint: null, was: null, last: null };
  const read = await uploads.preview(upload, {}, 'companies', true);
  read.mapping.country ??= countryOfRun(services, run);
  const id = nanoid(12);
  uploads.add(id, upload);
  return { id, path, read };
}

/** The country of a run's records: as it was said, else the one that most of their phones are of. */
function countryOfRun({ gather: { db } }: Services, run: string): string | null {
  const { country } = JSON.parse(runById(db, run)!.spec) as GatherSpec;
  if (country) return country;
  return countryOfPhones([...recordsOf(db, run)].flatMap(({ values }) => values.phone ?? []));
}

/** Loads the records as a source, in one act where all is understood. */
export async function intoSource(
  services: Services,
  uploads: Uploads,
  run: string,
  name: string,
  day: number,
): Promise<Delivered> {
  const { id, path, read } = await uploaded(services, uploads, run, name);
  if (read.mapping.undecided?.length || !read.mapping.columns.includes('name'))
    return {
      job: null,
      upload: id,
      message: 'Some of its columns can be read in several ways, which has to be said.',
    };
  const { preview, mapping } = read;
  const job = startLoad(
    services,
    { path, fingerprint: null, fileName: `${name}.csv` },
    {
      ...{ name, mapping, licence: null, asOf: day, allOrNothing: false, covers: [], refreshes: null },
      ...{ reading: partsOf(preview), header: preview.header, subject: 'companies', joinSure: true },
    },
    () => uploads.forget(id),
  );
  return { job: job.id, upload: null, message: `Loading ${name}` };
}

/** Lines the records up with the universe, and puts those that are surely there on a list of that name. */
export async function ontoList(
  services: Services,
  uploads: Uploads,
  run: string,
  name: string,
): Promise<Delivered> {
  const { dir, jobs, workspace } = services;
  const { id, path, read } = await uploaded(services, uploads, run, name);
  const { preview, mapping } = read;
  const job = jobs.start(
    'match',
    `Match ${name}`,
    'server/match/match-worker',
    {
      ...{ dir, path, name, fileName: name, reading: partsOf(preview), header: preview.header },
      ...{ mapping: mapping satisfies Mapping, person: readSettings(workspace).person, precision: 0.99 },
    },
    async (result) => {
      uploads.forget(id);
      await addFoundToList(services, result.match as string, { name }, 'gatherer');
    },
  );
  return { job: job.id, upload: null, message: `Matching ${name}` };
}

/** Posts the records to a webhook. @throws Problem where there is none */
export async function toWebhook(services: Services, run: string, hook: string): Promise<Delivered> {
  const { handover, gather, programs } = services;
  if (!hookById(handover, hook))
    throw new Problem('unknown-target', 'This webhook is no longer there.', {
      field: 'name',
      value: hook,
      rule: 'the id of a webhook of Exports, Other programs',
    });
  const lines = Buffer.from(await gather.thread.call('sheet', run, 'jsonl'));
  const rows = lines.toString('utf8').split('\n').length - 1;
  const id = `gathered-${run}-${nanoid(6)}`;
  const path = gather.handedFile(id);
  await writeFile(path, lines);
  await deliver(handover, { hooks: [hook] }, { id, name: 'Gathered', ending: 'jsonl', path, rows });
  programs.post.wake();
  return { job: null, upload: null, message: `${rows} records wait for ${hookById(handover, hook)!.name}` };
}
