import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { noBits, recordsOf, setBit } from './bits.ts';
import { companiesWith, hangingOn, type Links } from './links.ts';

/** Companies with so many records of a set, found in passes over words, held to counting them one by one. */
test('companies with at least so many of a set, records in the order of companies or not', () => {
  const companyOf = fc.array(fc.integer({ min: -1, max: 30 }), { minLength: 1, maxLength: 200 });
  fc.assert(
    fc.property(
      companyOf,
      fc.boolean(),
      fc.integer({ min: 1, max: 6 }),
      fc.array(fc.boolean(), { minLength: 200, maxLength: 200 }),
      (drawn, inOrder, least, picked) => {
        const companies = Int32Array.from(
          inOrder ? drawn.map((one) => Math.max(0, one)).sort((a, b) => a - b) : drawn,
        );
        const size = 31;
        const links: Links = { starts: null, companies };
        const set = noBits(companies.length);
        const counts = new Map<number, number>();
        companies.forEach((company, r) => {
          if (!picked[r]) return;
          setBit(set, r);
          if (company >= 0) counts.set(company, (counts.get(company) ?? 0) + 1);
        });
        const hanging = hangingOn(links, companies.length, size);
        expect(hanging.records === null).toBe(companies.every((one, r) => one >= (companies[r - 1] ?? 0)));
        expect([...recordsOf(companiesWith(least, set, links, size, hanging))]).toEqual(
          [...counts]
            .filter(([, count]) => count >= least)
            .map(([company]) => company)
            .sort((a, b) => a - b),
        );
      },
    ),
    { numRuns: 500 },
  );
});
