import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import ExcelJS from 'exceljs';
import type { ClustersAnswer } from '../contract/market.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import type { Cell, CodeCell, MoneyCell, PlaceCell, QuantityCell, Row } from '../core/cells.ts';
import { safeText } from '../core/exports/safe-text.ts';
import type { Field } from '../core/fields/field.ts';
import { SUBJECTS } from '../core/fields/registry.ts';
import { SCHEMES } from '../core/codes/tree.ts';
import { converted } from '../core/money/rates.ts';
import { TestServer } from '../server/testing/test-server.ts';
import { startDemo } from './demo-server.ts';

/** Every column of every subject, from the sheet into a file, and every subject on the map. */

const server = new TestServer();
beforeAll(() => startDemo(server, 1500), 120_000);
afterAll(() => server.stop());

const SHOWN = 400;
const whole = (subject: string, lines: object[] = []) => ({
  format: 'just-tally.tape',
  version: 1,
  subject,
  lines,
});

async function sheet(subject: string, columns: string[]): Promise<RowsAnswer> {
  const answer = await server.api
    .post('/api/rows')
    .send({ tape: whole(subject), columns, limit: SHOWN, offset: 0 });
  expect([subject, answer.status]).toEqual([subject, 200]);
  return answer.body as RowsAnswer;
}

/** The file of an export of the first rows. */
/** Nothing is kept off, so that every row comes out. */
const ALONG = ['our-customers', 'asked-not-to-be-written-to'].map((list) => ({ list, reason: 'every row' }));

async function exported(subject: string, columns: string[], total: number, more: object): Promise<Buffer> {
  const last = Math.min(SHOWN, total) - 1;
  const started = await server.api
    .post('/api/exports')
    .send({ tape: whole(subject), name: 'All columns', columns, ranges: [[0, last]], along: ALONG, ...more });
  expect(started.status).toBe(202);
  const { job, export: id } = started.body as { job: { id: string }; export: string };
  expect((await server.ended(job.id)).job.state).toBe('done');
  const file = await server.api
    .get(`/api/exports/${id}/file`)
    .buffer(true)
    .parse((response, done) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () => done(null, Buffer.concat(chunks)));
    });
  return file.body as Buffer;
}

const plain = (cell: Cell) => (typeof cell === 'string' || typeof cell === 'number' ? String(cell) : '');

/** What a file must hold for a cell of the sheet, by the kinds of cells there are; money is only checked in its own currency. */
function expected(cell: Cell, field: Field, row: Row): (string | RegExp)[] {
  const quantity = (value: QuantityCell) => {
    if (value.amount !== null) return String(Math.round(value.amount * 100) / 100);
    const low = Math.round((value.low ?? 0) * 100) / 100;
    return value.high === null ? `${low}+` : `${low}-${Math.round(value.high * 100) / 100}`;
  };
  const basis = () => {
    if (cell === null) return `unknown: ${row.why?.[field.id] ?? 'not collected'}`;
    const { basis: how, low, high } = cell as QuantityCell;
    if (how !== 'estimate' || low === null || high === null || low === high) return how;
    if (field.kind === 'money' && (cell as MoneyCell).currency !== 'EUR')
      return /^estimate \([\d.]+-[\d.]+\)$/;
    return `estimate (${Math.round(low * 100) / 100}-${Math.round(high * 100) / 100})`;
  };
  switch (field.kind) {
    case 'place': {
      const place = cell as PlaceCell | null;
      return [place?.town ?? '', place?.region ?? '', place?.countryName ?? ''];
    }
    case 'codes': {
      const codes = (cell as CodeCell[] | null) ?? [];
      const main = codes.find((code) => code.main);
      const scheme = (main ?? codes[0])?.scheme;
      const all = codes.map((one) =>
        one.scheme === scheme ? one.code : `${SCHEMES[one.scheme]} ${one.code}${one.main ? ' main' : ''}`,
      );
      return [main?.code ?? '', main?.title ?? '', scheme ? SCHEMES[scheme] : '', all.join('; ')];
    }
    case 'money': {
      const money = cell as MoneyCell | null;
      const amount = !money ? '' : money.currency === 'EUR' ? quantity(money) : /^$|^[-\d.]+(-[\d.]+|\+)?$/;
      return [amount, money?.year ? String(money.year) : '', basis()];
    }
    case 'number':
      if (field.store.at === 'column') return [plain(cell)];
      return [
        cell === null ? '' : quantity(cell as QuantityCell),
        plain((cell as QuantityCell | null)?.year ?? null),
        basis(),
      ];
    case 'growth':
      return [plain(cell)];
    default: {
      if (cell === null) return [''];
      if (Array.isArray(cell))
        return [safeText((cell as string[]).join('; ')) || (field.kind === 'category' ? 'none' : '')];
      const label = field.values?.find(({ key }) => key === cell)?.label;
      return [typeof cell === 'number' ? plain(cell) : safeText(label ?? plain(cell))];
    }
  }
}

describe.each([...SUBJECTS.values()].map(({ id, fields }) => [id, fields] as const))(
  '%s',
  (subject, fields) => {
    const shown = fields.filter(({ column }) => column);
    const columns = shown.map(({ id }) => id);

    test('every column comes out as the sheet has it', async () => {
      const { rows, total } = await sheet(subject, columns);
      expect(total).toBeGreaterThan(0);
      const csv = (await exported(subject, columns, total, { format: 'csv' })).toString();
      const [head, ...body] = parse(csv);
      expect(body).toHaveLength(rows.length);
      rows.forEach((row, r) => {
        const wanted = shown.flatMap((field) => expected(row.cells[field.id] ?? null, field, row));
        expect(head).toHaveLength(wanted.length);
        wanted.forEach((want, c) => {
          const told = [head![c], body[r]![c]];
          if (want instanceof RegExp) expect(told).toEqual([head![c], expect.stringMatching(want)]);
          else expect(told).toEqual([head![c], want]);
        });
      });
    });

    test('all columns at once have their foot, and are kept as a set', async () => {
      const foot = await server.api
        .post('/api/summary')
        .send({ tape: whole(subject), columns, currency: 'EUR' });
      expect([subject, foot.status]).toEqual([subject, 200]);
      const set = await server.api
        .post('/api/column-sets')
        .send({ subject, name: 'All there is', columns, usual: false });
      expect([subject, set.status]).toEqual([subject, 201]);
    });

    test('a workbook has the same cells as the text file, numbers as numbers', async () => {
      const { total } = await sheet(subject, columns.slice(0, 1));
      const csv = (await exported(subject, columns, total, { format: 'csv' })).toString();
      const [head, ...body] = parse(csv);
      const book = new ExcelJS.Workbook();
      await book.xlsx.load(
        (await exported(subject, columns, total, { format: 'xlsx' })).buffer as ArrayBuffer,
      );
      const sheetOf = book.worksheets[0]!;
      expect(sheetOf.rowCount).toBe(body.length + 1);
      head!.forEach((heading, c) => expect(sheetOf.getCell(1, c + 1).value).toBe(heading));
      body.forEach((row, r) =>
        row.forEach((text, c) => {
          const cell = sheetOf.getCell(r + 2, c + 1).value;
          // A link shows its text.
          const value = cell !== null && typeof cell === 'object' && 'hyperlink' in cell ? cell.text : cell;
          const asText =
            value === null
              ? ''
              : value instanceof Date
                ? value.toISOString().slice(0, 10)
                : plain(value as string | number);
          expect([head![c], asText]).toEqual([head![c], text]);
        }),
      );
    });

    test('every column sorts, both ways, with the unknown last', async () => {
      for (const field of shown.filter(({ column }) => column!.sortable !== false)) {
        for (const descending of [false, true]) {
          const answer = await server.api.post('/api/rows').send({
            tape: whole(subject),
            columns: [field.id],
            sort: [{ by: field.id, descending }],
            limit: SHOWN,
            offset: 0,
          });
          expect([field.id, answer.status]).toEqual([field.id, 200]);
          const { rows } = answer.body as RowsAnswer;
          const known = rows.map(({ cells }) => {
            const cell = cells[field.id] ?? null;
            if (field.kind === 'money' && cell) {
              const { currency, year } = cell as MoneyCell;
              return converted(1, currency, 'EUR', year) !== null;
            }
            return cell !== null && !(Array.isArray(cell) && cell.length === 0);
          });
          if (!['place', 'codes'].includes(field.kind))
            expect([field.id, known.lastIndexOf(true) <= known.filter(Boolean).length - 1]).toEqual([
              field.id,
              true,
            ]);
        }
      }
    });

    test('is drawn on the map: those in view are in clusters or by themselves', async () => {
      const world = { west: -180, east: 180, south: -84, north: 84, cells: 60 };
      const of = async (view: object) => {
        const answer = await server.api.post('/api/clusters').send({ tape: whole(subject), ...view });
        expect(answer.status).toBe(200);
        return answer.body as ClustersAnswer;
      };
      const all = await of(world);
      expect(all.located).toBeGreaterThan(0);
      expect(all.inView).toBe(all.located);
      const held = (answer: ClustersAnswer) =>
        answer.singles.length + answer.clusters.filter((_, i) => i % 3 === 2).reduce((sum, n) => sum + n, 0);
      expect(held(all)).toBe(all.inView);
      const { west, east, south, north, outside } = all.extent!;
      const fitted = await of({ west, east: east + 1e-6, south, north: north + 1e-6, cells: 60 });
      expect(fitted.located).toBe(all.located);
      expect(Math.abs(fitted.inView + outside - all.located)).toBeLessThanOrEqual(
        Math.max(2, 0.02 * all.located),
      );
    });
  },
);
