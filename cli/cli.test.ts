import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ExportDesk } from '../server/testing/export-desk.ts';
import { tape } from '../server/testing/test-server.ts';
import { EXIT } from './client.ts';
import { run } from './run.ts';

/** The command line over a running server: what it says, where it says it, and how it ends. */

const desk = new ExportDesk();
beforeAll(() => desk.open(), 60_000);
afterAll(() => desk.stop());

const ran = async (...args: string[]) => {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await run(
    [...args, '--server', desk.address],
    (text) => out.push(text),
    (text) => err.push(text),
  );
  return { code, out: out.join('\n'), err: err.join('\n') };
};

test('tally says what each line leaves, of typed lines, a tape file and a saved tape', async () => {
  const typed = await ran('tally', 'in Czechia; headcount 50..');
  expect(typed.code).toBe(EXIT.done);
  expect(typed.out.split('\n').map((line) => line.trim().split(/\s{2,}/))).toEqual([
    ['4', 'companies'],
    ['2', '−2', 'Place in Czechia'],
    ['1', '−1', 'Headcount 50 or more'],
    ['1', 'left'],
  ]);
  const path = join(desk.dir, 'mine.tape.json');
  const lines = [{ id: 'l1', field: 'place', test: { countries: ['AT'] } }];
  writeFileSync(path, JSON.stringify(tape(lines)));
  expect(JSON.parse((await ran('tally', path, '--json')).out)).toMatchObject({ tally: 1, universe: 4 });
  await desk.api.post('/api/tapes').send({ tape: tape(lines), kind: 'tape', name: 'The Austrians' });
  expect((await ran('tally', 'the austrians', '--json')).out).toContain('"tally":1');
  expect((await ran('tally', '', '--subject', 'people', '--json')).out).toContain('"tally":2');
});

test('export writes a file whole, told of on standard error, and opens it again', async () => {
  const path = join(desk.dir, 'all.parquet');
  const made = await ran(
    'export',
    'in Czechia',
    '--format',
    'parquet',
    '--columns',
    'name,headcount',
    '--out',
    path,
    '--for',
    'Notebook',
  );
  expect([made.code, made.out]).toEqual([EXIT.done, `2 companies in ${path}`]);
  expect(made.err).toMatch(/Export companies: done/);
  expect(readFileSync(path).subarray(0, 4).toString()).toBe('PAR1');
  expect(existsSync(`${path}.part`)).toBe(false);
  expect((await ran('tally', path, '--json', '--quiet')).out).toContain('"tally":2');
  expect((await ran('export', 'in Czechia', '--format', 'docx')).code).toBe(EXIT.usage);
  const refused = await ran('export', 'in Czechia', '--columns', 'mood', '--quiet');
  expect([refused.code, refused.out]).toEqual([EXIT.refused, '']);
  expect(refused.err).toMatch(/no column "mood"/);
});

test('load and match take files', async () => {
  const path = join(desk.dir, 'more.csv');
  writeFileSync(path, 'Company,Registration,Country\nGarth s.r.o.,5001,CZ\nHolm s.r.o.,5002,CZ\n');
  const loaded = await ran('load', path, '--name', 'More', '--as-of', '2026-10-01', '--json', '--quiet');
  expect([loaded.code, loaded.err]).toEqual([EXIT.done, '']);
  expect(JSON.parse(loaded.out)).toMatchObject({ read: 2, refused: 0 });
  const matched = await ran('match', path, '--json', '--quiet');
  expect(JSON.parse(matched.out)).toMatchObject({ rows: 2, toMatch: 2, foundCompanies: 2 });
  expect((await ran('match', path, '--quiet')).out).toMatch(
    /2 {2}rows to match\n +2 {2}sure\n +0 {2}doubtful/,
  );
});

test('each way of going wrong has its code', async () => {
  expect((await ran('tally', 'headcount of nothing at all')).code).toBe(EXIT.refused);
  expect((await ran('tally')).code).toBe(EXIT.usage);
  expect((await ran('weigh', 'x')).err).toMatch(/There is no command “weigh”/);
  expect((await ran('tally', 'x', '--nonsense')).code).toBe(EXIT.usage);
  expect((await ran('load', join(desk.dir, 'not-there.csv'))).code).toBe(EXIT.usage);
  const torn = join(desk.dir, 'torn.json');
  writeFileSync(torn, '{"lines": [');
  expect((await ran('tally', torn)).err).toMatch(/is no tape file/);
  expect((await ran('--help')).out).toMatch(/^just-tally COMMAND/);
  const err: string[] = [];
  const code = await run(
    ['tally', 'x', '--server', 'http://127.0.0.1:1'],
    () => {},
    (text) => err.push(text),
  );
  expect([code, err.join()]).toEqual([EXIT.noServer, expect.stringMatching(/Nothing answers/)]);
});
