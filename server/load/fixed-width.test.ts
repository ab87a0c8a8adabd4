import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cutLine, isRule, textColumns } from './fixed-width.ts';

/** Text that is set in columns by blanks. */

const lines = (text: string) => text.split('\n');

const LIST = lines(`Firma                     Ort             PLZ    MA     Umsatz (Mio EUR)
Almtaler Stiegenbau GmbH  Gmunden         4810   45     6,2
Brunnauer Metall KG       Wels            4600   120    18,4
Donauhof Holzwerk GmbH    Linz            4020   260    44,0`);

const cut = (text: readonly string[]) => text.map((line) => cutLine(line, textColumns(text)!));

describe('text set in columns', () => {
  test('is parted where every line is blank, a heading of several words staying one', () => {
    expect(cut(LIST)).toEqual([
      ['Firma', 'Ort', 'PLZ', 'MA', 'Umsatz (Mio EUR)'],
      ['Almtaler Stiegenbau GmbH', 'Gmunden', '4810', '45', '6,2'],
      ['Brunnauer Metall KG', 'Wels', '4600', '120', '18,4'],
      ['Donauhof Holzwerk GmbH', 'Linz', '4020', '260', '44,0'],
    ]);
  });

  test('keeps figures that stand at the right of their column, and cells that are empty', () => {
    const text = lines(`Company          Staff   Revenue
Acorn Rail          45     1,200
Birchline          120
Cobble & Sons              9,400`);
    expect(cut(text)).toEqual([
      ['Company', 'Staff', 'Revenue'],
      ['Acorn Rail', '45', '1,200'],
      ['Birchline', '120', ''],
      ['Cobble & Sons', '', '9,400'],
    ]);
  });

  test('goes by the dashes below its headings, whatever stands close together', () => {
    const text = lines(`NAME         ST ZIP   STAFF
------------ -- ----- -----
ACORN RAIL W OH 45402    45
BIRCHLINE ST OH 43604    12
COBBLE & SON OH 44308     8
`);
    expect(isRule(text[1]!)).toBe(true);
    expect(cut(text).slice(2, 4)).toEqual([
      ['ACORN RAIL W', 'OH', '45402', '45'],
      ['BIRCHLINE ST', 'OH', '43604', '12'],
    ]);
  });

  test('takes a file of very many lines', () => {
    const many = Array.from({ length: 200_000 }, () => LIST[1]!);
    expect(textColumns([LIST[0]!, ...many])).toEqual(textColumns(LIST));
  });

  test('says of a line that does not keep to the columns that it has a cell too many', () => {
    const columns = textColumns(LIST)!;
    const long = 'Eine viel zu lange Firma GmbH & Co KG  Graz  8010';
    expect(cutLine(long, columns)).toHaveLength(columns.length + 1);
    expect(cutLine(long, columns).at(-1)).toBe(long);
  });

  test('is none where a mark parts the cells, where few lines have gaps, or where there are two lines', () => {
    expect(textColumns(['a;   b', 'c;   d', 'e;   f', 'g;   h'])).toBeNull();
    expect(textColumns(['name,   town', 'A,      B', 'C,      D', 'E,      F'])).toBeNull();
    expect(textColumns(['one word', 'and  another', 'and one more', 'the last one'])).toBeNull();
    expect(textColumns(LIST.slice(0, 2))).toBeNull();
    expect(textColumns([])).toBeNull();
  });

  test('gives back whatever table was set with two blanks between its columns', () => {
    const word = fc.stringMatching(/^[A-Za-z0-9.&,-]{1,9}$/).filter((text) => !/^[-=]+$/.test(text));
    const cell = fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.join(' '));
    const table = fc
      .integer({ min: 2, max: 5 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 8, maxLength: 20 }),
      );
    fc.assert(
      fc.property(table, (rows) => {
        const widths = rows[0]!.map((_, i) => Math.max(...rows.map((row) => row[i]!.length)) + 2);
        const text = rows.map((row) =>
          row
            .map((one, i) => one.padEnd(widths[i]!))
            .join('')
            .trimEnd(),
        );
        const columns = textColumns(text);
        // Words that happen to stand below each other in every line may part a column further; nothing is lost or torn.
        fc.pre(columns !== null);
        text.forEach((line, i) => {
          const cells = cutLine(line, columns);
          expect(cells.filter(Boolean).join(' ')).toBe(rows[i]!.join(' '));
        });
      }),
    );
  });
});
