import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { deflateRawSync } from 'node:zlib';
import { changed, changesOfMembers, packIds, unpackIds } from './members.ts';

const anyMembers = fc
  .uniqueArray(fc.oneof(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 3_000_000 })), {
    maxLength: 200,
  })
  .map((ids) => Uint32Array.from(ids).sort());

test('a set of bits has the numbers it was made of', () => {
  fc.assert(fc.property(anyMembers, (ids) => expect([...unpackIds(packIds(ids))]).toEqual([...ids])));
});

test('the changes between any two runs, applied to the first, give the second', () => {
  fc.assert(
    fc.property(anyMembers, anyMembers, (before, after) => {
      const changes = changesOfMembers(before, after);
      expect(changed(before, changes)).toEqual(after);
      expect(changes.stayed.length + changes.left.length).toBe(before.length);
      expect(changes.stayed.length + changes.joined.length).toBe(after.length);
    }),
  );
});

test('runs one after another: their changes together are the changes from the first to the last', () => {
  fc.assert(
    fc.property(fc.array(anyMembers, { minLength: 2, maxLength: 6 }), (runs) => {
      let at: Uint32Array = runs[0]!;
      for (let i = 1; i < runs.length; i++) at = changed(at, changesOfMembers(runs[i - 1]!, runs[i]!));
      expect(at).toEqual(runs.at(-1)!);
    }),
  );
});

test('a million members take less than 200 kB, however they lie', () => {
  const all = Uint32Array.from({ length: 1_000_000 }, (_, i) => i + 1);
  expect(packIds(all).length).toBeLessThan(126_000);
  expect(deflateRawSync(packIds(all)).length).toBeLessThan(1000);
  let state = 1;
  const scattered = Uint32Array.from({ length: 1_000_000 }, (_, i) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor(1.4 * i) + (state & 0);
  });
  expect(deflateRawSync(packIds(scattered)).length).toBeLessThan(200_000);
});
