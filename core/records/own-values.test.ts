import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { isParked } from '../gather/site-state.ts';
import { DISPUTED, disputesOf } from './disputes.ts';
import { mergeRecords } from './merge.ts';
import {
  BY_CHECK,
  BY_HAND,
  CORRECTABLE,
  CORRECTABLE_KEYS,
  correctionRow,
  withCorrections,
  withSiteCheck,
} from './own-values.ts';
import { PRECEDENCE_GROUP_KEYS, PRECEDENCE_GROUPS, USUAL_PRECEDENCE } from './precedence.ts';
import type { CompanyRecord, Quantity } from './record.ts';

const [BASE] = fc.sample(anyRecord, { numRuns: 1, seed: 7 }) as [CompanyRecord];
const heads = (low: number, high = low): Quantity =>
  low === high ? { basis: 'reported', low, high, point: low } : { basis: 'band', low, high, point: null };
const record = (more: Partial<CompanyRecord>): CompanyRecord => ({
  ...BASE,
  checkedOn: null,
  status: null,
  siteState: null,
  siteAnswers: null,
  siteCheckedOn: null,
  founded: null,
  web: null,
  codes: [],
  headcount: null,
  revenue: null,
  ...more,
});
const of = (source: string, id: number, more: Partial<CompanyRecord>) => ({
  id,
  source,
  record: record(more),
});

describe('what sources disagree on', () => {
  test.each([
    ['half as many more is no dispute', { headcount: heads(40) }, { headcount: heads(60) }, []],
    ['more than that is', { headcount: heads(40) }, { headcount: heads(61) }, ['headcount']],
    ['a band that holds the other is not', { headcount: heads(40) }, { headcount: heads(20, 49) }, []],
    ['what one of them does not know is not', { founded: 1990 }, { founded: null }, []],
    ['another year is', { founded: 1990 }, { founded: 1991 }, ['founded']],
    ['a page of one domain is not', { web: 'www.a.example' }, { web: 'a.example/shop' }, []],
    ['another domain is', { web: 'a.example' }, { web: 'b.example' }, ['web']],
    [
      'another main code of one scheme is, of another scheme not',
      { codes: [{ scheme: 'nace-2.1', code: '25.51', main: true }] },
      {
        codes: [
          { scheme: 'nace-2.1', code: '25.53', main: true },
          { scheme: 'naics-2022', code: '332812', main: true },
        ],
      },
      ['industry'],
    ],
  ] satisfies [string, Partial<CompanyRecord>, Partial<CompanyRecord>, string[]][])('%s', (_, a, b, told) => {
    expect(disputesOf([of('a', 1, a), of('b', 2, b)])).toEqual(told);
    expect(disputesOf([of('b', 1, b), of('a', 2, a)])).toEqual(told);
    // Two rows of one source are its own matter.
    expect(disputesOf([of('a', 1, a), of('a', 2, b)])).toEqual([]);
  });
  test('a source that repeats another adds none, in any order', () => {
    fc.assert(
      fc.property(anyRecord, anyRecord, (a, b) => {
        const two = disputesOf([
          { source: 'a', record: a },
          { source: 'b', record: b },
        ]);
        const three = disputesOf([
          { source: 'c', record: a },
          { source: 'b', record: b },
          { source: 'a', record: a },
        ]);
        expect(three).toEqual(two);
        expect(two.every((part) => DISPUTED.includes(part))).toBe(true);
      }),
    );
  });
});

describe('which source wins', () => {
  const sources = [
    of('register', 1, { checkedOn: 100, phone: '1', headcount: heads(40), town: 'Brno', street: 'Lipová 1' }),
    of('directory', 2, { checkedOn: 900, phone: '2', headcount: heads(10, 49), town: 'Praha', street: null }),
  ];
  test('as usual the newest, of figures the most exact, of addresses the one with a street', () => {
    const { company } = mergeRecords(sources);
    expect([company.phone, company.headcount!.point, company.town]).toEqual(['2', 40, 'Brno']);
  });
  test('by an order its first that knows the value, each group by its own', () => {
    const order = { by: 'order', sources: ['directory', 'register'] } as const;
    const { company, from } = mergeRecords(sources, {
      ...USUAL_PRECEDENCE,
      contact: { by: 'order', sources: ['register'] },
      address: order,
      size: order,
    });
    expect([company.phone, company.town, company.street]).toEqual(['1', 'Praha', null]);
    expect(company.headcount).toEqual(heads(10, 49));
    expect([from.phone, from.town, from.headcount]).toEqual([1, 2, 2]);
  });
  test('of figures the newest, where that is asked', () => {
    const { company } = mergeRecords(sources, { ...USUAL_PRECEDENCE, size: { by: 'newest' } });
    expect(company.headcount).toEqual(heads(10, 49));
  });
  test('every value is of a record that has it, whatever the order', () => {
    fc.assert(
      fc.property(
        fc.array(anyRecord, { minLength: 1, maxLength: 4 }),
        fc.shuffledSubarray(['s0', 's1', 's2', 's3']),
        (records, order) => {
          const rule = { by: 'order', sources: order } as const;
          const { company, from } = mergeRecords(
            records.map((one, i) => ({ id: i + 1, source: `s${i}`, record: one })),
            Object.fromEntries(
              PRECEDENCE_GROUP_KEYS.map((key) => [key, rule]),
            ) as unknown as typeof USUAL_PRECEDENCE,
          );
          const named = order.filter((source) => Number(source.slice(1)) < records.length);
          for (const part of ['phone', 'status', 'followers', 'ownership', 'founded', 'profit'] as const) {
            const first = named
              .map((source) => records[Number(source.slice(1))]!)
              .find((one) => one[part] !== null);
            if (first) expect(company[part]).toEqual(first[part]);
            if (company[part] !== null) expect(records[from[part]! - 1]![part]).toEqual(company[part]);
          }
        },
      ),
    );
  });
  test('each part is in one group alone', () => {
    const parts = PRECEDENCE_GROUP_KEYS.flatMap((key) => [...PRECEDENCE_GROUPS[key].parts] as string[]);
    expect(new Set(parts).size).toBe(parts.length);
  });
});

describe('what we ourselves say', () => {
  const merged = () =>
    mergeRecords([
      of('register', 1, {
        phone: '1',
        web: 'old.example',
        headcount: heads(40),
        codes: [
          { scheme: 'nace-2.1', code: '25.51', main: true },
          { scheme: 'naics-2022', code: '332812', main: true },
        ],
      }),
    ]);
  test('wins over every source, part by part, and a value known to be wrong is unknown', () => {
    const own = record({ headcount: heads(55), phone: null });
    const { company, from } = withCorrections(merged(), own, ['headcount', 'phone']);
    expect([company.headcount, company.phone, company.web]).toEqual([heads(55), null, 'old.example']);
    expect([from.headcount, from.phone, from.web]).toEqual([BY_HAND, BY_HAND, 1]);
  });
  test('a main code takes the place of that of its scheme, which stays as a further one', () => {
    const own = record({ codes: [{ scheme: 'nace-2.1', code: '25.53', main: true }] });
    expect(withCorrections(merged(), own, ['main-code']).company.codes).toEqual([
      { scheme: 'nace-2.1', code: '25.53', main: true },
      { scheme: 'nace-2.1', code: '25.51', main: false },
      { scheme: 'naics-2022', code: '332812', main: true },
    ]);
  });
  test('a website’s check counts for the address that was tried, unless a source tried it later', () => {
    const check = { web: 'old.example', state: 'moved', movedTo: 'new.example', on: 500 } as const;
    const { company, from } = withSiteCheck(merged(), check);
    expect([company.siteState, company.siteMovedTo, company.siteAnswers]).toEqual([
      'moved',
      'new.example',
      true,
    ]);
    expect(from.siteState).toBe(BY_CHECK);
    const other = withCorrections(merged(), record({ web: 'new.example' }), ['web']);
    expect(withSiteCheck(other, check)).toBe(other);
    const later = mergeRecords([
      of('register', 1, { web: 'old.example', siteCheckedOn: 501, siteState: 'works' }),
    ]);
    expect(withSiteCheck(later, check)).toBe(later);
    expect(withSiteCheck(later, null)).toBe(later);
  });
  test('corrections are read as a row with a name, of the columns that are corrected', () => {
    expect(correctionRow('Lakovna', new Map([['phone', '7']]))).toEqual({
      header: ['name', 'phone'],
      cells: ['Lakovna', '7'],
    });
    expect(correctionRow('Lakovna', new Map([['name', 'Lakovna Sever']])).cells).toEqual(['Lakovna Sever']);
    const parts = CORRECTABLE_KEYS.flatMap((key) => [...CORRECTABLE[key].parts] as string[]);
    expect(new Set(parts).size).toBe(parts.length);
  });
});

test('a page that only says that its domain is for sale is told from one that speaks of such things', () => {
  expect(isParked('<h1>lakovna.example</h1><p>This <b>domain is for sale</b>.</p>')).toBe(true);
  expect(isParked('<p>Tato doména je na prodej</p>')).toBe(true);
  expect(isParked('<script>domain is for sale</script><p>Lakovna Sever</p>')).toBe(false);
  expect(isParked(`<p>Our domain is for sale? No.</p>${'<p>We coat stairs.</p>'.repeat(300)}`)).toBe(false);
});
