import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { columnFields } from '../core/fields/registry.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What was exported loads into an empty workspace as the same records. */

const from = new TestServer();
afterAll(async () => {
  await from.stop();
});

const FILE = [
  'Company,Registration,Legal form,Status,Country,Region,Town,Street,Postcode,Phone,Mail,Website,Description,Headcount,Headcount basis,Headcount from,Headcount to,Revenue,Currency,Revenue year,Revenue basis,Profit,Profit year,Total assets,NACE 2.1,Other codes,Founded,Ownership,Group name,Listing,Ticker,Certificates,Dwelling,Followers,Website offers,Website surveyed,Technologies,Last checked,Checked by,Website answers,Website tried,Headcount by year,Revenue by month,Latitude,Longitude,Headcount year',
  'Alderway Coatings a.s.,01234567,a.s.,active,CZ,South Moravia,Brno,Dlouhá 1,60200,+420 777 123 456,office@alderway.example,alderway.example,"Coats, and paints; ""all""",120,reported,,,2500000.5,EUR,2024,reported,-12000.25,2024,9000000,25.51,16.23; 25.53; NAICS 2022 332812 main; NAICS 2022 238330,1994,subsidiary,Greyholt Holding,private,,ISO 9001; EN 1090-2,no,1250,quote-form; shop,2026-09-01,Rutavel; Kontovar,2026-09-15,phone,yes,2026-09-02,2023:110; 2024:≈115; 2025:120,2025-11: 200000 210000.5,49.1951,16.6068,2025',
  'Brackfold s.r.o.,27000011,s.r.o.,dormant,CZ,Zlín Region,Zlín,,,,,,,10-49,band,,,250-500,EUR,2023,band,,,,16.23,,2001,independent,,listed,BRK,none,yes,0,none,2026-09-01,,2020-01-01,register,,,,,,,2024',
  'Corbin GmbH,FN 123456a,GmbH,active,AT,,Graz,,,,,,,,unknown: withheld,,,,,,unknown: not collected,,,,,,,,,,,,,,,,,,,,,,,,,',
  'Dunlow GmbH,FN 123457b,GmbH,active,AT,,Graz,,,,,,,88,estimate,70,110,300000,EUR,2024,estimate,,,,25.51,,1956,top,,public body,,,,,,,,,,,,,,,',
  'Twin Ltd,0333,Ltd,active,GB,,Leeds,,,,,twin.example,,,,,,5000,GBP,2024,reported,,,,16.23,,,,,,,,,,,,,,,,,,,,,',
  'Twin Ltd,0444,Ltd,active,GB,,York,,,,,,,,,,,,,,,,,,16.23,,,,,,,,,,,,,,,,,,,,,',
];
const RELATED: Readonly<Record<string, readonly string[]>> = {
  sites: [
    'Site,Company number,Company country,Kind,Head office,Country,Region,Town,Latitude,Longitude,Street,Postcode,Headcount,Phone,Checked',
    'Works one,01234567,CZ,works,yes,CZ,South Moravia,Brno,49.2,16.61,Dlouhá 1,60200,80,+420 777 123 456,2026-02-03',
    ',0444,GB,branch,no,GB,,Leeds,,,,,,,',
  ],
  people: [
    'Name,Title,Company number,Company country,Company domain,Department,Level,Since,Mail,Mail certainty,Address,Address made by,Phone,Earlier posts,Checked',
    'Anna First,Head of purchasing,01234567,CZ,,purchasing,head,2020-05-01,anna.first@alderway.example,91,recorded,,,"Buyer, Brackfold, 2015-2020",2026-01-01',
    'Bruno Second,Buyer,01234567,CZ,,purchasing,specialist,,bruno.second@alderway.example,84,likely,"first.last, 1 of 1 known there",,,',
    'Cecile Third,,0333,GB,,,,,c@twin.example,0,refuted,,+44 113 496 0000,,',
    'Dora Fourth,Owner,,,nowhere.example,management,owner,,,,,,,,',
  ],
  events: [
    'Event,Kind,Date,Company number,Company country',
    '"A new line, at last; says ""they""",new line,2026-03-01,0333,GB',
    'Somebody left,,,0444,GB',
  ],
  deals: [
    'Deal,Kind,Date,Amount,Amount currency,Amount year,Amount basis,Parties,Bidders approached',
    'Alderway takes a loan,growth loan,2025-03-01,10000000,CZK,2025,reported,"target: CZ 01234567 (Alderway Coatings a.s.); investor: (Somebody Elsewhere)",3',
    'Twins merge,merger,,2000-5000,GBP,2024,band,target: GB 0333; buyer: GB 0444,',
    'Nobody says,buy-out,2024-01-01,,,,,buyer: elsewhere.example,',
  ],
  brands: [
    'Brand,Category,Share by channel,Change by channel,Products,"Products, change",Share of its category,Sold in,Parties,Checked',
    'Alderlak,coatings,dealers 62; direct 38,dealers -1.5,12,-2,0.4,Czechia; Austria,owner: CZ 01234567; consented: GB 0333; unconsented: GB 0444; resold: (A shop),2026-01-05',
    'Plain,,,,,,,none,owner: twin.example,',
  ],
};
const SUBJECT_NAMES = ['companies', ...Object.keys(RELATED)];

/** Made of other columns, or of other sources than a file. */
const MADE = new Set(['sources', 'source', 'handed-over', 'joined', 'came', 'changed', 'whom-we-know']);
const columnsOf = (subject: string) =>
  columnFields(subject)
    .map(({ id }) => id)
    .filter((id) => !MADE.has(id));
const tapeOf = (subject: string) => ({ ...tape([]), subject });
/** What is known of a country's companies is said when a source is loaded, and not in its rows. */
const COVERS = ['CZ', 'GB'];

async function rowsOf(server: TestServer, subject: string) {
  const sort = [{ by: 'name', descending: false }];
  const { body } = (await server.api
    .post('/api/rows')
    .send({ tape: tapeOf(subject), columns: columnsOf(subject), sort })) as { body: RowsAnswer };
  return body.rows.map(({ cells, why }) => ({ cells, why }));
}

async function loadFile(server: TestServer, name: string, subject: string, content: Buffer) {
  const file = (await server.upload(name, content)).body as UploadAnswer;
  expect([name, file.subject, file.mapping.undecided ?? []]).toEqual([name, subject, []]);
  const { encoding, delimiter, hasHeader } = file;
  const { job } = await server.load(file, {
    name: `The ${subject}`,
    read: { encoding, delimiter, hasHeader, subject },
    ...(subject === 'companies' ? {} : { covers: COVERS }),
  });
  return { file, job };
}

async function exported(server: TestServer, subject: string, format: string): Promise<Buffer> {
  const wish = { format, columns: columnsOf(subject), currency: 'EUR', ownCurrency: true };
  const started = await server.api
    .post('/api/exports')
    .send({ tape: tapeOf(subject), name: subject, ...wish });
  const begun = started.body as { job: { id: string }; export: string };
  expect((await server.ended(begun.job.id)).job.state).toBe('done');
  const answer = await server.api
    .get(`/api/exports/${begun.export}/file`)
    .buffer(true)
    .parse((got, done) => {
      const chunks: Buffer[] = [];
      got.on('data', (chunk: Buffer) => chunks.push(chunk));
      got.on('end', () => done(null, Buffer.concat(chunks)));
    });
  return answer.body as Buffer;
}

beforeAll(async () => {
  await from.start(11);
  const files = { companies: FILE, ...RELATED };
  for (const [subject, lines] of Object.entries(files)) {
    const { file, job } = await loadFile(from, `${subject}.csv`, subject, Buffer.from(lines.join('\n')));
    expect(file.mapping.columns).not.toContain(null);
    expect([subject, job.result]).toEqual([
      subject,
      expect.objectContaining({ read: lines.length - 1, refused: 0, left: 0 }),
    ]);
  }
});

const ODS = ['companies', 'deals', 'events'];

describe.each([
  ['CSV', () => 'csv'],
  ['workbooks', (subject: string) => (ODS.includes(subject) ? 'ods' : 'xlsx')],
  ['JSON Lines', () => 'jsonl'],
  ['Parquet', () => 'parquet'],
] as const)('records as %s', (_name, formatOf) => {
  test('of every subject come back as they went, in every column', async () => {
    // Into a workspace of its own: what an earlier file brought would hide what this one loses.
    const to = new TestServer();
    await to.start(12);
    try {
      for (const subject of SUBJECT_NAMES) {
        const format = formatOf(subject);
        const content = await exported(from, subject, format);
        const { job } = await loadFile(to, `${subject}.${format}`, subject, content);
        expect([subject, job.state, job.result]).toEqual([
          subject,
          'done',
          expect.objectContaining({ refused: 0, left: 0 }),
        ]);
      }
      for (const subject of SUBJECT_NAMES)
        expect(await rowsOf(to, subject)).toEqual(await rowsOf(from, subject));
    } finally {
      await to.stop();
    }
  });
});
