import fc from 'fast-check';
import type { CompanyRecord, Money, Quantity } from '../records/record.ts';
import { REASONS } from '../tally/columns.ts';
import type { EitherBlock, FieldLine, Line, Tape, Test } from '../tape/nodes.ts';

/** Random records and random tapes over the same few values, so that they meet. For tests only. */

const CODES = [
  'C',
  '16',
  '16.2',
  '16.23',
  '16.25',
  '25',
  '25.5',
  '25.51',
  '25.53',
  '28.25',
  '43.32',
  'G',
  '46.62',
];
const NAICS = ['321911', '321918', '32191', '332812', '332', '238350'];
export const TECHNOLOGIES = ['rutavel', 'planodor', 'dipzaal', 'kontovar'];
export const SOURCES = ['register', 'directory', 'survey'];
const WORDS = ['oak', 'stair', 'staircase', 'paint', 'powder', 'joinery', 'kitchen', 'lodz'];
const PLACES: [string | null, string | null, string | null, number | null, number | null][] = [
  ['CZ', 'CZ-64', 'Brno', 49.195, 16.608],
  ['CZ', 'CZ-64', 'Vyškov', 49.277, 16.999],
  ['CZ', null, null, null, null],
  ['PL', 'PL-10', 'Łódź', 51.75, 19.467],
  ['AT', 'AT-9', 'Wien', 48.208, 16.372],
  ['AT', null, 'Hinterdorf', null, null],
  [null, null, null, null, null],
  [null, null, null, 49.2, 16.6],
];

const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { freq: 3 });

const quantity = (most: number): fc.Arbitrary<Quantity> =>
  fc
    .tuple(
      fc.constantFrom('reported', 'band', 'estimate' as const),
      fc.nat(most),
      fc.nat(most),
      fc.nat(most),
      fc.boolean(),
    )
    .map(([basis, a, b, c, open]) => {
      const [low, point, high] = [a, b, c].sort((x, y) => x - y) as [number, number, number];
      if (basis === 'reported') return { basis, low: point, high: point, point };
      return basis === 'band'
        ? { basis, low, high: open ? Infinity : high, point: null }
        : { basis: 'estimate', low, high, point };
    });

/** Revenues and their limits come in steps of this, to fill the bars of a histogram. */
const STEP = 10_000;

const money: fc.Arbitrary<Money> = fc
  .tuple(quantity(60), fc.constantFrom('EUR', 'CZK', 'PLN'), fc.constantFrom(2024, 2025, 1990))
  .map(([value, currency, year]) => ({
    ...value,
    low: value.low * STEP,
    high: value.high * STEP,
    point: value.point === null ? null : value.point * STEP,
    currency,
    year,
  }));

const text = fc
  .array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 5 })
  .map((words) => words.join(' '));

export const anyRecord: fc.Arbitrary<CompanyRecord> = fc
  .record({
    name: text,
    description: maybe(text),
    status: maybe(fc.constantFrom('active', 'dormant', 'closed' as const)),
    place: fc.constantFrom(...PLACES),
    codes: fc.uniqueArray(fc.constantFrom(...CODES), { maxLength: 3 }),
    naics: fc.uniqueArray(fc.constantFrom(...NAICS), { maxLength: 2 }),
    main: fc.boolean(),
    headcount: maybe(quantity(60)),
    headcountWhy: maybe(fc.constantFrom(...REASONS)),
    revenue: maybe(money),
    founded: maybe(fc.integer({ min: 1990, max: 2020 })),
    technologies: fc.uniqueArray(fc.constantFrom(...TECHNOLOGIES), { maxLength: 3 }),
    surveyed: fc.boolean(),
    checkedOn: maybe(fc.integer({ min: 20_000, max: 20_800 })),
  })
  .map(
    ({ place: [country, region, town, lat, lon], codes, naics, main, surveyed, technologies, ...rest }) => ({
      legalForm: null,
      registration: null,
      postcode: null,
      street: null,
      phone: null,
      mail: null,
      web: null,
      checkedHow: null,
      headcountYear: null,
      revenueWhy: null,
      ...rest,
      country,
      region,
      town,
      lat,
      lon,
      codes: [
        ...codes.map((code, i) => ({ scheme: 'nace-2.1' as const, code, main: main && i === 0 })),
        ...naics.map((code, i) => ({ scheme: 'naics-2022' as const, code, main: i === 0 })),
      ],
      technologies: surveyed ? technologies : [],
      surveyedOn: surveyed ? 20_500 : null,
    }),
  );

const range = fc.tuple(fc.nat(60), fc.nat(60), fc.constantFrom('both', 'from', 'to')).map(([a, b, ends]) => ({
  ...(ends === 'to' ? {} : { from: Math.min(a, b) }),
  ...(ends === 'from' ? {} : { to: Math.max(a, b) }),
}));

const scaled = (test: { from?: number; to?: number }) => ({
  ...(test.from === undefined ? {} : { from: test.from * STEP }),
  ...(test.to === undefined ? {} : { to: test.to * STEP }),
});

const some = (values: readonly string[]) =>
  fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 3 });

const wordsText = fc.oneof(
  fc.constantFrom(...WORDS),
  fc.constantFrom(
    'stair*',
    '"oak stair"',
    'oak or paint',
    'powder not kitchen',
    'not joinery',
    '(oak or lodz) and stair*',
    '"powder paint" or kitchen',
  ),
);

const tests: fc.Arbitrary<{ field: string; test: Test; estimates?: true }> = fc.oneof(
  fc
    .tuple(
      some(CODES),
      maybe(some(['16.23', '25.5', '16'])),
      fc.constantFrom<('main' | 'any' | undefined)[]>('main', 'any', undefined),
    )
    .map(([any, except, rank]) => ({
      field: 'industry',
      test: {
        scheme: 'nace-2.1' as const,
        any,
        ...(except ? { except } : {}),
        ...(rank ? { rank } : {}),
      },
    })),
  some(NAICS).map((any) => ({ field: 'industry', test: { scheme: 'naics-2022' as const, any } })),
  fc.oneof(
    some(['CZ', 'PL', 'AT', 'DE']).map((countries) => ({ field: 'place', test: { countries } })),
    some(['CZ-64', 'PL-10', 'AT-9', 'CZ-80']).map((regions) => ({ field: 'place', test: { regions } })),
    some(['Brno, CZ-64', 'Vyškov, CZ-64', 'Wien, AT-9', 'Hinterdorf, AT']).map((towns) => ({
      field: 'place',
      test: { towns },
    })),
    fc.integer({ min: 1, max: 400 }).map((km) => ({
      field: 'place',
      test: { near: { lat: 49.19522, lon: 16.60796, km: km + 0.5, label: 'Brno' } },
    })),
    fc.constant({
      field: 'place',
      test: { countries: ['PL'], near: { lat: 49, lon: 16, miles: 40 }, site: 'head' as const },
    }),
  ),
  fc
    .tuple(range, fc.boolean())
    .map(([test, on]) => ({ field: 'headcount', test, ...(on ? { estimates: true as const } : {}) })),
  fc
    .tuple(
      range,
      fc.boolean(),
      fc.constantFrom('EUR', 'CZK', 'USD'),
      fc.constantFrom<('year' | 'month' | undefined)[]>('year', 'month', undefined),
    )
    .map(([test, on, currency, per]) => ({
      field: 'revenue',
      test: { ...scaled(test), currency, ...(per ? { per } : {}) },
      ...(on ? { estimates: true as const } : {}),
    })),
  fc
    .tuple(some([...TECHNOLOGIES, 'planning']), fc.boolean())
    .map(([keys, all]) => ({ field: 'technology', test: all ? { all: keys } : { any: keys } })),
  fc
    .tuple(some(SOURCES), fc.boolean())
    .map(([keys, all]) => ({ field: 'source', test: all ? { all: keys } : { any: keys } })),
  some(['active', 'dormant']).map((any) => ({ field: 'status', test: { any } })),
  fc
    .tuple(fc.integer({ min: 1990, max: 2020 }), fc.nat(20))
    .map(([from, more]) => ({ field: 'founded', test: { from, to: from + more } })),
  fc
    .constantFrom<Test>(
      { past: '6 months' },
      { past: '1 year' },
      { year: 'last' },
      { year: 2026 },
      { from: '2025-06-01' },
      { from: '2025-01-01', to: '2026-03-31' },
      { to: '2026-01-01' },
    )
    .map((test) => ({ field: 'checked', test })),
  fc
    .tuple(
      wordsText,
      fc.constantFrom<('name' | 'description' | 'both' | undefined)[]>(
        'name',
        'description',
        'both',
        undefined,
      ),
    )
    .map(([words, where]) => ({
      field: 'words',
      test: { text: words, ...(where ? { in: where } : {}) },
    })),
);

const flag = fc.boolean();

const fieldLine = (id: string): fc.Arbitrary<FieldLine> =>
  fc
    .tuple(
      tests,
      flag,
      flag,
      flag,
      fc.constantFrom<('keep' | 'drop' | undefined)[]>('keep', 'drop', undefined),
    )
    .map(([test, not, must, parked, unknown]) => ({
      id,
      ...(not ? { not: true as const } : {}),
      ...(must ? { must: true as const } : {}),
      ...(parked && must ? { parked: true as const } : {}),
      ...(unknown ? { unknown } : {}),
      ...test,
    }));

const block = (id: string): fc.Arbitrary<EitherBlock> =>
  fc
    .tuple(
      fc.array(fc.tuple(tests, flag, flag), { minLength: 2, maxLength: 3 }),
      flag,
      fc.constantFrom<('keep' | 'drop' | undefined)[]>('keep', 'drop', undefined),
    )
    .map(([branches, not, unknown]) => ({
      id,
      ...(not ? { not: true as const } : {}),
      ...(unknown ? { unknown } : {}),
      either: branches.map(([test, inner, parked], i) => ({
        id: `${id}-${i}`,
        ...(inner ? { not: true as const } : {}),
        ...(parked && inner ? { parked: true as const } : {}),
        ...test,
      })),
    }));

export const anyLines: fc.Arbitrary<Line[]> = fc
  .array(fc.nat(), { maxLength: 5 })
  .chain((seeds) =>
    fc.tuple(...seeds.map((seed, i) => (seed % 5 === 0 ? block(`b${i}`) : fieldLine(`l${i}`)))),
  );

export const anyTape: fc.Arbitrary<Tape> = anyLines.map((lines) => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines,
}));
