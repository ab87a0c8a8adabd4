import { Router } from 'express';
import { DeliverRunBody, RunActBody, RunWishBody } from '../../contract/gather.ts';
import {
  RUN_PARTS,
  type DeliveredAnswer,
  type GatheredAnswer,
  type GatherRunAnswer,
  type GatherRunView,
  type RunPart,
} from '../../contract/gather-views.ts';
import { timeLeft } from '../../core/gather/records.ts';
import { headingOf } from '../../core/gather/fields.ts';
import { Problem } from '../../core/tape/problem.ts';
import { dayOf } from '../../core/dates.ts';
import { intoSource, ontoList, toWebhook } from '../gather/deliver-run.ts';
import { fieldsInOrder, SHEET_FORMATS } from '../gather/sheet.ts';
import { beginGathering } from '../gather/begin-gathering.ts';
import type { GatherSpec } from '../gather/spec.ts';
import { body, HttpProblem, queryText } from '../http/check.ts';
import type { Uploads } from '../load/uploads.ts';
import type { Services } from '../services.ts';
import { gathererById } from '../tables/gather/gatherers.ts';
import { rollOfRun, rowsOfRun, searchFigures, taskFigures } from '../tables/gather/gathered.ts';
import {
  readAgain,
  removeRun,
  runById,
  setState,
  takeAsItIs,
  tryFailed,
  type RunRow,
} from '../tables/gather/runs.ts';

const MOST_ROWS = 500;
const TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  jsonl: 'application/x-ndjson',
} as const;

/** Runs of gatherers: begun, paused, gone on with, read, and what their records become. */
export function gatherRunRoutes(services: Services, uploads: Uploads): Router {
  const { gather } = services;
  const { db, runner, thread, fetcher } = gather;
  const routes = Router();
  const found = (id: string): RunRow => {
    const row = runById(db, id);
    if (!row)
      throw new HttpProblem(404, 'unknown-run', `There is no run "${id}"; it may have been removed.`, {
        field: 'id',
        value: id,
      });
    return row;
  };
  const nameOf = ({ gatherer, nth }: RunRow) => {
    const { name } = gathererById(db, gatherer)!;
    return nth === 1 ? name : `${name}, run ${nth}`;
  };
  const view = async (row: RunRow): Promise<GatherRunView> => {
    const spec = JSON.parse(row.spec) as GatherSpec;
    const tasks = taskFigures(db, row.id);
    const searches = searchFigures(db, row.id);
    const done = searches.filter(({ state }) => state === 'done').length;
    const waits = searches.filter(({ state }) => state === 'waits').length;
    return {
      ...{
        id: row.id,
        gatherer: row.gatherer,
        nth: row.nth,
        state: row.state,
        why: row.why,
        person: row.person,
      },
      name: gathererById(db, row.gatherer)!.name,
      startedAt: new Date(row.started_at).toISOString(),
      endedAt: row.ended_at === null ? null : new Date(row.ended_at).toISOString(),
      roll: rollOfRun(db, row.id),
      ...{ searches, searchesDone: done },
      pagesRead: tasks.read,
      pagesWaiting: tasks.waiting,
      pagesFailed: tasks.failed,
      pagesNotAllowed: tasks.notAllowed,
      pause: spec.start === '' ? 0 : await fetcher.pauseOf(spec.start, spec.pause),
      timeLeft:
        row.state === 'done' || row.state === 'stopped'
          ? null
          : timeLeft({
              waiting: tasks.waiting,
              searchesLeft: waits,
              pagesRead: tasks.read,
              searchesBegun: searches.length - waits,
              secondsSpent: row.spent_ms / 1000,
            }),
    };
  };

  routes.post('/gather/gatherers/:id/runs', async (request, response) => {
    const { id } = request.params;
    const gatherer = gathererById(db, id);
    if (!gatherer)
      throw new HttpProblem(404, 'unknown-gatherer', `There is no gatherer "${id}".`, {
        field: 'id',
        value: id,
      });
    const wish = request.body === undefined ? {} : body(RunWishBody, request);
    const run = beginGathering(services, gatherer, wish);
    response.status(201).json({ run: await view(found(run)) } satisfies GatherRunAnswer);
  });

  routes.get('/gather/runs/:id', async (request, response) => {
    response.json({ run: await view(found(request.params.id)) } satisfies GatherRunAnswer);
  });

  routes.post('/gather/runs/:id/act', async (request, response) => {
    const row = found(request.params.id);
    const { act } = body(RunActBody, request);
    if (act === 'pause' || act === 'stop') {
      if (act === 'pause' && row.state !== 'running')
        throw new HttpProblem(409, 'not-running', 'This run is not running, so it cannot be paused.', {
          field: 'act',
          value: act,
        });
      setState(db, row.id, act === 'pause' ? 'paused' : 'stopped');
      await runner.idle(row.id);
    } else {
      // What was stopped or asked has come to rest before it goes on.
      setState(db, row.id, row.state === 'running' ? 'paused' : row.state);
      await runner.idle(row.id);
      if (act === 'try-failed') tryFailed(db, row.id);
      if (act === 'read-again')
        readAgain(db, row.id, JSON.parse(gathererById(db, row.gatherer)!.spec) as GatherSpec);
      if (act === 'go-on' && row.state === 'asks') takeAsItIs(db, row.id);
      setState(db, row.id, 'running');
      runner.wake(row.id);
    }
    response.json({ run: await view(found(row.id)) } satisfies GatherRunAnswer);
  });

  routes.get('/gather/runs/:id/rows', (request, response) => {
    const { id } = found(request.params.id);
    const part = (queryText(request, 'part') || 'records') as RunPart;
    if (!RUN_PARTS.includes(part))
      throw new Problem('wrong-value', `"${part}" is no part of a run.`, {
        field: 'part',
        value: part,
        rule: RUN_PARTS.join(', '),
      });
    const number = (name: string, most: number, otherwise: number | null) => {
      const text = queryText(request, name);
      if (text === '') return otherwise;
      const value = Number(text);
      if (!Number.isInteger(value) || value < 0 || value > most)
        throw new Problem('wrong-value', `${name} is no whole number from 0 to ${most}: ${text}.`, {
          field: name,
          value: text,
          rule: `a whole number from 0 to ${most}`,
        });
      return value;
    };
    const rows = rowsOfRun(
      db,
      id,
      part,
      number('search', 1e6, null),
      number('offset', 1e9, 0)!,
      number('limit', MOST_ROWS, 100)!,
    );
    const fields = fieldsInOrder(db, id).map((field) => ({ field, heading: headingOf(field) }));
    response.json({ ...rows, fields } satisfies GatheredAnswer);
  });

  routes.get('/gather/runs/:id/file', async (request, response) => {
    const row = found(request.params.id);
    const format = SHEET_FORMATS.find((one) => one === queryText(request, 'format'));
    if (!format)
      throw new Problem('wrong-value', 'The format of the file is not one that is written.', {
        field: 'format',
        value: queryText(request, 'format'),
        rule: SHEET_FORMATS.join(', '),
      });
    const bytes = await thread.call('sheet', row.id, format);
    response
      .attachment(`${nameOf(row)}.${format}`)
      .type(TYPES[format])
      .send(Buffer.from(bytes));
  });

  routes.post('/gather/runs/:id/deliver', async (request, response) => {
    const row = found(request.params.id);
    const { to, name } = body(DeliverRunBody, request);
    const day = dayOf(new Date(row.started_at).toISOString().slice(0, 10))!;
    const delivered =
      to === 'source'
        ? await intoSource(services, uploads, row.id, name.trim(), day)
        : to === 'list'
          ? await ontoList(services, uploads, row.id, name.trim())
          : await toWebhook(services, row.id, name);
    response.status(202).json(delivered satisfies DeliveredAnswer);
  });

  routes.delete('/gather/runs/:id', async (request, response) => {
    const { id } = found(request.params.id);
    setState(db, id, 'stopped');
    await runner.idle(id);
    removeRun(db, id);
    response.status(204).end();
  });
  return routes;
}
