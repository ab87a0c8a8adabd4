import { describe, expect, test } from '@jest/globals';
import type { Cell } from './cells.ts';
import { findValues, learnField, type Pointed } from './field-rule.ts';
import { shapeOf } from './shape.ts';
import { taken, takesFor } from './take.ts';

/** A cell of a row, in the order of the page; what is not told of it says nothing. */
const cell = (node: number, text: string, more: Partial<Cell> = {}): Cell => ({
  node,
  source: 'text',
  text,
  shape: shapeOf(text),
  label: '',
  path: 'li>span',
  marks: [],
  index: `${node}`,
  depth: 1,
  ...more,
});
const pointedAt = (cells: readonly Cell[], at: Cell, others: Pointed['others'] = []): Pointed => ({
  cell: at,
  wanted: null,
  cells,
  others,
});
const values = (rules: Parameters<typeof findValues>[0], cells: readonly Cell[]) =>
  Object.fromEntries(findValues(rules, cells).map(({ field, value }) => [field, value]));

describe('a field that is called by a mark', () => {
  const row = (name: string, town: string, trade: string) => [
    cell(1, name, { marks: ['span.name'] }),
    cell(2, trade, { marks: ['span.trade'] }),
    cell(3, town, { marks: ['span.town'] }),
  ];
  const rows = [
    row('Drevanko', 'Brno', 'joinery'),
    row('Halvek', 'Zlín', 'paint shop'),
    row('Tonbru', 'Tišnov', 'coating'),
  ];
  const rules = [
    learnField('name', [pointedAt(rows[0]!, rows[0]![0]!)], rows),
    learnField('town', [pointedAt(rows[0]!, rows[0]![2]!)], rows),
  ];

  test('is found by it in every row, whatever the value looks like', () => {
    expect(rules[1]).toMatchObject({ key: 'm:span.town', single: true });
    for (const [i, [name, town]] of [
      ['Drevanko', 'Brno'],
      ['Halvek', 'Zlín'],
      ['Tonbru', 'Tišnov'],
    ].entries())
      expect(values(rules, rows[i]!)).toEqual({ name, town });
  });

  test('is left out in a row that has not its mark', () => {
    const short = [cell(1, 'Lakovna', { marks: ['span.name'] }), cell(2, 'x', { marks: ['span.trade'] })];
    expect(values(rules, short)).toEqual({ name: 'Lakovna' });
  });
});

describe('a field that is called by the words before it', () => {
  const row = (...phones: [label: string, number: string][]) => [
    cell(1, 'Firm', { path: 'li>b' }),
    ...phones.map(([label, number], i) => cell(3 + 2 * i, number, { label })),
  ];
  const rows = [
    row(['tel', '+420 000 000 100'], ['fax', '+420 000 000 101']),
    row(['fax', '+420 000 000 201'], ['tel', '+420 000 000 200']),
    row(['tel', '+420 000 000 300']),
    row(['fax', '+420 000 000 401']),
  ];
  const phone = learnField('phone', [pointedAt(rows[0]!, rows[0]![1]!)], rows);

  test('follows the words, not the place', () => {
    expect(values([phone], rows[1]!)).toEqual({ phone: '+420 000 000 200' });
    expect(values([phone], rows[2]!)).toEqual({ phone: '+420 000 000 300' });
  });

  test('is none in a row where other words stand before the only number', () => {
    expect(values([phone], rows[3]!)).toEqual({});
  });
});

describe('several fields of one row', () => {
  const cells = [cell(1, 'Drevanko'), cell(2, '602 00 Brno'), cell(3, '+420 000 000 100')];
  const rules = [
    learnField('postcode', [pointedAt(cells, cells[1]!)], [cells]),
    learnField('town', [pointedAt(cells, cells[1]!)], [cells]),
    learnField('name', [pointedAt(cells, cells[0]!)], [cells]),
  ];

  test('may take different parts of one cell', () => {
    expect(values(rules, cells)).toEqual({ name: 'Drevanko', postcode: '602 00', town: 'Brno' });
  });

  test('come in the order of the rules, each at least as sure as is asked', () => {
    const found = findValues(rules, cells);
    expect(found.map(({ field }) => field)).toEqual(['postcode', 'town', 'name']);
    for (const { sure } of found) expect(sure).toBeGreaterThanOrEqual(0.4);
  });

  test('do not take the same cell whole', () => {
    const twice = ['name', 'owner'].map((field) => learnField(field, [pointedAt(cells, cells[0]!)], [cells]));
    expect(findValues(twice, [cell(1, 'Halvek')])).toHaveLength(1);
  });
});

test('a value from an attribute is never looked for in the words', () => {
  const link = cell(1, 'https://drevanko.example', { source: 'href', marks: ['a.web'] });
  const rule = learnField('web', [pointedAt([link], link)], [[link]]);
  expect(rule).toMatchObject({ source: 'href', take: 'web' });
  expect(values([rule], [cell(1, 'drevanko.example', { marks: ['a.web'] })])).toEqual({});
  expect(
    values([rule], [cell(4, 'https://halvek.example', { source: 'href', marks: ['a.web'] })]),
  ).toHaveProperty('web');
});

describe('a take', () => {
  test.each([
    ['whole', 'Tel.: +420 000 000 100', 'Tel.: +420 000 000 100'],
    ['phone', 'tel:+420000000100', '+420000000100'],
    ['mail', 'mailto:info@drevanko.example', 'info@drevanko.example'],
    ['postcode', 'Lipová 3, 602 00 Brno', '602 00'],
    ['town', 'Lipová 3, 602 00 Brno', 'Brno'],
    ['mail', 'no address here', ''],
  ] as const)('%s of %j is %j', (take, text, expected) => {
    expect(taken(take, text)).toBe(expected);
  });

  test('what was marked within a cell is found again by a take', () => {
    const text = 'Lipová 3, 602 00 Brno';
    for (const [field, wanted] of [
      ['postcode', '602 00'],
      ['town', 'Brno'],
    ] as const)
      expect(takesFor(field, text, wanted).map((take) => taken(take, text))).toContain(wanted);
  });
});
