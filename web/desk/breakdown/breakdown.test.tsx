/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { BreakdownAnswer, ChartAnswer, ChartSlot } from '../../../contract/market.ts';
import type { Chart } from '../../../core/charts/chart.ts';
import { chartWords } from '../../../core/charts/wording.ts';
import { emptyTape, type Line, type Test } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { useFormat } from '../../app/format.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { usePutting } from '../putting.ts';
import { useDesk } from '../store.ts';
import { Breakdown } from './Breakdown.tsx';
import { ChartDialog } from './ChartDialog.tsx';
import { tableCsv } from './ChartTable.tsx';

// Charts draw into boxes that have a size.
for (const side of ['clientWidth', 'clientHeight'])
  Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => 400 });

beforeEach(() => {
  freshDesk();
  usePutting.setState({ acted: null });
});

const slot = (label: string | null, count: number, more: Partial<ChartSlot> = {}): ChartSlot => ({
  kind: label === null ? 'unknown' : 'group',
  key: label,
  groups: 1,
  label,
  edges: null,
  count,
  value: count,
  valued: count,
  estimated: 0,
  test: label === null ? null : ({ any: [label] } satisfies Test),
  ...more,
});
const status: Chart = {
  id: 'status',
  title: 'How they stand',
  shape: 'table',
  by: { field: 'status' },
  measure: { of: 'count' },
};
const answered = (chart: Chart, slots: ChartSlot[], more: Partial<ChartAnswer> = {}): ChartAnswer => ({
  chart,
  total: slots.reduce((sum, { count }) => sum + count, 0),
  median: null,
  slots,
  split: null,
  scatter: null,
  ...more,
});
const curve = {
  units: 20,
  hhi: 812.4,
  total: 5_000_000,
  largest: [4, 8, 20].map((units) => ({ units, share: units * 5 })),
  curve: [],
};
const concentrated = (by: 'revenue' | 'headcount', more: object = {}) => ({
  by,
  found: null,
  companies: 30,
  groups: 2,
  unknown: 10,
  estimated: 12.34,
  leftOut: [],
  base: null,
  ...more,
});
const page = (more: Partial<BreakdownAnswer> = {}): BreakdownAnswer => ({
  total: 30,
  base: null,
  charts: [answered(status, [slot('active', 25), slot('dissolved', 3), slot(null, 2)])],
  known: [
    { field: 'phone', label: 'Phone', known: 3, estimated: 0, banded: 0 },
    { field: 'headcount', label: 'Headcount', known: 28, estimated: 4, banded: 2 },
  ],
  concentration: { revenue: concentrated('revenue'), headcount: concentrated('headcount') },
  ...more,
});
const answers = (more: Answers = {}): Answers => ({
  'POST /breakdown': page(),
  'GET /tapes': { tapes: [] },
  'POST /tally': { universe: 99, tally: 30, lines: [] },
  ...more,
});
const lines = () => useDesk.getState().tape.lines;

describe('a group of a chart', () => {
  const choose = async (user: ReturnType<typeof show>['user'], name: string, act: string) => {
    await user.click(await screen.findByRole('button', { name }));
    await user.click(await screen.findByRole('button', { name: act }));
  };
  test('is kept or taken out as a line, which the same group takes off again', async () => {
    const { user } = show(<Breakdown />, answers());
    await choose(user, 'active', 'Keep only these');
    expect(lines()).toMatchObject([{ field: 'status', test: { any: ['active'] } }]);
    await choose(user, 'dissolved', 'Take these out');
    expect(lines()[1]).toMatchObject({ field: 'status', test: { any: ['dissolved'] }, not: true });
    await choose(user, 'active', 'Take this line off the tape');
    expect(lines()).toHaveLength(1);
    await settled(undo);
    expect(lines()).toHaveLength(2);
  });
  test('goes on a list as all that its line keeps, without a line on the tape', async () => {
    const { user } = show(<Breakdown />, answers());
    await choose(user, 'dissolved', 'Put these on a list');
    expect(lines()).toEqual([]);
    expect(usePutting.getState().acted).toMatchObject({
      count: 3,
      one: false,
      tape: { subject: 'companies', lines: [{ field: 'status', test: { any: ['dissolved'] } }] },
    });
  });
  test('with another makes a cell, kept and put on a list by both lines', async () => {
    const heat: Chart = { ...status, shape: 'heat', split: { field: 'legal-form' } };
    const split = ['sro', null].map((key) => ({
      ...{ kind: key ? ('group' as const) : ('unknown' as const), key, groups: 1, label: key },
      test: key ? { any: [key] } : null,
    }));
    const parts = [7, 2].map((count) => ({ count, value: count, valued: count, estimated: 0 }));
    const chart = answered(heat, [slot('active', 9, { parts })], { split });
    const { user } = show(<Breakdown />, answers({ 'POST /breakdown': page({ charts: [chart] }) }));
    expect(await screen.findByRole('button', { name: 'active, sro: 7' })).toBeTruthy();
    // What is unknown of the other field is kept by no line.
    expect(screen.queryByRole('button', { name: /active, unknown/ })).toBeNull();
    await choose(user, 'active, sro: 7', 'Put these on a list');
    expect(usePutting.getState().acted).toMatchObject({ count: 7, tape: { lines: [{}, {}] } });
    await user.click(screen.getByRole('button', { name: 'active, sro: 7' }));
    expect(screen.queryByRole('button', { name: 'Take these out' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Keep only these' }));
    expect(lines()).toMatchObject([
      { id: 'l1', field: 'status', test: { any: ['active'] } },
      { id: 'l2', field: 'legal-form', test: { any: ['sro'] } },
    ]);
    await choose(user, 'active, sro: 7', 'Take these lines off the tape');
    expect(lines()).toEqual([]);
  });
  test('that no line says is no button; unknown is said, and never silently left out', async () => {
    show(<Breakdown />, answers());
    const panel = await screen.findByRole('region', { name: 'How they stand' });
    expect(within(panel).getByText('2 unknown.')).toBeTruthy();
    expect(
      within(panel)
        .getAllByRole('rowheader')
        .map((cell) => cell.textContent),
    ).toEqual(['active', 'dissolved', 'unknown']);
    expect(within(panel).queryByRole('button', { name: 'unknown' })).toBeNull();
  });
  test('of figures with estimates takes them along, since they are in the bar', async () => {
    const chart: Chart = {
      id: 'size',
      title: 'Size',
      shape: 'table',
      by: { field: 'headcount' },
      measure: { of: 'count' },
    };
    const bar = slot('10', 8, { label: null, edges: [10, 50], test: { from: 10, to: 49 } as never });
    const { user } = show(
      <Breakdown />,
      answers({ 'POST /breakdown': page({ charts: [answered(chart, [bar], { median: 22 })] }) }),
    );
    const panel = await screen.findByRole('region', { name: 'Size' });
    expect(within(panel).getByText('Median 22.')).toBeTruthy();
    await user.click(within(panel).getAllByRole('rowheader')[0]!.querySelector('button')!);
    await user.click(await screen.findByRole('button', { name: 'Keep only these' }));
    expect(lines()).toMatchObject([{ field: 'headcount', test: { from: 10, to: 49 }, estimates: true }]);
  });
});

describe('the page', () => {
  test('says which fields are known how far, most known first', async () => {
    show(<Breakdown />, answers());
    const known = within(await screen.findByRole('region', { name: 'What is known' }));
    expect(known.getAllByRole('row').map((row) => row.textContent)).toEqual(['Headcount93 %', 'Phone10 %']);
    expect(known.getByTitle('28 of 30; 4 by estimate, 2 in bands')).toBeTruthy();
  });
  test('says how concentrated the market is by revenue and by headcount, and what that rests on', async () => {
    const { user } = show(
      <Breakdown />,
      answers({
        'POST /breakdown': page({
          concentration: {
            revenue: concentrated('revenue'),
            headcount: concentrated('headcount', { found: curve, leftOut: ['headcount 20 or more'] }),
          },
        }),
      }),
    );
    const panel = within(await screen.findByRole('region', { name: 'How concentrated' }));
    expect(panel.getByText('Nobody here has a figure for revenue.')).toBeTruthy();
    await user.click(panel.getByRole('radio', { name: 'headcount' }));
    expect(panel.getByText(/Lines on size left out/).textContent).toMatch(
      /^Lines on size left out \(1\), groups as one/,
    );
    expect(panel.getByText(/the largest 4 hold 20 %, HHI 812/)).toBeTruthy();
    expect(panel.getByText('12.3 % of the total rests on estimates.')).toBeTruthy();
    expect(panel.getByRole('row', { name: /without a single figure, of 30 10/ })).toBeTruthy();
  });
  test('compares with the universe or a saved tape of the subject, and no other', async () => {
    const saved = (id: string, subject: string, more: object = {}) => ({
      id,
      kind: 'tape',
      name: `Tape ${id}`,
      trouble: null,
      tape: { ...emptyTape(subject), lines: [{ id: 'l1', field: 'status', test: { any: ['active'] } }] },
      ...more,
    });
    const { user, sent } = show(
      <Breakdown />,
      answers({
        'GET /tapes': {
          tapes: [
            saved('a', 'companies'),
            saved('b', 'people'),
            saved('c', 'companies', { trouble: 'lost list' }),
          ],
        },
        'POST /breakdown': ({ against }: { against?: unknown }) =>
          page({
            base: against ? 100 : null,
            charts: [
              answered(status, [
                slot('active', 25, { base: { count: 50, value: 50, valued: 50, estimated: 0 } }),
                slot('dissolved', 5, { base: { count: 4, value: 4, valued: 4, estimated: 0 } }),
              ]),
            ],
          }),
      }),
    );
    const choice = await screen.findByLabelText(/Compare with/);
    await within(choice).findByText('Tape a');
    expect(
      within(choice)
        .getAllByRole('option')
        .map((one) => one.textContent),
    ).toEqual(['nothing', 'the universe', 'Tape a']);
    await user.selectOptions(choice, 'the universe');
    // 5 of 30 here against 4 of 100 there.
    expect(await screen.findByText('dissolved has 4.2 times its share of the universe.')).toBeTruthy();
    await user.selectOptions(choice, 'Tape a');
    await waitFor(() =>
      expect(sent('POST /breakdown').at(-1)).toMatchObject({ against: { lines: [{ field: 'status' }] } }),
    );
  });
  test('of nobody says so, and of a failure why', async () => {
    const { unmount } = show(<Breakdown />, answers({ 'POST /breakdown': page({ total: 0, charts: [] }) }));
    expect(await screen.findByText(/No company is left, so there is nothing to break down/)).toBeTruthy();
    unmount();
    show(<Breakdown />, answers({ 'POST /breakdown': new Error('The universe is being written.') }));
    expect(await screen.findByText('The universe is being written.')).toBeTruthy();
  });
});

describe('a chart of one’s own', () => {
  const charts = {
    'POST /charts': ({ charts: asked }: { charts: Chart[] }) => ({
      charts: asked.map((chart) =>
        answered(chart, [slot('active', 25), slot('dissolved', 3)], {
          ...(chart.split ? { split: [{ kind: 'group', key: 'x', groups: 1, label: 'x' }] as never } : {}),
          slots: [slot('active', 25), slot('dissolved', 3)].map((one) => ({
            ...one,
            ...(chart.split ? { parts: [{ count: 1, value: 1, valued: 1, estimated: 0 }] } : {}),
          })),
        }),
      ),
    }),
  };
  test('is made from a ready one, kept on the tape, changed and taken off; all of it is undone', async () => {
    const { user } = show(<Breakdown />, answers(charts));
    await user.click(await screen.findByRole('button', { name: 'Change How they stand' }));
    await user.clear(screen.getByLabelText('Title'));
    await user.type(screen.getByLabelText('Title'), 'Mine');
    await user.click(screen.getByRole('button', { name: 'Keep it on the tape' }));
    expect(useDesk.getState().tape.charts).toEqual([{ ...status, id: 'c1', title: 'Mine' }]);
    await user.click(await screen.findByRole('button', { name: 'Remove Mine' }));
    expect(useDesk.getState().tape).not.toHaveProperty('charts');
    await settled(undo);
    expect(useDesk.getState().tape.charts).toHaveLength(1);
  });
  test('keeps its parts going together while it is put together', async () => {
    let kept: Chart | null = null;
    const { user } = show(
      <ChartDialog
        subject="companies"
        chart={null}
        id="c1"
        onSave={(chart) => (kept = chart)}
        onClose={() => {}}
      />,
      answers(charts),
    );
    const keep = () => user.click(screen.getByRole('button', { name: 'Keep it on the tape' }));
    await user.selectOptions(screen.getByLabelText('By'), 'Status');
    await user.selectOptions(screen.getByLabelText('Drawn as'), 'heat table');
    await keep();
    expect(kept).toMatchObject({ shape: 'heat', by: { field: 'status' }, split: expect.anything() });
    await user.selectOptions(screen.getByLabelText('Tells'), 'median of');
    await user.selectOptions(screen.getByLabelText('Drawn as'), 'stacked bars');
    await keep();
    // Parts of a median do not add up.
    expect(kept).toMatchObject({ shape: 'stacked', measure: { of: 'count' } });
    await user.selectOptions(screen.getByLabelText('Drawn as'), 'strips');
    await keep();
    expect(kept).toMatchObject({ shape: 'strip', measure: { of: 'median', field: expect.any(String) } });
    expect(kept).not.toHaveProperty('split');
    await user.selectOptions(screen.getByLabelText('Drawn as'), 'histogram');
    await keep();
    // A histogram is of figures, which the status has not.
    expect((kept as unknown as Chart).by.field).not.toBe('status');
  });
  test('that cannot be counted says why and is not kept', async () => {
    show(
      <ChartDialog subject="companies" chart={status} id="c1" onSave={() => {}} onClose={() => {}} />,
      answers({ 'POST /charts': new Error('“status” has no groups of that level.') }),
    );
    expect(await screen.findByText('“status” has no groups of that level.')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it on the tape' }).disabled).toBe(
      true,
    );
  });
});

test('numbers of a chart as CSV are plain, with what rests on estimates, and names that begin as a formula made safe', async () => {
  let words: ReturnType<typeof chartWords> | undefined;
  const Words = () => {
    words = chartWords('companies', status, useFormat());
    return null;
  };
  show(<Words />);
  const answer = answered(status, [
    slot('=danger', 1200, { estimated: 7, base: { count: 1, value: 1, valued: 1, estimated: 0 } }),
    slot('gone', 0),
    slot(null, 2),
  ]);
  expect((await tableCsv(answer, words!, 'companies')).split('\r\n')).toEqual([
    'status,companies,resting on estimates,compared',
    "'=danger,1200,7,1",
    'unknown,2,0,',
    '',
  ]);
});

test('a chart asks of the tape as it is counted: name and charts do not ask anew', async () => {
  const line: Line = { id: 'l1', field: 'status', test: { any: ['active'] } };
  useDesk.setState({ tape: { ...emptyTape(), name: 'Named', lines: [line] } });
  const { sent } = show(<Breakdown />, answers());
  await screen.findByRole('region', { name: 'How they stand' });
  expect(sent('POST /breakdown')).toEqual([{ tape: { ...emptyTape(), lines: [line] }, currency: 'EUR' }]);
});
