import { Router } from 'express';
import {
  AgainstBody,
  ChartsBody,
  ClustersBody,
  FindBody,
  SummaryBody,
} from '../../contract/market-requests.ts';
import { PointsBody } from '../../contract/requests.ts';
import { CURRENCIES } from '../../core/money/rates.ts';
import { body, goneSignal, HttpProblem, queryText } from '../http/check.ts';
import type { Services } from '../services.ts';
import { calls } from '../engine/calls.ts';

/** Who is left as a market and on the map: charts, the foot of the sheet, clusters. */
export function marketRoutes({ engine }: Services): Router {
  const routes = Router();
  const MOST_POINTS = 6000;

  routes.post('/breakdown', async (request, response) => {
    const { tape, currency, against } = body(AgainstBody, request);
    response.json(await engine.call(calls.breakdown, [tape, currency, against], goneSignal(response)));
  });
  routes.post('/charts', async (request, response) => {
    const { tape, charts, currency, against } = body(ChartsBody, request);
    response.json({
      charts: await engine.call(calls.charts, [tape, charts, currency, against], goneSignal(response)),
    });
  });
  routes.post('/summary', async (request, response) => {
    const { tape, columns, currency } = body(SummaryBody, request);
    response.json({
      columns: await engine.call(calls.summary, [tape, columns, currency], goneSignal(response)),
    });
  });
  routes.post('/find', async (request, response) => {
    const { tape, sort, text, from } = body(FindBody, request);
    response.json(await engine.call(calls.find, [tape, sort, text, from], goneSignal(response)));
  });
  routes.post('/clusters', async (request, response) => {
    const { tape, seen, ...view } = body(ClustersBody, request);
    if (view.west >= view.east || view.south >= view.north)
      throw new HttpProblem(400, 'wrong-value', 'The view has no width or no height.', {
        field: view.west >= view.east ? 'east' : 'north',
        value: view.west >= view.east ? view.east : view.north,
        rule: 'east beyond west, north beyond south',
      });
    response.json(await engine.call(calls.clusters, [tape, view, seen], goneSignal(response)));
  });
  routes.get('/companies/:key/standing', async (request, response) => {
    const currency = queryText(request, 'currency') || 'EUR';
    if (!CURRENCIES.includes(currency))
      throw new HttpProblem(400, 'wrong-value', `There are no rates for "${currency}".`, {
        field: 'currency',
        value: currency,
        rule: `one of ${CURRENCIES.join(', ')}`,
      });
    const standing = await engine.call(calls.standing, [request.params.key, currency], goneSignal(response));
    if (!standing)
      throw new HttpProblem(
        404,
        'unknown-company',
        `There is no company "${request.params.key}" in this universe.`,
        {
          field: 'key',
          value: request.params.key,
        },
      );
    response.json(standing);
  });
  routes.get('/inhabitants', async (_request, response) => {
    response.json(await engine.call(calls.inhabitants, []));
  });
  routes.post('/points', async (request, response) => {
    const { tape, at } = body(PointsBody, request);
    response.json(await engine.call(calls.points, [tape, at, MOST_POINTS], goneSignal(response)));
  });
  routes.get('/towns', async (request, response) => {
    response.json({ towns: await engine.call(calls.towns, [queryText(request, 'search'), 20]) });
  });
  routes.get('/cities', async (_request, response) => {
    response.json({ cities: await engine.call(calls.cities, []) });
  });
  return routes;
}
