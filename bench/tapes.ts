import { Chance } from '../demo/random.ts';
import { SECTORS } from '../demo/sectors.ts';
import { DEPARTMENTS } from '../core/fields/companies/making.ts';
import { DEAL_KINDS } from '../core/fields/deals.ts';
import { EVENT_KINDS } from '../core/fields/events.ts';
import { LEVELS } from '../core/fields/people.ts';
import { SITE_KINDS } from '../core/fields/sites.ts';
import { TECHNOLOGIES } from '../demo/technologies.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { technologyKey } from '../server/tables/company.ts';

/** Seeded tapes such as prospectors make, over values that the demo universe has. */

type Chances = readonly [weight: number, make: (chance: Chance) => RawLine][];
type RawLine = Record<string, unknown>;

const COUNTRIES = ['CZ', 'PL', 'AT', 'DE', 'SK', 'HU', 'FR', 'IT', 'ES', 'NL', 'SE', 'GB'];
const REGIONS = ['CZ-64', 'CZ-10', 'PL-10', 'AT-9', 'DE-BY', 'DE-NW', 'CZ-80'];
const TOWNS: readonly [name: string, lat: number, lon: number][] = [
  ['Brno', 49.195, 16.608],
  ['Wien', 48.208, 16.372],
  ['Łódź', 51.75, 19.467],
  ['München', 48.137, 11.575],
  ['Lyon', 45.749, 4.848],
];
const METRO = ['Brno, CZ-64', 'Wien, AT-9', 'Łódź, PL-10'];
const WORDS = ['steel', 'oak', 'stair*', 'paint*', '"family firm"', 'windows or doors', 'kitchens not shop*'];
const CODES = [...new Set(SECTORS.flatMap((sector) => [sector.nace, ...sector.also]))];

const some = <T>(chance: Chance, list: readonly T[], most: number): T[] => [
  ...new Set(Array.from({ length: chance.whole(1, most) }, () => chance.pick(list))),
];

const LINES: Chances = [
  [
    5,
    (chance) => {
      const codes = some(chance, CODES, 4);
      return {
        field: 'industry',
        test: {
          scheme: 'nace-2.1',
          any: chance.in(0.3) ? [...new Set(codes.map((code) => code.slice(0, 2)))] : codes,
          rank: chance.in(0.5) ? 'main' : 'any',
        },
      };
    },
  ],
  [
    4,
    (chance) => {
      const from = Math.round(10 ** (chance.next() * 2.2));
      const test = { from, to: Math.round(from * (1 + chance.next() * 30)) };
      return { field: 'headcount', test: chance.in(0.3) ? { from } : test, ...estimates(chance) };
    },
  ],
  [
    4,
    (chance) => {
      const from = Math.round(10 ** (5 + chance.next() * 2));
      return {
        field: 'revenue',
        test: {
          from,
          to: Math.round(from * (1 + chance.next() * 40)),
          currency: chance.in(0.7) ? 'EUR' : 'CZK',
          per: chance.in(0.8) ? 'year' : 'month',
        },
        ...estimates(chance),
      };
    },
  ],
  [3, (chance) => ({ field: 'place', test: { countries: some(chance, COUNTRIES, 6) } })],
  [1, (chance) => ({ field: 'place', test: { regions: some(chance, REGIONS, 3) } })],
  [
    2,
    (chance) => {
      const [label, lat, lon] = chance.pick(TOWNS);
      return { field: 'place', test: { near: { lat, lon, km: chance.whole(10, 250), label } } };
    },
  ],
  [
    3,
    (chance) => {
      const group = chance.pick(TECHNOLOGIES);
      const keys = chance.in(0.4)
        ? [group.category]
        : some(chance, TECHNOLOGIES.flatMap((one) => one.products).map(technologyKey), 3);
      return { field: 'technology', test: chance.in(0.2) ? { all: keys } : { any: keys } };
    },
  ],
  [
    2,
    (chance) => ({
      field: 'growth',
      test: {
        of: chance.in(0.7) ? 'headcount' : 'revenue',
        over: chance.in(0.7) ? '1y' : '3y',
        from: chance.whole(-10, 20),
      },
    }),
  ],
  [
    1,
    (chance) => ({
      field: 'departments',
      test: { key: chance.pick(['sales', 'purchasing', 'production']), from: chance.whole(1, 10) },
    }),
  ],
  [
    1,
    (chance) => ({
      field: 'rank',
      test: {
        by: chance.in(0.5) ? 'revenue' : 'headcount',
        among: chance.pick(['country', 'industry', 'all']),
        to: chance.whole(10, 5000),
      },
    }),
  ],
  [
    1,
    (chance) => ({
      field: 'industry',
      test: {
        scheme: 'nace-2.1',
        any: some(chance, CODES, 3),
        kin: chance.in(0.5) ? 'sure' : 'possible',
      },
    }),
  ],
  [1, (chance) => ({ field: chance.pick(['site-answers', 'dwelling']), test: { is: chance.in(0.5) } })],
  [
    1,
    (chance) => ({
      field: 'profit',
      test: { from: chance.whole(-1, 5) * 100_000, currency: 'EUR' },
    }),
  ],
  [
    1,
    (chance) => {
      const [, lat, lon] = chance.pick(TOWNS);
      const reach = 0.5 + chance.next();
      const points = [
        [lat - reach, lon - reach],
        [lat + reach, lon - reach / 2],
        [lat + reach / 2, lon + reach],
        [lat - reach / 2, lon + 2 * reach],
      ];
      return { field: 'place', test: { within: { points } } };
    },
  ],
  [1, (chance) => ({ field: 'place', test: { metro: [chance.pick(METRO)] } })],
  [
    1,
    (chance) => ({
      field: 'place',
      test: { postcodes: [`${chance.pick(['CZ', 'DE', 'PL', 'AT'])} ${chance.whole(1, 9)}*`] },
    }),
  ],
  [1, (chance) => ({ field: 'status', test: { any: [chance.in(0.8) ? 'active' : 'dormant'] } })],
  [
    1,
    (chance) => {
      const from = chance.whole(1950, 2020);
      return { field: 'founded', test: { from, to: from + chance.whole(1, 30) } };
    },
  ],
  [2, (chance) => ({ field: 'checked', test: { past: `${chance.whole(3, 36)} months` } })],
  [2, (chance) => ({ field: 'words', test: { text: chance.pick(WORDS) } })],
];

/** Conditions on what hangs on companies. */
const INNER: Readonly<Record<string, Chances>> = {
  people: [
    [4, (chance) => ({ field: 'department', test: { any: some(chance, DEPARTMENTS, 2) } })],
    [4, (chance) => ({ field: 'level', test: { any: LEVELS.slice(0, chance.whole(1, 4)) } })],
    [2, (chance) => ({ field: 'since', test: { past: `${chance.whole(3, 60)} months` } })],
    [
      2,
      (chance) => ({
        field: 'title',
        test: { text: chance.pick(['purchas*', 'works manager', 'director', 'sales']) },
      }),
    ],
    [1, (chance) => ({ field: 'certainty', test: { from: chance.whole(60, 95) } })],
  ],
  events: [
    [4, (chance) => ({ field: 'kind', test: { any: some(chance, EVENT_KINDS, 2) } })],
    [4, (chance) => ({ field: 'date', test: { past: `${chance.whole(1, 12)} months` } })],
    [1, (chance) => ({ field: 'name', test: { text: chance.pick(['hiring', 'paint line', 'moves']) } })],
  ],
  deals: [
    [3, (chance) => ({ field: 'kind', test: { any: some(chance, DEAL_KINDS, 2) } })],
    [3, (chance) => ({ field: 'date', test: { past: `${chance.whole(12, 100)} months` } })],
  ],
  sites: [
    [3, (chance) => ({ field: 'kind', test: { any: some(chance, SITE_KINDS, 2) } })],
    [3, (chance) => ({ field: 'place', test: { countries: some(chance, COUNTRIES, 4) } })],
    [2, (chance) => ({ field: 'headcount', test: { from: chance.whole(5, 100) } })],
  ],
};

/** A has-line, mostly over people and events, which are the most; one in three asks for several. */
function hasLine(chance: Chance, id: string): RawLine {
  const has = chance.pick(['people', 'people', 'people', 'events', 'events', 'deals', 'sites']);
  const inner = INNER[has]!;
  const weights = inner.reduce((sum, [weight]) => sum + weight, 0);
  return {
    has,
    ...(has === 'deals' ? { as: chance.pick(['target', 'buyer', 'adviser']) } : {}),
    ...(chance.in(1 / 3) ? { count: { from: chance.whole(2, 3) } } : {}),
    lines: Array.from({ length: chance.whole(1, 3) }, (_, i) => ({
      id: `${id}-${i}`,
      ...(chance.in(1 / 8) ? { not: true } : {}),
      ...drawn(chance, inner, weights),
    })),
  };
}

const estimates = (chance: Chance) => (chance.in(0.5) ? { estimates: true } : {});

const WHOLE = LINES.reduce((sum, [weight]) => sum + weight, 0);

function drawn(chance: Chance, lines: Chances, whole: number): RawLine {
  let at = chance.next() * whole;
  for (const [weight, make] of lines) if ((at -= weight) < 0) return make(chance);
  throw new Error('The weights do not add up.');
}

const anyTest = (chance: Chance) => drawn(chance, LINES, WHOLE);

/** One line, with one either-block in eight, one *not* in seven and its own policy for unknowns in six. */
export function anyLine(chance: Chance, id: string): RawLine {
  const marks = {
    id,
    ...(chance.in(1 / 7) ? { not: true } : {}),
    ...(chance.in(1 / 6) ? { unknown: chance.in(0.5) ? 'keep' : 'drop' } : {}),
  };
  if (!chance.in(1 / 8)) return { ...marks, ...anyTest(chance) };
  return {
    ...marks,
    either: Array.from({ length: chance.whole(2, 3) }, (_, i) => ({ id: `${id}-${i}`, ...anyTest(chance) })),
  };
}

/** A line with the usual marks that looks through to what hangs on companies. */
export function anyHasLine(chance: Chance, id: string): RawLine {
  return { id, ...(chance.in(1 / 7) ? { not: true } : {}), ...hasLine(chance, id) };
}

/** Tapes of one or two has-lines among up to four others. */
export function seededHasTapes(count: number, seed = 20_260_930): Tape[] {
  const chance = new Chance(seed);
  return Array.from({ length: count }, () => {
    const has = Array.from({ length: chance.whole(1, 2) }, (_, i) => anyHasLine(chance, `h${i}`));
    const others = Array.from({ length: chance.whole(0, 4) }, (_, i) => anyLine(chance, `l${i}`));
    const lines = chance.in(0.5) ? [...has, ...others] : [...others, ...has];
    return { format: 'just-tally.tape', version: 1, subject: 'companies', lines };
  }) as unknown as Tape[];
}

/** Tapes of two to eight lines, to be validated; the same seed makes the same tapes. */
export function seededTapes(count: number, seed = 20_260_930): Tape[] {
  const chance = new Chance(seed);
  return Array.from({ length: count }, () => ({
    format: 'just-tally.tape',
    version: 1,
    subject: 'companies',
    lines: Array.from({ length: chance.whole(2, 8) }, (_, i) => anyLine(chance, `l${i}`)),
  })) as unknown as Tape[];
}
