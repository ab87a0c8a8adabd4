import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { exportColumns } from '../../core/exports/columns.ts';
import { columnFields, SUBJECTS } from '../../core/fields/registry.ts';
import { anyRecord, SOURCES } from '../../core/testing/any-record.ts';
import { anyRelated } from '../../core/testing/any-related.ts';
import { buildUniverse } from '../engine/opening/build-universe.ts';
import { RandomUniverse } from '../testing/random-universe.ts';
import { csvText } from './csv-text.ts';
import { exportRows, ROWS_A_BATCH, type InMemory } from './export-rows.ts';

/** What an export takes from memory is what it would read from the tables; what it writes is what a reader of CSV reads. */

const AS_OF = 20_726;
let random: RandomUniverse;
beforeAll(() => void (random = new RandomUniverse()));
afterAll(() => random.close());

test('cells from the columns in memory are those of the tables, over all fields of all subjects', () => {
  let held = 0;
  fc.assert(
    fc.property(
      fc.array(fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 })), { maxLength: 40 }),
      anyRelated,
      (records, related) => {
        random.fill(records, related);
        const universe = buildUniverse(random.db, random.reference.trees);
        const { stamp, revision } = universe;
        for (const subject of SUBJECTS.keys()) {
          const own = subject === 'companies' ? universe : universe.related.get(subject)!;
          const inMemory: InMemory = { ids: own.ids, columns: own.columns, stamp, revision };
          const fields = columnFields(subject).map(({ id }) => id);
          const read = (memory: InMemory | null) => {
            const rows = exportRows(random.db, subject, AS_OF, own.ids, fields, {}, memory);
            const all = Array.from({ length: Math.ceil(own.ids.length / ROWS_A_BATCH) }, (_, i) =>
              rows(i * ROWS_A_BATCH),
            ).flat();
            random.db.exec('COMMIT');
            return all;
          };
          const columns = exportColumns(subject, fields, 'EUR');
          const [fromTables, fromMemory] = [read(null), read(inMemory)];
          expect(fromMemory.map(({ cells }) => cells)).toEqual(fromTables.map(({ cells }) => cells));
          const values = (rows: typeof fromTables) =>
            rows.map((row) => columns.map((column) => column.value(row)));
          expect(values(fromMemory)).toEqual(values(fromTables));
          held += fromMemory.length;
          // Of another state of the universe nothing is taken from memory.
          expect(read({ ...inMemory, revision: revision + 1 })).toEqual(fromTables);
        }
      },
    ),
    { numRuns: 25 },
  );
  expect(held).toBeGreaterThan(500);
});

test('what is written as CSV is read as it was, whatever it holds, but that formulas begin with an apostrophe', () => {
  const cell = fc.oneof(
    fc.string({ unit: 'grapheme' }),
    fc.constantFrom('=1+1', '@x', '-5', '+420 777', 'a"b', 'a,b', 'a\r\nb', ''),
    fc.integer(),
    fc.constant(null),
  );
  const rows = fc.array(fc.array(cell, { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 8 });
  const options = fc.record({
    delimiter: fc.constantFrom(',', ';', '\t', '|'),
    bom: fc.boolean(),
    quoteAll: fc.boolean(),
    lineEnd: fc.constantFrom('crlf' as const, 'lf' as const),
  });
  fc.assert(
    fc.property(rows, options, (records, how) => {
      const text = csvText(records, how);
      expect(text.startsWith('\uFEFF')).toBe(how.bom);
      const read = parse(text, {
        delimiter: how.delimiter,
        bom: how.bom,
        record_delimiter: how.lineEnd === 'crlf' ? '\r\n' : '\n',
      });
      read.forEach((row, i) =>
        row.forEach((value, j) => {
          const was = records[i]![j] ?? '';
          expect(typeof was === 'string' && value === `'${was}` ? was : value).toBe(String(was));
        }),
      );
      expect(read).toHaveLength(records.length);
    }),
    { numRuns: 500 },
  );
  expect(csvText([['=1+1', '+420 777 1', '@x', '-5', -5]], { delimiter: ',' })).toBe(
    "'=1+1,+420 777 1,'@x,'-5,-5\r\n",
  );
  expect(csvText([[1.5, null]], { delimiter: ';', decimalComma: true, quoteAll: true })).toBe('"1,5";""\r\n');
  expect(csvText([[1.5]], { delimiter: ',', decimalComma: true })).toBe('"1,5"\r\n');
});
