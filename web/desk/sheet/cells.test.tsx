/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { Cell as RowCell, MoneyCell, QuantityCell, Row } from '../../../core/cells.ts';
import { emptyTape, type Tape } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { freshDesk, show, type Answers } from '../../testing/render.tsx';
import { NO_PICKS, withPicked } from '../picks.ts';
import { useDesk } from '../store.ts';
import { Cell } from './Cell.tsx';
import { ColumnChoice } from './ColumnChoice.tsx';
import { allColumns, columnOf } from './columns.ts';
import { rowsAsTable } from './copy-rows.ts';

beforeEach(freshDesk);

const reported = (amount: number, year: number | null = 2025): QuantityCell => ({
  basis: 'reported',
  low: amount,
  high: amount,
  amount,
  year,
});
const band = (low: number | null, high: number | null): QuantityCell => ({
  basis: 'band',
  low,
  high,
  amount: null,
  year: null,
});
const estimate = (amount: number): QuantityCell => ({
  basis: 'estimate',
  low: amount / 2,
  high: amount * 2,
  amount,
  year: 2025,
});
const money = (cell: QuantityCell, currency: string): MoneyCell => ({ ...cell, currency });

function Shown({ id, row, tape }: { id: string; row: Row; tape: Tape }) {
  const format = useFormat();
  return (
    <output>
      <Cell column={columnOf(tape, id)!} row={row} format={format} />
    </output>
  );
}
const settings = (more: object) => ({
  'GET /settings': {
    ...{ currency: 'EUR', distance: 'km', numbers: 'comma', dates: 'words', theme: 'day', paper: 'A4' },
    keys: true,
    asOf: null,
    ...more,
  },
});
/** What a cell says, to the eye and on hovering. */
async function told(
  id: string,
  cell: RowCell,
  more: Partial<Row> = {},
  answers: Answers = {},
  tape = emptyTape(),
) {
  const row: Row = { key: 'a', cells: { [id]: cell }, ...more };
  const { container, unmount, asked } = show(<Shown id={id} row={row} tape={tape} />, answers);
  await waitFor(() => expect(asked.some(({ path }) => path === '/settings')).toBe(true));
  await waitFor(() => expect(container.textContent).not.toBe(''));
  const marks = [...container.querySelectorAll('[role=img]')].map((mark) => mark.getAttribute('aria-label'));
  const text = [...marks, container.textContent].join(' ');
  const title = container.querySelector('[title]')?.getAttribute('title') ?? '';
  unmount();
  return [text, title];
}

describe('a cell of the sheet', () => {
  test('says a figure as it is: exact, a band, open to one side, or about', async () => {
    expect((await told('headcount', reported(1234)))[0]).toBe('1,234');
    expect((await told('headcount', band(10, 49)))[0]).toBe('10–49');
    expect((await told('headcount', band(250, null)))[0]).toBe('250+');
    const [text, note] = await told('headcount', estimate(100));
    expect(text).toBe('about 100');
    expect(note).toMatch(/estimate, 50–200, 2025/);
  });
  test('says why nothing is known', async () => {
    expect(await told('headcount', null)).toEqual(['unknown', 'unknown: not collected']);
    expect(await told('headcount', null, { why: { headcount: 'too old' } })).toEqual([
      'unknown',
      'unknown: too old',
    ]);
    expect((await told('revenue', null, { why: { revenue: 'withheld' } }))[0]).toBe('withheld');
  });
  test('has money in thousands of the workspace’s currency, and says what it was converted from', async () => {
    expect(await told('revenue', money(reported(2_500_000), 'EUR'))).toEqual(['2,500', 'reported for 2025']);
    const [text, note] = await told('revenue', money(reported(24_700_000), 'CZK'));
    expect(text).toBe('1,000');
    expect(note).toBe('reported for 2025, converted from CZK');
    // No rates are kept for so long ago.
    expect(await told('revenue', money(reported(1e6, 1990), 'CZK'))).toEqual([
      'unknown',
      'unknown: no exchange rate',
    ]);
  });
  test('writes signs, years, shares and days as they are read', async () => {
    expect((await told('founded', 1994))[0]).toBe('1994');
    expect((await told('checked', '2026-09-03'))[0]).toBe('3 Sep 2026');
    expect((await told('checked', '2026-09-03', {}, settings({ dates: 'dotted' })))[0]).toBe('3.9.2026');
    expect((await told('checked', '2026-09-03', {}, settings({ dates: 'iso' })))[0]).toBe('2026-09-03');
    expect((await told('headcount', reported(1234), {}, settings({ numbers: 'point' })))[0]).toBe('1.234');
    expect((await told('longitude', -3.818981))[0]).toBe('−3.81898');
    expect((await told('headcount-history', '2023:110; 2024:≈115'))[0]).toBe('2023:110; 2024:≈115');
  });
  test('names a place, a main code with its title, and values one after the other', async () => {
    const place = { town: 'Brno', region: 'South Moravia', country: 'CZ', countryName: 'Czechia' };
    expect((await told('place', { ...place, townKey: null, lat: null, lon: null }))[0]).toBe('Brno, Czechia');
    const codes = [
      { scheme: 'nace-2.1' as const, code: '16.10', title: 'Sawmilling', main: false },
      { scheme: 'nace-2.1' as const, code: '25.51', title: 'Coating of metals', main: true },
    ];
    const [text, all] = await told('industry', codes);
    expect(text).toBe('25.51 Coating of metals');
    expect(all).toMatch(/16\.10 Sawmilling \(NACE 2\.1\)/);
    expect((await told('technology', ['Rutavel', 'Planodor']))[0]).toBe('Rutavel, Planodor');
    expect((await told('technology', []))[0]).toBe('none seen');
  });
});

describe('columns of one’s own', () => {
  const tape: Tape = {
    ...emptyTape(),
    lines: [
      { id: 'p', has: 'people', lines: [{ id: 'q', field: 'department', test: { any: ['purchasing'] } }] },
      { id: 'n', field: 'place', test: { near: { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' } } },
    ],
  };
  test('come with the lines of a tape: how many, and how far', () => {
    const own = allColumns(tape).filter(({ field }) => field === null);
    expect(own.map(({ heading }) => heading)).toEqual(expect.arrayContaining(['People', 'Distance, km']));
    for (const column of own) expect(columnOf(tape, column.id)).toEqual(column);
  });
  test('are none where the line is gone, nor are columns of another subject', () => {
    const [own] = allColumns(tape).filter(({ field }) => field === null);
    expect(columnOf(emptyTape(), own!.id)).toBeNull();
    expect(columnOf(emptyTape('people'), 'revenue')).toBeNull();
  });
});

describe('the choice of columns', () => {
  const choose = (columns: string[]) => {
    const chosen: string[][] = [];
    const shown = show(
      <ColumnChoice
        tape={emptyTape()}
        columns={columns}
        tally={undefined}
        onColumns={(next) => chosen.push([...next])}
      />,
      { 'GET /column-sets': { sets: [] } },
    );
    return { ...shown, chosen };
  };
  test('moves, takes out and puts in', async () => {
    const { user, chosen } = choose(['name', 'headcount', 'web']);
    await user.click(screen.getByRole('button', { name: 'Headcount further right' }));
    await user.click(screen.getByRole('checkbox', { name: 'Headcount' }));
    await user.click(screen.getByRole('checkbox', { name: 'Founded' }));
    expect(chosen).toEqual([
      ['name', 'web', 'headcount'],
      ['name', 'web'],
      ['name', 'headcount', 'web', 'founded'],
    ]);
  });
  test('keeps one column, moves none over the ends, and finds others by name', async () => {
    const { user } = choose(['name']);
    const only: HTMLInputElement = screen.getByRole('checkbox', { name: 'Company' });
    const left: HTMLButtonElement = screen.getByRole('button', { name: 'Company further left' });
    const right: HTMLButtonElement = screen.getByRole('button', { name: 'Company further right' });
    expect([only.disabled, left.disabled, right.disabled]).toEqual([true, true, true]);
    await user.type(screen.getByPlaceholderText(/column/i), 'POSTC');
    expect(screen.getAllByRole('checkbox').map((box) => box.closest('label')!.textContent)).toEqual([
      'Company',
      'Postcode',
    ]);
  });
});

describe('rows as a table for the clipboard', () => {
  const rows: Row[] = [
    { key: 'a', cells: { name: 'Alder "Works"', web: '=SUM(1)' } },
    { key: 'b', cells: { name: 'Birch', web: null } },
    { key: 'c', cells: { name: 'Cedar\tand\nCo', web: 'c.example' } },
  ];
  const answers: Answers = {
    'POST /rows': (body: unknown) => {
      const { offset, limit } = body as { offset: number; limit: number };
      return { total: rows.length, rows: rows.slice(offset, offset + limit) };
    },
  };
  const copied = () => {
    show(null, answers);
    return rowsAsTable([columnOf(emptyTape(), 'name')!, columnOf(emptyTape(), 'web')!], 'EUR', 3);
  };
  test('are those picked, quoted where they have breaks, tabs or quotes, none to be run as a formula', async () => {
    useDesk.setState({
      picks: withPicked(
        NO_PICKS,
        [
          { key: 'a', at: 0 },
          { key: 'c', at: 2 },
        ],
        true,
      ),
    });
    expect((await copied()).split('\r\n')).toEqual([
      'Company\tWeb',
      '"Alder ""Works"""\t\'=SUM(1)',
      '"Cedar\tand\nCo"\tc.example',
    ]);
  });
  test('are that of the cursor where none is picked', async () => {
    useDesk.setState({ cursor: 1 });
    expect((await copied()).split('\r\n')).toEqual(['Company\tWeb', 'Birch\t']);
  });
});
