import type { ErrorAnswer } from '../contract/responses.ts';

/** An answer of the API that is an error: what happened, why and what to do, as the server says it. */
export class ApiError extends Error {
  readonly status: number;
  readonly code: string;
  readonly field?: string;
  readonly rule?: string;
  /** Of a clash with another writer: what is there now. */
  readonly current?: unknown;

  constructor(status: number, error: ErrorAnswer['error']) {
    super(error.message);
    this.status = status;
    this.code = error.code;
    this.field = error.field;
    this.rule = error.rule;
    this.current = error.current;
  }
}

/** How often a call is made again while the server counts anew, and the longest pause between. */
const MOST_TRIES = 10;
const LONGEST_PAUSE_S = 5;

/**
 * Asks, and asks again after the pause that the server names where it is starting its counting anew: nothing was done then.
 */
async function patiently(ask: () => Promise<Response>, signal?: AbortSignal): Promise<Response> {
  for (let tries = 1; ; tries++) {
    const response = await ask();
    if (response.status !== 503 || tries === MOST_TRIES || signal?.aborted) return response;
    const seconds = Number(response.headers.get('retry-after')) || 1;
    await new Promise((resolve) => setTimeout(resolve, 1000 * Math.min(LONGEST_PAUSE_S, seconds)));
  }
}

/** Calls the API. @throws ApiError */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
  /** The version that a write is meant for; null for what is not there yet. */
  seen?: string | null,
): Promise<T> {
  const isForm = body instanceof FormData;
  let response: Response;
  try {
    const wish = {
      method,
      signal,
      ...(body === undefined
        ? {}
        : isForm
          ? { body }
          : {
              body: JSON.stringify(body),
              headers: {
                'content-type': 'application/json',
                ...(seen === undefined ? {} : { 'if-match': `"${seen ?? 'none'}"` }),
              },
            }),
    };
    response = await patiently(() => fetch(`/api${path}`, wish), signal);
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ApiError(0, {
      code: 'no-answer',
      message: 'The server does not answer. Is it still running? What you entered is kept here.',
    });
  }
  if (response.status === 204) return undefined as T;
  if (!response.ok) throw await errorOf(response);
  return (await response.json()) as T;
}

/** Whether a write was refused since another window had written meanwhile. */
export function isClash(error: unknown): error is ApiError {
  return error instanceof ApiError && error.code === 'changed-meanwhile';
}

/** Calls the API for a file that is made at once. @throws ApiError */
export async function callForFile(path: string, body: unknown): Promise<Blob> {
  const response = await fetch(`/api${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw await errorOf(response);
  return response.blob();
}

async function errorOf(response: Response): Promise<ApiError> {
  const answer = (await response.json().catch(() => null)) as ErrorAnswer | null;
  return new ApiError(
    response.status,
    answer?.error ?? {
      code: 'no-answer',
      message: `The server answered ${response.status} without saying why.`,
    },
  );
}
