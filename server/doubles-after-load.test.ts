import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { DoublesAnswer, MatchRowsAnswer } from '../contract/matches.ts';
import type { Job, UploadAnswer } from '../contract/responses.ts';
import { TestServer } from './testing/test-server.ts';

/** Doubles are looked for by themselves where a load brought companies that may be there under another name. */

const server = new TestServer();
beforeAll(() => server.start(3));
afterAll(() => server.stop());

const HEAD = 'Company,Registration number,Country,Town,Postcode,Street,Phone,Website';
const REGISTER = [
  HEAD,
  'Zarmysko Stolařství s.r.o.,25000118,CZ,Boskovice,680 01,Lipová 18,,',
  'Lakovna Veldín s.r.o.,25000777,CZ,Brno,602 00,Hutní 7,,',
  ...Array.from(
    { length: 40 },
    (_, i) => `Othermark ${i} Bau GmbH,4000${1000 + i},DE,Bremen,28195,Weg ${i},,`,
  ),
];
const DIRECTORY = [
  HEAD,
  'ZARMYSKO STOLARSTVI,,CZ,Boskovice,68001,Lipova 18,+420 000 041 228,zarmysko.example',
  'Nobody Else Works,,CZ,Praha,110 00,Polní 3,+420 000 099 001,nobody.example',
];

const load = async (name: string, lines: string[]) => {
  const file = (await server.upload(`${name}.csv`, Buffer.from(lines.join('\n')))).body as UploadAnswer;
  const { job } = await server.load(file, { name });
  expect(job.state).toBe('done');
  return job.result!;
};
/** The searches that ran, once they have ended. */
const searches = async (): Promise<Job[]> => {
  const { jobs } = (await server.api.get('/api/jobs')).body as { jobs: Job[] };
  const own = jobs.filter(({ title }) => title === 'Look for doubles');
  for (const { id } of own) expect((await server.ended(id)).job.state).toBe('done');
  return own;
};
const found = async () => ((await server.api.get('/api/doubles')).body as DoublesAnswer).match!;
const rowsOf = async (id: string, state: string) =>
  ((await server.api.get(`/api/matches/${id}/rows?state=${state}`)).body as MatchRowsAnswer).rows;

test('not after the first source, nor where all that came has a number', async () => {
  expect(await load('Register', REGISTER)).toMatchObject({ read: 42, mayBeTwice: 0 });
  expect(await load('More', [HEAD, 'Elm Works a.s.,26000999,CZ,Brno,602 00,Nová 1,,'])).toMatchObject({
    mayBeTwice: 0,
  });
  expect(await searches()).toEqual([]);
});

test('after one that has others, and what was settled stays settled', async () => {
  expect(await load('Directory', DIRECTORY)).toMatchObject({ read: 2, mayBeTwice: 2 });
  expect(await searches()).toHaveLength(1);
  const first = await found();
  expect(first).toMatchObject({ of: 'doubles', toMatch: 2, none: 1, settled: 0, changed: false });
  const [sure] = await rowsOf(first.id, 'sure');
  expect(sure!.company!.key).toBe('CZ-25000118');
  await server.api.put(`/api/matches/${first.id}/rows`).send({ rows: [{ row: sure!.row, as: 'none' }] });

  expect(await load('Another', [HEAD, 'Veldin Lakovna,,CZ,Brno,60200,Hutni 7,,'])).toMatchObject({
    mayBeTwice: 1,
  });
  expect(await searches()).toHaveLength(2);
  const second = await found();
  expect(second.id).not.toBe(first.id);
  expect(second).toMatchObject({ toMatch: 3, none: 2 });
  const [now] = await rowsOf(second.id, 'sure');
  expect(now!.company!.key).toBe('CZ-25000777');
  await server.api
    .put(`/api/matches/${second.id}/rows`)
    .send({ rows: [{ row: now!.row, as: 'taken', key: 'CZ-25000777' }] });

  await load('One more', [HEAD, 'Quite Another Firm,,CZ,Zlín,760 01,Dlouhá 9,,']);
  await searches();
  const third = await found();
  expect(third).toMatchObject({ toMatch: 4, settled: 1, none: 3 });
  expect((await rowsOf(third.id, 'settled'))[0]!.company!.key).toBe('CZ-25000777');
});
