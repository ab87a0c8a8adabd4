import type { NextFunction, Request, Response } from 'express';
import { HttpProblem } from './check.ts';

/**
 * Lets through only what was meant for this server on this machine: the Host must be a loopback
 * name with our port, so that no foreign name can be pointed at it, and a request that changes
 * something must come from our own pages or from no page at all.
 */
export function guard(request: Request, _response: Response, next: NextFunction): void {
  const host = request.headers.host ?? '';
  const port = String(request.socket.localPort);
  const ours = new Set([`127.0.0.1:${port}`, `localhost:${port}`]);
  if (!ours.has(host))
    throw new HttpProblem(
      403,
      'wrong-host',
      `Requests to "${host}" are not answered; use http://127.0.0.1:${port}.`,
      { field: 'Host', value: host },
    );
  const { origin } = request.headers;
  if (origin !== undefined && ![...ours].some((one) => origin === `http://${one}`))
    throw new HttpProblem(403, 'wrong-origin', `Requests from pages of "${origin}" are not answered.`, {
      field: 'Origin',
      value: origin,
    });
  next();
}
