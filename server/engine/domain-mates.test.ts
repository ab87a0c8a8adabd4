import { afterAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createRequire } from 'node:module';
import { anyRecord } from '../../core/testing/any-record.ts';
import { countBits, noBits, recordsOf, setBit } from '../../core/tally/bits.ts';
import { buildUniverse } from './opening/build-universe.ts';
import { RandomUniverse } from '../testing/random-universe.ts';
import { DomainMates } from './domain-mates.ts';
import { recordsOfAll } from './records.ts';

/** A domain where anybody may have a mail box. */
const freeMail = (createRequire(import.meta.url)('email-providers/all.json') as string[])[0]!;
const random = new RandomUniverse();
afterAll(() => random.close());

const opened = () => {
  const stored = buildUniverse(random.db, random.reference.trees);
  return recordsOfAll(stored, random.db).get('companies')!;
};
const records = fc.array(fc.tuple(anyRecord, fc.constant(['register'])), { minLength: 1, maxLength: 60 });

test('some companies with whoever has their domain are those that SQL finds, and none of them is lost', () => {
  fc.assert(
    fc.property(records, fc.array(fc.nat(3)), (firms, picks) => {
      random.fill(firms);
      const spread = random.db.prepare('UPDATE company SET domain = ? WHERE id % 7 = ?');
      ['a.example', 'b.example', null, 'c.example'].forEach((domain, i) => spread.run(domain, i));
      const companies = opened();
      const some = noBits(companies.ids.length);
      picks.forEach((pick, r) => pick === 0 && r < companies.ids.length && setBit(some, r));
      const found = new DomainMates(random.db, companies).of(some);
      const ids = (bits: typeof some) =>
        [...recordsOf(bits)].map((r) => companies.ids[r]!).sort((a, b) => a - b);
      const wanted = random.db
        .prepare<[string], number>(
          `WITH some AS (SELECT id, domain FROM company WHERE id IN (SELECT value FROM json_each(?)))
           SELECT id FROM some UNION SELECT id FROM company WHERE domain IN (SELECT domain FROM some) ORDER BY 1`,
        )
        .pluck()
        .all(JSON.stringify(ids(some)));
      expect(ids(found)).toEqual(wanted);
    }),
    { numRuns: 25 },
  );
});

test('a domain that more than fifty companies have is nobody’s own, and one for mail is none either', () => {
  const [sample] = fc.sample(anyRecord, { numRuns: 1, seed: 5 });
  const firms = Array.from({ length: 130 }, (_, i) => [
    { ...sample!, registration: String(10_000 + i), name: `Firm ${i}` },
    ['register'],
  ]);
  random.fill(firms as never);
  const ids = random.db.prepare<[], number>('SELECT id FROM company ORDER BY id').pluck().all();
  expect(ids.length).toBeGreaterThan(120);
  const set = random.db.prepare('UPDATE company SET domain = ? WHERE id = ?');
  ids.forEach((id, i) => set.run(i < 51 ? 'portal.example' : i < 101 ? 'ours.example' : freeMail, id));
  const companies = opened();
  const mates = new DomainMates(random.db, companies);
  const of = (at: number) => {
    const one = noBits(companies.ids.length);
    setBit(one, companies.recordOf[ids[at]!]!);
    return countBits(mates.of(one));
  };
  expect([of(0), of(60), of(110)]).toEqual([1, 50, 1]);
});
