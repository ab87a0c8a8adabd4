import { afterEach, expect, jest, test } from '@jest/globals';
import { ApiError, call, isClash } from './api.ts';

afterEach(() => {
  jest.useRealTimers();
});

const reply = (status: number, body: unknown, headers: Record<string, string> = {}) =>
  new Response(status === 204 ? null : JSON.stringify(body), { status, headers });
/** Answers one after the other, the last one again and again. */
function answering(...answers: (() => Response)[]) {
  const asked = jest.fn(() => Promise.resolve((answers.length > 1 ? answers.shift()! : answers[0]!)()));
  globalThis.fetch = asked;
  return asked;
}
const busy = () =>
  reply(503, { error: { code: 'counting-again', message: 'Ask once more.' } }, { 'retry-after': '1' });

test('a call made while the server counts anew is made again after the pause it names', async () => {
  jest.useFakeTimers();
  const asked = answering(busy, busy, () => reply(200, { tally: 7 }));
  const answer = call<{ tally: number }>('POST', '/tally', {});
  await jest.advanceTimersByTimeAsync(900);
  expect(asked).toHaveBeenCalledTimes(1);
  await jest.advanceTimersByTimeAsync(1200);
  expect(await answer).toEqual({ tally: 7 });
  expect(asked).toHaveBeenCalledTimes(3);
});

test('in the end it says what the server says, and a call that was given up is not made again', async () => {
  jest.useFakeTimers();
  const asked = answering(busy);
  const failed = expect(call('POST', '/tally', {})).rejects.toMatchObject({
    status: 503,
    code: 'counting-again',
  });
  await jest.advanceTimersByTimeAsync(60_000);
  await failed;
  expect(asked).toHaveBeenCalledTimes(10);
  const gone = new AbortController();
  gone.abort();
  await expect(call('POST', '/tally', {}, gone.signal)).rejects.toBeInstanceOf(ApiError);
  expect(asked).toHaveBeenCalledTimes(11);
});

test('an error says field, rule and what is there now; nothing to say is nothing', async () => {
  answering(() =>
    reply(409, { error: { code: 'changed-meanwhile', message: 'm', field: 'f', rule: 'r', current: 5 } }),
  );
  const error = await call('PUT', '/x', {}, undefined, 'T1').catch((failure: unknown) => failure);
  expect(error).toMatchObject({ status: 409, field: 'f', rule: 'r', current: 5 });
  expect([isClash(error), isClash(new Error('x'))]).toEqual([true, false]);
  answering(() => reply(204, null));
  expect(await call('DELETE', '/x')).toBeUndefined();
  globalThis.fetch = () => Promise.reject(new TypeError('failed'));
  await expect(call('GET', '/x')).rejects.toMatchObject({ status: 0, code: 'no-answer' });
});
