import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { KeyPairs } from './key-pairs.ts';

test('pairs are sorted by key, those of one key as they came', () => {
  const key = fc.oneof(fc.nat(9), fc.integer({ min: 0, max: 0xffffffff }));
  fc.assert(
    fc.property(fc.array(key, { maxLength: 300 }), (keys) => {
      const pairs = new KeyPairs();
      keys.forEach((one, company) => pairs.push(one, company));
      const sorted = pairs.sorted();
      const wanted = keys.map((one, company) => [one, company] as const).sort((a, b) => a[0] - b[0]);
      expect([...sorted.keys]).toEqual(wanted.map(([one]) => one));
      expect([...sorted.companies]).toEqual(wanted.map(([, company]) => company));
    }),
  );
});

test('there may be more of them than there is room for at first', () => {
  const pairs = new KeyPairs();
  for (let i = 0; i < 150_000; i++) pairs.push(150_000 - i, i);
  const { keys, companies } = pairs.sorted();
  expect([keys.length, keys[0], companies[0], keys.at(-1), companies.at(-1)]).toEqual([
    150_000, 1, 149_999, 150_000, 0,
  ]);
});
