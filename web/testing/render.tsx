import { jest } from '@jest/globals';
import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, configure, render, type RenderResult } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { emptyTape } from '../../core/tape/nodes.ts';
import { useHistory } from '../app/history.ts';
import { NO_PICKS } from '../desk/picks.ts';
import { useDesk } from '../desk/store.ts';

/** Components in a browser that is none, over an API that a test answers for. For tests only. */

notifyManager.setNotifyFunction((notify) => act(notify));
// What is looked for by its role takes a second on a slow machine; what never comes still fails, by the test's own limit.
configure({ asyncUtilTimeout: 60_000 });

/** Answers by "POST /complete", and headers by "POST /complete headers"; a function is called with the body and the headers. An Error is an answer that says it. */
export type Answers = Record<string, unknown>;

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

const DEFAULTS: Answers = {
  'GET /settings': {
    currency: 'EUR',
    distance: 'km',
    numbers: 'comma',
    dates: 'words',
    theme: 'day',
    paper: 'A4',
    keys: true,
    person: '',
    asOf: null,
  },
  'GET /lists': { lists: [], removed: [], reasons: [] },
  'GET /health': { universe: 10, asOf: '2026-09-30', generation: 1 },
};

export interface Shown extends RenderResult {
  user: UserEvent;
  /** What was asked of the API, in its order. */
  asked: Asked[];
  /** Bodies sent to one call. */
  sent(call: string): unknown[];
}

/** Shows something over an API that gives these answers. @param at the address that is open */
export function show(what: ReactNode, answers: Answers = {}, at = '/desk'): Shown {
  const asked: Asked[] = [];
  const known = { ...DEFAULTS, ...answers };
  globalThis.fetch = jest.fn((input: unknown, init: RequestInit = {}) => {
    const [path] = String(input)
      .replace(/^\/api/, '')
      .split('?') as [string];
    const method = init.method ?? 'GET';
    const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : undefined;
    asked.push({ method, path: String(input).replace(/^\/api/, ''), body });
    const answer = known[`${method} ${path}`];
    if (answer === undefined)
      return Promise.resolve(
        reply(404, { error: { code: 'unknown-address', message: `no answer for ${method} ${path}` } }),
      );
    const made: unknown =
      typeof answer === 'function'
        ? (answer as (body: unknown, headers: unknown) => unknown)(body, init.headers ?? {})
        : answer;
    return Promise.resolve(
      made instanceof Error
        ? reply(400, { error: { code: 'wrong-value', ...made, message: made.message } })
        : reply(200, made, known[`${method} ${path} headers`] as Record<string, string> | undefined),
    );
  });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, gcTime: Infinity } } });
  const shown = render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[at]}>{what}</MemoryRouter>
    </QueryClientProvider>,
  );
  const sent = (call: string) =>
    asked.filter(({ method, path }) => `${method} ${path.split('?')[0]}` === call).map(({ body }) => body);
  return { ...shown, user: userEvent.setup(), asked, sent };
}

function reply(status: number, body: unknown, headers: Record<string, string> = {}): Response {
  const blob = () => Promise.resolve(new Blob([typeof body === 'string' ? body : JSON.stringify(body)]));
  return {
    ...{ ok: status < 400, status, headers: new Headers(headers) },
    ...{ json: () => Promise.resolve(body), blob },
  } as Response;
}

/** An answer that another window has written meanwhile: what is there now. */
export function clash(current: unknown): Error {
  return Object.assign(new Error('It was changed in another window.'), {
    code: 'changed-meanwhile',
    current,
  });
}

/** Does something and waits until all that follows from it is shown. */
export function settled(work: () => unknown): Promise<void> {
  return act(() => Promise.resolve(work()).then(() => undefined));
}

/** The Desk as it is at a start, with nothing done. */
export function freshDesk(): void {
  cleanup();
  localStorage.clear();
  useHistory.setState({ past: [], future: [] });
  useDesk.setState({
    tape: emptyTape(),
    sort: [],
    openLine: null,
    company: null,
    view: 'sheet',
    lastTag: null,
    picks: NO_PICKS,
    cursor: 0,
    cameFrom: null,
  });
}
