import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import type { NextFunction, Request, Response } from 'express';
import multer from 'multer';
import { Problem } from '../../core/tape/problem.ts';
import { GivenUp } from '../engine/host.ts';

/** The body of a request as an instance of its class. @throws Problem naming the first field that is wrong */
export function body<T extends object>(type: ClassConstructor<T>, request: Request): T {
  const plain: unknown = request.body;
  if (typeof plain !== 'object' || plain === null || Array.isArray(plain))
    throw new Problem('wrong-body', 'The body of the request is not a JSON object.', {
      rule: 'a JSON object, content type application/json',
    });
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
  const answer = (status: number, problem: Problem) => {
    const { code, message, field, value, rule } = problem;
    response.status(status).json({ error: { code, message, field, value, rule } });
  };
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
      new Problem('too-large', 'The body of the request is larger than 2 MB.', {
        rule: 'at most 2 MB; use an upload for files',
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
  console.error(error);
  answer(
    500,
    new Problem(
      'program-error',
      'The program made a mistake; it has written what happened to its log. What you entered is unchanged.',
    ),
  );
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
