import { beforeAll, describe, expect, test } from '@jest/globals';
import { FirmIndex } from '../core/match/firm-index.ts';
import { IndexBuilder } from '../core/match/index-parts.ts';
import { domainKey, houseKey, phoneKey, sharedKeys, switchboardKey } from '../core/match/blocking.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../core/match/firm.ts';
import { matchRows, type Matching } from '../core/match/match-rows.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../server/reference.ts';
import { Companies } from './company.ts';
import { carelessFile, type FileRow } from './corrupt.ts';
import { Places } from './places.ts';

/** Careless files about companies of the demo, matched under seeds that nothing was tuned on. */

const COMPANIES = 6000;
const ROWS = 800;
const notFree = () => false;
let universe: { key: string; firm: Firm }[];
let ready: ReadyFirm[];
let index: FirmIndex;

beforeAll(() => {
  const gazetteer = loadGazetteer();
  const companies = new Companies(
    new Places(gazetteer, readReference('geo/postcodes.tsv.gz')),
    gazetteer,
    loadCodeTrees().get('nace-2.1')!,
    20_260_930,
    COMPANIES,
  );
  universe = Array.from({ length: COMPANIES }, (_, i) => i)
    // Every 33rd is a second record of the one before it.
    .filter((i) => i % 33 !== 32)
    .map((i) => {
      const truth = companies.at(i);
      return {
        key: String(i),
        firm: {
          ...{ name: `${truth.name} ${truth.form}`, legalForm: truth.form, registration: truth.registration },
          ...{ country: truth.country, web: truth.web, mail: truth.mail, phone: truth.phone },
          ...{ street: truth.street, postcode: truth.postcode, town: truth.town.name },
          ...{ lat: truth.lat, lon: truth.lon, headcount: truth.headcount },
        },
      };
    });
  ready = universe.map(({ firm }) => readyFirm(firm, notFree));
  const builder = new IndexBuilder();
  ready.forEach((one, company) => builder.add(company, universe[company]!.key, one));
  index = new FirmIndex(builder.finish());
}, 60_000);

function matched(file: readonly FileRow[]): { matching: Matching<string>; reached: number } {
  const rows = file.map(({ firm }) => readyFirm(firm, notFree));
  const found = (row: number) =>
    index
      .candidatesOf(rows[row]!, 20)
      .map(({ company }) => ({ company: universe[company]!.key, ready: ready[company]! }));
  const reached = file.filter(
    ({ truth }, r) => truth !== null && found(r).some(({ company }) => company === truth),
  ).length;
  const matching = matchRows(
    rows,
    found,
    ready.slice(0, 1500),
    {
      companies: universe.length,
      ofWord: (word) => index.withWord(word),
      ofDomain: (domain) => index.sharing(domainKey(domain)),
      ofPhone: (phone) => index.sharing(phoneKey(phone)),
      ofSwitchboard: (phone) => index.sharing(switchboardKey(phone)),
      ofHouse: (row) => index.sharing(houseKey(row)!),
    },
    0.99,
  );
  return { matching, reached };
}

describe.each([401, 402])('a careless file under seed %i', (seed) => {
  let file: FileRow[];
  let result: ReturnType<typeof matched>;
  beforeAll(() => {
    // Companies far from each other, and other ones under each seed.
    file = carelessFile(
      Array.from({ length: ROWS }, (_, i) => universe[(i * 7 + seed) % universe.length]!),
      seed,
    );
    result = matched(file);
  }, 60_000);

  test('nearly every company is among the candidates of its row', () => {
    const truths = file.filter(({ truth }) => truth !== null).length;
    expect(result.reached / truths).toBeGreaterThan(0.99);
  });

  test('of the sure at least 99 of 100 are right, and at least 96 of 100 of those there are found', () => {
    const truths = file.filter(({ truth }) => truth !== null).length;
    let [sure, right] = [0, 0];
    result.matching.rows.forEach(({ outcome, candidates }, i) => {
      if (outcome !== 'sure') return;
      sure++;
      if (candidates[0]!.company === file[i]!.truth) right++;
    });
    expect(right / sure).toBeGreaterThan(0.99);
    expect(right / truths).toBeGreaterThan(0.96);
  });

  test('what it learns is made of shares, and says how many rows are there at all', () => {
    const { model } = result.matching;
    for (const shares of Object.values(model.m))
      expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
    expect(model.found).toBeGreaterThan(0.72);
    expect(model.found).toBeLessThan(0.92);
  });
});

test('the same file gives the same rows again, and a file of one row is matched as well', () => {
  const one = carelessFile([universe[77]!], 5, { ...PLAIN });
  expect(one[0]!.truth).toBe(universe[77]!.key);
  const [first, again] = [matched(one).matching, matched(one).matching];
  expect(again.rows).toEqual(first.rows);
  expect(first.rows[0]!.candidates[0]!.company).toBe(universe[77]!.key);
  expect(matched([]).matching.rows).toEqual([]);
});

test('what is counted of a record is its domains, phone, switchboard and house', () => {
  expect(sharedKeys(ready[0]!).length).toBeGreaterThanOrEqual(1);
  expect(new Set(sharedKeys(ready[0]!)).size).toBe(sharedKeys(ready[0]!).length);
});

/** A file that is hardly careless. */
const PLAIN = {
  strangers: 0,
  ...{ number: 1, web: 1, mail: 1, phone: 1, street: 1, postcode: 1, town: 1, country: 1, typo: 0 },
};
