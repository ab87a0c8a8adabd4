import { Router, type Request, type Response } from 'express';
import {
  CompleteBody,
  CountsBody,
  PointsBody,
  PositionBody,
  RowsBody,
  SqlBody,
  TapeBody,
  TypedBody,
} from '../../contract/requests.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { body, HttpProblem } from '../http/check.ts';
import type { Services } from '../services.ts';

/** Counts, rows and typed lines: all answered by the counting thread. */
export function countingRoutes({ engine }: Services): Router {
  const routes = Router();
  const MOST_POINTS = 6000;

  routes.post('/tally', async (request, response) => {
    const answer = await engine.call('tally', [body(TapeBody, request).tape], goneSignal(response));
    response.json({ ...answer, generation: engine.generation });
  });
  routes.post('/counts', async (request, response) => {
    response.json(await engine.call('counts', [body(CountsBody, request)], goneSignal(response)));
  });
  routes.post('/rows', async (request, response) => {
    const { tape, columns, sort, offset, limit } = body(RowsBody, request);
    response.json(await engine.call('rows', [tape, columns, sort, offset, limit], goneSignal(response)));
  });
  routes.post('/position', async (request, response) => {
    const { tape, sort, key } = body(PositionBody, request);
    response.json({ position: await engine.call('position', [tape, sort, key], goneSignal(response)) });
  });
  routes.post('/points', async (request, response) => {
    const { tape, at } = body(PointsBody, request);
    response.json(await engine.call('points', [tape, at, MOST_POINTS], goneSignal(response)));
  });
  routes.post('/typed', async (request, response) => {
    const { text, stem } = body(TypedBody, request);
    response.json({ lines: await engine.call('typed', [text, stem]) });
  });
  routes.post('/complete', async (request, response) => {
    const { text, tape } = body(CompleteBody, request);
    response.json({ completions: await engine.call('complete', [text, tape], goneSignal(response)) });
  });
  routes.post('/sql', async (request, response) => {
    const { tape, dialect } = body(SqlBody, request);
    response.json(await engine.call('sql', [tape, dialect]));
  });
  routes.get('/fields', (_request, response) => {
    response.json({ subjects: [...SUBJECTS.values()] });
  });
  routes.get('/towns', async (request, response) => {
    response.json({ towns: await engine.call('towns', [queryText(request, 'search'), 20]) });
  });
  routes.get('/cities', async (_request, response) => {
    response.json({ cities: await engine.call('cities', []) });
  });
  routes.get('/jump', async (request, response) => {
    response.json(await engine.call('jump', [queryText(request, 'text')], goneSignal(response)));
  });
  routes.get('/companies/:key', async (request, response) => {
    const profile = await engine.call('profile', [request.params.key]);
    if (!profile)
      throw new HttpProblem(
        404,
        'unknown-company',
        `There is no company "${request.params.key}" in this universe.`,
        { field: 'key', value: request.params.key },
      );
    response.json(profile);
  });
  return routes;
}

function queryText(request: Request, name: string): string {
  const value = request.query[name];
  return typeof value === 'string' ? value.slice(0, 200) : '';
}

/** Aborts when the client has gone before its answer, so that a stale count is never made. */
function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => {
    if (!response.writableEnded) gone.abort();
  });
  return gone.signal;
}
