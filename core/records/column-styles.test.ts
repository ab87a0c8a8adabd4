import { expect, test } from '@jest/globals';
import { guessStyles, stylesOf } from './column-styles.ts';

/** How each column is written: by all of its cells, its heading and its neighbours. */

const guess = (header: string[], ids: (string | null)[], rows: string[][], delimiter = ';') =>
  guessStyles(header, rows, ids, new Map(), { delimiter, sameCode: () => true });

test('a column’s own figures show its mark, and its neighbours that of one that does not', () => {
  const { styles, undecided, decimal } = guess(
    ['Firma', 'Umsatz', 'Gewinn'],
    ['name', 'revenue', 'profit'],
    [
      ['A', '1.250.000,5', '1.250'],
      ['B', '3,25', '900'],
    ],
  );
  expect(styles.map((style) => style.decimal)).toEqual([undefined, ',', ',']);
  expect([undecided, decimal]).toEqual([[], ',']);
});

test('where nothing shows the mark and it matters, somebody has to say it', () => {
  const rows = [
    ['A', '1.250'],
    ['B', '12.500'],
  ];
  const english = guess(['Company', 'Revenue'], ['name', 'revenue'], rows, ';');
  expect(english.undecided).toEqual([{ column: 1, what: 'decimal' }]);
  expect(english.styles[1]!.decimal).toBeUndefined();
  // Commas between cells: English figures have points.
  expect(guess(['Company', 'Revenue'], ['name', 'revenue'], rows, ',').styles[1]!.decimal).toBe('.');
  expect(guess(['Firma', 'Umsatz'], ['name', 'revenue'], rows).styles[1]!.decimal).toBe(',');
  // Nobody employs a part of a person.
  const staff = guess(['Company', 'Employees'], ['name', 'headcount'], rows);
  expect([staff.undecided, staff.styles[1]!.decimal]).toEqual([[], ',']);
});

test('money has the unit and currency of its own heading', () => {
  const { styles } = guess(
    ['Revenue (EUR k)', 'Profit in Mio. CZK', 'Total assets', 'Amount from, USD'],
    ['revenue', 'profit', 'assets', 'amount-from'],
    [['1', '2', '3', '4']],
  );
  expect(styles).toMatchObject([
    { unit: 1000, currency: 'EUR' },
    { unit: 1e6, currency: 'CZK' },
    { unit: 1 },
    { unit: 1, currency: 'USD' },
  ]);
  expect(styles[2]!.currency).toBeUndefined();
});

test('dates that fit both orders are those of another column, or have to be said', () => {
  const ids = ['checked', 'surveyed'];
  const decided = guess(['Checked', 'Surveyed'], ids, [
    ['03/04/2026', '31/12/2025'],
    ['05/06/2026', '01/02/2026'],
  ]);
  expect(decided.styles.map(({ dates }) => dates)).toEqual(['dmy', 'dmy']);
  const open = guess(['Checked', 'Surveyed'], ids, [['03/04/2026', '2026-01-02']]);
  expect(open.undecided).toEqual([{ column: 0, what: 'dates' }]);
  const both = guess(['Checked', 'Surveyed'], ids, [
    ['31/12/2025', ''],
    ['12/31/2025', ''],
  ]);
  expect(both.undecided).toEqual([{ column: 0, what: 'dates' }]);
});

test('what is not read has no style, and each kind of column its own choices', () => {
  expect(guess(['Note'], [null], [['1,5']]).styles).toEqual([{}]);
  expect(
    ['revenue', 'amount-to', 'headcount', 'share', 'checked', 'main-code', 'name'].map(stylesOf),
  ).toEqual([
    ['decimal', 'unit', 'currency'],
    ['decimal', 'unit', 'currency'],
    ['decimal'],
    ['decimal'],
    ['dates'],
    ['scheme'],
    [],
  ]);
});

test.each([
  ['nothing says what it is counted in', 'Profit', ['1,204', '-120'], ['unit']],
  ['its heading names a currency', 'Profit (EUR)', ['1,204'], []],
  ['its heading has a unit', 'Profit (EUR m)', ['1,204'], []],
  ['its cells have units', 'Profit', ['1.2 bn', '120m'], []],
  ['its figures are larger than any of revenue', 'Profit', ['1,204,000', '-120,000'], []],
])('beside revenue in millions money is asked about where %s', (_, heading, profits, asked) => {
  const rows = profits.map((profit, i) => ['A', ['12,450', '8,800'][i]!, profit]);
  const { undecided } = guess(
    ['Company', 'Revenue ($ millions)', heading],
    ['name', 'revenue', 'profit'],
    rows,
    ',',
  );
  expect(undecided).toEqual(asked.map((what) => ({ column: 2, what })));
});

test('beside revenue in units no unit is asked for', () => {
  const { undecided } = guess(
    ['Company', 'Revenue', 'Profit'],
    ['name', 'revenue', 'profit'],
    [['A', '12450', '120']],
  );
  expect(undecided).toEqual([]);
});

test('each money is of the year that its heading names, and headcounts too', () => {
  const { styles } = guess(
    ['Revenue 2023', 'Profit 2022', 'Staff 2021', 'Assets', 'Founded 1998'],
    ['revenue', 'profit', 'headcount', 'assets', 'founded'],
    [['1', '2', '3', '4', '1998']],
  );
  expect(styles.map(({ year }) => year)).toEqual([2023, 2022, 2021, undefined, undefined]);
});

test('classes of staff by codes are known by their heading and their codes', () => {
  const bands = (heading: string, ...cells: string[]) =>
    guess(
      [heading],
      ['headcount'],
      cells.map((cell) => [cell]),
    ).styles[0]!.bands;
  expect(bands('trancheEffectifsUniteLegale', '12', 'NN')).toBe('insee');
  expect(bands('trancheEffectifsUniteLegale', '12', '120')).toBeUndefined();
  expect(bands('Effectifs', '12', '11')).toBeUndefined();
});
