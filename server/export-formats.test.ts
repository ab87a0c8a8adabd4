import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { DuckDBInstance } from '@duckdb/node-api';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { RowsAnswer } from '../contract/responses.ts';
import { FORMATS } from '../core/exports/formats.ts';
import { ExportDesk } from './testing/export-desk.ts';
import { tape } from './testing/test-server.ts';

/** Every format, opened by a program that is not ours and compared with what the API says. */

const desk = new ExportDesk();
beforeAll(() => desk.open(), 60_000);
afterAll(() => desk.stop());

const NAMES = ['=Corbin GmbH', 'Alderway "Coat" a.s.', 'Brackfold, s.r.o.', 'Łódź Ångström 日本'];
const ALDERWAY = {
  Company: 'Alderway "Coat" a.s.',
  Town: 'Brno',
  Headcount: 120,
  'Revenue, EUR': 2_500_000.5,
};

const duck = async (sql: string) => {
  const connection = await (await DuckDBInstance.create()).connect();
  const rows = (await connection.runAndReadAll(sql)).getRowObjectsJson();
  connection.closeSync();
  return rows;
};

test('CSV is read by Python, with a description of its columns and how it was made beside', async () => {
  const { path } = await desk.exported({ beside: true, name: 'Firms near Brno' });
  expect(path).toMatch(/Firms near Brno\.zip$/);
  const found = desk.python(
    `import csv, io, json, sys, zipfile
z = zipfile.ZipFile(sys.argv[1])
rows = list(csv.DictReader(io.StringIO(z.read('Firms near Brno.csv').decode('utf-8'))))
meta = json.loads(z.read('Firms near Brno.csv-metadata.json'))
print(json.dumps({'names': sorted(z.namelist()), 'rows': rows, 'meta': meta, 'how': z.read('How this list was made.txt').decode()}))`,
    path,
  ) as {
    names: string[];
    rows: Record<string, string>[];
    meta: { url: string; tableSchema: { columns: { name: string; datatype: string; titles: string }[] } };
    how: string;
  };
  expect(found.names).toEqual([
    'Firms near Brno.csv',
    'Firms near Brno.csv-metadata.json',
    'Firms near Brno.tape.json',
    'How this list was made.txt',
  ]);
  expect(found.rows.map((row) => row.Company)).toEqual(
    expect.arrayContaining(["'=Corbin GmbH", ...NAMES.slice(1)]),
  );
  expect(found.rows.find((row) => row.Town === 'Brno')).toMatchObject({
    Headcount: '120',
    'Revenue, EUR': '2500000.5',
    'Last checked': '2026-09-15',
  });
  const kinds = Object.fromEntries(
    found.meta.tableSchema.columns.map(({ name, datatype }) => [name, datatype]),
  );
  expect(kinds).toMatchObject({
    company: 'string',
    headcount: 'string',
    revenue_year: 'number',
    last_checked: 'date',
  });
  expect(found.meta.tableSchema.columns.map(({ titles }) => titles)).toEqual(Object.keys(found.rows[0]!));
  expect(found.how).toMatch(/All that pass\t4\t4/);
  expect(found.how).toMatch(/Firms\t2026-09-30\t4/);
});

test('CSV as others want it: semicolons, quotes round all, decimal commas, line feeds, German headings', async () => {
  const { bytes } = await desk.exported({
    ...{ delimiter: ';', quoteAll: true, decimalComma: true, lineEnd: 'lf', bom: true, language: 'de' },
    columns: ['name', 'revenue'],
    headings: { name: 'Kunde' },
  });
  const text = bytes.toString('utf8');
  expect(text.startsWith('\uFEFF"Kunde";"Umsatz, EUR";"Umsatz, Jahr";"Umsatz, Grundlage"\n')).toBe(true);
  expect(text).toContain('"Alderway ""Coat"" a.s.";"2500000,5";"2024";"reported"\n');
  expect(text).not.toContain('\r');
});

test('XLSX is read by openpyxl: types, formats, links, filters, marked estimates, and the tape', async () => {
  const { path } = await desk.exported({
    format: 'xlsx',
    columns: ['name', 'web', 'place', 'headcount', 'revenue', 'checked', 'founded'],
  });
  const found = desk.python(
    `import json, sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1])
sheet = book.worksheets[0]
cells = lambda row: [str(c.value) if c.is_date else c.value for c in row]
print(json.dumps({'sheets': book.sheetnames, 'rows': [cells(r) for r in sheet.iter_rows()], 'filter': sheet.auto_filter.ref, 'frozen': sheet.freeze_panes,
 'formats': [c.number_format for c in sheet[2]], 'all': {sheet.cell(r, 1).value: [c.number_format for c in sheet[r]] for r in range(2, 6)},
 'links': {sheet.cell(r, 1).value: sheet.cell(r, 2).hyperlink.target for r in range(2, 6) if sheet.cell(r, 2).hyperlink},
 'how': [[c.value for c in r] for r in book.worksheets[1].iter_rows()]}))`,
    path,
  ) as {
    sheets: string[];
    rows: unknown[][];
    filter: string;
    frozen: string;
    all: Record<string, string[]>;
    links: Record<string, string>;
    how: unknown[][];
  };
  expect(found.sheets).toEqual(['Companies', 'How this list was made']);
  const [heading, ...rows] = found.rows as [string[], ...unknown[][]];
  const cells = rows.map((row) => Object.fromEntries(heading.map((name, i) => [name, row[i]])));
  expect(cells.find((row) => row.Town === 'Brno')).toMatchObject({
    ...ALDERWAY,
    Founded: 1994,
    'Last checked': '2026-09-15 00:00:00',
  });
  expect(cells.find((row) => String(row.Company).startsWith('Brackfold'))).toMatchObject({
    Headcount: '10-49',
    'Headcount basis': 'band',
  });
  expect(found.filter).toBe('A1:M5');
  expect(found.frozen).toBe('A2');
  const formats = (name: string, column: string) => found.all[name]![heading.indexOf(column)];
  expect(formats('Alderway "Coat" a.s.', 'Revenue, EUR')).toBe('#,##0\\ [$EUR]');
  expect(formats('=Corbin GmbH', 'Headcount')).toBe('"≈ "#,##0');
  expect(formats('Alderway "Coat" a.s.', 'Founded')).toBe('General');
  expect(found.links['Alderway "Coat" a.s.']).toBe('https://alderway.example');
  expect(found.how).toEqual(expect.arrayContaining([expect.arrayContaining(['Companies in this list', 4])]));
});

test('a workbook has the Breakdown where it is asked for, its counts as bars', async () => {
  const { path } = await desk.exported({ format: 'xlsx', columns: ['name'], breakdown: true });
  const found = desk.python(
    `import json, sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1])
sheet = book['Breakdown']
print(json.dumps({'sheets': book.sheetnames, 'rows': [[c.value for c in r] for r in sheet.iter_rows()], 'bars': [str(r.sqref) for r in sheet.conditional_formatting]}))`,
    path,
  ) as { sheets: string[]; rows: (string | number | null)[][]; bars: string[] };
  expect(found.sheets).toEqual(['Companies', 'Breakdown', 'How this list was made']);
  const heads = found.rows.flatMap(([name, many], i) => (many === 'companies' ? [[name, i] as const] : []));
  expect(heads.map(([name]) => name).slice(0, 3)).toEqual([
    ...['Where they are', 'How large they are', 'What they do'],
  ]);
  expect(found.bars).toHaveLength(heads.length);
  const [first, second] = heads.map(([, at]) => at);
  const where = found.rows.slice(first! + 1, second! - 1);
  expect(where.reduce((sum, [, count]) => sum + Number(count), 0)).toBe(4);
});

test.each(['xlsx', 'ods'])(
  '%s opens in LibreOffice with the same cells',
  async (format) => {
    const { path } = await desk.exported({ format, name: 'Same' });
    desk.run('soffice', [
      '--headless',
      '--convert-to',
      'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true,false',
      '--outdir',
      dirname(path),
      path,
    ]);
    const rows = desk.python(
      `import csv, json, sys\nprint(json.dumps(list(csv.DictReader(open(sys.argv[1], encoding='utf-8')))))`,
      path.replace(/\.\w+$/, '.csv'),
    ) as Record<string, string>[];
    expect(rows.map((row) => row.Company).sort()).toEqual(NAMES);
    const one = rows.find((row) => row.Town === 'Brno')!;
    expect(one).toMatchObject({
      Headcount: '120',
      'Last checked': '2026-09-15',
      'Headcount basis': 'reported',
    });
    expect(Number(one['Revenue, EUR']!.replace(/[^\d.]/g, ''))).toBeCloseTo(2_500_000.5, -1);
    expect(rows.find((row) => String(row.Company).startsWith('Brackfold'))!.Headcount).toBe('10-49');
    expect(rows.find((row) => row.Town === 'Łódź')!.Headcount).toBe('');
  },
  90_000,
);

test('Parquet is read by DuckDB: types, ends of bands, and the tape in its metadata', async () => {
  const { path } = await desk.exported({ format: 'parquet' });
  const rows = await duck(`SELECT * FROM read_parquet('${path}') ORDER BY company`);
  expect(rows.map((row) => row.company)).toEqual(NAMES);
  expect(rows[1]).toMatchObject({
    town: 'Brno',
    headcount: 120,
    headcount_from: null,
    revenue_eur: 2_500_000.5,
    last_checked: '2026-09-15',
  });
  expect(rows[0]).toMatchObject({
    headcount: 88,
    headcount_from: 70,
    headcount_to: 110,
    headcount_basis: 'estimate (70-110)',
  });
  expect(rows[2]).toMatchObject({ headcount: null, headcount_from: 10, headcount_to: 49 });
  const types = await duck(
    `SELECT column_name, column_type FROM (DESCRIBE SELECT * FROM read_parquet('${path}'))`,
  );
  expect(
    Object.fromEntries(types.map(({ column_name, column_type }) => [column_name, column_type])),
  ).toMatchObject({
    ...{ key: 'VARCHAR', company: 'VARCHAR', headcount: 'DOUBLE', last_checked: 'DATE' },
  });
  const metadata = await duck(
    `SELECT decode(value) AS value FROM parquet_kv_metadata('${path}') WHERE decode(key) = 'just-tally.tape'`,
  );
  expect(JSON.parse(metadata[0]!.value as string)).toMatchObject({
    format: 'just-tally.tape',
    subject: 'companies',
  });
});

test('JSON Lines says what the API says, cell by cell', async () => {
  const columns = ['name', 'place', 'headcount', 'revenue', 'industry', 'web'];
  const { bytes, path } = await desk.exported({ format: 'jsonl', columns });
  const { body } = (await desk.api
    .post('/api/rows')
    .send({ tape: tape([]), columns, sort: [{ by: 'name', descending: false }] })) as { body: RowsAnswer };
  const lines = bytes
    .toString('utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as object);
  expect(lines).toEqual(body.rows.map(({ cells, ...rest }) => ({ ...rest, ...cells })));
  expect(
    await duck(`SELECT count(*)::INT AS n FROM read_json('${path}', format = 'newline_delimited')`),
  ).toEqual([{ n: 4 }]);
});

test('a SQLite file is read by the sqlite3 shell', async () => {
  const { path } = await desk.exported({ format: 'sqlite' });
  const sql = (text: string) => desk.run('sqlite3', [path, text]).trim();
  expect(sql('SELECT company, headcount, revenue_eur FROM companies ORDER BY revenue_eur DESC LIMIT 1')).toBe(
    'Alderway "Coat" a.s.|120.0|2500000.5',
  );
  expect(sql("SELECT value FROM how_made WHERE what = 'Companies in this list'")).toBe('4');
  expect(sql('PRAGMA integrity_check')).toBe('ok');
  expect(JSON.parse(sql('SELECT body FROM tape'))).toMatchObject({ subject: 'companies' });
});

test('GeoJSON has points, longitude first, and leaves out what has no place on the map', async () => {
  const { bytes, view } = await desk.exported({ format: 'geojson' });
  const whole = JSON.parse(bytes.toString('utf8')) as {
    type: string;
    features: {
      type: string;
      id: string;
      geometry: { type: string; coordinates: number[] };
      properties: Record<string, unknown>;
    }[];
  };
  expect(whole.type).toBe('FeatureCollection');
  for (const { type, geometry } of whole.features) {
    expect([type, geometry.type, geometry.coordinates.length]).toEqual(['Feature', 'Point', 2]);
    const [lon, lat] = geometry.coordinates as [number, number];
    expect(Math.abs(lon) <= 180 && Math.abs(lat) <= 90).toBe(true);
  }
  expect(whole.features.find(({ properties }) => properties.town === 'Brno')!.geometry.coordinates).toEqual([
    16.608, 49.195,
  ]);
  expect(view.count).toBe(3);
  expect(view.roll!.steps.at(-1)).toMatchObject({ step: 'unreachable', delta: -1, total: 3 });
});

test('GeoJSON has regions with how many, their outer rings anticlockwise', async () => {
  const { bytes } = await desk.exported({ format: 'geojson', areas: true });
  const { features } = JSON.parse(bytes.toString('utf8')) as {
    features: {
      id: string;
      geometry: { type: string; coordinates: number[][][] | number[][][][] };
      properties: { count: number; country: string };
    }[];
  };
  expect(features.map(({ properties }) => properties.country).sort()).toEqual([
    'Austria',
    'Czechia',
    'Poland',
  ]);
  for (const { geometry, properties } of features) {
    expect(properties.count).toBe(1);
    const polygons =
      geometry.type === 'Polygon'
        ? [geometry.coordinates as number[][][]]
        : (geometry.coordinates as number[][][][]);
    for (const [outer] of polygons) {
      expect(outer![0]).toEqual(outer!.at(-1));
      const area = outer!
        .slice(1)
        .reduce((sum, [x, y], i) => sum + outer![i]![0]! * y! - x! * outer![i]![1]!, 0);
      expect(area).toBeGreaterThan(0);
    }
  }
});

test('one file for each country, and one for every two rows', async () => {
  const names = async (split: object) => {
    const { path } = await desk.exported({ format: 'xlsx', name: 'Parts', split });
    return desk
      .run('/usr/bin/python3', ['-m', 'zipfile', '-l', path])
      .split('\n')
      .slice(1)
      .map((line) => line.split('.xlsx')[0]!.trim())
      .filter(Boolean);
  };
  expect(await names({ by: 'Country', field: 'place' })).toEqual(
    ['Parts - Austria', 'Parts - Czechia', 'Parts - Poland'].map(expect.stringContaining),
  );
  expect(await names({ rows: 2 })).toHaveLength(2);
  const wrong = await desk.asked({ split: { by: 'Nothing', field: 'place' } });
  expect(wrong.status).toBe(400);
  expect((wrong.body as { error: { field: string } }).error.field).toBe('split');
});

test.each(FORMATS.filter(({ id }) => id !== 'vcard').map(({ id }) => id))(
  'a %s opened again in Just Tally is the tape',
  async (format) => {
    const lines = [{ id: 'l1', field: 'headcount', test: { from: 50 } }];
    const { path } = await desk.exported({
      format,
      columns: ['name'],
      tape: { ...tape(lines), name: 'Larger ones' },
      beside: true,
    });
    const answer = await desk.api.post('/api/tape-files').attach('file', path);
    expect(answer.body).toEqual({ tape: { ...tape(lines), name: 'Larger ones' } });
  },
);

test('a file without a tape says so', async () => {
  const answer = await desk.api.post('/api/tape-files').attach('file', Buffer.from('a,b\n1,2\n'), 'x.csv');
  expect(answer.status).toBe(400);
  expect((answer.body as { error: { message: string } }).error.message).toMatch(/no tape in this file/);
  expect(readFileSync(join(desk.dir, 'handover.sqlite')).length).toBeGreaterThan(0);
});

test('what docs/hand-over.md shows for other programs does what it says', async () => {
  const columns = ['name', 'place', 'headcount', 'revenue'];
  const [csv, sqlite, parquet] = await Promise.all(
    ['csv', 'sqlite', 'parquet'].map(async (format) => (await desk.exported({ format, columns })).path),
  );
  const feed = await desk.api
    .post('/api/feeds')
    .send({ name: 'Docs', wish: { tape: tape([]), name: 'Docs', columns, format: 'csv' } });
  const address = desk.address + (feed.body as { address: string }).address;
  const page = readFileSync('docs/hand-over.md', 'utf8');
  const blocks = [...page.matchAll(/```(\w+)\n([\s\S]*?)```/g)].map(
    ([, language, code]) => [language!, code!] as const,
  );
  const pythons = blocks.filter(([language]) => language === 'python').map(([, code]) => code);
  expect(pythons).toHaveLength(3);
  for (const code of pythons) {
    // Not waited for in this thread, which answers at the address.
    const said = await desk.runBeside('/usr/bin/python3', [
      '-c',
      `import sys\nCSV, SQLITE, ADDRESS = sys.argv[1:4]\n${code}\nprint(len(rows))`,
      csv!,
      sqlite!,
      address,
    ]);
    expect([code, said.trim()]).toEqual([code, '4']);
  }
  const inR = blocks.filter(([language]) => language === 'r').map(([, code]) => code);
  expect(inR).toHaveLength(2);
  for (const code of inR) {
    const known = `CSV <- commandArgs(TRUE)[1]; ADDRESS <- commandArgs(TRUE)[2]`;
    const asked = 'cat(nrow(rows), names(rows)[1], rows[["Company"]], sep = "|")';
    const said = await desk.runBeside('Rscript', ['-e', [known, code, asked].join('\n'), csv!, address]);
    expect([code, said.trim().split('|').sort()]).toEqual([
      code,
      ["'=Corbin GmbH", '4', 'Alderway "Coat" a.s.', 'Brackfold, s.r.o.', 'Company', 'Łódź Ångström 日本'],
    ]);
  }
  const [sql] = blocks.filter(([language]) => language === 'sql').map(([, code]) => code);
  expect(await duck(sql!.replace('PARQUET', parquet!))).toMatchObject([
    { country: 'Czechia', companies: '2' },
    {},
    {},
  ]);
});
