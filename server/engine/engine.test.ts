import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  CategoryCounts,
  CodesCounts,
  NearCounts,
  PlaceCounts,
  TownCounts,
} from '../../contract/responses.ts';
import { putLines } from '../../core/tape/also.ts';
import { isLive } from '../../core/tape/nodes.ts';
import { columnFields } from '../../core/fields/registry.ts';
import { distanceKm } from '../../core/geo/distance.ts';
import { overUniverses as overRandom } from '../testing/over-universes.ts';
import { RandomUniverse } from '../testing/random-universe.ts';

/** What pickers and the sheet ask, held to SQL over the same tables. */

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

const overUniverses = (runs: number, check: Parameters<typeof overRandom>[2]) =>
  overRandom(random, runs, check);

const all = <T>(sql: string, values: readonly (string | number)[]) =>
  random.db.prepare<(string | number)[], T>(sql).all(...values);
const nonZero = (counts: Iterable<readonly [string, number]>) =>
  Object.fromEntries([...counts].filter(([, count]) => count > 0));
const pairs = (rows: { key: string; n: number }[]) => Object.fromEntries(rows.map(({ key, n }) => [key, n]));

describe('counts by value', () => {
  test('of categories, single and many, with groups and unknowns', () => {
    overUniverses(12, (engine, tape, kept) => {
      const status = engine.counts({ tape, field: 'status' }) as unknown as CategoryCounts;
      const wanted = all<{ key: string | null; n: number }>(
        `SELECT status AS key, count(*) AS n FROM company c WHERE ${kept.sql} GROUP BY 1`,
        kept.values,
      );
      expect(nonZero(status.values.map(({ key, count }) => [key, count]))).toEqual(
        pairs(wanted.filter(({ key }) => key !== null) as { key: string; n: number }[]),
      );
      expect(status.unknown).toBe(wanted.find(({ key }) => key === null)?.n ?? 0);

      const technology = engine.counts({ tape, field: 'technology' }) as unknown as CategoryCounts;
      const products = all<{ key: string; n: number }>(
        `SELECT v.technology AS key, count(*) AS n FROM company_technology v JOIN company c ON c.id = v.company_id WHERE ${kept.sql} GROUP BY 1
         UNION ALL SELECT t.category, count(DISTINCT v.company_id) FROM company_technology v JOIN technology t ON t.key = v.technology JOIN company c ON c.id = v.company_id
         WHERE t.category IS NOT NULL AND ${kept.sql} GROUP BY 1`,
        [...kept.values, ...kept.values],
      );
      expect(nonZero(technology.values.map(({ key, count }) => [key, count]))).toEqual(pairs(products));
      expect(technology.unknown).toBe(
        all<{ n: number }>(
          `SELECT count(*) AS n FROM company c WHERE surveyed_on IS NULL AND ${kept.sql}`,
          kept.values,
        )[0]!.n,
      );
    });
  });

  test('of a code tree at every level, main and any rank', () => {
    overUniverses(12, (engine, tape, kept) => {
      for (const rank of ['any', 'main']) {
        const answer = engine.counts({
          tape,
          field: 'industry',
          scheme: 'nace-2.1',
          rank,
        }) as unknown as CodesCounts;
        const rows = all<{ id: number; code: string }>(
          `SELECT c.id, k.code FROM company_code k JOIN company c ON c.id = k.company_id WHERE k.scheme = 'nace-2.1' ${rank === 'main' ? 'AND k.rank = 0' : ''} AND ${kept.sql}`,
          kept.values,
        );
        const tree = random.reference.trees.get('nace-2.1')!;
        const companies = new Map<string, Set<number>>();
        for (const { id, code } of rows)
          for (let node = tree.nodeOf(code); node >= 0; node = tree.parents[node]!) {
            const above = tree.codes[node]!;
            companies.set(above, (companies.get(above) ?? new Set()).add(id));
          }
        expect(nonZero(answer.codes.map(({ code, count }) => [code, count]))).toEqual(
          nonZero([...companies].map(([code, ids]) => [code, ids.size])),
        );
        expect(answer.unknown).toBe(answer.total - new Set(rows.map(({ id }) => id)).size);
      }
    });
  });

  test('of countries, regions, towns and distances', () => {
    overUniverses(12, (engine, tape, kept) => {
      const places = engine.counts({ tape, field: 'place' }) as unknown as PlaceCounts;
      const by = (expression: string) =>
        pairs(
          all<{ key: string; n: number }>(
            `SELECT ${expression} AS key, count(*) AS n FROM company c WHERE ${expression} IS NOT NULL AND ${kept.sql} GROUP BY 1`,
            kept.values,
          ),
        );
      expect(nonZero(places.countries.map(({ key, count }) => [key, count]))).toEqual(by('country'));
      expect(nonZero(places.regions.map(({ key, count }) => [key, count]))).toEqual(by('region'));
      const towns = engine.counts({ tape, field: 'place', level: 'towns' }) as unknown as TownCounts;
      expect(nonZero(towns.values.map(({ key, count }) => [key, count]))).toEqual(
        by(`town || ', ' || COALESCE(region, country)`),
      );
      const near = engine.counts({
        tape,
        field: 'place',
        near: { lat: 49.2, lon: 16.6 },
      }) as unknown as NearCounts;
      const points = all<{ lat: number | null; lon: number }>(
        `SELECT lat, lon FROM company c WHERE ${kept.sql}`,
        kept.values,
      );
      for (const { radius: km, count } of near.radii)
        expect(count).toBe(
          points.filter(({ lat, lon }) => lat !== null && distanceKm(49.2, 16.6, lat, lon) <= km).length,
        );
      expect(near.unknown).toBe(points.filter(({ lat }) => lat === null).length);
    });
  });
});

describe('rows', () => {
  const SORTED: Record<string, string> = {
    headcount: `CASE headcount_basis WHEN 'estimate' THEN headcount_point ELSE headcount_low END`,
    revenue: `CASE revenue_basis WHEN 'estimate' THEN revenue_eur_point ELSE revenue_eur_low END`,
    founded: 'founded',
    checked: 'checked_on',
    status: 'status',
    name: 'name',
  };

  test('come in the order asked for, unknown last either way, ties in the order of loading', () => {
    overUniverses(12, (engine, tape, kept) => {
      for (const [by, expression] of Object.entries(SORTED))
        for (const descending of [false, true]) {
          const wanted = all<{ key: string }>(
            `SELECT key FROM company c WHERE ${kept.sql} ORDER BY ${expression} IS NULL, ${expression} ${descending ? 'DESC' : ''}, id`,
            kept.values,
          ).map(({ key }) => key);
          const sort = [{ by, ...(descending ? { descending: true as const } : {}) }];
          const answer = engine.rows(tape, ['name'], sort, 0, 1000);
          expect(answer.rows.map(({ key }) => key)).toEqual(wanted);
          expect(answer.total).toBe(wanted.length);
          expect(engine.rows(tape, [], sort, 3, 4).rows.map(({ key }) => key)).toEqual(wanted.slice(3, 7));
          if (wanted.length > 1)
            expect(engine.position(tape, sort, wanted[1]!)).toEqual({
              at: 1,
              total: wanted.length,
              previous: wanted[0],
              next: wanted[2] ?? null,
            });
        }
    });
  });

  test('have a cell for every column, null where it is unknown', () => {
    overUniverses(6, (engine, tape) => {
      const columns = columnFields('companies').map(({ id }) => id);
      for (const { key, cells } of engine.rows(tape, columns, [], 0, 1000).rows) {
        expect(Object.keys(cells).sort()).toEqual([...columns].sort());
        const [row] = all<Record<string, unknown>>('SELECT * FROM company WHERE key = ?', [key]);
        expect(cells.name).toBe(row!.name);
        expect(cells.headcount === null).toBe(row!.headcount_basis === null);
        expect(cells.technology === null).toBe(row!.surveyed_on === null);
        expect(cells.revenue).toEqual(
          row!.revenue_basis === null
            ? null
            : expect.objectContaining({
                // An open end is none.
                low: Number.isFinite(row!.revenue_low) ? row!.revenue_low : null,
                high: Number.isFinite(row!.revenue_high) ? row!.revenue_high : null,
                amount: row!.revenue_point,
                currency: row!.revenue_currency,
                year: row!.revenue_year,
                basis: row!.revenue_basis,
              }),
        );
      }
    });
  });

  test('are those of the tape, those picked, or all but some', () => {
    overUniverses(6, (engine, tape) => {
      const keys = engine.rows(tape, [], [], 0, 1000).rows.map(({ key }) => key);
      const keyOf = (ids: Uint32Array) =>
        [...ids].map((id) => all<{ key: string }>('SELECT key FROM company WHERE id = ?', [id])[0]!.key);
      expect(keyOf(engine.idsOf(tape, []))).toEqual(keys);
      expect(keyOf(engine.idsOf(tape, [], { keys: keys.slice(0, 2).reverse() }))).toEqual(keys.slice(0, 2));
      expect(keyOf(engine.idsOf(tape, [], { except: keys.slice(1, 3) }))).toEqual(
        keys.filter((_, i) => i !== 1 && i !== 2),
      );
      expect(keyOf(engine.idsOf({ ...tape, first: 2 }, []))).toEqual(keys.slice(0, 2));
      expect(() => engine.idsOf(tape, [], { keys: ['nobody'] })).toThrow(
        'There is nothing under the key "nobody" among the companies.',
      );
    });
  });
});

test('completions say what would be left with them', () => {
  overUniverses(6, (engine, tape) => {
    for (const text of ['oak', 'brno', 'joinery', '20-49', 'uses r', 'status ', 'not headcount 5', 'checked'])
      for (const { typed, also, count } of engine.complete(text, tape)) {
        const lines = engine.typed(typed, 'c', 'companies');
        expect(engine.tally(putLines(tape, lines, also ? 'also' : 'and')).tally).toBe(count);
      }
  });
});

test('the line that holds back most is the one without which most would be left, must lines aside', () => {
  overUniverses(12, (engine, tape) => {
    const { tally, lines, holdsBackMost } = engine.tally(tape);
    const free = lines.filter(
      (figures, i) => !tape.lines[i]!.must && !tape.lines[i]!.parked && figures.without > tally,
    );
    const most = Math.max(0, ...free.map(({ without }) => without));
    const live = tape.lines.filter(isLive);
    if (free.length === 0 || live.length < 2) expect(holdsBackMost).toBeNull();
    else expect(free.find(({ id }) => id === holdsBackMost)!.without).toBe(most);
  });
});
