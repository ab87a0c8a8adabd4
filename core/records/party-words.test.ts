import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CellError } from '../values/cell.ts';
import { partyWords, readParties } from './party-words.ts';
import type { CompanyReference } from './related.ts';

const ROLES = new Set(['target', 'buyer', 'sell-adviser']);
const reference = (told: Partial<CompanyReference>): CompanyReference => ({
  ...{ number: null, domain: null, name: null, country: null },
  ...told,
});

test.each([
  ['target: CZ 01234567, alder.example (Alder s.r.o.)', 'CZ', '01234567', 'alder.example', 'Alder s.r.o.'],
  ['buyer: (Somebody Elsewhere)', null, null, null, 'Somebody Elsewhere'],
  ['sell-adviser: HRB 1234 B', null, 'HRB 1234 B', null, null],
  ['buyer: GB', 'GB', null, null, null],
  ['target: AT FN 123456a (A (Wien) GmbH)', 'AT', 'FN 123456a', null, 'A (Wien) GmbH'],
])('%s says all that it says', (cell, country, number, domain, name) => {
  const [party] = readParties(cell, ROLES);
  expect(party!.reference).toEqual({ country, number, domain, name });
  expect(partyWords(party!.role, party!.reference)).toBe(cell);
});

test('a role that there is not, or none, is no party', () => {
  for (const cell of ['seller: alder.example', 'alder.example', 'target: a.example; b.example'])
    expect(() => readParties(cell, ROLES)).toThrow(CellError);
  expect(readParties(' ; ', ROLES)).toEqual([]);
});

test('companies with any numbers, domains and names come back in their order', () => {
  const text = fc.stringMatching(/^[A-Za-zÀ-ž0-9 .&'()-]{0,20}[A-Za-z0-9.]$/).map((one) => one.trim());
  const party = fc.record({
    role: fc.constantFrom(...ROLES),
    reference: fc
      .record({
        country: fc.option(fc.constantFrom('CZ', 'AT')),
        number: fc.option(fc.stringMatching(/^[0-9]{4,9}$/)),
        domain: fc.option(fc.stringMatching(/^[a-z]{3,9}\.example$/)),
        name: fc.option(text),
      })
      .map(reference),
  });
  fc.assert(
    fc.property(fc.array(party, { maxLength: 4 }), (parties) => {
      const cell = parties.map((one) => partyWords(one.role, one.reference)).join('; ');
      expect(readParties(cell, ROLES)).toEqual(parties);
    }),
  );
});
