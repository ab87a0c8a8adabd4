import { Router } from 'express';
import { nanoid } from 'nanoid';
import { existsSync, rmSync } from 'node:fs';
import {
  CHANGE_KINDS,
  ChangesListBody,
  DemoBody,
  WholeReadingBody,
  LoadBody,
  PreviewBody,
  type MappingBody,
} from '../../contract/load-requests.ts';
import type { MatchListAnswer } from '../../contract/matches.ts';
import type { SourceChangesAnswer, SourceView, UploadAnswer } from '../../contract/responses.ts';
import { dayOf, isoOf } from '../../core/dates.ts';
import { fileColumns } from '../../core/fields/registry.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import { sendFile } from '../http/send-file.ts';
import { oneFile, uploadInto } from '../http/upload.ts';
import type { ReadingJobData } from '../load/reading-job.ts';
import {
  checkColumns,
  fingerprintOf,
  partsOf,
  readingOf,
  type Upload,
  type Uploads,
} from '../load/uploads.ts';
import { mayWrite, startLoad } from '../load/start-load.ts';
import { refusalsPath } from '../load/refusals.ts';
import { asOfDay } from '../days.ts';
import { RecordKeys } from '../tables/keys.ts';
import type { Services } from '../services.ts';
import type { FilePreview } from '../load/read-file.ts';
import { rememberedReadings } from '../tables/remembered-readings.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import { changesOf, sourceByKey, sourceOfFile, toldSources, type ChangeKind } from '../tables/source.ts';
import { readSettings, writeSettings } from '../tables/workspace.ts';

const SHOWN_ROWS = 12;
/** Companies of a refresh that are shown at once; a list has all of them. */
const SHOWN_CHANGES = 500;

function kindOf(what: string): ChangeKind {
  const kind = CHANGE_KINDS.find((one) => one === what);
  if (!kind)
    throw new Problem('wrong-value', `"${what}" is nothing that a refresh does.`, {
      field: 'what',
      value: what,
      rule: CHANGE_KINDS.join(', '),
    });
  return kind;
}

/** Sources: uploading, recognising, loading and removing; and the demo. */
export function sourceRoutes(services: Services, uploads: Uploads): Router {
  const { dir, universe, workspace, engine, jobs, lists, listsDb } = services;
  const routes = Router();
  const upload = uploadInto(dir, services.uploadLimit);

  const ownHeader = ({ header, made = [] }: FilePreview) => header.slice(0, header.length - made.length);
  const sameAs = ({ fingerprint }: Upload) =>
    fingerprint === null ? null : (sourceOfFile(universe, fingerprint)?.key ?? null);
  const show = (
    id: string,
    fileName: string,
    read: Awaited<ReturnType<Uploads['preview']>>,
  ): UploadAnswer => ({
    upload: id,
    fileName,
    was: uploads.found(id).was,
    sameAs: sameAs(uploads.found(id)),
    ...read.preview,
    rows: read.preview.rows.slice(0, SHOWN_ROWS),
    subject: read.subject,
    mapping: read.mapping,
    made: [...(read.preview.made ?? [])],
    remembered: rememberedReadings(workspace, ownHeader(read.preview)),
    columns: fileColumns(read.subject).map(({ id, label, headings }) => ({ id, label, headings })),
  });
  const knownSource = (key: string) => {
    const source = sourceByKey(universe, key);
    if (!source)
      throw new HttpProblem(404, 'unknown-source', `There is no source "${key}".`, {
        field: 'key',
        value: key,
      });
    return source;
  };
  routes.get('/sources', async (_request, response) => {
    const counted = await lists.count('companiesBySource');
    const sources = toldSources(universe).map((source): SourceView => {
      const countries = source.subject === 'companies' ? (counted[source.key] ?? []) : [];
      return { ...source, companies: countries.reduce((sum, one) => sum + one.companies, 0), countries };
    });
    response.json({ sources });
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
      const one: Upload = { path, fileName, fingerprint: await fingerprintOf(path), was: null, last: null };
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
    mayWrite(services);
    const one = uploads.found(load.upload);
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
    const refreshes = refreshOf(load, subject);
    const job = startLoad(
      services,
      one,
      {
        ...{ name: load.name, licence: load.licence ?? null, asOf, reading: partsOf(file), header },
        ...{ mapping: { ...load.mapping }, allOrNothing: load.allOrNothing, subject },
        ...{ covers: load.covers, refreshes, joinSure: load.joinSure },
      },
      () => uploads.forget(load.upload),
    );
    response.status(202).json({ job });
  });

  /** The source that a load takes the place of. @throws HttpProblem, Problem */
  const refreshOf = ({ refreshes, gone = 'removed' }: LoadBody, subject: string) => {
    if (refreshes === undefined) return null;
    const source = knownSource(refreshes);
    if (source.subject !== subject)
      throw new Problem(
        'wrong-subject',
        `The file is read as ${subject}, and “${source.name}” holds ${source.subject}. Say under “What each row is” that its rows are ${source.subject}, or choose another source.`,
        { field: 'refreshes', value: refreshes, rule: `a source of ${subject}` },
      );
    return { key: source.key, gone };
  };

  routes.get('/sources/:key/changes', (request, response) => {
    const { key, subject } = knownSource(request.params.key);
    const what = kindOf(queryText(request, 'what'));
    const changes = changesOf(universe, key, what).slice(0, SHOWN_CHANGES);
    const records = new RecordKeys(universe, subject);
    const shown = changes.map(({ name, ...one }) => {
      const now = records.find(one.key);
      return { ...one, name: now?.name ?? name, there: now !== undefined };
    });
    response.json({ what, changes: shown } satisfies SourceChangesAnswer);
  });

  routes.post('/sources/:key/list', async (request, response) => {
    const source = knownSource(request.params.key);
    const { what, name } = body(ChangesListBody, request);
    const found = changesOf(universe, source.key, what);
    const { person } = readSettings(workspace);
    const members = found.map(({ key, changes }) => ({
      key,
      cells: Object.fromEntries(
        Object.entries(changes).map(([field, { was, is }]) => [
          field,
          `${was ?? 'unknown'} → ${is ?? 'unknown'}`,
        ]),
      ),
    }));
    const list = await lists.change('add', {
      name: name.trim(),
      subject: source.subject,
      owner: person,
      suppression: null,
    });
    const added = await lists.change(
      'addCarried',
      list.key,
      {
        kind: 'file',
        what: `${source.name}, ${what}`,
        tape: null,
        asOf: isoOf(source.as_of),
        person,
      },
      members,
    );
    response.status(201).json({ list: listByKey(listsDb, list.key)!, ...added } satisfies MatchListAnswer);
  });

  routes.delete('/sources/:key', (request, response) => {
    const source = knownSource(request.params.key);
    mayWrite(services);
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
    mayWrite(services);
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
  currency:
    'which currency is it? Its heading names crowns of several countries, or a currency without rates',
  unit: 'is it counted as revenue is, or in units? Only the heading of revenue says thousands or more',
  scheme: 'which classification are its codes of? They are codes of several, and mean other things there',
} as const;
