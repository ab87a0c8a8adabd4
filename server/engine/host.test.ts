import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import type { UploadAnswer } from '../../contract/responses.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { TestServer } from '../testing/test-server.ts';
import { EngineHost, GivenUp } from './host.ts';
import { calls } from './calls.ts';

/** The threads that count: calls in their turn, those given up, reloads while they answer, and their end. */

const server = new TestServer();
let host: EngineHost;
const load = async (name: string, firms: number) => {
  const rows = Array.from({ length: firms }, (_, i) => `${name} ${i} Ltd,${name}${i},GB,${i}`);
  const file = Buffer.from(`name,registration number,country,employees\n${rows.join('\n')}`);
  const preview = (await server.upload(`${name}.csv`, file)).body as UploadAnswer;
  expect((await server.load(preview, { name })).job.state).toBe('done');
};
beforeAll(async () => {
  await server.start(5);
  await load('Alder', 40);
});
afterAll(() => server.stop());

async function started(): Promise<EngineHost> {
  host = new EngineHost(server.dir);
  await host.ready();
  return host;
}
afterEach(() => host.stop());

const from = (least: number): Tape => ({
  ...emptyTape(),
  lines: [{ id: 'a', field: 'headcount', test: { from: least } }],
});

describe('the engine', () => {
  test('answers each of many calls with its own answer', async () => {
    await started();
    const left = await Promise.all(
      Array.from({ length: 40 }, (_, least) => host.call(calls.tally, [from(least)])),
    );
    expect(left.map(({ tally }) => tally)).toEqual(Array.from({ length: 40 }, (_, least) => 40 - least));
  });
  test('never makes a call that was given up before its turn, and makes those after it', async () => {
    await started();
    const gone = new AbortController();
    const first = host.call(calls.tally, [from(1)]);
    const given = host.call(calls.tally, [from(2)], gone.signal);
    const last = host.call(calls.tally, [from(3)]);
    gone.abort();
    await expect(given).rejects.toBeInstanceOf(GivenUp);
    expect([(await first).tally, (await last).tally]).toEqual([39, 37]);
  });
  test('says what is wrong with a tape as the check says it', async () => {
    await started();
    const broken = { ...emptyTape(), lines: [{ id: 'a', field: 'mood', test: { from: 1 } }] } as Tape;
    await expect(host.call(calls.tally, [broken])).rejects.toMatchObject({ code: 'unknown-field' });
    expect((await host.call(calls.tally, [emptyTape()])).tally).toBe(40);
  });
  test('reads anew while it goes on answering; reloads asked meanwhile are one more', async () => {
    await started();
    await load('Birch', 10);
    const before = host.generation;
    const reloads = [host.reload(), host.reload(), host.reload()];
    expect((await host.call(calls.tally, [emptyTape()])).tally).toBe(40);
    await Promise.all(reloads);
    expect((await host.call(calls.tally, [emptyTape()])).tally).toBe(50);
    expect(host.generation - before).toBeLessThanOrEqual(2);
    expect(host.generation).toBeGreaterThan(before);
  });
  test('starts again where a thread ends by itself; what waited is told so', async () => {
    await started();
    // As a thread ends that runs out of memory.
    const thread = (host as unknown as { pair: { first: { worker: { terminate(): Promise<number> } } } }).pair
      .first;
    const waiting = Promise.allSettled([
      host.call(calls.tally, [from(1)]),
      host.call(calls.tally, [from(2)]),
    ]);
    await thread.worker.terminate();
    for (const end of await waiting)
      if (end.status === 'rejected') expect((end.reason as Error).message).toMatch(/stopped/);
    await host.reload();
    expect((await host.call(calls.tally, [from(30)])).tally).toBe(10);
  });
  test('that is stopped leaves no call without an answer', async () => {
    await started();
    const waiting = Array.from({ length: 5 }, () => host.call(calls.tally, [emptyTape()]));
    const ends = Promise.allSettled(waiting);
    await host.stop();
    for (const end of await ends)
      if (end.status === 'rejected') expect((end.reason as Error).message).toMatch(/stopped/);
    await expect(host.call(calls.tally, [emptyTape()])).rejects.toThrow(/stopped/);
  });
});
