import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Refreshed } from '../../contract/responses.ts';
import { openUniverse, type Db } from '../db/open.ts';
import { RecordKeys } from '../tables/keys.ts';
import { changesOf, type ChangeKind } from '../tables/source.ts';
import { loadFile } from './load-file.ts';
import { recognise } from './recognise.ts';

/** Newer versions of files of what hangs on companies, put in the place of the older. */

const dir = mkdtempSync(join(tmpdir(), 'just-tally-refresh-'));
let db: Db;
beforeAll(async () => {
  db = openUniverse(dir);
  await load('companies', 'Companies', [
    'name,registration,country,web,town',
    'Alder Works,111,CZ,alder.example,Brno',
    'Birch Coatings,222,DE,birch.example,Chemnitz',
    'Cedar Capital,333,GB,cedar.example,Leeds',
  ]);
});
afterAll(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

let loads = 0;
async function load(
  subject: string,
  name: string,
  lines: string[],
  refreshes: { key: string; gone: 'removed' | 'kept' } | null = null,
): Promise<{ source: string; refreshed?: Refreshed }> {
  const path = join(dir, `file-${++loads}.csv`);
  writeFileSync(path, lines.join('\n'));
  const read = await recognise({
    path,
    reading: {},
    subject,
    fresh: true,
    defaults: { currency: 'EUR', year: 2025 },
  });
  const { header, encoding, delimiter } = read.preview as {
    header: string[];
    encoding: string;
    delimiter: string;
  };
  db.exec('BEGIN');
  try {
    const result = await loadFile(db, {
      ...{ dir, job: `job-${loads}`, path, fileName: 'file.csv', name, licence: null, asOf: 20_000 + loads },
      reading: { kind: 'csv', encoding, delimiter, hasHeader: true, sheet: null, skip: 0, headerRows: 1 },
      ...{ header, mapping: read.mapping, allOrNothing: false, subject, covers: [], refreshes },
    });
    db.exec('COMMIT');
    return result as unknown as { source: string; refreshed?: Refreshed };
  } catch (error) {
    db.exec('ROLLBACK');
    throw error;
  }
}

const rows = (text: string, ...values: unknown[]) =>
  db
    .prepare(text)
    .raw()
    .all(...values) as unknown[][];
const what = (source: string, kind: ChangeKind) =>
  changesOf(db, source, kind).map(({ name, changes }) => [name, changes]);

const PEOPLE = 'Full name,Job title,Company domain,Department,Level,E-mail,Phone';
const OLD = [
  PEOPLE,
  'Anna First,Buyer,alder.example,purchasing,specialist,anna@alder.example,',
  'Bruno Second,Head of sales,alder.example,sales,head,bruno@mail.example,',
  'Cecile Third,Works manager,birch.example,production,manager,,',
  'Dora Fourth,Painter,birch.example,production,specialist,,',
  'Emil Fifth,Accountant,cedar.example,finance,specialist,,',
];
const NEW = [
  PEOPLE,
  'Fay Sixth,Clerk,birch.example,finance,specialist,,',
  'Anna First,Head of purchasing,alder.example,purchasing,head,anna@alder.example,',
  'Bruno Second,Sales director,birch.example,sales,director,bruno@mail.example,',
  'Cecile Third,Works manager,birch.example,production,manager,,',
  'Emil Fifth,Financial controller,alder.example,finance,manager,,',
];

test('people keep their numbers where they are told to be the same, and what changed is told', async () => {
  const { source } = await load('people', 'Our people', OLD);
  const before = new Map(rows('SELECT name, key FROM person WHERE source = ?', source) as [string, string][]);
  const { refreshed } = await load('people', 'Our people', NEW, { key: source, gone: 'removed' });
  expect(refreshed).toMatchObject({ before: 5, added: 1, gone: 1, now: 5, changed: 3, keptAs: null });
  const after = new Map(rows('SELECT name, key FROM person WHERE source = ?', source) as [string, string][]);
  for (const name of ['Anna First', 'Bruno Second', 'Cecile Third', 'Emil Fifth'])
    expect([name, after.get(name)]).toEqual([name, before.get(name)]);
  expect(what(source, 'new')).toEqual([['Fay Sixth', {}]]);
  expect(what(source, 'gone')).toEqual([['Dora Fourth', {}]]);
  expect(what(source, 'changed')).toEqual([
    [
      'Anna First',
      { title: { was: 'Buyer', is: 'Head of purchasing' }, level: { was: 'specialist', is: 'head' } },
    ],
    [
      'Bruno Second',
      {
        company: { was: 'Alder Works', is: 'Birch Coatings' },
        title: { was: 'Head of sales', is: 'Sales director' },
        level: { was: 'head', is: 'director' },
      },
    ],
    // Without an address or phone, known again by name and line of work.
    [
      'Emil Fifth',
      {
        company: { was: 'Cedar Capital', is: 'Alder Works' },
        title: { was: 'Accountant', is: 'Financial controller' },
        level: { was: 'specialist', is: 'manager' },
      },
    ],
  ]);
  // They are found by name, and the number of who left is given to nobody.
  const found = (word: string) =>
    rows('SELECT rowid / 8 FROM related_words WHERE related_words MATCH ? AND rowid % 8 = 0', word).flat();
  expect(found('bruno').map((id) => `person-${String(id)}`)).toEqual([before.get('Bruno Second')]);
  expect(found('fay')).toHaveLength(1);
  expect(found('dora')).toEqual([]);
  expect(new RecordKeys(db, 'people').find(before.get('Dora Fourth')!)).toBeUndefined();
  expect(new RecordKeys(db, 'people').find(before.get('Anna First')!)?.name).toBe('Anna First');
  const history = rows(
    `SELECT name, field, was, now FROM history WHERE subject = 'people' AND field IN ('company', 'gone', 'came') ORDER BY name`,
  );
  expect(history).toEqual([
    ['Bruno Second', 'company', 'Alder Works', 'Birch Coatings'],
    ['Dora Fourth', 'gone', 'Birch Coatings', null],
    ['Emil Fifth', 'company', 'Cedar Capital', 'Alder Works'],
    ['Fay Sixth', 'came', null, 'Clerk'],
  ]);
});

test('who is gone may be kept as a source of its own', async () => {
  const { source } = await load('people', 'Others', OLD);
  const { refreshed } = await load('people', 'Others', [PEOPLE, OLD[1]!], { key: source, gone: 'kept' });
  expect(refreshed).toMatchObject({
    before: 5,
    added: 0,
    gone: 4,
    now: 1,
    changed: 0,
    keptAs: 'others-gone',
  });
  expect(
    rows('SELECT source, count(*) FROM person WHERE source LIKE ? GROUP BY 1 ORDER BY 1', 'others%'),
  ).toEqual([
    ['others', 1],
    ['others-gone', 4],
  ]);
});

test('a deal that another source has too keeps what that says, and leaves this source alone', async () => {
  const head = 'Deal,Type,Date,Value,Currency,Target';
  const first = await load('deals', 'One file', [
    head,
    'Alder takes a loan,growth loan,2025-03-01,400000,EUR,alder.example',
  ]);
  const second = await load('deals', 'Another file', [
    head,
    'Loan for Alder,growth loan,2025-03-09,410000,EUR,alder.example',
    'Birch bought,acquisition,2024-06-01,,,birch.example',
  ]);
  const { refreshed } = await load(
    'deals',
    'Another file',
    [head, 'Birch is bought,acquisition,2024-06-01,900000,EUR,birch.example'],
    { key: second.source, gone: 'removed' },
  );
  expect(refreshed).toMatchObject({ before: 2, added: 0, gone: 1, now: 1, changed: 1 });
  expect(what(second.source, 'changed')).toEqual([
    ['Birch is bought', { amount: { was: null, is: '900000.0 EUR' } }],
  ]);
  expect(
    rows('SELECT d.name, s.source FROM deal d JOIN deal_source s ON s.deal_id = d.id ORDER BY 1'),
  ).toEqual([
    ['Alder takes a loan', first.source],
    ['Birch is bought', second.source],
  ]);
});

const domain = fc.constantFrom('alder.example', 'birch.example', 'nobody.example');
const FILES = {
  people: {
    head: PEOPLE,
    row: fc
      .tuple(fc.constantFrom('Anna', 'Bruno', 'Cecile'), fc.constantFrom('Buyer', 'Clerk', ''), domain)
      .map(([name, title, at]) => `${name},${title},${at},,,,`),
    shown: 'name, title, department, level, company_id, recorded_mail',
  },
  sites: {
    head: 'Site name,Kind,Town,Country,Street,Company domain',
    row: fc
      .tuple(
        fc.constantFrom('Works', 'Yard', ''),
        fc.constantFrom('Brno', 'Leeds'),
        fc.constantFrom('Oak 1', ''),
        domain,
      )
      .map(([name, town, street, at]) => `${name},,${town},${town === 'Brno' ? 'CZ' : 'GB'},${street},${at}`),
    shown: 'name, town, street, country, company_id',
  },
  events: {
    head: 'Event,Type,Date,Company domain',
    row: fc
      .tuple(fc.constantFrom('New hall', 'New head'), fc.constantFrom('2026-01-02', '2026-03-04'), domain)
      .map(([name, day, at]) => `${name},,${day},${at}`),
    shown: 'name, date_on, company_id',
  },
} as const;

test.each(Object.entries(FILES))(
  'after a refresh of %s the universe is as if the newer file alone had come',
  async (subject, file) => {
    const version = fc.array(file.row, { minLength: 1, maxLength: 5 });
    const table = { people: 'person', sites: 'site', events: 'event' }[subject]!;
    const of = (source: string) =>
      rows(`SELECT ${file.shown} FROM ${table} WHERE source = ?`, source)
        .map((row) => JSON.stringify(row))
        .sort();
    await fc.assert(
      fc.asyncProperty(version, version, async (older, newer) => {
        const { source } = await load(subject, 'Versions', [file.head, ...older]);
        const { refreshed } = await load(subject, 'Versions', [file.head, ...newer], {
          key: source,
          gone: 'removed',
        });
        const alone = await load(subject, 'Alone', [file.head, ...newer]);
        expect(of(source)).toEqual(of(alone.source));
        expect(refreshed!.before).toBe(older.length);
        expect(refreshed!.now).toBe(newer.length);
        expect(refreshed!.before + refreshed!.added - refreshed!.gone).toBe(refreshed!.now);
        for (const kind of ['new', 'gone', 'changed'] as const)
          expect(what(source, kind)).toHaveLength(
            { new: refreshed!.added, gone: refreshed!.gone, changed: refreshed!.changed }[kind],
          );
      }),
      { numRuns: 12 },
    );
  },
);
