import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CELL_PARTS, madeCell, withMade, type CellPart, type MadeColumn } from './made-columns.ts';

const join: MadeColumn = { way: 'join', heading: 'Street', of: [1, 0], by: ' ' };
const part = (by: string, which: CellPart): MadeColumn => ({
  way: 'part',
  heading: 'Town',
  of: [0],
  by,
  part: which,
});

test.each([
  [['12', 'Lipová'], 'Lipová 12'],
  [['', ' Lipová '], 'Lipová'],
  [['12'], '12'],
  [[], ''],
])('%j joined in another order is %s', (cells, joined) => {
  expect(madeCell(join, cells)).toBe(joined);
});

test.each([
  ['602 00 Brno, Hutní 7, dvůr', 'before-first', '602 00 Brno'],
  ['602 00 Brno, Hutní 7, dvůr', 'after-first', 'Hutní 7, dvůr'],
  ['602 00 Brno, Hutní 7, dvůr', 'before-last', '602 00 Brno, Hutní 7'],
  ['602 00 Brno, Hutní 7, dvůr', 'after-last', 'dvůr'],
  ['Brno', 'before-first', 'Brno'],
  ['Brno', 'after-last', ''],
  ['', 'before-first', ''],
] as const)('of “%s” what stands %s is “%s”', (cell, which, found) => {
  expect(madeCell(part(',', which), [cell])).toBe(found);
});

test('before and after, with the text between, are the whole cell', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('a', 'b', ',') }),
      fc.constantFrom('first', 'last'),
      (cell, end) => {
        const [before, after] = CELL_PARTS.filter((one) => one.endsWith(end)).map((one) =>
          madeCell(part(',', one), [cell]),
        );
        expect(cell.includes(',') ? `${before},${after}` : before).toBe(cell);
      },
    ),
  );
});

test('made cells stand behind those of the file, whatever the length of a row', () => {
  const made: MadeColumn[] = [join, { way: 'same', heading: 'Country', text: 'CZ' }];
  expect(withMade(made, ['12', 'Lipová', 'x'], 3)).toEqual(['12', 'Lipová', 'x', 'Lipová 12', 'CZ']);
  expect(withMade(made, ['12'], 3)).toEqual(['12', '', '', '12', 'CZ']);
  expect(withMade(made, ['12', 'Lipová', 'x', 'too much'], 3)).toEqual([
    '12',
    'Lipová',
    'x',
    'Lipová 12',
    'CZ',
    'too much',
  ]);
});
