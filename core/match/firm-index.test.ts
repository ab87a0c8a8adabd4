import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyFirm, firmWith } from '../testing/any-firm.ts';
import { domainKey, eachKey, houseKey, phoneKey, sharedKeys } from './blocking.ts';
import { FirmIndex } from './firm-index.ts';
import { IndexBuilder, type IndexParts } from './index-parts.ts';
import { fromLine, lineOf } from './ready-line.ts';
import { readyFirm, type Firm, type ReadyFirm } from './firm.ts';

const firm = (more: Partial<Firm>): ReadyFirm =>
  readyFirm(firmWith(more), (domain) => domain === 'freemail.example');
function partsOf(companies: readonly (readonly [id: number, ready: ReadyFirm])[]): IndexParts {
  const builder = new IndexBuilder();
  for (const [id, ready] of companies) builder.add(id, `k${id}`, ready);
  return builder.finish();
}
/** Companies by their places, with ids that are ten times those. */
const indexOf = (universe: readonly ReadyFirm[]) =>
  new FirmIndex(partsOf(universe.map((company, place) => [place * 10, company])));
/** Candidates of a row, by their place in the universe. */
function candidates(row: ReadyFirm, universe: readonly ReadyFirm[], most = 20): number[] {
  return indexOf(universe)
    .candidatesOf(row, most)
    .map(({ company }) => company);
}

describe('a row meets', () => {
  const row = firm({
    name: 'Zarmysko Stolařství s.r.o.',
    registration: '01234567',
    web: 'zarmysko.example',
    phone: '+420 000 178 447',
    street: 'Lipová 18/3',
    postcode: '602 00',
    town: 'Brno',
  });

  test.each<[string, Partial<Firm>]>([
    ['its number', { registration: 'CZ01234567' }],
    ['its number without the nought', { registration: '1234567' }],
    ['its domain in a mail address', { mail: 'info@zarmysko.example' }],
    ['its phone, written otherwise', { phone: '00420000178447' }],
    ['a rare word of its name, anywhere', { name: 'Stolařství', country: 'AT' }],
    ['a mistyped name in its town', { name: 'Zarmyska', town: 'Brno' }],
    ['a mistyped name in its country', { name: 'Zermisko' }],
    ['words run together', { name: 'ZarmyskoStolarstvi' }],
    ['whoever is in its house', { name: 'Halvek', street: '18 Lipová ul.', town: 'Brno 2' }],
  ])('a company by %s', (_, more) => {
    expect(candidates(row, [firm({ name: 'Tonbru', town: 'Zlín' }), firm(more)])).toEqual([1]);
  });

  test('nobody it shares nothing with, nor one with mail where anybody may have it', () => {
    const free = firm({ name: 'Ash', mail: 'zarmysko@freemail.example' });
    expect(candidates(firm({ name: 'Oak', mail: 'oak@freemail.example' }), [free])).toEqual([]);
  });

  test('the worthiest first, those far below it not, and no more than are asked for', () => {
    const universe = [
      firm({ name: 'Stolařství Novák' }),
      firm({ name: 'Zarmysko', web: 'zarmysko.example', registration: '01234567' }),
      firm({ name: 'Zarmysko Okna', web: 'zarmysko.example' }),
    ];
    expect(candidates(row, universe)).toEqual([1, 2]);
    expect(candidates(row, universe.slice(0, 1))).toEqual([0]);
    expect(candidates(row, universe, 1)).toEqual([1]);
  });
});

describe('keys that too many share', () => {
  const crowd = (more: Partial<Firm>) =>
    Array.from({ length: 600 }, (_, i) => firm({ name: `Firm${i}x`, ...more }));

  test('say nothing, such as a word that hundreds have', () => {
    const row = firm({ name: 'Kovo' });
    expect(
      candidates(
        row,
        Array.from({ length: 600 }, () => firm({ name: 'Kovo' })),
        1000,
      ),
    ).toEqual([]);
  });

  test('still say something where they are identifiers, as far as the first of them', () => {
    const row = firm({ web: 'holding.example' });
    expect(candidates(row, crowd({ web: 'holding.example' }), 1000)).toHaveLength(400);
  });
});

test('how many companies have a word, a domain, a phone or a house is counted', () => {
  const row = firm({
    ...{ name: 'Zarmysko', web: 'zarmysko.example', phone: '+420000178447' },
    ...{ street: 'Lipová 18', town: 'Brno' },
  });
  const same = { name: 'Zarmysko Okna M8', web: 'zarmysko.example', street: 'Lipová 18', town: 'Brno' };
  const index = indexOf([
    firm(same),
    firm(same),
    firm({ name: 'Okna Okna', country: null, phone: '471188' }),
  ]);
  expect(index.size).toBe(3);
  expect(index.withWord('zarmysko')).toBe(2);
  expect(index.withWord('okna')).toBe(3);
  expect(index.withWord('m8')).toBe(2);
  expect(index.withWord('dvere')).toBe(0);
  expect(index.sharing(domainKey('zarmysko.example'))).toBe(2);
  expect(index.sharing(houseKey(row)!)).toBe(2);
  expect(index.sharing(phoneKey('471188'))).toBe(1);
  expect(index.sharing(phoneKey('+420000178447'))).toBe(0);
  expect(index.sharing(domainKey('other.example'))).toBe(0);
});

test('a row without a country meets companies of any, by keys that are within a country otherwise', () => {
  const abroad = firm({ name: 'Zermisko', country: 'AT' });
  expect(candidates(firm({ name: 'Zarmysko', country: null }), [abroad])).toEqual([0]);
  expect(candidates(firm({ name: 'Zarmysko', country: 'CZ' }), [abroad])).toEqual([]);
});

const anyReady = anyFirm.map((one) => readyFirm(one, (domain) => domain === 'tenford.example'));

test('a ready firm is the same again from its line', () => {
  fc.assert(
    fc.property(anyReady, (ready) => {
      expect(fromLine(lineOf('CZ-1', ready))).toEqual({ key: 'CZ-1', ready });
    }),
  );
});

test('two records that share a key meet, whatever they are', () => {
  const keysOf = (ready: ReadyFirm, anywhere: boolean) => {
    const keys = new Set<number>();
    eachKey(ready, anywhere, (key) => keys.add(key));
    return keys;
  };
  fc.assert(
    fc.property(anyReady, anyReady, (row, company) => {
      const own = keysOf(row, false);
      const shares = [...keysOf(company, row.country === null)].some((key) => own.has(key));
      expect(candidates(row, [company])).toEqual(shares ? [0] : []);
    }),
  );
});

test('an index with companies that went, changed and came says what one built anew says', () => {
  const universe = fc.array(anyReady, { minLength: 1, maxLength: 30 });
  const crowd = fc
    .constantFrom(0, 390, 410)
    .map((many) => Array.from({ length: many }, () => firm({ name: 'Kovo' })));
  fc.assert(
    fc.property(
      universe,
      crowd,
      universe,
      fc.infiniteStream(fc.constantFrom('stays', 'goes', 'changes')),
      anyReady,
      (first, many, later, fates, row) => {
        const before = [...first, ...many].map((ready, id) => [id, ready] as const);
        const fateOf = new Map(before.map(([id]) => [id, id < 40 ? fates.next().value! : 'stays']));
        const changed = before
          .filter(([id]) => fateOf.get(id) === 'changes')
          .map(([id]) => [id, later[id % later.length]!] as const);
        const added = later.map((ready, i) => [before.length + i, ready] as const);
        const gone = new Set(before.flatMap(([id]) => (fateOf.get(id) === 'stays' ? [] : [id])));
        const patched = new FirmIndex(partsOf(before), gone, partsOf([...changed, ...added]));
        const now = [...before.filter(([id]) => !gone.has(id)), ...changed, ...added].sort(
          (a, b) => a[0] - b[0],
        );
        const anew = new FirmIndex(partsOf(now));
        const found = (index: FirmIndex) =>
          index
            .candidatesOf(row, 50)
            .map(({ company, worth }) => [index.idAt(company), worth, index.firmAt(company)]);
        expect(found(patched)).toEqual(found(anew));
        expect(patched.size).toBe(anew.size);
        for (const word of ['kovo', 'zarmysko', 'tenford'])
          expect(patched.withWord(word)).toBe(anew.withWord(word));
        for (const key of sharedKeys(row)) expect(patched.sharing(key)).toBe(anew.sharing(key));
        expect(patched.spread(5).length).toBe(Math.min(5, anew.size));
      },
    ),
  );
});
