import { Router } from 'express';
import multer from 'multer';
import { nanoid } from 'nanoid';
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  DemoBody,
  WholeReadingBody,
  LoadBody,
  PreviewBody,
  type MappingBody,
} from '../../contract/load-requests.ts';
import type { UploadAnswer } from '../../contract/responses.ts';
import { dayOf } from '../../core/dates.ts';
import { fileColumns } from '../../core/fields/registry.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { oneFile } from '../http/upload.ts';
import type { ReadingJobData } from '../load/reading-job.ts';
import { checkColumns, partsOf, readingOf, type Upload, type Uploads } from '../load/uploads.ts';
import { refusalsPath } from '../load/refusals.ts';
import { asOfDay } from '../days.ts';
import type { Services } from '../services.ts';
import { rememberedReadings, rememberReading } from '../tables/remembered-readings.ts';
import { sourceByKey, viewSources } from '../tables/source.ts';
import { readSettings, writeSettings } from '../tables/workspace.ts';

const SHOWN_ROWS = 12;

/** Sources: uploading, recognising, loading and removing; and the demo. */
export function sourceRoutes(services: Services, uploads: Uploads): Router {
  const { dir, universe, workspace, engine, jobs } = services;
  const routes = Router();
  const folder = join(dir, 'uploads');
  const storage = multer.diskStorage({
    destination: (_request, _file, done) => {
      mkdirSync(folder, { recursive: true });
      done(null, folder);
    },
    filename: (_request, _file, done) => done(null, nanoid(16)),
  });
  const upload = multer({ storage, limits: { fileSize: services.uploadLimit * 2 ** 20, files: 1 } });

  const show = (
    id: string,
    fileName: string,
    read: Awaited<ReturnType<Uploads['preview']>>,
  ): UploadAnswer => ({
    upload: id,
    fileName,
    was: uploads.found(id).was,
    ...read.preview,
    rows: read.preview.rows.slice(0, SHOWN_ROWS),
    subject: read.subject,
    mapping: read.mapping,
    remembered: rememberedReadings(workspace, read.preview.header),
    columns: fileColumns(read.subject).map(({ id, label, headings }) => ({ id, label, headings })),
  });
  const mayWrite = () => {
    if (jobs.writing)
      throw new HttpProblem(409, 'busy', 'Another load is running. Wait until it ends, or cancel it.', {
        rule: 'one load at a time',
      });
  };

  routes.get('/sources', (_request, response) => {
    response.json({ sources: viewSources(universe) });
  });

  routes.post('/uploads', oneFile(upload), async (request, response) => {
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', {
        field: 'file',
        rule: 'one CSV or XLSX file',
      });
    const { path } = request.file;
    const fileName = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
    try {
      const one: Upload = { path, fileName, was: null, last: null };
      const read = await uploads.preview(one, {}, undefined, true);
      const id = nanoid(12);
      uploads.add(id, one);
      response.status(201).json(show(id, fileName, read));
    } catch (error) {
      rmSync(path, { force: true });
      throw error;
    }
  });

  routes.post('/uploads/:id/preview', async (request, response) => {
    const one = uploads.found(request.params.id);
    const wish = body(PreviewBody, request);
    response.json(
      show(request.params.id, one.fileName, await uploads.preview(one, readingOf(wish), wish.subject)),
    );
  });

  routes.post('/uploads/:id/readings', async (request, response) => {
    const one = uploads.found(request.params.id);
    const { read, mapping, matching = false } = body(WholeReadingBody, request);
    const subject = read.subject ?? 'companies';
    const file = await uploads.asRead(one, read);
    checkMapping(mapping, file.header, subject, false);
    const job = jobs.start(
      'read',
      `Read ${one.fileName}`,
      'server/load/reading-job',
      {
        path: one.path,
        reading: partsOf(file),
        header: file.header,
        mapping: { ...mapping },
        subject,
        matching,
        asOf: asOfDay(readSettings(workspace)),
      } satisfies ReadingJobData,
      () => {},
    );
    response.status(202).json({ job });
  });

  routes.post('/sources', async (request, response) => {
    const load = body(LoadBody, request);
    mayWrite();
    const one = uploads.found(load.upload);
    const { path, fileName } = one;
    const subject = load.read.subject ?? 'companies';
    const file = await uploads.asRead(one, load.read);
    const { header } = file;
    checkMapping(load.mapping, header, subject);
    const asOf = dayOf(load.asOf);
    if (asOf === null)
      throw new Problem('wrong-value', `asOf is no calendar date: ${load.asOf}.`, {
        field: 'asOf',
        value: load.asOf,
        rule: 'a date such as 2026-09-30',
      });
    const job = jobs.start(
      'load',
      `Load ${fileName}`,
      'server/load/worker',
      {
        dir,
        path,
        fileName,
        name: load.name,
        licence: load.licence ?? null,
        asOf,
        reading: partsOf(file),
        header,
        // All or nothing means every cell, too.
        mapping: { ...load.mapping, ...(load.allOrNothing ? { unreadable: 'refuse' } : {}) },
        allOrNothing: load.allOrNothing,
        subject,
        covers: load.covers,
      },
      async () => {
        uploads.forget(load.upload);
        await engine.reload();
        rememberReading(workspace, { name: load.name, subject, header, mapping: { ...load.mapping } });
      },
    );
    response.status(202).json({ job });
  });

  routes.delete('/sources/:key', (request, response) => {
    const source = sourceByKey(universe, request.params.key);
    if (!source)
      throw new HttpProblem(404, 'unknown-source', `There is no source "${request.params.key}".`, {
        field: 'key',
        value: request.params.key,
      });
    mayWrite();
    response.status(202).json({
      job: jobs.start(
        'remove',
        `Remove ${source.name}`,
        'server/load/remove-worker',
        { dir, key: source.key },
        () => engine.reload(),
      ),
    });
  });

  routes.post('/demo', (request, response) => {
    const { companies } = body(DemoBody, request);
    mayWrite();
    const job = jobs.start(
      'demo',
      `Make the demo universe of ${companies.toLocaleString('en-GB')} companies`,
      'demo/worker',
      { dir, companies },
      async (result) => {
        const settings = readSettings(workspace);
        settings.asOf = result.asOf as string;
        writeSettings(workspace, settings);
        await engine.reload();
      },
    );
    response.status(202).json({ job });
  });

  routes.get('/jobs', (_request, response) => {
    response.json({ jobs: jobs.list() });
  });
  routes.get('/jobs/:id', (request, response) => {
    const job = jobs.get(request.params.id);
    if (!job)
      throw new HttpProblem(404, 'unknown-job', `There is no job "${request.params.id}".`, {
        field: 'id',
        value: request.params.id,
      });
    response.json({ job, refusals: existsSync(refusalsPath(dir, job.id)) });
  });
  routes.post('/jobs/:id/cancel', (request, response) => {
    if (!jobs.cancel(request.params.id))
      throw new HttpProblem(409, 'not-running', 'This job is not running, so there is nothing to cancel.', {
        field: 'id',
        value: request.params.id,
      });
    response.json({ cancelling: true });
  });
  routes.get('/jobs/:id/refusals', async (request, response) => {
    const { id } = request.params;
    const none = new HttpProblem(404, 'no-refusals', 'No rows of this load were refused.', {
      field: 'id',
      value: id,
    });
    if (!jobs.get(id)) throw none;
    response.attachment('refused-rows.csv').type('text/csv; charset=utf-8');
    await sendFile(response, refusalsPath(dir, id), none);
  });
  return routes;
}

/**
 * Whether a mapping fits the columns of a file and says all that has to be said.
 * @param loading false where it is only read to see what it comes to
 * @throws Problem
 */
function checkMapping(
  mapping: MappingBody,
  header: readonly string[],
  subject: string,
  loading = true,
): void {
  checkColumns(mapping, header, subject);
  if (loading && subject === 'companies' && !mapping.columns.includes('name'))
    throw new Problem('no-name', 'No column is read as the company’s name.', {
      field: 'mapping.columns',
      rule: 'one column read as Company',
    });
  const [open] = mapping.undecided ?? [];
  if (loading && open)
    throw new Problem(
      'undecided',
      `Column ${open.column + 1}, “${header[open.column] ?? ''}”: ${ASKED[open.what]}. Say it in mapping.styles[${open.column}].${open.what}, and leave it out of mapping.undecided.`,
      { field: `mapping.undecided[0]`, value: open.what, rule: ASKED[open.what] },
    );
}

/** What of a column cannot be seen from its cells. */
const ASKED = {
  decimal: 'is its decimal mark a point or a comma? Its figures can be read both ways',
  dates: 'does the day or the month come first? Its dates can be read both ways',
  scheme: 'which classification are its codes of? They are codes of several, and mean other things there',
} as const;
