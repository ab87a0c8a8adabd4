/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import type { MessageView } from '../../contract/outreach-views.ts';
import { aMessage } from '../testing/outreach.ts';
import { DraftKeeper } from './draft-keeper.ts';
import { keepAll, noteUnkept } from './unkept.ts';

/** What is typed into a draft is kept after a pause and before anything goes out, and nothing of it is lost. */

let bodies: object[];
let versions: (string | undefined)[];
let answer: (body: Partial<MessageView>) => MessageView | { error: { code: string; message: string } };
beforeEach(() => {
  jest.useFakeTimers();
  bodies = [];
  versions = [];
  let version = 3;
  answer = (body) => aMessage({ ...body, edited: true, version: ++version });
  globalThis.fetch = jest.fn((_path: unknown, init: RequestInit = {}) => {
    const body = JSON.parse(init.body as string) as Partial<MessageView>;
    bodies.push(body);
    versions.push((init.headers as Record<string, string>)['if-match']);
    const made = answer(body);
    const failed = 'error' in made;
    return Promise.resolve({
      ok: !failed,
      status: failed ? 409 : 200,
      json: () => Promise.resolve(failed ? made : { message: made }),
    } as Response);
  });
});
afterEach(() => {
  jest.useRealTimers();
});
const keeper = () => new DraftKeeper(new QueryClient(), aMessage());

test('what is typed is kept once after a pause, under the version that was seen', async () => {
  const one = keeper();
  one.type({ body: 'Dear' });
  one.type({ body: 'Dear M' });
  expect(bodies).toEqual([]);
  await jest.advanceTimersByTimeAsync(1000);
  expect(bodies).toEqual([{ body: 'Dear M' }]);
  one.type({ subject: 'New' });
  await one.keep();
  expect(bodies.at(-1)).toEqual({ subject: 'New' });
  expect(versions).toEqual(['"3"', '"4"']);
});

test('nothing is written where nothing was changed', async () => {
  const one = keeper();
  one.type({ body: 'Dear' });
  one.type({ body: aMessage().body });
  await jest.advanceTimersByTimeAsync(1000);
  await one.keep();
  expect(bodies).toEqual([]);
});

test('what the server has otherwise is taken over, but for what is being typed over', () => {
  const one = keeper();
  const told = jest.fn();
  one.subscribe(told);
  one.take(aMessage({ body: 'With a proof.' }));
  expect(one.snapshot().body).toBe('With a proof.');
  one.type({ body: 'With a proof. And more' });
  one.take(aMessage({ body: 'Another proof.', subject: 'Other' }));
  expect(one.snapshot()).toEqual({ body: 'With a proof. And more', subject: 'Other' });
  expect(told).toHaveBeenCalledTimes(3);
});

test('a write that is refused loses nothing: it is tried again with the next', async () => {
  const one = keeper();
  answer = () => ({ error: { code: 'changed-meanwhile', message: 'Changed in another window.' } });
  one.type({ body: 'Mine' });
  await one.keep();
  expect(one.snapshot().body).toBe('Mine');
  answer = (body) => aMessage({ ...body, version: 9 });
  await one.keep();
  expect(bodies).toEqual([{ body: 'Mine' }, { body: 'Mine' }]);
});

test('before anything goes out all that was typed anywhere is kept, and then another proof is asked for', async () => {
  const [one, other] = [keeper(), keeper()];
  const forget = [one, other].map((each) => noteUnkept(() => each.keep()));
  one.type({ body: 'One' });
  other.type({ subject: 'Other' });
  await keepAll();
  expect(bodies).toEqual([{ body: 'One' }, { subject: 'Other' }]);
  forget.forEach((each) => each());
  one.type({ body: 'One more' });
  await keepAll();
  expect(bodies).toHaveLength(2);
  await one.change({ trigger: 'out' });
  expect(bodies.slice(2)).toEqual([{ body: 'One more' }, { trigger: 'out' }]);
});
