import { Router } from 'express';
import type { HealthAnswer } from '../../contract/responses.ts';
import { isoOf } from '../../core/dates.ts';
import { asOfDay } from '../days.ts';
import { openApiDocument } from '../http/openapi.ts';
import { bytesFree, type Metrics } from '../metrics.ts';
import type { Services } from '../services.ts';
import { revisionOf } from '../tables/revision.ts';
import { readSettings } from '../tables/workspace.ts';

/** What the server says of itself: its health, its figures and its API. */
export function stateRoutes({ dir, universe, workspace, engine, jobs }: Services, metrics: Metrics): Router {
  const routes = Router();
  routes.get('/health', (_request, response) => {
    const { first, second } = engine.threads;
    const free = bytesFree(dir);
    response.json({
      status: first ? 'ok' : 'counting again',
      generation: engine.generation,
      revision: revisionOf(universe).revision,
      asOf: isoOf(asOfDay(readSettings(workspace))),
      ...engine.described,
      threads: { first, second, deaths: engine.deaths },
      jobs: jobs.count,
      diskFree: free,
    } satisfies HealthAnswer);
  });
  routes.get('/metrics', async (_request, response) => {
    response.type(metrics.contentType).send(await metrics.text());
  });
  routes.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  return routes;
}
