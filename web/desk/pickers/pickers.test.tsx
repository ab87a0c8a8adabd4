/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, within } from '@testing-library/react';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { useDesk } from '../store.ts';
import { pick, value } from '../../testing/picker.tsx';
import { freshDesk } from '../../testing/render.tsx';
import { CategoryPicker } from './CategoryPicker.tsx';
import { DatePicker } from './DatePicker.tsx';
import { FlagPicker } from './FlagPicker.tsx';
import { ListPicker } from './ListPicker.tsx';
import { RangePicker } from './RangePicker.tsx';
import { RankPicker } from './RankPicker.tsx';
import { TextPicker } from './TextPicker.tsx';

beforeEach(freshDesk);

describe('a list of values', () => {
  const values = [
    value('coaters', 5, { group: 'finishing' }),
    value('finishing', 9),
    value('painters', 7, { group: 'finishing' }),
    value('sawmills', 30),
  ];
  const answers = { 'POST /counts': { kind: 'category', values, unknown: 4, total: 60 } };
  const names = () =>
    within(screen.getByRole('list'))
      .getAllByRole('checkbox')
      .map((box) => box.closest('label')!.querySelector('span')!.textContent);

  test('has groups over their members, the largest first, and says how many are unknown', async () => {
    pick(CategoryPicker, 'technology', answers);
    await screen.findByText('sawmills');
    expect(names()).toEqual(['finishing', 'painters', 'coaters', 'sawmills']);
    expect(screen.getByText('unknown: their website was never surveyed', { exact: false })).toBeTruthy();
    // Known ones without it: 60 of which 4 are unknown and 30 have it.
    expect(screen.getByText('26 without')).toBeTruthy();
  });
  test('takes several, lets them go one by one, and asks nothing when none is left', async () => {
    const { user, last } = pick(CategoryPicker, 'technology', answers);
    await user.click(await screen.findByRole('checkbox', { name: /sawmills/ }));
    await user.click(screen.getByRole('checkbox', { name: /painters/ }));
    expect(last()).toEqual({ any: ['sawmills', 'painters'] });
    await user.click(screen.getByRole('radio', { name: 'all of them' }));
    expect(last()).toEqual({ all: ['sawmills', 'painters'] });
    await user.click(screen.getByRole('checkbox', { name: /sawmills/ }));
    await user.click(screen.getByRole('checkbox', { name: /painters/ }));
    expect(last()).toBeNull();
  });
  test('a member of a group that is picked is picked with it, and not to be let go by itself', async () => {
    pick(CategoryPicker, 'technology', answers, { start: { any: ['finishing'] } });
    const member: HTMLInputElement = await screen.findByRole('checkbox', { name: /painters/ });
    expect([member.checked, member.disabled]).toEqual([true, true]);
  });
  test('is searched by what is typed, whatever the case; a group with a match stays', async () => {
    const { user } = pick(CategoryPicker, 'technology', answers);
    await screen.findByText('sawmills');
    await user.type(screen.getByRole('textbox'), 'PAINT');
    expect(names()).toEqual(['finishing', 'painters']);
    await user.clear(screen.getByRole('textbox'));
    await user.type(screen.getByRole('textbox'), 'nothing such');
    expect(screen.getByText('Nothing of that name.')).toBeTruthy();
  });
  test('says so where nothing is recorded, and what went wrong where it did', async () => {
    const none = { 'POST /counts': { kind: 'category', values: [], unknown: 0, total: 0 } };
    const { unmount } = pick(CategoryPicker, 'technology', none);
    expect(await screen.findByText(/is recorded in this universe/)).toBeTruthy();
    unmount();
    pick(CategoryPicker, 'technology', { 'POST /counts': new Error('The universe is being written.') });
    expect(await screen.findByText(/The universe is being written/)).toBeTruthy();
  });
  test('of yes and no is a switch: the same again asks nothing', async () => {
    const flags = { 'POST /counts': { values: [value('yes', 3), value('no', 8)], unknown: 2, total: 13 } };
    const { user, last } = pick(FlagPicker, 'whom-we-know', flags);
    await user.click(await screen.findByRole('checkbox', { name: /no/ }));
    expect(last()).toEqual({ is: false });
    await user.click(screen.getByRole('checkbox', { name: /yes/ }));
    expect(last()).toEqual({ is: true });
    await user.click(screen.getByRole('checkbox', { name: /yes/ }));
    expect(last()).toBeNull();
  });
});

describe('lists of the workspace', () => {
  const lists = {
    'POST /counts': { values: [value('rivals', 3), value('known', 8)], unknown: 0, total: 11 },
  };
  test('are picked with all members; a verdict, a reason and a tag narrow them, and one verdict is always left', async () => {
    const { user, last } = pick(ListPicker, 'list', lists);
    const unsure: HTMLInputElement = screen.getByRole('checkbox', { name: 'unsure' });
    expect(unsure.disabled).toBe(true);
    await user.click(await screen.findByRole('checkbox', { name: /rivals/ }));
    expect(last()).toEqual({ any: ['rivals'] });
    await user.click(unsure);
    expect(last()).toEqual({ any: ['rivals'], verdict: ['in', 'out', 'not-judged'] });
    await user.click(screen.getByRole('checkbox', { name: 'out' }));
    await user.click(screen.getByRole('checkbox', { name: 'not judged' }));
    expect(last()).toEqual({ any: ['rivals'], verdict: ['in'] });
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'in' }).disabled).toBe(true);
    await user.selectOptions(screen.getByLabelText('out because'), 'too small');
    expect(last()).toMatchObject({ reason: ['too small'] });
    await user.type(screen.getByLabelText('tagged'), 'stairs{Enter}');
    await user.selectOptions(screen.getByLabelText('judged'), 'in the past 7 days');
    expect(last()).toEqual({
      any: ['rivals'],
      verdict: ['in'],
      reason: ['too small'],
      tag: ['stairs'],
      judged: '7 days',
    });
  });
  test('say how to make one where there is none', async () => {
    pick(ListPicker, 'list', { 'POST /counts': { values: [], unknown: 0, total: 0 } });
    expect(await screen.findByText(/There is no list yet/)).toBeTruthy();
  });
});

describe('dates', () => {
  const answers = { 'POST /alternatives': { counts: Array.from({ length: 9 }, (_, i) => 10 * i) } };
  test('are spans with what each leaves, and say which days they mean', async () => {
    const { user, last } = pick(DatePicker, 'checked', answers);
    const year = await screen.findByRole('button', { name: /^12 months 20/ });
    await user.click(year);
    expect(last()).toEqual({ past: '12 months' });
    expect(year.getAttribute('aria-pressed')).toBe('true');
    expect(await screen.findByText(/2025-09-30 to 2026-09-30|2025-10-01 to 2026-09-30/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^last year/ }));
    expect(last()).toEqual({ year: 'last' });
  });
  test('in the wrong order leave the line as it was and say so', () => {
    const { asks, last } = pick(DatePicker, 'checked', answers);
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '2025-05-01' } });
    expect(last()).toEqual({ from: '2025-05-01' });
    fireEvent.change(screen.getByLabelText('To'), { target: { value: '2025-04-01' } });
    expect(screen.getByRole('alert').textContent).toMatch(/reversed/);
    expect(asks).toHaveLength(1);
    fireEvent.change(screen.getByLabelText('To'), { target: { value: '2025-06-01' } });
    expect(last()).toEqual({ from: '2025-05-01', to: '2025-06-01' });
    expect(screen.queryByRole('alert')).toBeNull();
  });
});

describe('figures', () => {
  const bars = [
    { to: 9, yes: 40, estimated: 0 },
    { from: 10, yes: 20, estimated: 0 },
  ];
  const answers = {
    'POST /counts': {
      kind: 'range',
      edges: [0, 10],
      bars,
      counts: [40, 20],
      estimated: [0, 0],
      banded: 0,
      unknown: 5,
      known: 60,
      total: 65,
      reasons: { 'not collected': 5 },
      bands: [],
    },
    'POST /alternatives': { counts: [1, 2, 3, 4, 5, 6, 7] },
  };
  test('are set by size steps, which the same press lets go again', async () => {
    const { user, last } = pick(RangePicker, 'headcount', answers);
    const small = await screen.findByRole('button', { name: /small 10–49/ });
    await user.click(small);
    expect(last()).toEqual({ from: 10, to: 49 });
    await user.click(screen.getByRole('button', { name: /small 10–49/ }));
    expect(last()).toBeNull();
  });
});

describe('the largest', () => {
  const answers = { 'POST /alternatives': { counts: [1, 5, 10, 20, 50, 90, 90, 90, 90, 90] } };
  test('are so many of each country, industry or of all, by revenue or headcount', async () => {
    const { user, sent, last } = pick(RankPicker, 'rank', answers);
    await user.click(await screen.findByRole('button', { name: /^the largest 10\b/ }));
    expect(last()).toEqual({ by: 'revenue', among: 'country', to: 10 });
    await user.click(screen.getByRole('radio', { name: 'of the universe' }));
    expect(last()).toEqual({ by: 'revenue', among: 'all', to: 10 });
    await user.click(screen.getByRole('radio', { name: 'by headcount' }));
    expect(last()).toEqual({ by: 'headcount', among: 'all', to: 10 });
    const { tests } = sent('POST /alternatives').at(-1) as { tests: object[] };
    expect(tests[0]).toEqual({ by: 'headcount', among: 'all', to: 1 });
  });
});

describe('words', () => {
  const answers = { 'POST /alternatives': { counts: [1, 2, 3] } };
  test('follow the typing as long as it reads, and say where it does not', async () => {
    const { user, asks, last } = pick(TextPicker, 'words', answers);
    await user.type(screen.getByRole('textbox'), 'oak and');
    expect(asks.filter((test) => test && 'text' in test).at(-1)).toEqual({ text: 'oak an' });
    expect(screen.getByRole('textbox').getAttribute('aria-invalid')).toBe('true');
    await user.type(screen.getByRole('textbox'), ' stair');
    expect(last()).toEqual({ text: 'oak and stair' });
    await user.click(screen.getByRole('radio', { name: 'name' }));
    expect(last()).toEqual({ text: 'oak and stair', in: 'name' });
    await user.clear(screen.getByRole('textbox'));
    expect(last()).toBeNull();
  });
});

test('a picker counts in the context of the other lines', async () => {
  const tape = { ...emptyTape(), lines: [{ id: 'a', field: 'status', test: { any: ['active'] } }] };
  useDesk.setState({ tape });
  const { sent } = pick(FlagPicker, 'whom-we-know', { 'POST /counts': { values: [], unknown: 0, total: 0 } });
  await screen.findByRole('list');
  expect(sent('POST /counts')[0]).toMatchObject({ field: 'whom-we-know', tape: { lines: tape.lines } });
});
