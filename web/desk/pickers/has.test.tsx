/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { emptyTape, type HasLine, type Line } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { useDesk } from '../store.ts';
import { HasPicker } from './HasPicker.tsx';

beforeEach(freshDesk);

const KIND: Line = { id: 'k', field: 'kind', test: { any: ['growth-loan'] } };
const DEALS: HasLine = { id: 'h', has: 'deals', as: 'target', lines: [KIND] };
const tally = (line: HasLine) => ({
  universe: 100,
  tally: 12,
  lines: [
    {
      id: line.id,
      subtotal: 12,
      cut: 88,
      alone: 12,
      without: 100,
      unknown: 3,
      words: { label: 'Has a deal', text: 'as target' },
      typed: 'has deal as target',
      inner: [{ id: 'k', words: { label: 'Kind', text: 'growth loan' }, typed: 'growth loan' }],
      related: [{ id: line.id, all: 540, sure: 90, possible: 7, lines: [{ id: 'k', alone: 240 }] }],
    },
  ],
});

/** The picker of the line as the tape has it now. */
function Picker({ subject }: { subject: string }) {
  const line = useDesk((state) => state.tape.lines.find(({ id }) => id === 'h')) as HasLine;
  return <HasPicker line={line} subject={subject} />;
}
function picker(line: HasLine = DEALS, more: Answers = {}, subject = 'companies') {
  useDesk.setState({
    tape: { ...emptyTape(subject), lines: [line] },
    columns: { [subject]: ['name', 'headcount'] },
  });
  return show(<Picker subject={subject} />, {
    'POST /tally': tally(line),
    'GET /tapes': { tapes: [] },
    'POST /complete': { completions: [] },
    ...more,
  });
}
const line = () => useDesk.getState().tape.lines[0] as HasLine;
const linesOn = () => screen.getByRole('list', { name: 'Lines on deals' });

describe('the chooser of a has-line', () => {
  test('says how many related records pass, how many more may, and what the line keeps', async () => {
    picker();
    expect((await screen.findByText(/deals pass/)).textContent).toBe(
      '90 of 540 deals pass, 7 more may; the line keeps 12 companies by itself',
    );
    expect(within(linesOn()).getByText('240')).toBeTruthy();
  });
  test('chooses the role, or any part, and is taken back', async () => {
    const { user } = picker();
    await user.click(screen.getByRole('radio', { name: 'buyer' }));
    expect(line()).toMatchObject({ as: 'buyer', lines: [KIND] });
    await user.click(screen.getByRole('radio', { name: 'any part of it' }));
    expect(line()).not.toHaveProperty('as');
    await settled(undo);
    expect(line().as).toBe('target');
  });
  test('asks for none by “to 0”, and for one or more without a word', async () => {
    const { user } = picker();
    const from = screen.getByLabelText<HTMLInputElement>('from');
    expect(from.value).toBe('1');
    await user.clear(from);
    await user.type(screen.getByLabelText('to'), '0{Enter}');
    expect(line().count).toEqual({ to: 0 });
    await user.clear(screen.getByLabelText('to'));
    await user.type(screen.getByLabelText('from'), '3{Enter}');
    expect(line().count).toEqual({ from: 3 });
    await user.clear(screen.getByLabelText('from'));
    await user.type(screen.getByLabelText('from'), '1{Enter}');
    expect(line()).not.toHaveProperty('count');
  });
  test('turns, parks, opens and takes off the lines within', async () => {
    const { user } = picker();
    const own = linesOn();
    await user.click(await within(own).findByRole('button', { name: 'Take out what matches Kind' }));
    expect(line().lines).toMatchObject([{ id: 'k', not: true }]);
    await user.click(within(own).getByRole('button', { name: 'Park Kind' }));
    expect(line().lines).toMatchObject([{ not: true, parked: true }]);
    expect(within(own).getByText('(parked)')).toBeTruthy();
    await user.click(within(own).getByRole('button', { name: 'Count again Kind' }));
    await user.click(within(own).getByText('Kind'));
    expect(useDesk.getState().openLine).toBe('k');
    await user.click(within(own).getByRole('button', { name: 'Take off Kind' }));
    expect(line().lines).toEqual([]);
    expect(screen.getByText('any; type or pick what they must be')).toBeTruthy();
  });
  test('puts a saved part on related records within, under names of their own', async () => {
    const part = (subject: string, name: string) => ({
      ...{ id: name, kind: 'part', name },
      tape: { ...emptyTape(subject), lines: [{ id: 'k', field: 'date', test: { past: '18 months' } }] },
    });
    const { user } = picker(DEALS, {
      'GET /tapes': { tapes: [part('deals', 'Lately'), part('people', 'Owners')] },
    });
    const choice = await screen.findByLabelText('Put a part of deals here');
    // Parts on other records are no lines of these.
    expect([...(choice as HTMLSelectElement).options].map(({ text }) => text)).toEqual([
      'put a saved part here …',
      'Lately',
    ]);
    await user.selectOptions(choice, 'Lately');
    const [, put] = line().lines;
    expect(put).toMatchObject({ field: 'date', test: { past: '18 months' } });
    expect(put!.id).not.toBe('k');
  });
  test('shows its number as a column beside the name, and sorts by it', async () => {
    const { user } = picker();
    await user.click(screen.getByRole('button', { name: 'sort by it, most first' }));
    expect(useDesk.getState()).toMatchObject({
      sort: [{ by: 'count:h', descending: true }],
      columns: { companies: ['name', 'count:h', 'headcount'] },
    });
    await user.click(screen.getByRole('button', { name: 'a column of the sheet' }));
    expect(useDesk.getState().columns.companies).toEqual(['name', 'headcount']);
    await user.click(screen.getByRole('button', { name: 'sorted by it, most first' }));
    expect(useDesk.getState().sort).toEqual([]);
  });
  test('of records that hang on one company each has no roles to choose', () => {
    picker({ id: 'h', has: 'people', lines: [] });
    expect(screen.queryByRole('radiogroup', { name: 'Role' })).toBeNull();
    expect(screen.getByRole('list', { name: 'Lines on people' })).toBeTruthy();
  });
});
