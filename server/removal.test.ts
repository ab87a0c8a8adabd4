import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { JobAnswer, SourceView, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { openUniverse } from './db/open.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Sources taken out again, through the API: what hung on them goes with them, and nothing else. */

const server = new TestServer();
beforeAll(() => server.start(1));
afterAll(() => server.stop());

const HEADER = 'Company,Registration number,Country,NACE,Technology,Description\n';
const row = (n: number, word: string) =>
  `Firm ${n} Ltd,${10_000_000 + n},CZ,25.51,Rutavel ERP,"Paints ${word}, number ${n}"\n`;
const file = (from: number, to: number, word: string) =>
  HEADER + Array.from({ length: to - from }, (_, i) => row(from + i, word)).join('');

async function load(name: string, content: string): Promise<void> {
  const uploaded = await server.upload(`${name}.csv`, Buffer.from(content));
  const { job } = await server.load(uploaded.body as UploadAnswer, { name });
  expect(job.state).toBe('done');
}

async function remove(name: string): Promise<void> {
  const { sources } = (await server.api.get('/api/sources')).body as { sources: SourceView[] };
  const { key } = sources.find((source) => source.name === name)!;
  const { job } = (await server.api.delete(`/api/sources/${key}`)).body as JobAnswer;
  await server.ended(job.id);
}

async function count(line: object | null): Promise<number> {
  const lines = line ? [{ id: 'a', ...line }] : [];
  const answer = await server.api.post('/api/tally').send({ tape: tape(lines) });
  return (answer.body as WordedTally).tally;
}

/** Rows of the tables that hang on companies that are not there. */
function loose(): { broken: unknown[]; left: Record<string, number> } {
  const db = openUniverse(server.dir, { readonly: true });
  try {
    const rows = (table: string) => db.prepare<[], number>(`SELECT count(*) FROM ${table}`).pluck().get()!;
    const tables = ['company', 'record', 'company_code', 'company_technology', 'company_source'];
    return {
      broken: db.pragma('foreign_key_check') as unknown[],
      left: Object.fromEntries(tables.map((table) => [table, rows(table)])),
    };
  } finally {
    db.close();
  }
}

const words = (text: string) => ({ field: 'words', test: { text } });

test('companies that another source has stay, without what the source said of them', async () => {
  await load('One', file(0, 2500, 'doors'));
  await load('Two', file(2400, 2600, 'frames'));
  expect([await count(null), await count(words('doors')), await count(words('frames'))]).toEqual([
    2600, 2500, 100,
  ]);
  await remove('One');
  expect([await count(null), await count(words('doors')), await count(words('frames'))]).toEqual([
    200, 0, 200,
  ]);
  expect(loose()).toEqual({
    broken: [],
    left: { company: 200, record: 200, company_code: 200, company_technology: 200, company_source: 200 },
  });
});

test('with the last source everything goes, and a file that comes after it is found by its words', async () => {
  await remove('Two');
  expect(await count(null)).toBe(0);
  expect(loose()).toEqual({
    broken: [],
    left: { company: 0, record: 0, company_code: 0, company_technology: 0, company_source: 0 },
  });
  await load('Three', file(0, 40, 'gates'));
  expect([await count(null), await count(words('gates')), await count(words('doors'))]).toEqual([40, 40, 0]);
  expect(loose().broken).toEqual([]);
});
