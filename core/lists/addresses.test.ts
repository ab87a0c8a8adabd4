import { expect, test } from '@jest/globals';
import { ADDRESS, suppressedAddresses } from './addresses.ts';

test('a pasted column of domains, websites and mail addresses is understood, each once; the rest is named', () => {
  expect(
    suppressedAddresses(
      'lakovna.example\nhttps://www.Lakovna.example/en, Office@Brusirna.example; <mailto:a@veldin.example>\n"b.example"\tnobody @ a@b',
    ),
  ).toEqual({
    addresses: ['lakovna.example', 'office@brusirna.example', 'a@veldin.example', 'b.example'],
    twice: 1,
    none: ['nobody', '@', 'a@b'],
  });
  expect(suppressedAddresses(' \n')).toEqual({ addresses: [], twice: 0, none: [] });
});
test.each(['lakovna.example', 'office@lakovna.example', 'a.b.c.example'])('%s is an address', (text) =>
  expect(ADDRESS.test(text)).toBe(true),
);
test.each(['lakovna', 'lakovna.example/shop', 'a@b@c.example', 'a b.example', '.example', 'a@'])(
  '%s is none',
  (text) => expect(ADDRESS.test(text)).toBe(false),
);
