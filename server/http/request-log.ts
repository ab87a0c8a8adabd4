import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { nanoid } from 'nanoid';
import type { Services } from '../services.ts';
import { calls } from '../engine/calls.ts';
import type { Metrics } from '../metrics.ts';

/** From how long on a call is slow, in milliseconds. */
const SLOW_MS = 1000;

/** The route of a request as the API names it, such as "/api/companies/:key"; the same for all that match none. */
function routeOf(request: Request): string {
  const route = (request.route as { path?: string } | undefined)?.path;
  return route ? `/api${route}` : request.path.startsWith('/api') ? '/api (unknown)' : '(interface)';
}

/** Names each request, counts it, and writes down those that failed or were slow; slow ones with their tape in words. */
export function requestLog({ log, engine }: Services, metrics: Metrics): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    const id = nanoid(10);
    const start = process.hrtime.bigint();
    response.locals.id = id;
    response.set('x-request-id', id);
    response.on('close', () => {
      const ms = Number(process.hrtime.bigint() - start) / 1e6;
      const route = routeOf(request);
      const status = response.writableEnded ? response.statusCode : 499;
      metrics.answered(request.method, route, status, ms / 1000);
      const about = { id, method: request.method, route, status, ms: Math.round(ms) };
      if (ms < SLOW_MS || !route.startsWith('/api')) {
        if (status >= 500) log.warn(about, 'A request failed');
        else log.debug(about, 'answered');
        return;
      }
      const { tape } = (request.body ?? {}) as { tape?: unknown };
      const words = tape === undefined ? Promise.resolve(undefined) : engine.call(calls.wordsOf, [tape]);
      words
        .catch(() => undefined)
        .then((lines) => log.warn({ ...about, tape: lines?.join('; ') }, 'A slow call'))
        .catch(() => {});
    });
    next();
  };
}
