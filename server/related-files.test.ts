import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import type { ExportView } from '../contract/export-views.ts';
import type { RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Files of people and deals, and an address book, on their way through the API to the companies they name. */

const server = new TestServer();
const COMPANIES = [
  'name,registration,country,web,town',
  'Alder Works s.r.o.,111,CZ,alder.example,Brno',
  'Birch Coatings GmbH,222,DE,www.birch.example,Chemnitz',
  'Cedar Capital Ltd,333,GB,cedar.example,Leeds',
  'Twin Ltd,444,GB,,Leeds',
  'Twin Ltd,555,GB,,York',
].join('\n');
const PEOPLE = [
  'Full name,Job title,Company domain,Company number,Company name,Company country,Level,E-mail,Since',
  'Anna First,Head of purchasing,https://alder.example/team,,,,head,anna@alder.example,2020-05-01',
  'Bruno Second,Buyer,,111,,CZ,specialist,,',
  'Cecile Third,Works manager,,,Birch Coatings GmbH,,head,,',
  'Dora Fourth,Clerk,,,Twin Ltd,,specialist,,',
  'Ed Fifth,Nobody,,,,,head,,',
  'Fay Sixth,Odd,alder.example,,,,emperor,,',
].join('\n');
const DEALS = [
  'Deal,Type,Date,Value,Currency,Target,Investors,Sell side adviser',
  'Alder takes a loan,growth loan,2025-03-01,400000,EUR,alder.example,cedar.example,',
  'Birch bought,acquisition,2024-06-01,,,Birch Coatings GmbH,,Somebody Elsewhere; cedar.example',
].join('\n');

let people: UploadAnswer;

async function preview(name: string, text: string): Promise<UploadAnswer> {
  return (await server.upload(name, Buffer.from(text))).body as UploadAnswer;
}
async function loadRelated(answer: UploadAnswer, more: object) {
  const read = {
    encoding: answer.encoding,
    delimiter: answer.delimiter,
    hasHeader: true,
    subject: answer.subject,
  };
  return server.load(answer, { read, ...more });
}
const count = async (lines: object[], subject = 'companies') =>
  (await server.api.post('/api/tally').send({ tape: { ...tape(lines), subject } })).body as WordedTally;
const names = async (lines: object[], columns: string[], subject = 'companies', sort: object[] = []) =>
  (
    (await server.api.post('/api/rows').send({ tape: { ...tape(lines), subject }, columns, sort }))
      .body as RowsAnswer
  ).rows;

beforeAll(async () => {
  await server.start(5);
  await server.load(await preview('companies.csv', COMPANIES), { name: 'Companies' });
});
afterAll(() => server.stop());

test('a file is taken for what its headings speak of', async () => {
  people = await preview('people.csv', PEOPLE);
  expect(people.subject).toBe('people');
  expect(people.mapping.columns).toEqual([
    ...['name', 'title', 'company-domain', 'company-number', 'company-name', 'company-country'],
    ...['level', 'mail', 'since'],
  ]);
  expect((await preview('deals.csv', DEALS)).subject).toBe('deals');
});

test('people land at the company of their number, domain or name; a name that two have finds none; bad rows are told', async () => {
  const mapping = { ...people.mapping, unreadable: 'refuse' };
  const { job } = await loadRelated(people, { name: 'People', mapping });
  expect(job).toMatchObject({
    state: 'done',
    result: { read: 6, refused: 2, found: { number: 1, domain: 1, name: 1, not: 1 } },
  });
  const refused = await server.api.get(`/api/jobs/${job.id}/refusals`);
  expect(parse(refused.text, { bom: true }).map((cells: string[]) => cells.slice(-2))).toEqual([
    ['row', 'why'],
    ['6', 'the row: empty, expected a registration number, domain or name of its company'],
    ['7', 'Level: “emperor”, expected one of owner, founder, director, head, manager, specialist'],
  ]);
  const heads = { id: 'b', field: 'level', test: { any: ['head'] } };
  expect((await count([{ id: 'a', has: 'people', lines: [heads] }])).lines[0]).toMatchObject({
    subtotal: 2,
    // Nobody is recorded at three companies, and no source says that it has all.
    unknown: 3,
    related: [{ id: 'a', all: 3, sure: 2, possible: 0, lines: [{ id: 'b', alone: 2 }] }],
  });
  const two = [{ id: 'a', has: 'people', count: { from: 2 }, lines: [] }];
  const rows = await names(two, ['name', 'count:a'], 'companies', [{ by: 'count:a', descending: true }]);
  expect(rows.map(({ cells }) => cells)).toEqual([{ name: 'Alder Works s.r.o.', 'count:a': 2 }]);
  const up = [{ id: 'a', has: 'company', lines: [{ id: 'b', field: 'place', test: { countries: ['DE'] } }] }];
  expect((await names(up, ['name', 'company'], 'people')).map(({ cells }) => cells)).toEqual([
    { name: 'Cecile Third', company: 'Birch Coatings GmbH' },
  ]);
});

test('a source that has all of a country makes the others there a no', async () => {
  const deals = await preview('deals.csv', DEALS);
  const { job } = await loadRelated(deals, { name: 'Deals', covers: ['CZ', 'DE', 'GB'] });
  expect(job.state).toBe('done');
  const line = {
    id: 'a',
    has: 'deals',
    as: 'target',
    lines: [{ id: 'b', field: 'kind', test: { any: ['growth-loan'] } }],
  };
  expect((await count([line])).lines[0]).toMatchObject({ subtotal: 1, unknown: 0 });
  const [alder] = await names([line], ['name', 'raised', 'last-round']);
  expect(alder!.cells).toMatchObject({
    raised: { amount: 400_000, currency: 'EUR' },
    'last-round': '2025-03-01',
  });
  const [deal] = await names(
    [{ id: 'a', field: 'kind', test: { any: ['acquisition'] } }],
    ['sell-advisers'],
    'deals',
  );
  expect(deal!.cells['sell-advisers']).toEqual(['Somebody Elsewhere', 'Cedar Capital Ltd']);
});

test('a deal that another source has already is one deal with two sources', async () => {
  const again = await preview('own.csv', DEALS.replace('2025-03-01', '2025-03-10'));
  const { job } = await loadRelated(again, { name: 'Our book' });
  expect(job.result).toMatchObject({ joinedDeals: 2 });
  expect((await count([], 'deals')).universe).toBe(2);
  const both = [{ id: 'a', field: 'source', test: { all: ['deals', 'our-book'] } }];
  expect((await count(both, 'deals')).tally).toBe(2);
});

test('companies that come later find what names them; a source taken out takes its people along', async () => {
  const late = 'name,registration,country,web\nSomebody Elsewhere,777,FR,elsewhere.example';
  await server.load(await preview('late.csv', late), { name: 'Late' });
  const adviser = [{ id: 'a', has: 'deals', as: 'sell-adviser', lines: [] }];
  expect((await names(adviser, ['name'])).map(({ cells }) => cells.name)).toEqual([
    'Cedar Capital Ltd',
    'Somebody Elsewhere',
  ]);
  const removal = await server.api.delete('/api/sources/people');
  await server.ended((removal.body as { job: { id: string } }).job.id);
  expect((await count([], 'people')).universe).toBe(0);
  expect((await count([{ id: 'a', has: 'people', lines: [] }])).lines[0]).toMatchObject({
    subtotal: 0,
    unknown: 6,
  });
});

test('whom we know: an address book finds the companies where its people work', async () => {
  const book = [
    'BEGIN:VCARD\nVERSION:3.0\nFN:Gail Seven\nEMAIL;TYPE=work:gail@birch.example\nORG:Whatever\nEND:VCARD',
    'BEGIN:VCARD\nVERSION:3.0\nN:Eight;Hugo;;;\nORG:Cedar Capital Ltd;Loans\nTEL:+44 1632 960123\nEND:VCARD',
    'BEGIN:VCARD\nVERSION:3.0\nFN:Ida Nine\nEMAIL:ida@mail.example\nEND:VCARD',
  ].join('\n');
  const loaded = await server.api.post('/api/contacts').attach('file', Buffer.from(book), 'ours.vcf');
  expect(loaded.body).toEqual({ book: 'ours.vcf', contacts: 3, found: 2 });
  const known = [{ id: 'a', field: 'whom-we-know', test: { is: true } }];
  expect((await names(known, ['name', 'whom-we-know'])).map(({ cells }) => cells)).toEqual([
    { name: 'Birch Coatings GmbH', 'whom-we-know': 'yes' },
    { name: 'Cedar Capital Ltd', 'whom-we-know': 'yes' },
  ]);
  await server.api.delete('/api/contacts/ours.vcf').expect(204);
  expect((await count(known)).tally).toBe(0);
  const none = await server.api.post('/api/contacts').attach('file', Buffer.from('a,b\n1,2\n'), 'x.csv');
  expect(none.status).toBe(400);
  expect(none.body).toMatchObject({ error: { code: 'no-contacts', field: 'file' } });
});

test('deals are exported with their parties', async () => {
  const started = await server.api.post('/api/exports').send({
    tape: { ...tape([]), subject: 'deals' },
    name: 'Deals',
    format: 'csv',
    columns: ['name', 'kind', 'amount', 'target', 'sell-advisers'],
    sort: [{ by: 'date', descending: true }],
  });
  const { export: id, job } = started.body as { export: string; job: { id: string } };
  await server.ended(job.id);
  const file = await server.api.get(`/api/exports/${id}/file`);
  const rows: string[][] = parse(file.text);
  expect(rows[0]).toEqual([
    'Deal',
    'Kind',
    'Amount, EUR',
    'Amount year',
    'Amount basis',
    'Target',
    'Advisers to the seller',
  ]);
  expect(rows[1]!.slice(0, 3)).toEqual(['Alder takes a loan', 'growth loan', '400000']);
  expect(rows[2]!.slice(5)).toEqual(['Birch Coatings GmbH', 'Somebody Elsewhere; Cedar Capital Ltd']);
  const view = (await server.api.get(`/api/exports/${id}`)).body as { export: ExportView };
  expect(view.export.count).toBe(2);
});
