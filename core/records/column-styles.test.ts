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
