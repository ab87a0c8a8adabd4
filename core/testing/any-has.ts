import fc from 'fast-check';
import { SITE_KINDS } from '../fields/sites.ts';
import type { FieldLine, HasLine, Line, NumberTest, Test } from '../tape/nodes.ts';
import { maybe, STEP } from './any-record.ts';
import {
  CATEGORIES_DRAWN,
  DEAL_KINDS_DRAWN,
  DEAL_SOURCES,
  DEPARTMENTS_DRAWN,
  EVENT_KINDS_DRAWN,
  LEVELS_DRAWN,
} from './any-related.ts';

/** Random lines on the subjects that hang on companies, and has-lines that look through to them. For tests only. */

type AnyLine = Omit<FieldLine, 'id'> | Omit<HasLine, 'id'>;
type AnyTest = { field: string; test: Test };

const some = (values: readonly string[]) =>
  fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 2 });
const range: fc.Arbitrary<NumberTest> = fc
  .tuple(fc.nat(60), fc.nat(60), fc.constantFrom('both', 'from', 'to'))
  .map(([a, b, ends]) => ({
    ...(ends === 'to' ? {} : { from: Math.min(a, b) }),
    ...(ends === 'from' ? {} : { to: Math.max(a, b) }),
  }));
const category = (field: string, values: readonly string[]) =>
  some(values).map((any): AnyTest => ({ field, test: { any } }));
const number = (field: string) => range.map((test): AnyTest => ({ field, test }));
const date = (field: string) =>
  fc
    .constantFrom<Test>({ past: '12 months' }, { year: 'last' }, { from: '2025-06-01' }, { to: '2025-12-31' })
    .map((test): AnyTest => ({ field, test }));
const text = (field: string) =>
  fc
    .constantFrom('oak', 'stair*', 'not paint', '"oak stair"', '(oak or lodz) not kitchen')
    .map((words): AnyTest => ({ field, test: { text: words } }));
const keyed = (field: string) =>
  fc
    .tuple(fc.constantFrom('dealers', 'direct', 'agents'), range)
    .map(([key, test]): AnyTest => ({ field, test: { key, ...test } }));
const places = fc
  .constantFrom<Test>(
    { countries: ['CZ'] },
    { towns: ['Brno, CZ-64'] },
    { near: { lat: 49.19522, lon: 16.60796, km: 60.5, label: 'Brno' } },
    { postcodes: ['602 00', 'PL 00-9*'] },
  )
  .map((test): AnyTest => ({ field: 'place', test }));

/** Tests on each subject below companies. */
export const RELATED_TESTS: Readonly<Record<string, fc.Arbitrary<AnyTest>>> = {
  sites: fc.oneof(
    category('kind', SITE_KINDS),
    places,
    number('headcount'),
    date('checked'),
    fc.boolean().map((is) => ({ field: 'head', test: { is } })),
  ),
  people: fc.oneof(
    category('department', DEPARTMENTS_DRAWN),
    category('level', LEVELS_DRAWN),
    text('title'),
    category('language', ['czech', 'german', 'polish', 'english']),
    date('since'),
    number('certainty'),
  ),
  events: fc.oneof(category('kind', EVENT_KINDS_DRAWN), date('date'), text('name')),
  deals: fc.oneof(
    category('kind', DEAL_KINDS_DRAWN),
    date('date'),
    number('bidders'),
    category('source', DEAL_SOURCES),
    range.map((test) => ({
      field: 'amount',
      test: {
        currency: 'EUR',
        ...(test.from === undefined ? {} : { from: test.from * STEP }),
        ...(test.to === undefined ? {} : { to: test.to * STEP }),
      },
    })),
  ),
  brands: fc.oneof(
    category('category', CATEGORIES_DRAWN),
    keyed('channel'),
    keyed('channel-change'),
    number('products'),
    number('share'),
    fc
      .tuple(some(['CZ', 'PL', 'AT']), fc.boolean())
      .map(([keys, all]) => ({ field: 'sold-in', test: all ? { all: keys } : { any: keys } })),
  ),
};

/** Tests on companies, for lines that look up to them. */
const COMPANY_TESTS: fc.Arbitrary<AnyTest> = fc.oneof(
  category('status', ['active', 'dormant']),
  number('headcount'),
  places,
  fc.constantFrom('oak', 'not paint').map((words) => ({ field: 'words', test: { text: words } })),
);

export const ROLES: Readonly<Record<string, readonly string[]>> = {
  sites: [],
  people: [],
  events: [],
  deals: ['target', 'buyer', 'investor', 'adviser', 'sell-adviser', 'buy-adviser'],
  brands: ['owner', 'reseller', 'consented', 'unconsented'],
};

const count = fc.option(
  fc.tuple(fc.nat(3), fc.nat(3), fc.constantFrom('both', 'from', 'to')).map(([a, more, ends]) => ({
    // At least one is what is asked without a count.
    ...(ends === 'to' ? {} : { from: ends === 'from' && a === 1 ? 2 : a }),
    ...(ends === 'from' ? {} : { to: a + more }),
  })),
  { nil: undefined, freq: 2 },
);
const policy = fc.option(fc.constantFrom('keep' as const, 'drop' as const), { nil: undefined, freq: 3 });

/** A few lines for the inside of a has-line, with an either-block now and then; ids are made of the stem. */
function inner(stem: string, tests: fc.Arbitrary<AnyLine>): fc.Arbitrary<Line[]> {
  return fc.array(fc.tuple(tests, fc.boolean(), policy, fc.nat(9)), { maxLength: 3 }).map((drawn) =>
    drawn.map(([one, not, unknown, kind], i): Line => {
      const marks = {
        id: `${stem}-${i}`,
        ...(not ? { not: true as const } : {}),
        ...(unknown ? { unknown } : {}),
      };
      if (kind > 0) return { ...marks, ...one };
      return {
        ...marks,
        either: [
          { id: `${stem}-${i}-a`, not: true, ...one },
          { id: `${stem}-${i}-b`, ...one },
        ],
      };
    }),
  );
}

/** A has-line from a subject, one deep or two. */
export function anyHas(id: string, subject: string, deeper = true): fc.Arbitrary<HasLine> {
  const has =
    subject === 'companies' ? fc.constantFrom(...Object.keys(RELATED_TESTS)) : fc.constant('company');
  return has.chain((name) => {
    const tests: fc.Arbitrary<AnyLine> = name === 'company' ? COMPANY_TESTS : RELATED_TESTS[name]!;
    const roles = ROLES[name === 'company' ? subject : name]!;
    const nested = deeper
      ? fc.oneof(
          { weight: 5, arbitrary: tests },
          { weight: 1, arbitrary: anyHas(`${id}-n`, name === 'company' ? 'companies' : name, false) },
        )
      : tests;
    return fc
      .tuple(inner(id, nested), roles.length ? maybe(fc.constantFrom(...roles)) : fc.constant(null), count)
      .map(([lines, as, wanted]): HasLine => ({
        id,
        has: name,
        ...(as === null ? {} : { as }),
        ...(wanted ? { count: wanted } : {}),
        lines: withOwnIds(lines, id),
      }));
  });
}

/** Lines under ids that differ, whatever was drawn twice. */
function withOwnIds(lines: readonly Line[], stem: string): Line[] {
  const renamed = (line: Line, id: string): Line => {
    if ('either' in line)
      return { ...line, id, either: line.either.map((one, i) => renamed(one, `${id}-${i}`)) } as Line;
    if ('has' in line) return { ...line, id, lines: line.lines.map((one, i) => renamed(one, `${id}-${i}`)) };
    return { ...line, id };
  };
  return lines.map((line, i) => renamed(line, `${stem}-${i}`));
}
