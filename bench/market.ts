import { setTimeout as wait } from 'node:timers/promises';
import type { BreakdownAnswer, ClustersAnswer } from '../contract/market.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { Chance } from '../demo/random.ts';
import { megabytes, TimingTable } from './figures.ts';
import { ServerProcess } from './server-process.ts';
import { seededTapes } from './tapes.ts';

/** Who is left as a market, over HTTP: the ready page, charts, the map, peers; and how well peers find what no code says. */

const EMPTY: Tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
/** Companies whose peers are looked at, and how many peers of each. */
const SEEDS = 100;
const FIRST = 20;
const CODES_ALONE = { words: 0, technologies: 0, size: 0, place: 0, channels: 0 };

export async function measureMarket(dir: string): Promise<void> {
  const server = await ServerProcess.start(dir);
  const timed = async <T>(path: string, body: unknown): Promise<{ took: number; answer: T }> => {
    const start = performance.now();
    const answer = await server.post<T>(path, body);
    return { took: performance.now() - start, answer };
  };
  const table = new TimingTable('over HTTP');
  const page = async (tape: Tape) => (await timed<BreakdownAnswer>('/breakdown', { tape })).took;
  table.add('ready page of everybody, first of all', [await page(EMPTY)]);
  // As a user who reads the page before the next; meanwhile the server finds which labels are known.
  await wait(20_000);
  const pages: number[] = [];
  for (let i = 0; i < 10; i++) pages.push(await page(EMPTY));
  table.add('ready page of everybody, then', pages);
  const ofTapes: number[] = [];
  for (const tape of seededTapes(60, 19)) ofTapes.push(await page(tape));
  table.add('ready page of a tape not counted before', ofTapes);

  const chance = new Chance(5);
  const charts: number[] = [];
  for (const chart of CHARTS)
    charts.push((await timed('/charts', { tape: EMPTY, charts: [{ id: 'c', ...chart }] })).took);
  table.add(`a chart of one's own, everybody, first time (${CHARTS.length} kinds)`, charts);
  const views: number[] = [];
  for (let i = 0; i < 60; i++) {
    const [west, south, wide] = [chance.whole(-10, 20), chance.whole(36, 55), 2 + 28 * chance.next()];
    views.push(
      (
        await timed<ClustersAnswer>('/clusters', {
          tape: EMPTY,
          west,
          east: west + wide,
          south,
          north: south + wide / 2,
          cells: 30,
        })
      ).took,
    );
  }
  table.add('clusters of a view of the map, everybody', views);

  const { total } = await server.post<RowsAnswer>('/rows', { tape: EMPTY, columns: [], limit: 1 });
  const own: number[] = [];
  const found = { weighed: 0, codes: 0, asked: 0 };
  while (own.length < SEEDS) {
    const offset = chance.whole(0, total - 1);
    const [seed] = (
      await server.post<RowsAnswer>('/rows', { tape: EMPTY, columns: ['description'], offset, limit: 1 })
    ).rows;
    const craft = craftOf(seed!);
    if (craft === null) continue;
    const nearest = (weights?: object) => {
      const line = {
        id: 'p',
        field: 'peers',
        test: { like: [seed!.key], from: 0.5, ...(weights ? { weights } : {}) },
      };
      const sort = [{ by: 'score:p', descending: true }];
      return timed<RowsAnswer>('/rows', {
        tape: { ...EMPTY, lines: [line] },
        columns: ['description', 'score:p', 'why:p'],
        sort,
        limit: FIRST,
      });
    };
    const { took, answer } = await nearest();
    own.push(took);
    found.asked += FIRST;
    found.weighed += answer.rows.filter((row) => craftOf(row) === craft).length;
    found.codes += (await nearest(CODES_ALONE)).answer.rows.filter((row) => craftOf(row) === craft).length;
  }
  table.add('the first 20 peers of a company not asked for before', own);
  table.print();
  const share = (count: number) => `${((100 * count) / found.asked).toFixed(1)} %`;
  console.log(
    `Of the first ${FIRST} peers of ${SEEDS} companies, those of the same craft, which no code says: ${share(found.weighed)}; by codes alone ${share(found.codes)}.`,
  );
  console.log(`Peak memory of the server: ${megabytes(server.peak())}\n`);
  await server.stop();
}

/** The craft that the generator drew a company's description from; it is recorded nowhere but in those words. */
function craftOf({ cells }: RowsAnswer['rows'][number]): string | null {
  return typeof cells.description === 'string' ? cells.description.split(' in ')[0]! : null;
}

const CHARTS: readonly object[] = [
  { shape: 'bars', by: { field: 'place', level: 'country' }, measure: { of: 'sum', field: 'revenue' } },
  {
    shape: 'bars',
    by: { field: 'industry', level: 'division' },
    measure: { of: 'median', field: 'headcount' },
  },
  {
    shape: 'stacked',
    by: { field: 'place', level: 'region' },
    split: { field: 'ownership' },
    measure: { of: 'count' },
  },
  {
    shape: 'heat',
    by: { field: 'industry', level: 'section' },
    split: { field: 'headcount' },
    measure: { of: 'count' },
  },
  { shape: 'histogram', by: { field: 'growth', key: 'headcount 1y' }, measure: { of: 'count' } },
  { shape: 'strip', by: { field: 'place', level: 'country' }, measure: { of: 'median', field: 'revenue' } },
  { shape: 'scatter', by: { field: 'headcount' }, measure: { of: 'median', field: 'revenue' } },
  { shape: 'table', by: { field: 'technology', level: 'product' }, measure: { of: 'share' } },
];
