import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import type {
  MatchAnswer,
  MatchesAnswer,
  MatchListAnswer,
  MatchPairAnswer,
  MatchRowsAnswer,
  SettledAnswer,
} from '../contract/matches.ts';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A file of companies one has in mind, lined up with a small universe through the API. */

const server = new TestServer();

const UNIVERSE = [
  'Company,Legal form,Registration number,Country,Town,Postcode,Street,Phone,Web,Employees',
  'Zarmysko Stolařství,s.r.o.,25000118,CZ,Boskovice,680 01,Lipová 18,+420 000 041 228,zarmysko.example,46',
  'Zarmysko Schody,a.s.,26000473,CZ,Letovice,679 61,Nádražní 4,+420 000 067 310,,12',
  'Lakovna Veldín,s.r.o.,25000777,CZ,Brno,602 00,Hutní 7,+420 000 055 512,lakovna-veldin.example,30',
  'Quelbeck Lackierungen,GmbH,30000001,DE,Köln,50667,Hafenweg 3,+49 000 111 222,quelbeck.example,80',
  'Tarnfeld Möbel,GmbH,30000002,DE,Aachen,52062,Werkstraße 9,+49 000 333 444,tarnfeld.example,15',
  ...Array.from(
    { length: 40 },
    (_, i) => `Othermark ${i} Bau,GmbH,4000${1000 + i},DE,Bremen,28195,Polweg ${i},,,5`,
  ),
];

const FILE = [
  'Firma;IČO;Web;Phone;Street;City;PLZ;Country;Stand;Asked about',
  'LAKOVNA VELDIN;CZ25000777;;;;;;CZ;1;ventilation',
  'Quelbek Lackierung;;https://www.quelbeck.example/kontakt;;;Koeln;;DE;2;=price',
  'Zarmysko Stolarstvi;;zarmysko-schody.example;;Lipova 18;Boskovice;;CZ;14;filters',
  'Tarnfeld Moebel GmbH;;;;Werkstr. 9;Aachen;52062;DE;7;',
  'LAKOVNA VELDÍN s.r.o.;25 000 777;;;;;;CZ;8;again',
  'Nobody Knows This One;;;;;Wien;;AT;9;',
  ';;;;;;;;10;no name',
];

let id = '';
const rows = async (query = '') =>
  (await server.api.get(`/api/matches/${id}/rows${query}`)).body as MatchRowsAnswer;
const match = async () => (await server.api.get(`/api/matches/${id}`)).body as MatchAnswer;

beforeAll(async () => {
  await server.start(3);
  const file = (await server.upload('firms.csv', Buffer.from(UNIVERSE.join('\n')))).body as UploadAnswer;
  expect((await server.load(file)).job.state).toBe('done');
}, 60_000);
afterAll(() => server.stop());

const begin = async (lines: string[], name = 'Visitors') => {
  const file = (await server.upload('visitors.csv', Buffer.from(lines.join('\n')))).body as UploadAnswer;
  const { encoding, delimiter, hasHeader, mapping } = file;
  return server.api
    .post('/api/matches')
    .send({ upload: file.upload, name, read: { encoding, delimiter, hasHeader }, mapping });
};

describe('a file is matched', () => {
  test('its rows add up, and each is found by what it has', async () => {
    const begun = await begin(FILE);
    const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
    expect(job).toMatchObject({ kind: 'match', state: 'done' });
    id = job.result!.match as string;
    const { match: made } = await match();
    expect(made).toMatchObject({ rows: 7, notData: 0, unreadable: 1, twice: 1, toMatch: 5, changed: false });
    const { sure, settled, doubtful, none } = made;
    expect(sure.number + sure.domain + sure.name + settled + doubtful + none).toBe(made.toMatch);
    expect(sure).toMatchObject({ number: 1, domain: 1 });
    const all = await rows();
    const of = (row: number) => all.rows.find((one) => one.row === row)!;
    expect([of(2).state, of(2).by, of(2).company!.key]).toEqual(['sure', 'number', 'CZ-25000777']);
    expect([of(3).state, of(3).by, of(3).company!.key]).toEqual(['sure', 'domain', 'DE-30000001']);
    expect(of(5).company!.key).toBe('DE-30000002');
    expect([of(6).state, of(6).twiceOf]).toEqual(['twice', 2]);
    expect(of(7).state).toBe('none');
    expect(of(8).state).toBe('unreadable');
    expect((await rows('?state=sure&by=number')).total).toBe(1);
  }, 60_000);

  test('a pair is laid side by side with what speaks for it', async () => {
    const pair = (await server.api.get(`/api/matches/${id}/rows/4`)).body as MatchPairAnswer;
    expect(pair.carried).toEqual([
      { heading: 'Stand', value: '14' },
      { heading: 'Asked about', value: 'filters' },
    ]);
    const [best] = pair.candidates;
    expect(best!.key).toBe('CZ-25000118');
    const marks = Object.fromEntries(best!.fields.map(({ field, mark }) => [field, mark]));
    expect(marks).toMatchObject({ name: 'equal', street: 'equal', town: 'equal', number: 'missing' });
    expect(best!.why).toMatch(/same name/i);
    expect(best!.why).toMatch(/same street/i);
  });

  test('rows are settled, told how they stood, and taken back', async () => {
    const settle = (list: object[]) => server.api.put(`/api/matches/${id}/rows`).send({ rows: list });
    const before = (await match()).match;
    const settled = (await settle([{ row: 7, as: 'taken', key: 'DE-30000002' }])).body as SettledAnswer;
    expect(settled.before).toEqual([{ row: 7, as: 'open' }]);
    expect([settled.match.settled, settled.match.found]).toEqual([before.settled + 1, before.found + 1]);
    expect(settled.match.foundCompanies).toBe(before.foundCompanies);
    await settle(settled.before);
    expect((await match()).match).toEqual(before);
    const none = (await settle([{ row: 2, as: 'none' }])).body as SettledAnswer;
    expect(none.match.sure.number).toBe(0);
    await settle(none.before);
    expect((await match()).match.sure.number).toBe(1);
  });

  test('what cannot be settled is refused by name, and nothing of it is kept', async () => {
    const before = (await match()).match;
    const refused = async (list: object[]) => {
      const answer = await server.api.put(`/api/matches/${id}/rows`).send({ rows: list });
      return [answer.status, (answer.body as { error: { code: string } }).error.code];
    };
    expect(
      await refused([
        { row: 2, as: 'none' },
        { row: 99, as: 'none' },
      ]),
    ).toEqual([404, 'unknown-row']);
    expect(
      await refused([
        { row: 2, as: 'none' },
        { row: 8, as: 'none' },
      ]),
    ).toEqual([400, 'not-to-settle']);
    expect(await refused([{ row: 2, as: 'taken', key: 'XX-1' }])).toEqual([400, 'unknown-company']);
    expect(await refused([{ row: 2, as: 'perhaps' }])).toEqual([400, 'wrong-value']);
    expect((await match()).match).toEqual(before);
    expect((await server.api.get('/api/matches/none')).status).toBe(404);
    expect((await server.api.get(`/api/matches/${id}/rows?state=lost`)).status).toBe(400);
  });
});

test('its rows are put in order by row, name, what they came to and certainty; what has none comes last', async () => {
  const sorted = async (by: string, descending = '') =>
    (await rows(`?sort=${by}&descending=${descending}`)).rows;
  expect((await sorted('row', '1')).map(({ row }) => row)).toEqual([8, 7, 6, 5, 4, 3, 2]);
  const names = (await sorted('name')).map(({ name }) => name.toLowerCase());
  expect(names.slice(0, -1)).toEqual([...names.slice(0, -1)].sort());
  expect(names.at(-1)).toContain('no name');
  const chances = (await sorted('certainty', '1')).map(({ chance }) => chance);
  const known = chances.filter((chance) => chance !== null);
  expect(chances.slice(0, known.length)).toEqual([...known].sort((a, b) => b - a));
  const states = (await sorted('state')).map(({ state }) => state);
  expect(states).toEqual([...states].sort());
  const refused = await server.api.get(`/api/matches/${id}/rows?sort=luck`);
  expect([refused.status, refused.text]).toEqual([
    400,
    expect.stringContaining('row, name, state, certainty'),
  ]);
});

describe('what is made of it', () => {
  test('a list, with what the file says beside', async () => {
    const { found, foundCompanies } = (await match()).match;
    const made = await server.api.post(`/api/matches/${id}/list`).send({ name: 'Stand visitors' });
    expect(made.status).toBe(201);
    const { list, added } = made.body as MatchListAnswer;
    expect([added, list.members]).toEqual([foundCompanies, foundCompanies]);
    expect(found).toBeGreaterThanOrEqual(3);
    const wanted = tape([{ id: 'l', field: 'list', test: { any: [list.key] } }]);
    const shown = await server.api
      .post('/api/rows')
      .send({ tape: wanted, columns: ['name', 'member:carried:l', 'member:origins:l'] });
    const { cells } = (shown.body as RowsAnswer).rows.find(({ key }) => key === 'DE-30000001')!;
    expect(cells['member:carried:l']).toBe('Stand: 2; Asked about: =price');
    expect(cells['member:origins:l']).toBe('visitors.csv');
    expect((await match()).match.list).toBe(list.key);
  });

  test('the file again, with columns of the universe, safe for spreadsheets', async () => {
    const csv = await server.api
      .post(`/api/matches/${id}/file`)
      .send({ part: 'all', columns: ['headcount', 'web'] });
    const lines = parse<Record<string, string>>(csv.text, { bom: true, columns: true });
    expect(lines).toHaveLength(7);
    expect(lines[0]).toMatchObject({
      Firma: 'LAKOVNA VELDIN',
      Match: 'sure, by number',
      'Company key': 'CZ-25000777',
    });
    expect(lines[0]!.Headcount).toBe('30');
    expect(lines[1]!['Asked about']).toBe("'=price");
    // A row that is there twice has the company of the first.
    expect(lines[4]).toMatchObject({ Match: 'as row 2', 'Company key': 'CZ-25000777' });
    expect(lines[5]).toMatchObject({ Match: 'none', 'Company key': '', Headcount: '' });
    const left = await server.api.post(`/api/matches/${id}/file`).send({ part: 'left', columns: [] });
    const rest = parse<Record<string, string>>(left.text, { bom: true, columns: true });
    expect(rest.map(({ Firma }) => Firma)).toContain('Nobody Knows This One');
    expect(
      (await server.api.post(`/api/matches/${id}/file`).send({ part: 'all', columns: ['moon'] })).status,
    ).toBe(400);
  });

  test('matched again, it says what moved since the universe changed, and keeps what was settled', async () => {
    const settled = [{ row: 2, as: 'none' }];
    await server.api.put(`/api/matches/${id}/rows`).send({ rows: settled });
    const before = (await match()).match;
    const more = [UNIVERSE[0]!, 'Nobody Knows This One,GmbH,90000001,AT,Wien,1010,Ring 1,,nobody.example,3'];
    const file = (await server.upload('more.csv', Buffer.from(more.join('\n')))).body as UploadAnswer;
    await server.load(file, { name: 'More' });
    expect((await match()).match).toMatchObject({ changed: true, moved: 0 });
    const begun = await server.api.post(`/api/matches/${id}/again`).send({});
    const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
    expect(job).toMatchObject({ state: 'done', result: { moved: 1 } });
    const after = (await match()).match;
    expect(after).toMatchObject({
      changed: false,
      moved: 1,
      none: before.none - 1,
      companies: before.companies + 1,
    });
    const { rows: moved, total } = await rows('?moved=1');
    expect(total).toBe(1);
    expect(moved[0]).toMatchObject({
      row: 7,
      was: { state: 'none', name: null },
      company: { key: 'AT-90000001' },
    });
    expect((await rows('?state=none')).rows.map(({ row }) => row)).toContain(2);
  });

  test('it is removed, with nothing of it left', async () => {
    expect((await server.api.delete(`/api/matches/${id}`)).status).toBe(204);
    expect(((await server.api.get('/api/matches')).body as MatchesAnswer).matches).toEqual([]);
    expect((await server.api.get(`/api/matches/${id}/rows`)).status).toBe(404);
  });
});

test('a column of domains is enough; a file that tells nothing is refused', async () => {
  const begun = await begin(
    ['Website', 'www.quelbeck.example', 'tarnfeld.example/shop', 'nowhere.example'],
    'Domains',
  );
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const made = ((await server.api.get(`/api/matches/${job.result!.match as string}`)).body as MatchAnswer)
    .match;
  expect(made).toMatchObject({ toMatch: 3, sure: { domain: 2 }, none: 1 });
  const refused = await begin(['Colour;Size', 'red;1', 'blue;2']);
  expect(refused.status).toBe(400);
  expect(refused.body).toMatchObject({ error: { code: 'nothing-to-match' } });
});

test('a file that carries our own key is matched by it, whatever else it says; a key from elsewhere by the rest', async () => {
  const found = (await server.api
    .post('/api/rows')
    .send({ tape: tape([]), columns: ['name'], sort: [] })) as unknown as { body: RowsAnswer };
  const keyOf = (name: string) => found.body.rows.find(({ cells }) => cells.name === name)!.key;
  const begun = await begin(
    [
      'Company key,Name,Website',
      `${keyOf('Zarmysko Schody')},Renamed Since,quelbeck.example`,
      `${keyOf('Quelbeck Lackierungen')},,`,
      `${keyOf('Quelbeck Lackierungen')},The same again,`,
      'x-elsewhere,Tarnfeld,tarnfeld.example',
      'x-nobody,,',
    ],
    'Came back',
  );
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  id = job.result!.match as string;
  expect((await match()).match).toMatchObject({
    ...{ toMatch: 4, twice: 1, unreadable: 0, none: 1 },
    sure: { key: 2, domain: 1, number: 0, name: 0 },
  });
  const { rows: byKey } = await rows('?state=sure&by=key');
  expect(byKey.map(({ row, company, chance, by }) => [row, company!.key, chance, by])).toEqual([
    [2, keyOf('Zarmysko Schody'), 1, 'key'],
    [3, keyOf('Quelbeck Lackierungen'), 1, 'key'],
  ]);
  const pair = (await server.api.get(`/api/matches/${id}/rows/2`)).body as MatchPairAnswer;
  expect(pair.candidates[0]).toMatchObject({ key: keyOf('Zarmysko Schody') });
  const wrong = await server.api.get(`/api/matches/${id}/rows?by=smell`);
  expect(wrong.body).toMatchObject({ error: { rule: 'key, number, domain, name' } });
});
