/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { undo, useHistory } from '../app/history.ts';
import { useDesk } from '../desk/store.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { ListRoll } from './ListRoll.tsx';

beforeEach(freshDesk);

const rivals = aList({ members: 90 });
const answers: Answers = {
  'GET /lists': { lists: [rivals], removed: [], reasons: [] },
  'GET /lists/rivals': { list: rivals, roll: { steps: [], foot: 90 }, reasons: [] },
  'POST /tally': { universe: 99, tally: 90, lines: [] },
};
const nothing = () => undefined;
const roll = (list = rivals) => (
  <ListRoll
    list={list}
    onCombine={nothing}
    onExport={nothing}
    onPut={nothing}
    onWrite={nothing}
    onVisit={nothing}
  />
);

describe('a list held against a saved tape', () => {
  const saved = {
    id: 't1',
    kind: 'tape',
    name: 'Makers',
    tape: {
      format: 'just-tally.tape',
      version: 1,
      subject: 'companies',
      lines: [{ id: 'a', field: 'headcount', test: { from: 20 }, unknown: 'keep' }],
    },
  };
  const against = {
    members: 90,
    both: 70,
    joining: 12,
    leaving: 20,
    lines: [{ id: 'a', words: 'Headcount 20 or more', dropped: 20 }],
  };
  test('says who would join and leave, and opens exactly those', async () => {
    const { user } = show(roll(), {
      ...answers,
      'GET /tapes': { tapes: [saved] },
      'POST /lists/rivals/against': against,
    });
    await user.selectOptions(await screen.findByLabelText(/^Against/), 'Makers');
    await user.click(await screen.findByRole('button', { name: '12' }));
    expect(useDesk.getState().tape.lines).toMatchObject([
      { field: 'headcount', test: { from: 20 } },
      { field: 'list', test: { any: ['rivals'] }, not: true },
    ]);
    const byLine = screen.getByTitle('Headcount 20 or more').closest('li')!;
    await user.click(within(byLine).getByRole('button', { name: '20' }));
    // What the line keeps with its unknowns, turned round: neither those nor the unknowns.
    expect(useDesk.getState().tape.lines).toMatchObject([
      { field: 'list', test: { any: ['rivals'] } },
      { field: 'headcount', test: { from: 20 }, not: true, unknown: 'drop' },
    ]);
  });
  test('takes over those it lacks, and takes off those who no longer pass, each in one act and undone', async () => {
    const both = {
      ...against,
      lines: [
        ...against.lines,
        { id: 'b', words: 'Status active', dropped: 3 },
        { id: 'c', words: 'Web', dropped: 0 },
      ],
    };
    const lines = [
      ...saved.tape.lines,
      { id: 'b', field: 'status', test: { any: ['active'] } },
      { id: 'c', field: 'status', test: { any: ['active'] } },
    ];
    let taken = 0;
    const { user, sent, asked } = show(roll(), {
      ...answers,
      'GET /tapes': { tapes: [{ ...saved, tape: { ...saved.tape, name: 'Makers', lines } }] },
      'POST /lists/rivals/against': both,
      'POST /lists/rivals/members': { added: 12, of: 12, origins: [9], list: rivals },
      'DELETE /lists/rivals/origins/9': {},
      'DELETE /lists/rivals/members': () => ({ removed: ++taken === 1 ? 18 : 2, taken, list: rivals }),
      'DELETE /lists/rivals/taken/1': {},
      'DELETE /lists/rivals/taken/2': {},
    });
    await user.selectOptions(await screen.findByLabelText(/^Against/), 'Makers');
    await user.click(await screen.findByRole('button', { name: 'Put on' }));
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    expect(sent('POST /lists/rivals/members')).toMatchObject([
      { tape: { name: 'Makers', lines: [{}, {}, {}, { field: 'list', not: true }] } },
    ]);
    await user.click(await screen.findByRole('button', { name: 'Take off' }));
    await waitFor(() => expect(useHistory.getState().past.at(-1)?.name).toBe('taking 20 off Rivals'));
    // Only by lines that drop somebody.
    expect(sent('DELETE /lists/rivals/members')).toMatchObject([
      { tape: { lines: [{ field: 'list' }, { field: 'headcount', not: true, unknown: 'drop' }] } },
      { tape: { lines: [{ field: 'list' }, { field: 'status', not: true, unknown: 'keep' }] } },
    ]);
    await undo();
    await undo();
    const back = asked.filter(({ path }) => /taken|origins/.test(path));
    expect(back.map(({ method, path }) => `${method} ${path}`)).toEqual([
      'DELETE /lists/rivals/taken/2',
      'DELETE /lists/rivals/taken/1',
      'DELETE /lists/rivals/origins/9',
    ]);
  });
  test('neither takes nor gives where it is frozen', async () => {
    show(roll({ ...rivals, frozen: true }), {
      ...answers,
      'GET /tapes': { tapes: [saved] },
      'POST /lists/rivals/against': against,
    });
    fireEvent.change(await screen.findByLabelText(/^Against/), { target: { value: 't1' } });
    await screen.findByRole('button', { name: '12' });
    expect([
      screen.queryByRole('button', { name: 'Put on' }),
      screen.queryByRole('button', { name: 'Take off' }),
    ]).toEqual([null, null]);
  });
});
