import express, { type Express, type Router } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { answerError, HttpProblem, noteForbiddenKeys } from './http/check.ts';
import { guard } from './http/guard.ts';
import { requestLog } from './http/request-log.ts';
import { Uploads } from './load/uploads.ts';
import { openMetrics, type Metrics } from './metrics.ts';
import { ROOT } from './reference.ts';
import { batchRoutes } from './routes/batches.ts';
import { campaignRoutes } from './routes/campaigns.ts';
import { checkRoutes } from './routes/checks.ts';
import { contactRoutes } from './routes/contacts.ts';
import { countingRoutes } from './routes/counting.ts';
import { doublesRoutes } from './routes/doubles.ts';
import { ownValuesRoutes } from './routes/own-values.ts';
import { exportRoutes } from './routes/exports.ts';
import { exportTemplateRoutes } from './routes/export-templates.ts';
import { gatherRoutes } from './routes/gather.ts';
import { gatherRunRoutes } from './routes/gather-runs.ts';
import { listRoutes } from './routes/lists.ts';
import { marketRoutes } from './routes/market.ts';
import { ownRoutes } from './routes/own.ts';
import { matchRoutes } from './routes/matches.ts';
import { outreachRoutes } from './routes/outreach.ts';
import { peopleRoutes } from './routes/people.ts';
import { paperRoutes } from './routes/papers.ts';
import { programRoutes } from './routes/programs.ts';
import { runRoutes } from './routes/runs.ts';
import { sourceRoutes } from './routes/sources.ts';
import { stateRoutes } from './routes/state.ts';
import { tapeRoutes } from './routes/tapes.ts';
import { visitRoutes } from './routes/visits.ts';
import { watchRoutes } from './routes/watches.ts';
import { workspaceRoutes } from './routes/workspace.ts';
import { carriersOf } from './runs/carry-out.ts';
import type { Services } from './services.ts';

/** The routes of the API, which `contract/endpoints.ts` lists. */
export function apiRoutes(services: Services, metrics: Metrics): Router[] {
  const uploads = new Uploads(services.workspace);
  return [
    stateRoutes(services, metrics),
    countingRoutes(services),
    marketRoutes(services),
    sourceRoutes(services, uploads),
    matchRoutes(services, uploads),
    doublesRoutes(services),
    ownValuesRoutes(services),
    listRoutes(services),
    checkRoutes(services),
    tapeRoutes(services),
    workspaceRoutes(services),
    exportRoutes(services),
    exportTemplateRoutes(services),
    programRoutes(services),
    contactRoutes(services),
    ownRoutes(services),
    paperRoutes(services),
    campaignRoutes(services),
    outreachRoutes(services),
    peopleRoutes(services),
    visitRoutes(services),
    gatherRoutes(services),
    gatherRunRoutes(services, uploads),
    runRoutes(services),
    batchRoutes(services),
    watchRoutes(services),
  ];
}

/** The application: the API, and the built interface if there is one. */
export function createApp(services: Services): Express {
  const app = express();
  // What runs needs all of the services.
  services.runs.start(carriersOf(services));
  app.disable('x-powered-by');
  // Answers go no farther than this machine: neither packing them nor marking them for caches pays.
  app.disable('etag');
  app.set('upload limit', services.uploadLimit);
  app.set('log', services.log);
  const metrics = openMetrics(services);
  app.use(requestLog(services, metrics));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          // Positions of virtual rows and bars are style attributes; style elements and sheets are ours only.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          // Pages that gatherers read are shown in a frame, which has an origin of its own by what its answer says.
          frameSrc: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(guard);
  const api = express.Router();
  api.use(express.json({ limit: '4mb', verify: noteForbiddenKeys }));
  api.use((_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  api.use(...apiRoutes(services, metrics));
  api.use((request) => {
    throw new HttpProblem(404, 'unknown-address', `There is no ${request.method} ${request.originalUrl}.`);
  });
  app.use('/api', api);
  app.use('/data/regions.topojson', (_request, response) => {
    response.set({
      'content-type': 'application/json',
      'content-encoding': 'gzip',
      'cache-control': 'public, max-age=86400',
    });
    response.sendFile(join(ROOT, 'data/geo/regions.topojson.gz'));
  });
  app.use((request, _response, next) => {
    try {
      decodeURIComponent(request.path);
    } catch {
      throw new HttpProblem(400, 'wrong-address', 'The address has a % that stands for nothing.');
    }
    next();
  });
  const built = join(ROOT, 'dist/web');
  if (existsSync(built)) {
    app.use('/assets', express.static(join(built, 'assets'), { immutable: true, maxAge: '1y' }));
    app.use(express.static(built, { index: false }));
    app.use((_request, response) => {
      response.set('cache-control', 'no-cache');
      response.sendFile(join(built, 'index.html'));
    });
  }
  app.use(answerError);
  return app;
}
