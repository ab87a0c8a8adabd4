import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { carriedColumns, readyCells } from './carried.ts';

const column = (...values: string[]) => values.map((value) => ({ Told: value }));
const kindOf = (...values: string[]) => carriedColumns(column(...values))[0]?.kind;
const numbersOf = (...values: string[]) =>
  readyCells(column(...values)).map((cells) => cells[0]?.number ?? null);

describe('what a column of a file is, by what stands in it', () => {
  test.each([
    ['figures', ['3', '12.5', '−4'], 'number'],
    ['figures with words for nothing between', ['3', 'n/a', '-', '12'], 'number'],
    ['numbers of things, which begin with zeros', ['00123', '00456'], 'category'],
    ['longer figures than any quantity has', ['420123456789', '420123456780'], 'category'],
    ['figures beside words', ['3', 'many'], 'category'],
    ['a long remark', ['x'.repeat(61)], 'text'],
  ])('%s: %s', (_, values, kind) => {
    expect(kindOf(...values)).toBe(kind);
  });

  test('many different words are a text, the same ones again and again a category', () => {
    const different = Array.from({ length: 40 }, (_, i) => `Stand ${i}`);
    expect(kindOf(...different)).toBe('text');
    expect(kindOf(...different, ...different)).toBe('category');
    expect(kindOf(...Array.from({ length: 200 }, (_, i) => `Stand ${i % 61}`))).toBe('text');
  });

  test('nothing but words for nothing is no column at all', () => {
    expect(carriedColumns(column('', 'n/a', ' '))).toEqual([]);
    expect(carriedColumns([])).toEqual([]);
  });

  test('a heading of nothing but quotes is none, a long one is cut', () => {
    const long = 'x'.repeat(250);
    expect(carriedColumns([{ '""': 'a', [long]: 'b' }])).toEqual([
      { column: 'x'.repeat(200), kind: 'category' },
    ]);
    expect(readyCells([{ '""': 'a' }])).toEqual([[]]);
  });

  test('columns stand in the order in which they come up, without quotes in their names', () => {
    expect(
      carriedColumns([
        { 'Say "when"': '', Hall: '' },
        { Hall: '3', 'Say "when"': 'later' },
      ]),
    ).toEqual([
      { column: 'Say when', kind: 'category' },
      { column: 'Hall', kind: 'number' },
    ]);
  });
});

describe('cells made ready to be asked', () => {
  test('numbers are read with the mark that the column shows', () => {
    expect(numbersOf('1.250,5', '3')).toEqual([1250.5, 3]);
    expect(numbersOf('1,250.5', '1,000')).toEqual([1250.5, 1000]);
    expect(numbersOf('1.250', '2.000')).toEqual([1250, 2000]);
    expect(numbersOf('n/a', '7')).toEqual([null, 7]);
  });

  test('texts are compared without accents, case and quotes', () => {
    expect(readyCells(column('  Hala "Č" '))).toEqual([
      [{ column: 'Told', text: 'Hala "Č"', folded: 'hala c', number: null }],
    ]);
  });

  test('whatever stands in a file, every cell that says something is kept, and what is called a number is one', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 12 }), { maxLength: 20 }), (values) => {
        const members = column(...values);
        const [kind] = carriedColumns(members).map((one) => one.kind);
        const ready = readyCells(members);
        expect(ready).toHaveLength(values.length);
        for (const [cell] of ready) if (cell) expect(Number.isFinite(cell.number)).toBe(kind === 'number');
      }),
    );
  });
});
