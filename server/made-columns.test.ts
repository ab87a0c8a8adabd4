import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FileReadingAnswer } from '../contract/readings.ts';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import type { MadeColumn } from '../core/records/made-columns.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Columns made of those of a file, on their way through preview, reading, load and the next file with the same headings. */

const server = new TestServer();
beforeAll(() => server.start(3));
afterAll(() => server.stop());

const FILE = [
  'Firma;Ulice;Č.p.;Místo',
  'Lakovna Veldín;Hutní;7;602 00, Brno',
  'Zarmysko;Lipová;;680 01, Boskovice',
  'Tarnfeld;;;Nowhere;too;much',
];
const MADE: MadeColumn[] = [
  { way: 'join', heading: 'Street', of: [1, 2], by: ' ' },
  { way: 'part', heading: 'Postcode', of: [3], by: ',', part: 'before-first' },
  { way: 'part', heading: 'Town', of: [3], by: ',', part: 'after-first' },
  { way: 'same', heading: 'Country', text: 'CZ' },
];

const uploaded = async (lines = FILE) =>
  (await server.upload('firms.csv', Buffer.from(lines.join('\n')))).body as UploadAnswer;
const readAs = ({ encoding, delimiter, skip, headerRows }: UploadAnswer, made: object[]) => ({
  ...{ encoding, delimiter, skip, headerRows },
  made,
});
const previewed = async (file: UploadAnswer, made: object[]) =>
  server.api.post(`/api/uploads/${file.upload}/preview`).send(readAs(file, made));

test('they stand behind those of the file, are recognised by their names and loaded', async () => {
  const file = await uploaded();
  const now = (await previewed(file, MADE)).body as UploadAnswer;
  expect(now.header).toEqual(['Firma', 'Ulice', 'Č.p.', 'Místo', 'Street', 'Postcode', 'Town', 'Country']);
  expect(now.rows[0]).toEqual([
    'Lakovna Veldín',
    'Hutní',
    '7',
    '602 00, Brno',
    'Hutní 7',
    '602 00',
    'Brno',
    'CZ',
  ]);
  const readAsColumns = ['name', null, null, null, 'street', 'postcode', 'town', 'country'];
  const mapping = { ...now.mapping, columns: readAsColumns };
  const begun = await server.api
    .post(`/api/uploads/${file.upload}/readings`)
    .send({ read: readAs(now, MADE), mapping });
  const { job: read } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const reading = read.result as unknown as FileReadingAnswer;
  expect([reading.rows, reading.refused, reading.columns[7]!.understood]).toEqual([3, 1, 2]);

  const { job } = await server.load({ ...now, mapping }, { read: readAs(now, MADE) });
  expect(job).toMatchObject({ state: 'done', result: { read: 3, refused: 1 } });
  const columns = ['name', 'street', 'postcode', 'place'];
  const { rows } = (await server.api.post('/api/rows').send({ tape: tape([]), columns })).body as RowsAnswer;
  expect(rows.map(({ cells }) => [cells.name, cells.street, cells.postcode])).toEqual([
    ['Lakovna Veldín', 'Hutní 7', '602 00'],
    ['Zarmysko', 'Lipová', '680 01'],
  ]);
  expect(rows[0]!.cells.place).toMatchObject({ town: 'Brno', country: 'CZ' });
});

test('the next file with the same headings is offered the same', async () => {
  const next = await uploaded();
  const [before] = next.remembered;
  expect(before).toMatchObject({ name: 'Branch list', made: MADE });
  expect(before!.mapping.columns).toHaveLength(8);
  const same = (await previewed(next, before!.made)).body as UploadAnswer;
  expect([same.header.length, same.remembered.length]).toEqual([8, 1]);
});

test.each([
  [[{ way: 'join', heading: 'Street', of: [1, 9], by: ' ' }], 'made of column 10; the file has 4'],
  [[{ way: 'same', heading: 'Firma', text: 'x' }], 'There is a column “Firma” already.'],
  [[MADE[3]!, MADE[3]!], 'There is a column “Country” already.'],
  [[{ way: 'join', heading: 'Street', of: [] }], 'lacks a column that it is made of'],
  [[{ way: 'part', heading: 'Town', of: [3], by: ',' }], 'lacks which part of the cell it is'],
  [
    [{ way: 'part', heading: 'Town', of: [3], part: 'after-first' }],
    'lacks the text at which a cell is parted',
  ],
  [[{ way: 'sum', heading: 'Town', of: [3] }], 'way must be one of'],
  [[{ way: 'same', heading: '', text: 'x' }], 'heading must not be empty'],
  [Array.from({ length: 31 }, (_, i) => ({ way: 'same', heading: `h${i}`, text: 'x' })), 'no more than 30'],
])('%j is refused with what is wrong', async (made, why) => {
  const answer = await previewed(await uploaded(), made);
  expect([answer.status, answer.text]).toEqual([400, expect.stringContaining(why)]);
});
