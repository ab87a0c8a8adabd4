import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyTape } from '../../core/tape/nodes.ts';
import type { EngineHost } from '../engine/host.ts';
import { NO_LOG } from '../log.ts';
import { closeServices, openServices, type Services } from '../services.ts';
import { Counting } from './counting.ts';

/** The thread that counts runs, where the universe changes under it. */

const dir = mkdtempSync(join(tmpdir(), 'just-tally-counting-'));
let services: Services;
beforeAll(async () => {
  services = await openServices(dir, 1, NO_LOG);
});
afterAll(async () => {
  await closeServices(services);
  rmSync(dir, { recursive: true });
});

/** The engine, which at first has what `early` says for what it counts over. */
const opening = (early: readonly (object | null)[]): { engine: EngineHost; asked: () => number } => {
  let asked = 0;
  const engine = {
    get stored() {
      const at = asked++;
      return at < early.length ? early[at] : services.engine.stored;
    },
  };
  return { engine: engine as unknown as EngineHost, asked: () => asked };
};
const tape = { ...emptyTape(), lines: [{ id: 'l1', field: 'sources', test: { from: 2 } }] };

test('waits for the columns, and begins anew where the universe was changed meanwhile', async () => {
  const stored = services.engine.stored!;
  const { engine, asked } = opening([null, { ...stored, revision: stored.revision + 1 }]);
  const counting = new Counting(dir, engine);
  expect(await counting.call('words', tape)).toHaveLength(1);
  expect(asked()).toBe(3);
  // The thread goes on serving over what it opened.
  expect(await counting.call('words', emptyTape())).toEqual([]);
  await counting.stop();
});

test('does not try again what is wrong with the tape itself', async () => {
  const { engine, asked } = opening([]);
  const counting = new Counting(dir, engine);
  await expect(
    counting.call('words', { ...tape, lines: [{ id: 'l1', field: 'no such' }] }),
  ).rejects.toMatchObject({
    code: expect.any(String) as unknown,
    message: expect.stringContaining('no such') as unknown,
  });
  expect(asked()).toBe(1);
  await counting.stop();
});
