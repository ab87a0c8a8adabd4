import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { hasBit } from '../../../core/tally/bits.ts';
import { NOBODY, type Links } from '../../../core/tally/links.ts';
import { anyRelated } from '../../../core/testing/any-related.ts';
import { anyRecord, SOURCES } from '../../../core/testing/any-record.ts';
import { relate, unlinkCompanies } from '../../load/relate.ts';
import { companyParts, companyWriter } from '../../tables/company.ts';
import { nextRevision } from '../../tables/revision.ts';
import { RandomUniverse } from '../../testing/random-universe.ts';
import { buildUniverse } from './build-universe.ts';
import { openColumns, planPatch } from './open-universe.ts';
import {
  openSnapshot,
  snapshotPath,
  type StoredColumn,
  type StoredSubject,
  type StoredUniverse,
} from './stored-universe.ts';

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

/** What the columns say of each company and of what hangs on it, however they keep it. */
function said(universe: StoredUniverse) {
  const related = [...universe.related].map(([subject, one]) => ({
    subject,
    known: [...universe.ids].filter((_, r) => hasBit(one.known, r)),
    records: saidOf(one),
    links: [...one.links].map(([role, links]) => [
      role,
      [...one.ids].map((_, r) => companiesAt(links, r, universe)),
    ]),
  }));
  return { companies: saidOf(universe), related };
}

/** Ids of the companies that a record hangs on. */
function companiesAt({ starts, companies }: Links, r: number, { ids }: StoredUniverse): number[] {
  const own = starts ? companies.slice(starts[r], starts[r + 1]) : companies.slice(r, r + 1);
  return [...own].filter((company) => company !== NOBODY).map((company) => ids[company]!);
}

function saidOf(universe: StoredSubject) {
  return [...universe.ids].map((id, r) => ({
    id,
    says: Object.fromEntries(
      [...universe.columns].map(([field, column]) => [field, valueAt(column, r)]).sort(),
    ) as Record<string, unknown>,
  }));
}

function valueAt(column: StoredColumn, r: number): unknown {
  if (column instanceof Map)
    return [...column.values()]
      .map(({ scheme, offsets, nodes, hasMain, coded }) => ({
        scheme,
        nodes: [...nodes.slice(offsets[r], offsets[r + 1])],
        main: hasBit(hasMain, r),
        coded: hasBit(coded, r),
      }))
      .filter(({ nodes }) => nodes.length > 0);
  switch (column.kind) {
    case 'category':
      return column.dictionary[column.values[r]! - 1] ?? null;
    case 'many': {
      const { starts, records } = column.postings;
      const held = column.dictionary.filter((_, v) => records.slice(starts[v], starts[v + 1]).includes(r));
      const values = [...column.values.slice(column.offsets[r], column.offsets[r + 1])];
      expect(values.map((v) => column.dictionary[v]!).sort()).toEqual(held.sort());
      return { held, known: hasBit(column.known, r) };
    }
    case 'range':
      return [
        column.basis[r],
        column.why[r],
        column.year[r],
        column.low[r],
        column.high[r],
        column.rangeLow[r],
        column.rangeHigh[r],
      ];
    case 'date':
      return column.days[r];
    case 'place':
      return [
        valueAt(column.country, r),
        valueAt(column.region, r),
        valueAt(column.town, r),
        column.lat[r],
        column.lon[r],
        column.grid.records.includes(r),
      ];
    case 'text':
      return hasBit(column.described, r);
    case 'keyed':
      return column.keys.flatMap((key, k) => {
        const at = column.records.subarray(column.starts[k], column.starts[k + 1]).indexOf(r);
        return at < 0 ? [] : [[key, column.values[column.starts[k]! + at]]];
      });
  }
}

const sourced = fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 }));

test('columns patched after changes say the same as columns built anew', () => {
  let patches = 0;
  fc.assert(
    fc.property(
      fc.array(sourced, { minLength: 20, maxLength: 40 }),
      fc.array(fc.tuple(fc.nat(60), fc.option(sourced, { freq: 2 })), { maxLength: 4 }),
      fc.array(sourced, { maxLength: 3 }),
      anyRelated,
      (records, changes, added, related) => {
        random.fill(records, related);
        const { db, reference } = random;
        const before = buildUniverse(db, reference.trees);
        const revision = nextRevision(db, 'random');
        const writer = companyWriter(db, revision);
        const gone: number[] = [];
        const there = (id: number) => writer.find(`k${id - 1}`) !== null;
        for (const [id, change] of changes) {
          if (!there(id)) continue;
          if (change) writer.update(id, companyParts(change[0]), change[1]);
          else {
            writer.remove([id]);
            gone.push(id);
          }
        }
        let last = db.prepare<[], number>('SELECT max(id) FROM company').pluck().get()!;
        for (const [record, sources] of added)
          writer.insert(++last, `k${last - 1}`, companyParts(record), sources);

        relate(db, revision, unlinkCompanies(db, gone));
        const plan = planPatch(db, before);
        // Where too much changed there is no patch.
        if (!plan) return;
        patches++;
        const patched = buildUniverse(db, reference.trees, plan);
        expect(said(patched)).toEqual(said(buildUniverse(db, reference.trees)));
      },
    ),
    { numRuns: 60, seed: 4 },
  );
  expect(patches).toBeGreaterThan(20);
});

test('saved columns open as they were; damaged, older and foreign ones are built anew', async () => {
  const { db, dir, reference } = random;
  random.fill(fc.sample(sourced, { numRuns: 50, seed: 7 }));
  const first = await openColumns(dir, db, reference.trees);
  expect(first.opened).toBe('built');
  const second = await openColumns(dir, db, reference.trees);
  expect(second.opened).toBe('snapshot');
  expect(second.universe).toEqual(first.universe);

  const bytes = readFileSync(snapshotPath(dir));
  bytes[bytes.length - 20]! ^= 1;
  writeFileSync(snapshotPath(dir), bytes);
  expect(openSnapshot(dir)).toBeNull();
  writeFileSync(snapshotPath(dir), bytes.subarray(0, 900));
  expect(openSnapshot(dir)).toBeNull();
  expect((await openColumns(dir, db, reference.trees)).opened).toBe('built');

  companyWriter(db, nextRevision(db, 'random')).remove([1]);
  const third = await openColumns(dir, db, reference.trees);
  expect(third.opened).toBe('patched');
  expect(third.universe.size).toBe(49);

  db.prepare('UPDATE universe SET stamp = ?').run('another');
  expect((await openColumns(dir, db, reference.trees)).opened).toBe('built');
  rmSync(snapshotPath(dir));
});
