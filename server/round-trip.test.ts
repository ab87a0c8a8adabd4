import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { columnFields } from '../core/fields/registry.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What was exported loads into an empty workspace as the same records. */

const from = new TestServer();
beforeAll(async () => {
  await from.start(11);
});
afterAll(async () => {
  await from.stop();
});

const FILE = [
  'Company,Registration,Legal form,Status,Country,Region,Town,Street,Postcode,Phone,Mail,Website,Description,Headcount,Headcount basis,Headcount from,Headcount to,Revenue,Currency,Revenue year,Revenue basis,Profit,Profit year,Total assets,NACE 2.1,Other codes,Founded,Ownership,Group name,Listing,Ticker,Certificates,Dwelling,Followers,Website offers,Website surveyed,Technologies,Last checked,Checked by,Website answers,Website tried',
  'Alderway Coatings a.s.,01234567,a.s.,active,CZ,South Moravia,Brno,Dlouhá 1,60200,+420 777 123 456,office@alderway.example,alderway.example,"Coats, and paints; ""all""",120,reported,,,2500000.5,EUR,2024,reported,-12000.25,2024,9000000,25.51,16.23; 25.53,1994,subsidiary,Greyholt Holding,private,,ISO 9001; EN 1090-2,no,1250,quote-form; shop,2026-09-01,Rutavel; Kontovar,2026-09-15,phone,yes,2026-09-02',
  'Brackfold s.r.o.,27000011,s.r.o.,dormant,CZ,Zlín Region,Zlín,,,,,,,10-49,band,,,250-500,EUR,2023,band,,,,16.23,,2001,independent,,listed,BRK,none,yes,0,none,2026-09-01,,2020-01-01,register,,',
  'Corbin GmbH,FN 123456a,GmbH,active,AT,,Graz,,,,,,,,unknown: withheld,,,,,,unknown: not collected,,,,,,,,,,,,,,,,,,,,',
  'Dunlow GmbH,FN 123457b,GmbH,active,AT,,Graz,,,,,,,88,estimate,70,110,300000,EUR,2024,estimate,,,,25.51,,1956,top,,public body,,,,,,,,,,',
];

/** Made of other columns, or of other sources than a file. */
const MADE = new Set([
  'sources',
  'source',
  'site-count',
  'sold-in',
  'raised',
  'last-round',
  'whom-we-know',
  'handed-over',
  'disputed',
  'corrected',
]);
const columns = columnFields('companies')
  .filter(
    ({ id, kind, store }) => !MADE.has(id) && store.at !== 'holder' && kind !== 'keyed' && kind !== 'growth',
  )
  .map(({ id }) => id);
const rowsOf = async (server: TestServer) => {
  const sort = [{ by: 'name', descending: false }];
  const { body } = (await server.api.post('/api/rows').send({ tape: tape([]), columns, sort })) as {
    body: RowsAnswer;
  };
  return body.rows;
};

describe.each(['csv', 'xlsx', 'ods', 'parquet'] as const)('companies as %s', (format) => {
  test('come back as they went', async () => {
    if (format === 'csv') {
      const file = (await from.upload('firms.csv', Buffer.from(FILE.join('\n')))).body as UploadAnswer;
      expect(file.mapping.columns).not.toContain(null);
      const { job } = await from.load(file, { name: 'Firms' });
      expect(job.result).toMatchObject({ read: 4, refused: 0, left: 0 });
    }
    const started = await from.api
      .post('/api/exports')
      .send({ tape: tape([]), name: 'All', format, columns, currency: 'EUR' });
    const begun = started.body as { job: { id: string }; export: string };
    await from.ended(begun.job.id);
    const exported = await from.api
      .get(`/api/exports/${begun.export}/file`)
      .buffer(true)
      .parse((answer, done) => {
        const chunks: Buffer[] = [];
        answer.on('data', (chunk: Buffer) => chunks.push(chunk));
        answer.on('end', () => done(null, Buffer.concat(chunks)));
      });
    // Into a workspace of its own: what an earlier file brought would hide what this one loses.
    const to = new TestServer();
    await to.start(12);
    const file = (await to.upload(`all.${format}`, exported.body as Buffer)).body as UploadAnswer;
    expect(file.mapping.undecided ?? []).toEqual([]);
    const { job } = await to.load(file, { name: `Again as ${format}` });
    expect(job).toMatchObject({ state: 'done', result: { read: 4, refused: 0, left: 0 } });
    const [before, after] = [await rowsOf(from), await rowsOf(to)];
    await to.stop();
    expect(after).toEqual(before);
  });
});
