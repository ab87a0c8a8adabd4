import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyFirm, firmWith } from '../testing/any-firm.ts';
import { compare, marksOf, FEATURE_NAMES, FEATURES, type Feature } from './compare.ts';
import { readyFirm, type Firm } from './firm.ts';
import { sureBy } from './outcome.ts';
import { rareWordOf, wordsOf } from './words-of-score.ts';
import { fold } from '../text/fold.ts';

const names = {
  countOf: (word: string) => (word === 'works' || word === 'lakovna' ? 800 : 2),
  companies: 10_000,
};
const ready = (firm: Firm) => readyFirm(firm, (domain) => domain === 'freemail.example');
const compared = (a: Partial<Firm>, b: Partial<Firm>) =>
  compare(ready(firmWith(a)), ready(firmWith(b)), names);
const level = (feature: Feature, a: Partial<Firm>, b: Partial<Firm>) =>
  FEATURES[feature][compared(a, b).levels[FEATURE_NAMES.indexOf(feature)]!];

describe('two records', () => {
  test('compare the same whichever is first, and a record with itself is never different', () => {
    fc.assert(
      fc.property(anyFirm.map(ready), anyFirm.map(ready), (a, b) => {
        const [one, other] = [compare(a, b, names), compare(b, a, names)];
        expect([...one.levels]).toEqual([...other.levels]);
        expect(marksOf(a, b, one)).toEqual(marksOf(b, a, other));
        const self = compare(a, a, names);
        expect(Object.values(marksOf(a, a, self))).not.toContain('different');
        expect(sureBy(one)).toBe(sureBy(other));
      }),
    );
  });

  test.each([
    ['number', { registration: '25000118' }, { registration: 'CZ25000118' }, 'equal'],
    ['number', { registration: '25000118' }, { registration: '25000119' }, 'one figure off'],
    ['number', { registration: '25000118' }, { registration: '77000333' }, 'different'],
    ['number', { registration: '25000118' }, { registration: '77000333', country: 'SK' }, 'missing'],
    ['domain', { web: 'ash.example' }, { mail: 'x@ash.example' }, 'equal'],
    ['domain', { web: 'zarmysko.example' }, { web: 'zarmysko-schody.example' }, 'alike'],
    ['domain', { mail: 'x@freemail.example' }, { mail: 'y@freemail.example' }, 'missing'],
    ['phone', { phone: '+420 000 041 228' }, { phone: '00420000041228' }, 'equal'],
    ['phone', { phone: '+420 000 041 228' }, { phone: '+420 000 041 900' }, 'extension'],
    ['name', { name: 'Ash Works Ltd' }, { name: 'WORKS ASH' }, 'equal'],
    ['name', { name: 'Zarmysko Works' }, { name: 'Zermysko Works' }, 'very alike'],
    ['name', { name: 'Zarmysko' }, { name: 'Zarmysko Works' }, 'part'],
    ['name', { name: 'Zarmysko Mill' }, { name: 'Zarmysko Works' }, 'shares a word'],
    ['name', { name: 'Ashcombe' }, { name: 'Pernelohn' }, 'different'],
    ['form', { name: 'Ash s.r.o.' }, { name: 'Ash', legalForm: 'a.s.' }, 'different'],
    [
      'place',
      { street: 'Lipová 18', town: 'Boskovice' },
      { street: '18 Lipova', town: 'Boskovice 2' },
      'house',
    ],
    [
      'place',
      { street: 'Lipová 18', town: 'Boskovice' },
      { street: 'Lipová 20', town: 'Boskovice' },
      'street and town',
    ],
    ['place', { postcode: '680 01' }, { postcode: '68001' }, 'postcode'],
    ['place', { town: 'Boskovice' }, { town: 'Boskovice' }, 'town'],
    ['place', { town: 'A', lat: 49.4, lon: 16.6 }, { town: 'B', lat: 49.5, lon: 16.7 }, 'within 25 km'],
    ['place', { town: 'A' }, { town: 'Letovice' }, 'same country'],
    ['place', { country: 'CZ' }, { country: 'AT' }, 'other country'],
    ['headcount', { headcount: 10 }, { headcount: 30 }, 'alike'],
    ['headcount', { headcount: 10 }, { headcount: 400 }, 'different'],
  ] as const)('%s of %j and %j is %s', (feature, a, b, expected) => {
    expect(level(feature, a, b)).toBe(expected);
  });
});

describe('what a pair may be sure by', () => {
  const by = (a: Partial<Firm>, b: Partial<Firm>) => sureBy(compared(a, b));
  test('is never the name alone', () => {
    expect(by({ name: 'Zarmysko' }, { name: 'Zarmysko' })).toBeNull();
    expect(by({ name: 'Zarmysko', town: 'Brno' }, { name: 'Zarmysko', town: 'Brno' })).toBe('name');
    expect(
      by({ name: 'Zarmysko', phone: '+420000041228' }, { name: 'Zarmysko', phone: '+420000041228' }),
    ).toBe('name');
    expect(by({ town: 'Brno' }, { town: 'Brno' })).toBeNull();
  });
  test('is the number before the domain, and nothing where two numbers of one register differ', () => {
    const domain = { web: 'ash.example' };
    expect(by({ ...domain, registration: '25000118' }, { ...domain, registration: '25000118' })).toBe(
      'number',
    );
    expect(by(domain, domain)).toBe('domain');
    expect(by({ ...domain, registration: '25000118' }, { ...domain, registration: '77000333' })).toBeNull();
  });
});

describe('a score in words', () => {
  const bits = (...values: number[]) => Float64Array.from(values);
  test('says what speaks for it, strongest first, then what speaks against it', () => {
    const pair = compared(
      {
        name: 'Lakovna Veldín',
        web: 'lak.example',
        phone: '+420000041228',
        town: 'Brno',
        lat: 49.2,
        lon: 16.6,
      },
      {
        name: 'LAKOVNA VELDIN',
        web: 'lak.example',
        phone: '+420000999111',
        town: 'Praha',
        lat: 50.1,
        lon: 14.4,
      },
    );
    const rare = rareWordOf(pair, 'Lakovna Veldín', names.countOf, 10_000, fold);
    expect(rare).toBe('Veldín');
    expect(wordsOf(pair, bits(0, 14, -4, 9, 0, -2, 0), rare)).toBe(
      'Same domain; same name, “Veldín” rare; another phone; 187 km away.',
    );
  });
  test('says nothing of what hardly counts', () => {
    const pair = compared({ name: 'Ash' }, { name: 'Ash' });
    expect(wordsOf(pair, bits(0, 0, 0, 0.4, 0, 0, 0), null)).toBe('Nothing speaks for it or against it.');
    expect(rareWordOf(pair, 'Ash', () => 9000, 10_000, fold)).toBeNull();
  });
});
