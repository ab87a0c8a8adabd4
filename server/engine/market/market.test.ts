import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ChartAnswer } from '../../../contract/market.ts';
import { axisFields } from '../../../core/charts/axes.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { overUniverses, type KeptSql } from '../../testing/over-universes.ts';
import { RandomUniverse } from '../../testing/random-universe.ts';
import type { Engine } from '../engine.ts';
import { Market } from './market.ts';

/** Every number of Breakdown, held to SQL over the same tables. */

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

const RUNS = 12;
const all = <T>(sql: string, { values }: KeptSql): T[] =>
  random.db.prepare<(string | number)[], T>(sql).all(...values);
const chartOf = (market: Market, tape: Tape, chart: object): ChartAnswer =>
  market.charts(tape, [{ id: 'c', shape: 'bars', measure: { of: 'count' }, ...chart }], 'EUR', undefined)[0]!;
const told = (answer: ChartAnswer): Record<string, number> =>
  Object.fromEntries(
    answer.slots
      .filter(({ kind, count }) => kind === 'group' && count > 0)
      .map(({ key, count }) => [key!, count] as const),
  );
const countOf = (answer: ChartAnswer, kind: string) =>
  answer.slots.find((slot) => slot.kind === kind)?.count ?? 0;

describe('a chart', () => {
  test('counts single values, many values and unknowns as SQL does', () => {
    overUniverses(random, RUNS, (engine, tape, kept) => {
      const market = new Market(engine);
      for (const [by, column] of [
        [{ field: 'place', level: 'region' }, 'region'],
        [{ field: 'place', level: 'country' }, 'country'],
        [{ field: 'status' }, 'status'],
        [{ field: 'group' }, 'group_name'],
      ] as const) {
        const rows = all<{ key: string | null; n: number }>(
          `SELECT ${column} AS key, count(*) AS n FROM company c WHERE ${kept.sql} GROUP BY 1`,
          kept,
        );
        const answer = chartOf(market, tape, { by, most: 60 });
        expect(told(answer)).toEqual(
          Object.fromEntries(rows.filter(({ key }) => key !== null).map(({ key, n }) => [key, n])),
        );
        expect(countOf(answer, 'unknown')).toBe(rows.find(({ key }) => key === null)?.n ?? 0);
      }
      const products = all<{ key: string; n: number }>(
        `SELECT v.technology AS key, count(*) AS n FROM company_technology v JOIN company c ON c.id = v.company_id WHERE ${kept.sql} GROUP BY 1`,
        kept,
      );
      const answer = chartOf(market, tape, { by: { field: 'technology', level: 'product' }, most: 60 });
      expect(told(answer)).toEqual(Object.fromEntries(products.map(({ key, n }) => [key, n])));
    });
  });

  test('adds up, halves and parts figures as SQL does, bar by bar', () => {
    overUniverses(random, RUNS, (engine, tape, kept) => {
      const market = new Market(engine);
      const rows = all<{ country: string | null; status: string | null; eur: number | null }>(
        `SELECT country, status, CASE WHEN revenue_basis IN ('reported', 'estimate') THEN COALESCE(revenue_eur_point, revenue_eur_low) END AS eur FROM company c WHERE ${kept.sql}`,
        kept,
      );
      const by = { field: 'place', level: 'country' };
      const [sum, median, split] = ['sum', 'median', 'sum'].map((of, i) =>
        chartOf(market, tape, {
          shape: i === 2 ? 'heat' : 'bars',
          by,
          most: 60,
          measure: { of, field: 'revenue' },
          ...(i === 2 ? { split: { field: 'status' } } : {}),
        }),
      ) as [ChartAnswer, ChartAnswer, ChartAnswer];
      for (const { key, kind, value, valued } of sum.slots) {
        const own = rows.filter(({ country, eur }) => country === key && eur !== null).map(({ eur }) => eur!);
        if (kind === 'rest') continue;
        expect(valued).toBe(own.length);
        expect(value ?? 0).toBeCloseTo(
          own.reduce((total, one) => total + one, 0),
          2,
        );
        const sorted = own.sort((a, b) => a - b);
        const middle =
          (sorted[Math.floor((sorted.length - 1) / 2)]! + sorted[Math.ceil((sorted.length - 1) / 2)]!) / 2;
        const other = median.slots.find((slot) => slot.key === key && slot.kind === kind)!;
        if (sorted.length) expect(other.value).toBeCloseTo(middle, 2);
        else expect(other.value).toBeNull();
      }
      for (const slot of split.slots)
        slot.parts!.forEach((part, p) => {
          const status = split.split![p]!;
          const own = rows.filter(
            (row) => row.country === slot.key && row.status === status.key && row.eur !== null,
          );
          if (slot.kind !== 'rest' && status.kind !== 'rest') expect(part.valued).toBe(own.length);
        });
    });
  });

  test('has bars that a click turns into a line with just their companies, whatever the field', () => {
    overUniverses(random, RUNS, (engine, tape) => {
      const market = new Market(engine);
      for (const field of axisFields('companies')) {
        const key =
          field.kind === 'keyed'
            ? { key: field.values![0]!.key }
            : field.kind === 'growth'
              ? { key: 'headcount 1y' }
              : {};
        const answer = chartOf(market, tape, { by: { field: field.id, ...key }, most: 60 });
        expect(answer.total).toBe(engine.tally(tape).tally);
        for (const slot of answer.slots) {
          if (slot.kind !== 'group' || !slot.test || slot.count === 0) continue;
          const estimates = field.store.at === 'range' ? { estimates: true } : {};
          const line = { id: 'bar', field: field.id, test: slot.test, ...estimates };
          expect([field.id, slot.key, engine.tally({ ...tape, lines: [...tape.lines, line] }).tally]).toEqual(
            [field.id, slot.key, slot.count],
          );
        }
      }
    });
  });
});

test('concentration joins groups, leaves out lines on size, and squares shares', () => {
  overUniverses(random, RUNS, (engine, tape) => {
    const market = new Market(engine);
    const answer = market.concentration(tape, 'headcount', 'EUR', undefined);
    const plain = tape.lines.filter((line) => !isSize(line));
    const kept = keptSql(engine, { ...tape, lines: plain });
    const units = all<{ amount: number }>(
      `SELECT sum(COALESCE(headcount_point, headcount_low)) AS amount FROM company c
       WHERE headcount_basis IN ('reported', 'estimate') AND ${kept.sql} GROUP BY COALESCE(group_name, 'company ' || id) HAVING amount > 0 ORDER BY 1 DESC`,
      kept,
    ).map(({ amount }) => amount);
    const total = units.reduce((sum, amount) => sum + amount, 0);
    if (units.length === 0) return expect(answer.found).toBeNull();
    expect(answer.found!.units).toBe(units.length);
    expect(answer.found!.total).toBeCloseTo(total, 6);
    expect(answer.found!.hhi).toBeCloseTo(
      units.reduce((sum, amount) => sum + ((100 * amount) / total) ** 2, 0),
      6,
    );
    for (const { units: n, share } of answer.found!.largest)
      expect(share).toBeCloseTo(
        (100 * units.slice(0, n).reduce((sum, amount) => sum + amount, 0)) / total,
        6,
      );
    expect(answer.found!.curve.at(-1)![1]).toBeCloseTo(100, 6);
  });
});

test('the foot of the sheet and what is known agree with the tables', () => {
  overUniverses(random, RUNS, (engine, tape, kept) => {
    const market = new Market(engine);
    const { columns } = {
      columns: market.summary(tape, ['headcount', 'revenue', 'description', 'founded', 'technology'], 'EUR'),
    };
    const [row] = all<Record<string, number>>(
      `SELECT count(headcount_basis) AS headcount, count(revenue_basis) AS revenue, count(description) AS description, count(founded) AS founded, count(surveyed_on) AS technology,
       COALESCE(sum(CASE WHEN headcount_basis IN ('reported', 'estimate') THEN COALESCE(headcount_point, headcount_low) END), 0) AS sum FROM company c WHERE ${kept.sql}`,
      kept,
    );
    for (const id of ['headcount', 'description', 'founded', 'technology'])
      expect([id, columns[id]!.known]).toEqual([id, row![id]]);
    expect(columns.headcount!.sum).toBeCloseTo(row!.sum!, 6);
    const found = market.breakdown(tape, 'EUR', 'universe');
    expect(found.known.find(({ field }) => field === 'founded')!.known).toBe(row!.founded);
    expect(found.base).toBe(engine.size);
  });
});

function isSize(line: Tape['lines'][number]): boolean {
  if ('either' in line) return line.either.some(isSize);
  return 'field' in line && fieldOf('companies', line.field)!.section === 'size';
}

function keptSql(engine: Engine, tape: Tape): KeptSql {
  const { text, values } = engine.sql(tape, 'sqlite');
  return { sql: `c.id IN (${text})`, values };
}
