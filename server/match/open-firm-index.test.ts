import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { FirmIndex } from '../../core/match/firm-index.ts';
import { IndexBuilder, MOST_PATCHED } from '../../core/match/index-parts.ts';
import { readyFirm } from '../../core/match/firm.ts';
import { anyRecord, SOURCES } from '../../core/testing/any-record.ts';
import { isFreeMail } from '../free-mail.ts';
import { companyParts, companyWriter } from '../tables/company.ts';
import { nextRevision } from '../tables/revision.ts';
import { RandomUniverse } from '../testing/random-universe.ts';
import { firmIndexPath, openFirmIndex } from './open-firm-index.ts';
import { allFirms } from './universe-firms.ts';

/** The index of companies that is kept beside a universe: it always says what one built anew would. */

const sourced = fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 }));
let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

/** What is told while it is opened; nothing where what was kept did. */
function opened(): { index: FirmIndex; told: string[] } {
  const told: string[] = [];
  const index = openFirmIndex(random.dir, random.db, (_done, _total, doing) => told.push(doing));
  return { index, told };
}

function expectLikeAnew(index: FirmIndex): void {
  const builder = new IndexBuilder();
  const firms = [...allFirms(random.db)];
  for (const { id, key, firm } of firms) builder.add(id, key, readyFirm(firm, isFreeMail));
  const anew = new FirmIndex(builder.finish());
  expect(index.size).toBe(firms.length);
  for (const { firm } of firms) {
    const row = readyFirm(firm, isFreeMail);
    const found = (of: FirmIndex) =>
      of.candidatesOf(row, 30).map(({ company, worth }) => [of.idAt(company), worth, of.firmAt(company)]);
    expect(found(index)).toEqual(found(anew));
    for (const word of row.words) expect(index.withWord(word)).toBe(anew.withWord(word));
  }
}

test('is kept, and takes in what changed since without looking at the others again', () => {
  random.fill(fc.sample(sourced, { numRuns: 60, seed: 3 }));
  expect(opened().told).toEqual(['companies looked through']);
  const kept = statSync(firmIndexPath(random.dir)).mtimeMs;
  const { index, told } = opened();
  expect(told).toEqual([]);
  expectLikeAnew(index);

  const writer = companyWriter(random.db, nextRevision(random.db, 'random'));
  const [changed, added, more] = fc.sample(sourced, { numRuns: 3, seed: 5 });
  writer.remove([4, 60]);
  writer.update(7, companyParts(changed![0]), changed![1]);
  writer.insert(61, 'k60', companyParts(added![0]), added![1]);
  const patched = opened();
  expect(patched.told).toEqual([]);
  expectLikeAnew(patched.index);

  companyWriter(random.db, nextRevision(random.db, 'random')).insert(
    62,
    'k61',
    companyParts(more![0]),
    more![1],
  );
  expectLikeAnew(opened().index);
  expect(statSync(firmIndexPath(random.dir)).mtimeMs).toBe(kept);
});

test('is built anew after many changes, of another universe, and where the file is damaged', () => {
  random.fill(fc.sample(sourced, { numRuns: 10, seed: 3 }));
  rmSync(firmIndexPath(random.dir));
  opened();
  const writer = companyWriter(random.db, nextRevision(random.db, 'random'));
  const records = fc.sample(sourced, { numRuns: MOST_PATCHED + 1, seed: 9 });
  records.forEach(([record, sources], i) =>
    writer.insert(11 + i, `k${10 + i}`, companyParts(record), sources),
  );
  const many = opened();
  expect(many.told).not.toEqual([]);
  expect(many.index.size).toBe(10 + records.length);
  expect(opened().told).toEqual([]);

  random.db.prepare('UPDATE universe SET stamp = ?').run('another');
  expect(opened().told).not.toEqual([]);
  const bytes = readFileSync(firmIndexPath(random.dir));
  bytes[bytes.length - 30]! ^= 1;
  writeFileSync(firmIndexPath(random.dir), bytes);
  const mended = opened();
  expect(mended.told).not.toEqual([]);
  expect(mended.index.size).toBe(10 + records.length);
});
