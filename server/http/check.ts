import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import type { IncomingMessage } from 'node:http';
import type { NextFunction, Request, Response } from 'express';
import multer from 'multer';
import { Problem } from '../../core/tape/problem.ts';
import { EngineGone, GivenUp } from '../engine/host.ts';
import type { Log } from '../log.ts';
import { isOutOfSpace, isReadOnly } from '../start-trouble.ts';

/** Keys that name what every object has; no request has a use for them. */
const FORBIDDEN = '__proto__';

/** Notes of a request whether its body may hold a forbidden key, so that only those that may are looked through. */
export function noteForbiddenKeys(request: IncomingMessage, _response: unknown, bytes: Buffer): void {
  (request as { mayHoldForbidden?: boolean }).mayHoldForbidden = bytes.includes(FORBIDDEN);
}

function refuseForbidden(value: unknown): void {
  if (typeof value !== 'object' || value === null) return;
  if (Object.hasOwn(value, FORBIDDEN))
    throw new Problem('unknown-key', `The request has the unknown key "${FORBIDDEN}".`, {
      field: FORBIDDEN,
      rule: 'a known key',
    });
  for (const one of Object.values(value)) refuseForbidden(one);
}

/** The body of a request as an instance of its class. @throws Problem naming the first field that is wrong */
export function body<T extends object>(type: ClassConstructor<T>, request: Request): T {
  const plain: unknown = request.body;
  if (typeof plain !== 'object' || plain === null || Array.isArray(plain))
    throw new Problem('wrong-body', 'The body of the request is not a JSON object.', {
      rule: 'a JSON object, content type application/json',
    });
  if ((request as { mayHoldForbidden?: boolean }).mayHoldForbidden) refuseForbidden(plain);
  return checked(type, plain);
}

/** An object as an instance of its class. @throws Problem naming the first field that is wrong */
export function checked<T extends object>(type: ClassConstructor<T>, plain: object): T {
  const instance = plainToInstance(type, plain);
  const [error] = validateSync(instance, {
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
  });
  if (error) throw problemOf(error, '');
  return instance;
}

function problemOf(error: ValidationError, path: string): Problem {
  const field = path + error.property;
  if (error.children?.length) return problemOf(error.children[0]!, `${field}.`);
  const [rule, message] = Object.entries(error.constraints ?? { invalid: `${field} is not right` })[0]!;
  if (rule === 'whitelistValidation')
    return new Problem('unknown-key', `The request has the unknown key "${field}".`, {
      field,
      value: error.value,
      rule: 'a known key',
    });
  return new Problem('wrong-value', `${message}.`, { field, value: error.value, rule: message });
}

/** A problem that is no fault of the request's shape: another status than 400. */
export class HttpProblem extends Problem {
  readonly status: number;
  constructor(
    status: number,
    code: string,
    message: string,
    about: { field?: string; value?: unknown; rule?: string } = {},
  ) {
    super(code, message, about);
    this.status = status;
  }
}

/** The last handler: every error becomes `{error: {code, message, field?, value?, rule?}}`, without a stack trace. */
export function answerError(error: unknown, request: Request, response: Response, next: NextFunction): void {
  if (error instanceof GivenUp) return;
  if (response.headersSent) return next(error);
  // What a file would have been sent with.
  for (const header of ['content-disposition', 'content-type', 'content-length'])
    response.removeHeader(header);
  const answer = (status: number, problem: Problem) => {
    const { code, message, field, value, rule } = problem;
    response.status(status).json({
      error: {
        code,
        message: shortened(message, LONGEST_MESSAGE),
        field: field && shortened(field, LONGEST_VALUE),
        value: shown(value),
        rule,
        current: (problem as { current?: unknown }).current,
      },
    });
  };
  if (error instanceof EngineGone) {
    response.set('retry-after', '1');
    return answer(
      503,
      new Problem(
        'counting-again',
        'The counting stopped and is being started again. Ask once more in a moment.',
      ),
    );
  }
  if (error instanceof HttpProblem) return answer(error.status, error);
  if (error instanceof Problem) return answer(400, error);
  if (error instanceof multer.MulterError) {
    return answer(
      error.code === 'LIMIT_FILE_SIZE' ? 413 : 400,
      new Problem(
        error.code === 'LIMIT_FILE_SIZE' ? 'too-large' : 'wrong-upload',
        error.code === 'LIMIT_FILE_SIZE'
          ? `The file is too large to upload; at most ${request.app.get('upload limit')} MB are taken. Split it, or start the program with a larger --upload-limit.`
          : `The upload cannot be read: ${error.message}.`,
        { field: 'file' },
      ),
    );
  }
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return answer(
      413,
      new Problem('too-large', 'The body of the request is larger than 4 MB.', {
        rule: 'at most 4 MB; use an upload for files',
      }),
    );
  if (type === 'entity.parse.failed')
    return answer(
      400,
      new Problem('malformed-json', `The body of the request is not JSON: ${(error as Error).message}`, {
        rule: 'valid JSON',
      }),
    );
  if (status && status < 500) return answer(status, new Problem('wrong-request', (error as Error).message));
  if (isOutOfSpace(error))
    return answer(
      507,
      new Problem(
        'no-space',
        'There is no space left where the data is kept, so nothing was written. Free some and do it again; what you entered is unchanged.',
      ),
    );
  if (isReadOnly(error))
    return answer(
      507,
      new Problem(
        'read-only',
        'The data cannot be written: its folder or a file in it is read-only. Change its rights and do it again.',
      ),
    );
  (request.app.get('log') as Log).error({ err: error, id: response.locals.id as string }, 'A request failed');
  answer(
    500,
    new Problem(
      'program-error',
      'The program made a mistake; it has written what happened to its log. What you entered is unchanged.',
    ),
  );
}

/** Characters of a value that messages show, and of a message. */
const LONGEST_VALUE = 200;
const LONGEST_MESSAGE = 1000;

function shortened(text: string, most: number): string {
  return text.length > most ? `${text.slice(0, most)} …` : text;
}

/** A value as an answer shows it: long texts cut, whatever is large left out. */
function shown(value: unknown): unknown {
  if (typeof value === 'string') return shortened(value, LONGEST_VALUE);
  if (typeof value !== 'object' || value === null) return value;
  return JSON.stringify(value).length > LONGEST_VALUE ? undefined : value;
}

/** A text of the query, the empty one where it is not there. */
export function queryText(request: Request, name: string): string {
  const value = request.query[name];
  return typeof value === 'string' ? value.slice(0, 200) : '';
}

/** Aborts when the client has gone before its answer, so that a stale count is never made. */
export function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => {
    if (!response.writableEnded) gone.abort();
  });
  return gone.signal;
}
