import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cleanAddress, cleanAddresses } from './addresses.ts';

const PASTED = `https://www.lakovna.example/en/stairs?utm_source=letter&item=7#top
"lakovna.example/", http://brusirna.example/?gclid=abc; office@brusirna.example
LAKOVNA.example	not-an-address  (veldin.example:8080/shop/)`;

test('pasted addresses are cleaned of trackers to the page, each once; what is none is named', () => {
  expect(cleanAddresses(PASTED, 'page')).toEqual({
    addresses: [
      'lakovna.example/en/stairs?item=7',
      'lakovna.example',
      'brusirna.example',
      'veldin.example:8080/shop',
    ],
    twice: 2,
    none: ['not-an-address'],
  });
});
test('or to the domain', () => {
  expect(cleanAddresses(PASTED, 'domain')).toEqual({
    addresses: ['lakovna.example', 'brusirna.example', 'veldin.example'],
    twice: 3,
    none: ['not-an-address'],
  });
  expect(cleanAddresses(' ,;\n', 'domain')).toEqual({ addresses: [], twice: 0, none: [] });
});
test('what is clean stays as it is, and a page leads to its domain', () => {
  const name = fc.stringMatching(/^[a-z]{1,8}$/);
  fc.assert(
    fc.property(
      name,
      fc.array(name, { maxLength: 3 }),
      fc.constantFrom('', 'http://', 'https://www.'),
      (host, path, scheme) => {
        const page = [`${host}.example`, ...path].join('/');
        expect(cleanAddress(`${scheme}${page}`, 'page')).toBe(page);
        expect(cleanAddress(`${scheme}${page}`, 'domain')).toBe(`${host}.example`);
        expect(cleanAddress(page, 'page')).toBe(page);
      },
    ),
  );
});
