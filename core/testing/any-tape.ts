import fc from 'fast-check';
import { ledgerTests } from './any-ledger.ts';
import { listClauses } from './any-list.ts';
import { OFFERS } from '../fields/companies/making.ts';
import { Problem } from '../tape/problem.ts';
import { type EitherBlock, type FieldLine, type Line, type Tape, type Test } from '../tape/nodes.ts';
import { anyHas, RELATED_TESTS } from './any-has.ts';
import { CODES, LISTS, maybe, NAICS, SOURCES, STEP, TECHNOLOGIES, WORDS, GROUPS } from './any-record.ts';

/** Random tapes over the same few values as the random records. For tests only. */

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

/** A spelling of any test on any of these fields. */
interface AnyTest {
  field: string;
  test: Test;
  estimates?: true;
  fresh?: string;
}

const kin = fc.constantFrom<('sure' | 'possible' | undefined)[]>('sure', 'possible', undefined);

const percents = fc
  .tuple(fc.integer({ min: -100, max: 100 }), fc.nat(100), fc.constantFrom('both', 'from', 'to'))
  .map(([a, more, ends]) => ({
    ...(ends === 'to' ? {} : { from: a }),
    ...(ends === 'from' ? {} : { to: a + more }),
  }));

/** Tests on measures, ranks, flags and what else stands beside the usual ones. */
const rarerTests: fc.Arbitrary<AnyTest> = fc.oneof(
  fc
    .tuple(
      fc.constantFrom('headcount', 'revenue', 'sales'),
      fc.constantFrom('1y' as const, '3y' as const),
      percents,
    )
    .map(([of, over, test]) => ({ field: 'growth', test: { of, over, ...test } })),
  fc
    .tuple(fc.constantFrom('sales', 'purchasing', 'finance'), range)
    .map(([key, test]) => ({ field: 'departments', test: { key, ...test } })),
  fc
    .tuple(
      fc.constantFrom('revenue' as const, 'headcount' as const),
      fc.constantFrom('country' as const, 'industry' as const, 'all' as const),
      fc.integer({ min: 1, max: 6 }),
      fc.nat(20),
      fc.boolean(),
    )
    .map(([by, among, from, more, on]) => ({
      field: 'rank',
      test: { by, among, ...(from > 1 ? { from } : {}), to: from + more },
      ...(on ? { estimates: true as const } : {}),
    })),
  fc
    .tuple(fc.constantFrom('dwelling', 'site-answers'), fc.boolean())
    .map(([field, is]) => ({ field, test: { is } })),
  fc
    .tuple(some(OFFERS), fc.boolean())
    .map(([keys, all]) => ({ field: 'offers', test: all ? { all: keys } : { any: keys } })),
  some(['moved', 'dead', 'works']).map((any) => ({ field: 'site-state', test: { any } })),
  some(['headcount', 'place']).map((any) => ({ field: 'disputed', test: { any } })),
  some(['independent', 'top']).map((any) => ({ field: 'ownership', test: { any } })),
  some(['listed', 'public-body']).map((any) => ({ field: 'listing', test: { any } })),
  some([...GROUPS]).map((any) => ({ field: 'group', test: { any } })),
  fc
    .tuple(
      some([...TECHNOLOGIES, 'planning']),
      fc.boolean(),
      fc.constantFrom('12 months', '90 days', '2 years'),
    )
    .map(([keys, all, seen]) => ({
      field: 'technology',
      test: { ...(all ? { all: keys } : { any: keys }), seen },
    })),
  fc.tuple(range, fc.constantFrom('age', 'followers', 'sources')).map(([test, field]) => ({ field, test })),
  fc
    .tuple(
      range,
      fc.constantFrom('profit', 'assets', 'revenue-per-head'),
      fc.boolean(),
      fc.boolean(),
      fc.constantFrom('EUR', 'PLN'),
    )
    .map(([test, field, loss, on, currency]) => ({
      field,
      test: {
        ...(loss && field === 'profit'
          ? {
              ...(test.to === undefined ? {} : { from: -test.to * STEP }),
              ...(test.from === undefined ? {} : { to: test.from * STEP }),
            }
          : scaled(test)),
        currency,
      },
      ...(on ? { estimates: true as const } : {}),
    })),
  fc
    .tuple(
      some(['602 00', 'CZ 60*', 'PL 00-9*', '60000..60999', 'AT 1*', 'A1*', 'CZ 60000..61999']),
      fc.boolean(),
    )
    .map(([postcodes, metro]) => ({
      field: 'place',
      test: { ...(metro ? { metro: ['Brno, CZ-64'] } : {}), postcodes },
    })),
  some(['nordic', 'german-speaking', 'PL']).map((countries) => ({ field: 'place', test: { countries } })),
  fc
    .tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 40 }), fc.boolean())
    .map(([a, b, named]) => ({
      field: 'place',
      test: {
        within: {
          points: [
            [48 + a / 40, 16],
            [50, 16 + b / 13],
            [48, 20],
            [49.25, 17],
          ] as const,
          ...(named ? { label: 'around Brno, or so' } : {}),
        },
      },
    })),
);

/** Fields whose values have a day or a year, and a span within which they count. */
const freshTests: fc.Arbitrary<AnyTest> = fc
  .tuple(
    fc.oneof(
      fc.tuple(range).map(([test]) => ({ field: 'headcount', test, estimates: true as const })),
      fc.constant({ field: 'status', test: { any: ['active'] } }),
      fc.constant({ field: 'site-answers', test: { is: true } }),
      some(TECHNOLOGIES).map((any) => ({ field: 'technology', test: { any } })),
    ),
    fc.constantFrom('6 months', '24 months', '400 days'),
  )
  .map(([test, fresh]) => ({ ...test, fresh }));

/** Lists of the workspace, its address book, and what sites, brands and deals make of a company. */
const marketTests: fc.Arbitrary<AnyTest> = fc.oneof(
  fc.tuple(some(LISTS), listClauses).map(([any, clauses]) => ({ field: 'list', test: { any, ...clauses } })),
  ledgerTests,
  some(['clean-air', 'welding']).map((any) => ({ field: 'certificates', test: { any } })),
  fc.boolean().map((is) => ({ field: 'whom-we-know', test: { is } })),
  some(['k0', 'k3', 'k7']).map((any) => ({ field: 'company', test: { any } })),
  fc
    .tuple(fc.constantFrom('site-count', 'brands-owned', 'brands-resold', 'own-share'), range)
    .map(([field, test]) => ({ field, test })),
  fc
    .tuple(fc.constantFrom('channel', 'channel-change'), fc.constantFrom('dealers', 'direct'), range)
    .map(([field, key, test]) => ({ field, test: { key, ...test } })),
  fc
    .tuple(some(['CZ', 'PL', 'AT']), fc.boolean())
    .map(([keys, all]) => ({ field: 'sold-in', test: all ? { all: keys } : { any: keys } })),
  range.map((test) => ({ field: 'raised', test: { ...scaled(test), currency: 'EUR' } })),
  fc
    .constantFrom<Test>({ past: '12 months' }, { year: 'last' })
    .map((test) => ({ field: 'last-round', test })),
  fc
    .constantFrom<Test>(
      { countries: ['CZ'], site: 'any' },
      { towns: ['Brno, CZ-64'], site: 'any' },
      { near: { lat: 49.19522, lon: 16.60796, km: 60.5, label: 'Brno' }, site: 'any' },
    )
    .map((test) => ({ field: 'place', test })),
);

const tests: fc.Arbitrary<AnyTest> = fc.oneof(
  { weight: 12, arbitrary: rarerTests },
  { weight: 4, arbitrary: marketTests },
  { weight: 2, arbitrary: freshTests },
  fc
    .tuple(
      some(CODES),
      maybe(some(['16.23', '25.5', '16'])),
      fc.constantFrom<('main' | 'any' | undefined)[]>('main', 'any', undefined),
      kin,
    )
    .map(([any, except, rank, kin]) => ({
      field: 'industry',
      test: {
        scheme: 'nace-2.1' as const,
        any,
        ...(except ? { except } : {}),
        ...(rank ? { rank } : {}),
        ...(kin ? { kin } : {}),
      },
    })),
  fc.tuple(some(NAICS), kin).map(([any, kin]) => ({
    field: 'industry',
    test: { scheme: 'naics-2022' as const, any, ...(kin ? { kin } : {}) },
  })),
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

const fieldLine = (id: string, drawn: fc.Arbitrary<AnyTest> = tests): fc.Arbitrary<FieldLine> =>
  fc
    .tuple(
      drawn,
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

const hasLine = (id: string, subject: string): fc.Arbitrary<Line> =>
  fc
    .tuple(
      anyHas(id, subject),
      flag,
      fc.constantFrom<('keep' | 'drop' | undefined)[]>('keep', 'drop', undefined),
      flag,
    )
    .map(([line, not, unknown, joined]): Line => {
      const marks = { ...(not ? { not: true as const } : {}), ...(unknown ? { unknown } : {}) };
      if (!joined || subject !== 'companies') return { ...line, ...marks };
      const other = { id: `${id}x`, field: 'status', test: { any: ['active'] } };
      return { id: `${id}e`, ...marks, either: [line, other] };
    });

export const anyLines: fc.Arbitrary<Line[]> = fc
  .array(fc.nat(), { maxLength: 5 })
  .chain((seeds) =>
    fc.tuple(
      ...seeds.map((seed, i): fc.Arbitrary<Line> =>
        seed % 5 === 0 ? block(`b${i}`) : seed % 5 === 1 ? hasLine(`h${i}`, 'companies') : fieldLine(`l${i}`),
      ),
    ),
  );

/** Random tapes on a subject below companies. */
export const anyRelatedTape: fc.Arbitrary<Tape> = fc
  .tuple(fc.constantFrom(...Object.keys(RELATED_TESTS)), fc.array(fc.nat(), { maxLength: 4 }))
  .chain(([subject, seeds]) =>
    fc
      .tuple(
        ...seeds.map((seed, i): fc.Arbitrary<Line> =>
          seed % 3 === 0 ? hasLine(`h${i}`, subject) : fieldLine(`l${i}`, RELATED_TESTS[subject]),
        ),
      )
      .map((lines): Tape => ({ format: 'just-tally.tape', version: 1, subject, lines })),
  );

export const anyTape: fc.Arbitrary<Tape> = anyLines.map((lines) => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines,
}));

/** Whether a tape names only what a universe has, which a small random one may not. */
export function names(check: () => unknown): boolean {
  try {
    check();
    return true;
  } catch (error) {
    if (error instanceof Problem && ['unknown-value', 'unknown-company'].includes(error.code)) return false;
    throw error;
  }
}
