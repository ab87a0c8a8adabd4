import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  DOUBLES_JOB,
  type DoublesAnswer,
  type JoinsAnswer,
  type MatchRowsAnswer,
} from '../contract/matches.ts';
import type { Job, RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

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

const loadOn = async (on: TestServer, name: string, lines: string[], joinSure: boolean) => {
  const file = (await on.upload(`${name}.csv`, Buffer.from(lines.join('\n')))).body as UploadAnswer;
  const { job } = await on.load(file, { name, joinSure });
  expect(job.state).toBe('done');
  return job.result!;
};
const load = (name: string, lines: string[]) => loadOn(server, name, lines, false);
/** The searches that ran, once they have ended. */
const searches = async (on = server): Promise<Job[]> => {
  const { jobs } = (await on.api.get('/api/jobs')).body as { jobs: Job[] };
  const own = jobs.filter(({ title }) => title === DOUBLES_JOB);
  for (const { id } of own) expect((await on.ended(id)).job.state).toBe('done');
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

describe('what surely is one company of two sources', () => {
  const joining = new TestServer();
  beforeAll(() => joining.start(3));
  afterAll(() => joining.stop());
  const bring = async (name: string, lines: string[], joinSure = true) => {
    const result = await loadOn(joining, name, lines, joinSure);
    await searches(joining);
    return result;
  };
  const names = async () => {
    const shown = await joining.api.post('/api/rows').send({
      tape: tape([{ id: 'l', field: 'place', test: { countries: ['CZ'] } }]),
      columns: ['name', 'web'],
    });
    return new Map((shown.body as RowsAnswer).rows.map(({ key, cells }) => [key, cells.name]));
  };
  const joinsOf = async (key: string) =>
    ((await joining.api.get(`/api/companies/${key}/joins`)).body as JoinsAnswer).joins;
  const remove = async (source: string) => {
    const { job } = (await joining.api.delete(`/api/sources/${source}`)).body as { job: Job };
    expect((await joining.ended(job.id)).job.state).toBe('done');
  };
  const doubles = async () => (await joining.api.get('/api/doubles')).body as DoublesAnswer;
  let own: string;

  test('is joined after the load, by more than its name, and the old key leads to it', async () => {
    await bring('Register', REGISTER);
    const alone = await names();
    await bring('Directory', [
      ...DIRECTORY,
      // Nothing but a name speaks for it, in another town.
      'Lakovna Veldin,,CZ,Ostrava,702 00,Dlouhá 1,,',
    ]);
    expect((await names()).size).toBe(alone.size + 2);
    const [joined] = await joinsOf('CZ-25000118');
    expect(joined).toMatchObject({ how: 'name' });
    own = joined!.gone;
    expect((await joining.api.get(`/api/companies/${own}`)).body).toMatchObject({
      row: { key: 'CZ-25000118' },
    });
    expect(await doubles()).toMatchObject({
      joined: 1,
      match: { toMatch: 2, changed: false, sure: { number: 0, domain: 0, name: 0 } },
    });
    expect(await joinsOf('CZ-25000777')).toEqual([]);
  });

  test('stays apart once it was taken apart, whatever is loaded', async () => {
    const { job } = (await joining.api.post('/api/companies/CZ-25000118/apart').send({ gone: own })).body as {
      job: Job;
    };
    expect((await joining.ended(job.id)).job.state).toBe('done');
    await bring('Directory again', DIRECTORY);
    expect(await joinsOf('CZ-25000118')).toEqual([]);
    expect((await names()).get(own)).toBe('ZARMYSKO STOLARSTVI');
    await remove('directory-again');
  });

  test('is not joined where the load was asked not to, nor two records of one source', async () => {
    const twice = [
      HEAD,
      'Veldin Lakovna,,CZ,Brno,60200,Hutni 7,,',
      'Horní Kovovýroba,,CZ,Tišnov,666 01,Úzká 3,+420 000 077 001,hornikov.example',
      'Horni Kovovyroba s.r.o.,,CZ,Tisnov,66601,Uzka 3,+420 000 077 001,www.hornikov.example/kontakt',
    ];
    const { joined } = await doubles();
    await bring('Not joined', twice, false);
    expect(await doubles()).toMatchObject({ joined });
    await remove('not-joined');
    await bring('Joined', twice);
    expect(await joinsOf('CZ-25000777')).toHaveLength(1);
    expect(await doubles()).toMatchObject({ joined: joined + 1 });
  });

  test('is joined when the number comes later, and two loads in a row are both looked through', async () => {
    await loadOn(
      joining,
      'Late',
      [HEAD, 'Quarndale Works Ltd,04711007,GB,Leeds,LS1 1AA,Mill Lane 4,,'],
      true,
    );
    await loadOn(joining, 'Trade list', [HEAD, 'Quarndale Works,,GB,Leeds,LS1 1AA,4 Mill Lane,,'], true);
    await loadOn(
      joining,
      'Numbers',
      [HEAD, 'Nobody Else Works s.r.o.,27000333,CZ,Praha,110 00,Polni 3,,'],
      true,
    );
    while ((await searches(joining)).some(({ state }) => state === 'running'));
    expect(await joinsOf('GB-04711007')).toHaveLength(1);
    expect(await joinsOf('CZ-27000333')).toHaveLength(1);
  });

  test('with the other source removed, what is left is what the first one says', async () => {
    for (const source of ['directory', 'joined', 'late', 'trade-list', 'numbers']) await remove(source);
    expect([...(await names())].sort()).toEqual([
      ['CZ-25000118', 'Zarmysko Stolařství s.r.o.'],
      ['CZ-25000777', 'Lakovna Veldín s.r.o.'],
    ]);
  });
});
