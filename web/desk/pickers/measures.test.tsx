/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, within } from '@testing-library/react';
import { emptyTape, type MoneyTest } from '../../../core/tape/nodes.ts';
import { useDesk } from '../store.ts';
import { bars, pick, value } from '../../testing/picker.tsx';
import { freshDesk } from '../../testing/render.tsx';
import { GrowthPicker } from './GrowthPicker.tsx';
import { KeyedPicker } from './KeyedPicker.tsx';
import { RangePicker } from './RangePicker.tsx';

beforeEach(freshDesk);

const HEADS = bars([40, 20, 0, 7], [10, 50, 250], { unknown: 5, reasons: { 'not collected': 5 } });
const answers = (counts: unknown) => ({
  'POST /counts': counts,
  'POST /alternatives': ({ tests }: { tests: unknown[] }) => ({ counts: tests.map((_, i) => 100 + i) }),
});
const bar = (name: RegExp) => screen.getByRole('button', { name });

describe('bars', () => {
  test('go from the first that has any to the last, each with what it leaves', async () => {
    pick(RangePicker, 'headcount', answers(bars([0, 20, 0, 7, 0], [10, 50, 250, 1000])));
    await screen.findByRole('button', { name: '10 to 49: 20 companies' });
    const names = screen
      .getAllByRole('button', { name: /: \d+ companies$/ })
      .map((one) => one.getAttribute('aria-label'));
    expect(names).toEqual(['10 to 49: 20 companies', '50 to 249: 0 companies', '250 to 999: 7 companies']);
  });
  test('are taken by a press, over several by a drag in either way, and one by Enter', async () => {
    const { last } = pick(RangePicker, 'headcount', answers(HEADS));
    fireEvent.mouseDown(await screen.findByRole('button', { name: /^10 to 49:/ }));
    expect(last()).toEqual({ from: 10, to: 49 });
    fireEvent.mouseEnter(bar(/^250 or more:/));
    expect(last()).toEqual({ from: 10 });
    fireEvent.mouseEnter(bar(/^up to 9:/));
    expect(last()).toEqual({ to: 49 });
    fireEvent.mouseUp(bar(/^up to 9:/));
    fireEvent.mouseEnter(bar(/^250 or more:/));
    expect(last()).toEqual({ to: 49 });
    fireEvent.keyDown(bar(/^50 to 249:/), { key: 'Enter' });
    expect(last()).toEqual({ from: 50, to: 249 });
  });
  test('leave estimates out of what a line without them leaves', async () => {
    const estimated = bars([40, 20], [10], { estimated: [30, 0] });
    const { unmount } = pick(RangePicker, 'headcount', answers(estimated));
    expect((await screen.findByRole('button', { name: /^up to 9/ })).getAttribute('title')).toBe(
      'up to 9\n10 companies, and 30 on an estimate, which do not count',
    );
    unmount();
    pick(RangePicker, 'headcount', answers(estimated), { estimates: true });
    expect((await screen.findByRole('button', { name: /^up to 9/ })).getAttribute('title')).toBe(
      'up to 9\n40 companies, of them 30 on an estimate',
    );
  });
  test('say how many have no figure and why, how many stand in no bar, and so where none has any', async () => {
    const { unmount } = pick(RangePicker, 'headcount', answers({ ...HEADS, banded: 3 }));
    expect(await screen.findByText(/unknown: not collected 5/)).toBeTruthy();
    expect(screen.getByText(/in no single bar/)).toBeTruthy();
    unmount();
    pick(RangePicker, 'headcount', answers(bars([0, 0], [10])));
    expect(await screen.findByText('None of these companies has a figure.')).toBeTruthy();
  });
});

describe('two ends', () => {
  test('read short figures, and leave the line as it was where they do not read', async () => {
    const { user, asks, last } = pick(RangePicker, 'headcount', answers(HEADS));
    await user.type(screen.getByLabelText('from'), '2k');
    expect(last()).toEqual({ from: 2000 });
    await user.type(screen.getByLabelText('to'), '3');
    expect(screen.getByRole('alert').textContent).toBe('reversed: 2k is above 3; the line stays as it was');
    expect(last()).toEqual({ from: 2000 });
    await user.type(screen.getByLabelText('to'), 'k');
    expect(last()).toEqual({ from: 2000, to: 3000 });
    const before = asks.length;
    await user.type(screen.getByLabelText('to'), '!');
    expect(screen.getByRole('alert').textContent).toMatch(/“3k!” is no figure/);
    expect(screen.getByLabelText('to').getAttribute('aria-invalid')).toBe('true');
    expect(asks).toHaveLength(before);
  });
  test('follow what is chosen elsewhere, and ask nothing when both are emptied', async () => {
    const { user, last } = pick(RangePicker, 'headcount', answers(HEADS));
    await user.click(await screen.findByRole('button', { name: /medium 50–249/ }));
    expect(screen.getByLabelText<HTMLInputElement>('from').value).toBe('50');
    await user.clear(screen.getByLabelText('from'));
    expect(last()).toEqual({ to: 249 });
    await user.clear(screen.getByLabelText('to'));
    expect(last()).toBeNull();
  });
});

describe('money', () => {
  const MONEY = bars([40, 20], [2_000_000]);
  test('is asked in the currency of Settings until another is chosen, which is kept until there is a line', async () => {
    const { user, last, sent } = pick(RangePicker, 'revenue', {
      ...answers(MONEY),
      'GET /settings': { currency: 'CZK', distance: 'km', numbers: 'comma', dates: 'words', asOf: null },
    });
    await screen.findByRole('button', { name: /^2m–10m/ });
    await screen.findByRole('option', { name: 'CZK', selected: true } as never);
    await user.selectOptions(screen.getByLabelText('Currency'), 'GBP');
    expect(last()).toBeUndefined();
    await user.click(screen.getByRole('button', { name: /^2m–10m/ }));
    expect(last()).toEqual({ from: 2e6, to: 1e7, currency: 'GBP' });
    expect(sent('POST /counts').at(-1)).toMatchObject({ field: 'revenue', currency: 'GBP' });
    await user.selectOptions(screen.getByLabelText('Currency'), 'EUR');
    expect(last()).toEqual({ from: 2e6, to: 1e7, currency: 'EUR' });
  });
  test('by the month says what that is a year, its bars stay yearly, and a ready step is yearly again', async () => {
    const { user, last } = pick(RangePicker, 'revenue', answers(MONEY), {
      start: { from: 100_000, currency: 'EUR' },
    });
    await user.click(screen.getByRole('radio', { name: 'a month' }));
    expect(last()).toEqual({ from: 100_000, currency: 'EUR', per: 'month' });
    expect(screen.getByText(/twelve times the month/).textContent).toBe(
      'that is €1.2m or more a year, twelve times the month',
    );
    fireEvent.mouseDown(await screen.findByRole('button', { name: /^€2m or more/ }));
    expect((last() as MoneyTest).from).toBeCloseTo(2e6 / 12, 6);
    await user.click(screen.getByRole('button', { name: /^up to 2m/ }));
    expect(last()).toEqual({ to: 2e6, currency: 'EUR' });
  });
  test('paid once has no month', async () => {
    pick(RangePicker, 'raised', answers(MONEY));
    await screen.findByRole('button', { name: /^€2m or more/ });
    expect(screen.queryByRole('radio', { name: 'a month' })).toBeNull();
  });
});

test('a line shows what one step wider or narrower leaves, and a press takes the step', async () => {
  useDesk.setState({
    tape: { ...emptyTape(), lines: [{ id: 'l1', field: 'headcount', test: { from: 10, to: 49 } }] },
  });
  const { user, last } = pick(
    RangePicker,
    'headcount',
    { ...answers(HEADS), 'POST /tally': { universe: 200, tally: 101, lines: [] } },
    { start: { from: 10, to: 49 }, at: 'l1' },
  );
  const steps = await screen.findByRole('region', { name: 'One step wider or narrower' });
  const rows = within(steps).getAllByRole('button');
  expect(rows.map((row) => row.textContent)).toEqual([
    expect.stringMatching(/^from \d+100−1$/),
    expect.stringMatching(/^from \d+101the same$/),
    expect.stringMatching(/^to \d+102\+1$/),
    expect.stringMatching(/^to \d+103\+2$/),
  ]);
  await user.click(rows[3]!);
  expect(last()).toMatchObject({ from: 10 });
  expect(last()).not.toMatchObject({ to: 49 });
});

describe('a measure by key', () => {
  const counts = {
    ...bars([3, 5], [10]),
    values: [value('production', 900), value('sales', 700), value('research', 40)],
  };
  test('asks of one key at a time; without a range only the counts change', async () => {
    const { user, asks, last, sent } = pick(KeyedPicker, 'departments', answers(counts));
    await user.click(await screen.findByRole('button', { name: /^sales/ }));
    expect(asks).toEqual([]);
    expect(sent('POST /counts').at(-1)).toMatchObject({ field: 'departments', key: 'sales' });
    await user.type(screen.getByLabelText('from'), '5');
    expect(last()).toEqual({ key: 'sales', from: 5 });
  });
  test('keeps its range when the key changes', async () => {
    const { user, last } = pick(KeyedPicker, 'departments', answers(counts), {
      start: { key: 'production', from: 5, to: 20 },
    });
    await user.click(await screen.findByRole('button', { name: /^research/ }));
    expect(last()).toEqual({ key: 'research', from: 5, to: 20 });
    await user.clear(screen.getByLabelText('from'));
    await user.clear(screen.getByLabelText('to'));
    expect(last()).toBeNull();
  });
});

describe('growth', () => {
  const counts = bars([3, 5, 9], [0, 10]);
  test('is of a thing over a span, in percent with its sign', async () => {
    const { user, last, sent } = pick(GrowthPicker, 'growth', answers(counts));
    await user.selectOptions(screen.getByRole('combobox'), 'revenue');
    await user.click(screen.getByRole('radio', { name: 'three years' }));
    expect(sent('POST /counts').at(-1)).toMatchObject({ key: 'revenue 3y' });
    expect(last()).toBeUndefined();
    await user.click(screen.getByRole('button', { name: 'grew by 10 % or more' }));
    expect(last()).toEqual({ of: 'revenue', over: '3y', from: 10 });
    expect(screen.getByRole('button', { name: 'grew by 10 % or more' }).getAttribute('aria-pressed')).toBe(
      'true',
    );
    await user.click(screen.getByRole('radio', { name: 'one year' }));
    expect(last()).toEqual({ of: 'revenue', over: '1y', from: 10 });
    expect(await screen.findByRole('button', { name: /^up to −1 %: 3/ })).toBeTruthy();
    expect(screen.getByRole('button', { name: /^\+10 % or more: 9/ })).toBeTruthy();
  });
  test('says staff where a department grows', () => {
    pick(GrowthPicker, 'growth', answers(counts));
    expect(screen.getByRole('option', { name: 'staff in sales' })).toBeTruthy();
  });
});
