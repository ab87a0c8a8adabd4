import { loadReferenceData } from '../server/reference.ts';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { BreakdownAnswer, ChartAnswer } from '../contract/market.ts';
import { openUniverse, type Db } from '../server/db/open.ts';
import { tape, TestServer } from '../server/testing/test-server.ts';
import { startDemo } from './demo-server.ts';

/** Every number on the Breakdown of everybody and of the scenario's own tapes, held to SQL over the demo's tables. */

const NOW = 2026;
const server = new TestServer();
let db: Db;
beforeAll(async () => {
  await startDemo(server, 3000);
  db = openUniverse(server.dir, { readonly: true });
});
afterAll(async () => {
  db.close();
  await server.stop();
});

const post = async <T>(path: string, body: object): Promise<T> =>
  (await server.api.post(`/api${path}`).send(body)).body as T;

type Tape = ReturnType<typeof tape>;
interface Line {
  field?: string;
  either?: { field?: string }[];
}

/** Lists are kept in the workspace, where the tables below know nothing of them. */
async function tapes(): Promise<Tape[]> {
  const answer = await server.api.get('/api/tapes');
  const saved = (answer.body as { tapes: { kind: string; tape: Tape }[] }).tapes;
  return [
    tape([]),
    ...saved
      .filter(({ kind }) => kind === 'tape')
      .map(({ tape: own }) => ({
        ...own,
        lines: own.lines.filter((line) => (line as Line).field !== 'list'),
      })),
  ];
}

/** The companies of a tape by its own SQL, for what follows to choose among. */
async function keep(own: Tape): Promise<void> {
  const { statement } = await post<{ statement: string }>('/sql', { tape: own, dialect: 'sqlite' });
  const ids = db.prepare<[], number>(statement).pluck().all();
  kept = JSON.stringify(ids);
}
let kept = '[]';
const rows = <T>(sql: string): T[] =>
  db
    .prepare<[string], T>(
      `WITH c AS (SELECT * FROM company WHERE id IN (SELECT value FROM json_each(?))) ${sql}`,
    )
    .all(kept);
const one = (sql: string): number => rows<{ n: number }>(`SELECT ${sql} AS n FROM c`)[0]!.n;

const countOf = ({ slots }: ChartAnswer, kind: string) =>
  slots.find((slot) => slot.kind === kind)?.count ?? 0;
const groups = ({ slots }: ChartAnswer) => slots.filter(({ kind }) => kind === 'group');

/** Groups shown, all others together, and unknown, held to a key of each company. */
function holdsGroups(chart: ChartAnswer, key: string): void {
  const found = new Map(
    rows<{ key: string | null; n: number }>(`SELECT ${key} AS key, count(*) AS n FROM c GROUP BY 1`).map(
      (row) => [row.key, row.n],
    ),
  );
  const shown = groups(chart);
  for (const slot of shown)
    expect([slot.key, slot.count, slot.value]).toEqual([slot.key, found.get(slot.key), found.get(slot.key)]);
  expect(countOf(chart, 'unknown')).toBe(found.get(null) ?? 0);
  const rest = [...found].filter(([own]) => own !== null && !shown.some((slot) => slot.key === own));
  expect(countOf(chart, 'rest')).toBe(rest.reduce((sum, [, n]) => sum + n, 0));
}

/** Bars held to a figure of each company, which may be a band. */
function holdsBars(chart: ChartAnswer, low: string, high: string): void {
  const shown = groups(chart);
  let held = 0;
  for (const { edges, count } of shown) {
    const [from, to] = edges!;
    const within = `${low} >= ${from} AND ${high} < ${to ?? '9e999'}`;
    expect([edges, count]).toEqual([edges, one(`count(*) FILTER (WHERE ${within})`)]);
    held += count;
  }
  expect(countOf(chart, 'unknown')).toBe(one(`count(*) FILTER (WHERE ${low} IS NULL)`));
  expect(countOf(chart, 'banded')).toBe(one(`count(${low})`) - held);
}

const HEADCOUNT = `CASE WHEN headcount_basis IN ('reported', 'estimate') THEN COALESCE(headcount_point, headcount_low) END`;
const REVENUE = `CASE WHEN revenue_basis IN ('reported', 'estimate') THEN COALESCE(revenue_eur_point, revenue_eur_low) END`;
const GROWN = `(SELECT value FROM company_measure m WHERE m.company_id = c.id AND m.measure = 'growth' AND m.key = 'headcount 1y')`;
/** Divisions with one group, which say the same as it. */
const SINGLE = (() => {
  const tree = loadReferenceData().trees.get('nace-2.1')!;
  return tree.codes.filter((_, node) => tree.levels[node] === 2 && tree.onlyChildOf(node + 1) === node);
})();
const GROUP = `(SELECT CASE WHEN length(k.code) >= 4 THEN substr(k.code, 1, 4)
    WHEN k.code IN (${SINGLE.map((code) => `'${code}'`).join()}) THEN k.code || '.0' END FROM company_code k WHERE k.company_id = c.id AND k.scheme = 'nace-2.1' AND k.rank = 0)`;

test('charts of the ready page', async () => {
  for (const own of await tapes()) {
    await keep(own);
    const answer = await post<BreakdownAnswer>('/breakdown', { tape: own });
    expect(answer.total).toBe(one('count(*)'));
    const chart = (id: string) => answer.charts.find((found) => found.chart.id === id)!;
    holdsGroups(chart('where'), 'region');
    holdsGroups(chart('what'), GROUP);
    holdsBars(
      chart('size'),
      `COALESCE(headcount_point, headcount_low)`,
      `COALESCE(headcount_point, headcount_high, 9e998)`,
    );
    holdsBars(chart('age'), `(${NOW} - founded)`, `(${NOW} - founded)`);

    const surveyed = one('count(surveyed_on)');
    for (const { key, count, value } of groups(chart('use'))) {
      const using = one(
        `count(*) FILTER (WHERE surveyed_on IS NOT NULL AND EXISTS (SELECT 1 FROM company_technology v JOIN technology t ON t.key = v.technology WHERE v.company_id = c.id AND t.category = '${key}'))`,
      );
      expect([key, count]).toEqual([key, using]);
      expect(value).toBeCloseTo((100 * using) / surveyed, 9);
    }

    const { scatter } = chart('growth');
    const both = rows<{ key: string; x: number; y: number }>(
      `SELECT key, ${HEADCOUNT} AS x, ${GROWN} AS y FROM c WHERE x IS NOT NULL AND y IS NOT NULL ORDER BY id`,
    );
    expect(scatter!.placed).toBe(both.length);
    const at = new Map(both.map(({ key, x, y }) => [key, [x, y]]));
    scatter!.keys.forEach((key, i) =>
      expect([key, scatter!.dots[3 * i], scatter!.dots[3 * i + 1]]).toEqual([key, ...at.get(key)!]),
    );
  }
});

test('concentration, groups as one and lines on size left out', async () => {
  for (const own of await tapes()) {
    const isSize = ({ field, either }: Line): boolean =>
      either ? either.some(isSize) : ['headcount', 'revenue', 'growth', 'profit'].includes(field ?? '');
    await keep({ ...own, lines: own.lines.filter((line) => !isSize(line as Line)) });
    const { concentration } = await post<BreakdownAnswer>('/breakdown', { tape: own });
    for (const [by, figure] of [
      ['headcount', HEADCOUNT],
      ['revenue', REVENUE],
    ] as const) {
      const amounts = rows<{ amount: number }>(
        `SELECT sum(${figure}) AS amount FROM c GROUP BY COALESCE(group_name, 'company ' || id) HAVING amount > 0 ORDER BY 1 DESC`,
      ).map(({ amount }) => amount);
      const total = amounts.reduce((sum, amount) => sum + amount, 0);
      const found = concentration![by];
      expect(found.companies).toBe(one('count(*)'));
      expect(found.unknown).toBe(one(`count(*) - count(${figure})`));
      expect(found.found!.units).toBe(amounts.length);
      expect(found.found!.total / total).toBeCloseTo(1, 9);
      expect(found.found!.hhi).toBeCloseTo(
        amounts.reduce((sum, amount) => sum + ((100 * amount) / total) ** 2, 0),
        6,
      );
      for (const { units, share } of found.found!.largest)
        expect(share).toBeCloseTo(
          (100 * amounts.slice(0, units).reduce((sum, amount) => sum + amount, 0)) / total,
          6,
        );
    }
  }
});

/** Fields whose value stands in a column of the table, by what is not null where it is known. */
const KNOWN: Readonly<Record<string, string>> = {
  name: 'name',
  headcount: 'headcount_basis',
  revenue: 'revenue_basis',
  profit: 'profit_basis',
  founded: 'founded',
  status: 'status',
  group: 'group_name',
  checked: 'checked_on',
  technology: 'surveyed_on',
  web: 'web',
  phone: 'phone',
  mail: 'mail',
  registration: 'registration',
  'legal-form': 'legal_form',
  place: 'country',
};

test('what is known of each field', async () => {
  for (const own of await tapes()) {
    await keep(own);
    const { known } = await post<BreakdownAnswer>('/breakdown', { tape: own });
    for (const [field, column] of Object.entries(KNOWN))
      expect([field, known.find((one) => one.field === field)?.known]).toEqual([
        field,
        one(`count(${column})`),
      ]);
    const headcount = known.find(({ field }) => field === 'headcount')!;
    expect([headcount.estimated, headcount.banded]).toEqual([
      one(`count(*) FILTER (WHERE headcount_basis = 'estimate')`),
      one(`count(*) FILTER (WHERE headcount_basis = 'band')`),
    ]);
  }
});
