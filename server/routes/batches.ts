import { Router } from 'express';
import { nanoid } from 'nanoid';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  BatchPreviewBody,
  MOST_SEARCH_ROWS,
  PastedBatchBody,
  type BatchPreviewAnswer,
  type BatchSearchView,
  type BatchView,
} from '../../contract/runs.ts';
import { lineFields } from '../../core/fields/registry.ts';
import { guessBatch } from '../../core/runs/batch.ts';
import { Problem } from '../../core/tape/problem.ts';
import { body, HttpProblem } from '../http/check.ts';
import { oneFile, uploadInto } from '../http/upload.ts';
import { readInThread } from '../load/reading-thread.ts';
import { targetWords } from '../runs/check-plan.ts';
import { searchOf } from '../runs/kinds/batch.ts';
import type { Services } from '../services.ts';
import { addBatch, batchById, batchResults, type Batch } from '../tables/runs/batches.ts';

const FIRST_ROWS = 8;
/** Searches that a preview counts; of longer sheets the first. */
const MOST_PREVIEWED = 100;
const MOST_MB = 10;

/** Words that open a line on companies, as far as a heading can be one. */
const OPENERS = new Set(lineFields('companies').flatMap(({ openers }) => openers));

/** Sheets of searches, read and tried before they run. */
export function batchRoutes(services: Services): Router {
  const { runs, dir } = services;
  const routes = Router();
  const upload = uploadInto(dir, MOST_MB);
  const found = (id: string): Batch => {
    const batch = batchById(runs.db, id);
    if (!batch)
      throw new HttpProblem(404, 'unknown-batch', `There is no sheet of searches "${id}".`, {
        field: 'id',
        value: id,
      });
    return batch;
  };
  const view = ({ id, fileName, header, rows, at }: Batch): BatchView => ({
    ...{ id, fileName, header, at, rows: rows.length, first: rows.slice(0, FIRST_ROWS) },
    guess: guessBatch(header, rows, (words) => OPENERS.has(words)),
  });
  const read = async (path: string, fileName: string): Promise<Batch> => {
    try {
      const { header, rows, more } = await readInThread({ of: 'table', path, most: MOST_SEARCH_ROWS });
      const rule = `a sheet with a row of headings and 1 to ${MOST_SEARCH_ROWS.toLocaleString('en-GB')} rows of searches`;
      if (rows.length === 0)
        throw new Problem('no-rows', `${fileName} has no row below its headings.`, { field: 'file', rule });
      if (more)
        throw new Problem(
          'too-many-rows',
          `${fileName} has more than ${MOST_SEARCH_ROWS.toLocaleString('en-GB')} rows.`,
          { field: 'file', rule },
        );
      return found(addBatch(runs.db, { fileName, header, rows }, runs.now()));
    } finally {
      rmSync(path, { force: true });
    }
  };

  routes.post('/batches', oneFile(upload), async (request, response) => {
    if (!request.file)
      throw new Problem('no-file', 'The upload holds no file.', {
        field: 'file',
        rule: 'one CSV or XLSX file',
      });
    const fileName = Buffer.from(request.file.originalname, 'latin1').toString('utf8');
    response.status(201).json({ batch: view(await read(request.file.path, fileName)) });
  });
  routes.post('/batches/pasted', async (request, response) => {
    const { text } = body(PastedBatchBody, request);
    mkdirSync(join(dir, 'uploads'), { recursive: true });
    const path = join(dir, 'uploads', nanoid(16));
    writeFileSync(path, text);
    response.status(201).json({ batch: view(await read(path, 'pasted searches')) });
  });
  routes.get('/batches/:id', (request, response) => {
    response.json({ batch: view(found(request.params.id)) });
  });
  routes.post('/batches/:id/preview', async (request, response) => {
    const batch = found(request.params.id);
    const { target } = body(BatchPreviewBody, request);
    targetWords(services, 'batch', { ...target, batch: batch.id });
    const searches: BatchSearchView[] = [];
    for (let row = 0; row < Math.min(batch.rows.length, MOST_PREVIEWED); row++) {
      const wish = searchOf(services, batch, row, target);
      const none = { row, search: wish.text, found: null, taken: null, added: null };
      try {
        const { words, found: count } = await runs.counting.call('preview', wish);
        const taken = Math.min(count, target.rowsEach ?? count);
        searches.push({ ...none, state: count ? 'ready' : 'empty', said: words, found: count, taken });
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
        searches.push({ ...none, state: 'refused', said: error.message });
      }
    }
    const refused = searches.filter(({ state }) => state === 'refused').length;
    response.json({ searches, refused, ready: searches.length - refused } satisfies BatchPreviewAnswer);
  });
  routes.get('/runs/:id/searches', (request, response) => {
    response.json({ searches: batchResults(runs.db, request.params.id).map(({ tape: _, ...one }) => one) });
  });
  return routes;
}
