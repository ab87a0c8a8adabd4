/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { emptyTape, type HasLine, type Line } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { bars, value } from '../../testing/picker.tsx';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { useDesk } from '../store.ts';
import { Picker } from './Picker.tsx';

beforeEach(freshDesk);

const COUNTS: Answers = {
  'POST /counts': ({ field }: { field: string }) =>
    field === 'headcount'
      ? bars([3, 4, 5], [10, 50])
      : { kind: 'category', values: [value('active', 9), value('dissolved', 1)], unknown: 0, total: 10 },
  'POST /alternatives': ({ tests }: { tests: unknown[] }) => ({ counts: tests.map(() => 1) }),
  'POST /tally': { universe: 10, tally: 5, lines: [] },
  'GET /tapes': { tapes: [] },
};

/** The stage of what is open, as the Desk has it. */
function Stage() {
  const open = useDesk((state) => state.openLine);
  return open === null ? <p>the sheet</p> : <Picker openLine={open} />;
}
function stage(lines: readonly Line[], openLine: string, answers: Answers = {}) {
  useDesk.setState({ tape: { ...emptyTape(), lines }, openLine });
  return show(<Stage />, { ...COUNTS, ...answers });
}
const desk = () => useDesk.getState();

describe('the stage of a line', () => {
  test('of a field not on the tape puts it there with the first choice, and goes on editing it', async () => {
    const { user } = stage([], 'new:status');
    expect(screen.getByText(/the first choice puts the line on the tape/)).toBeTruthy();
    await user.click(await screen.findByRole('checkbox', { name: /active/ }));
    expect(desk().tape.lines).toMatchObject([{ field: 'status', test: { any: ['active'] } }]);
    expect(desk().openLine).toBe(desk().tape.lines[0]!.id);
    await user.click(await screen.findByRole('checkbox', { name: /dissolved/ }));
    expect(desk().tape.lines).toMatchObject([{ test: { any: ['active', 'dissolved'] } }]);
    // All choices of one stay at a line are one step of the history.
    await settled(undo);
    expect(desk().tape.lines).toEqual([]);
  });
  test('takes the line off when nothing is asked any more, and stays with the field', async () => {
    const { user } = stage([{ id: 'l1', field: 'status', test: { any: ['active'] } }], 'l1');
    await user.click(await screen.findByRole('checkbox', { name: /active/ }));
    expect([desk().tape.lines, desk().openLine]).toEqual([[], 'new:status']);
  });
  test('turns it, keeps its unknowns, and asks how old values may be', async () => {
    const { user } = stage([{ id: 'l1', field: 'headcount', test: { from: 10 } }], 'l1');
    await user.click(screen.getByRole('radio', { name: 'takes these out' }));
    // What is taken out leaves unknown ones in, unless it is told not to.
    expect(screen.getByRole('radio', { name: 'unknown kept' }).getAttribute('aria-checked')).toBe('true');
    await user.click(screen.getByRole('radio', { name: 'unknown left out' }));
    expect(desk().tape.lines[0]).toMatchObject({ not: true, unknown: 'drop' });
    await user.click(screen.getByRole('radio', { name: 'keeps these' }));
    await user.click(screen.getByRole('radio', { name: 'unknown kept' }));
    expect(desk().tape.lines[0]).toMatchObject({ unknown: 'keep' });
    await user.selectOptions(screen.getByLabelText('How old values may be'), '24 months');
    expect(desk().tape.lines[0]).toMatchObject({ fresh: '24 months' });
    await user.selectOptions(screen.getByLabelText('How old values may be'), 'of any age');
    expect(desk().tape.lines[0]).not.toHaveProperty('fresh');
    await user.click(screen.getByRole('checkbox', { name: /estimates count/ }));
    expect(desk().tape.lines[0]).toMatchObject({ estimates: true });
    await user.click(screen.getByRole('checkbox', { name: /estimates count/ }));
    expect(desk().tape.lines[0]).not.toHaveProperty('estimates');
  });
  test('counts with the freshness of the line, since what is older is not left', async () => {
    const { sent } = stage([{ id: 'l1', field: 'headcount', test: { from: 10 }, fresh: '12 months' }], 'l1');
    await screen.findByRole('button', { name: /^10 to 49/ });
    expect(sent('POST /counts')[0]).toMatchObject({
      field: 'headcount',
      fresh: '12 months',
      tape: { lines: [] },
    });
  });
  test('of an old address is left when the line is gone', () => {
    stage([], 'l9');
    expect(desk().openLine).toBeNull();
    expect(screen.getByText('the sheet')).toBeTruthy();
  });
  test('of an either-block has its branches side by side; one emptied leaves the block', async () => {
    const block: Line = {
      id: 'l1',
      either: [
        { id: 'l2', field: 'status', test: { any: ['active'] } },
        { id: 'l3', field: 'headcount', test: { from: 50 } },
        { id: 'l4', has: 'deals', lines: [] },
      ],
    };
    const { user } = stage([block], 'l1');
    expect(screen.getAllByRole('tab').map((tab) => tab.textContent)).toEqual([
      '1. status',
      '2. headcount',
      '3. has deals',
    ]);
    await user.click(screen.getByRole('tab', { name: '2. headcount' }));
    expect(screen.getByLabelText<HTMLInputElement>('from').value).toBe('50');
    await user.clear(screen.getByLabelText('from'));
    expect(desk().tape.lines).toMatchObject([{ either: [{ id: 'l2' }, { id: 'l4' }] }]);
    expect(desk().openLine).toBe('l1');
  });
});

describe('the stage of a has-line', () => {
  const has: HasLine = {
    id: 'l1',
    has: 'deals',
    lines: [{ id: 'l2', field: 'kind', test: { any: ['purchase'] } }],
  };
  const figures = {
    'POST /tally': {
      universe: 100,
      tally: 20,
      lines: [
        {
          id: 'l1',
          alone: 44,
          words: { label: 'Has deal', text: 'of a kind' },
          typed: 'has deal (kind purchase)',
          inner: [{ id: 'l2', words: { label: 'Kind', text: 'purchase' }, typed: 'kind purchase' }],
          related: [{ id: 'l1', all: 90, sure: 50, possible: 3, lines: [{ id: 'l2', alone: 53 }] }],
        },
      ],
    },
  };
  const line = () => desk().tape.lines[0] as HasLine;

  test('asks in which role and how many; one or more is not written', async () => {
    const { user } = stage([has], 'l1', figures);
    await user.click(screen.getByRole('radio', { name: /target/ }));
    expect(line()).toMatchObject({ as: 'target' });
    await user.click(screen.getByRole('radio', { name: 'any part of it' }));
    expect(line()).not.toHaveProperty('as');
    const from = screen.getByLabelText<HTMLInputElement>('from');
    expect(from.value).toBe('1');
    await user.clear(from);
    await user.type(from, '3');
    expect(line()).toMatchObject({ count: { from: 3 } });
    await user.clear(from);
    await user.type(screen.getByLabelText('to'), '0');
    expect(line()).toMatchObject({ count: { to: 0 } });
    await user.clear(screen.getByLabelText('to'));
    expect(line()).not.toHaveProperty('count');
  });
  test('has its own lines with what passes each, which are turned, parked, opened and taken off', async () => {
    const { user } = stage([has], 'l1', figures);
    const list = await screen.findByRole('list', { name: 'Lines on deals' });
    expect((await within(list).findByRole('button', { name: /^Kind purchase/ })).textContent).toMatch(/53$/);
    expect(screen.getByText(/more may/).closest('p')!.textContent).toBe(
      '50 of 90 deals pass, 3 more may; the line keeps 44 companies by itself',
    );
    await user.click(within(list).getByRole('button', { name: 'Take out what matches Kind' }));
    await user.click(within(list).getByRole('button', { name: 'Park Kind' }));
    expect(line().lines[0]).toMatchObject({ not: true, parked: true });
    await user.click(within(list).getByRole('button', { name: 'Count again Kind' }));
    await user.click(within(list).getByRole('button', { name: 'Keep what matches Kind' }));
    expect(line().lines).toEqual(has.lines);
    await user.click(within(list).getByRole('button', { name: 'Take off Kind' }));
    expect(line().lines).toEqual([]);
    expect(within(list).getByText(/any; type or pick/)).toBeTruthy();
  });
  test('leads to the picker of one of its lines, over related records, and back', async () => {
    const { user, sent } = stage([has], 'l1', figures);
    await user.click(await screen.findByRole('button', { name: /^Kind purchase/ }));
    expect(screen.getByText(/counts are of the deals at the companies/)).toBeTruthy();
    expect(sent('POST /counts').at(-1)).toMatchObject({ at: 'l1', field: 'kind' });
    // Within a has-line unknown is a third answer.
    await user.click(screen.getByRole('radio', { name: 'unknown left out' }));
    expect(line().lines[0]).toMatchObject({ unknown: 'drop' });
    await user.click(screen.getByRole('button', { name: 'Back to the has-line' }));
    expect(desk().openLine).toBe('l1');
  });
  test('makes its number a column beside the name and an order, and takes both back', async () => {
    const before = desk().columns.companies!;
    const { user } = stage([has], 'l1', figures);
    await user.click(screen.getByRole('button', { name: 'show as a column' }));
    expect(desk().columns.companies).toEqual([before[0], 'count:l1', ...before.slice(1)]);
    await user.click(screen.getByRole('button', { name: 'a column of the sheet' }));
    expect(desk().columns.companies).toEqual(before);
    await user.click(screen.getByRole('button', { name: 'sort by it, most first' }));
    expect(desk().sort).toEqual([{ by: 'count:l1', descending: true }]);
    expect(desk().columns.companies).toContain('count:l1');
    await settled(undo);
    expect([desk().sort, desk().columns.companies]).toEqual([[], before]);
  });
  test('takes the lines of a saved part of its subject', async () => {
    const part = (id: string, subject: string) => ({
      id,
      kind: 'part',
      name: `Part ${id}`,
      tape: { ...emptyTape(subject), lines: [{ id: 'l1', field: 'date', test: { past: '18 months' } }] },
    });
    const { user } = stage([has], 'l1', {
      ...figures,
      'GET /tapes': { tapes: [part('a', 'deals'), part('b', 'people')] },
    });
    const choice = await screen.findByLabelText('Put a part of deals here');
    expect(within(choice).queryByText('Part b')).toBeNull();
    await user.selectOptions(choice, 'Part a');
    expect(line().lines).toMatchObject([
      { id: 'l2', field: 'kind' },
      { field: 'date', test: { past: '18 months' } },
    ]);
    expect(new Set(['l1', ...line().lines.map(({ id }) => id)]).size).toBe(3);
  });
});
