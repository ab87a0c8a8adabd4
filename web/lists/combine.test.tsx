/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ListView } from '../../contract/lists.ts';
import { undo, useHistory } from '../app/history.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { CombineDialog } from './CombineDialog.tsx';

beforeEach(freshDesk);

const rivals = aList({ members: 90 });
const targets = aList({ key: 'targets', name: 'Targets', members: 40 });
const answers: Answers = {
  'POST /lists/overlap': {
    regions: [
      { lists: [0], count: 83 },
      { lists: [0, 1], count: 7 },
      { lists: [1], count: 33 },
    ],
  },
  'POST /lists/combine': { list: aList({ key: 'new', name: 'Left over', members: 83 }) },
  'DELETE /lists/new': {},
};
function open(more: Answers = {}, lists: readonly ListView[] = [rivals, targets]) {
  const made: ListView[] = [];
  const shown = show(<CombineDialog lists={lists} onClose={() => {}} onMade={(list) => made.push(list)} />, {
    ...answers,
    ...more,
  });
  return { ...shown, made };
}
const table = () => within(screen.getByRole('table', { name: 'Overlap' }));
/** What the table says, row by row: which lists, and how many. */
const rows = () =>
  table()
    .getAllByRole('row')
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole('cell')
        .slice(0, 3)
        .map((cell) => cell.textContent),
    );

describe('lists that are combined', () => {
  test('show what they share, the most first, and what becomes of each part', async () => {
    open();
    await screen.findByText('Make it of 83');
    expect(rows()).toEqual([
      ['on it', '–', '83'],
      ['–', 'on it', '33'],
      ['on it', 'on it', '7'],
    ]);
    expect(table().getAllByTitle('on the new list')).toHaveLength(1);
    expect(table().getAllByTitle('left out')).toHaveLength(2);
  });

  test('are sorted by a list and by members, as is chosen', async () => {
    const { user } = open();
    await screen.findByText('Make it of 83');
    await user.click(screen.getByRole('button', { name: /^Targets/ }));
    expect(rows().map(([, on]) => on)).toEqual(['on it', 'on it', '–']);
    await user.click(screen.getByRole('button', { name: /^Targets/ }));
    expect(rows().map(([, on]) => on)).toEqual(['–', 'on it', 'on it']);
    await user.click(screen.getByRole('button', { name: /^Members/ }));
    await user.click(screen.getByRole('button', { name: /^Members/ }));
    expect(rows().map(([, , count]) => count)).toEqual(['7', '33', '83']);
    expect(screen.getByRole('columnheader', { name: /^Members/ }).getAttribute('aria-sort')).toBe(
      'ascending',
    );
  });

  test.each([
    ['in both', 7],
    ['in any', 123],
    ['in exactly one', 116],
  ])('%s are %d', async (way, count) => {
    const { user } = open();
    await user.click(await screen.findByRole('radio', { name: way }));
    expect(await screen.findByText(`Make it of ${count}`)).toBeTruthy();
  });

  test('begin with the next list where that is asked', async () => {
    const { user, sent } = open();
    await user.click(await screen.findByRole('button', { name: 'Begin with the next' }));
    expect(screen.getByText('Targets without the other')).toBeTruthy();
    await waitFor(() =>
      expect(sent('POST /lists/overlap').at(-1)).toEqual({
        parts: [{ list: 'targets' }, { list: 'rivals' }],
      }),
    );
  });

  test('make a list once it has a name, which is a step to take back', async () => {
    const { user, sent, made } = open();
    await screen.findByText('Make it of 83');
    const make = screen.getByRole<HTMLButtonElement>('button', { name: 'Make it of 83' });
    expect(make.disabled).toBe(true);
    await user.type(screen.getByLabelText('A new list named'), '  Left over ');
    await user.click(screen.getByRole('radio', { name: 'stays true' }));
    await user.click(make);
    await waitFor(() => expect(made.map(({ key }) => key)).toEqual(['new']));
    const parts = [{ list: 'rivals' }, { list: 'targets' }];
    expect(sent('POST /lists/combine')).toEqual([{ parts, way: 'without', name: 'Left over', stays: true }]);
    expect(useHistory.getState().past).toHaveLength(1);
    await settled(undo);
    expect(sent('DELETE /lists/new')).toHaveLength(1);
  });

  test('of those judged in alone take no verdict of what is taken away', async () => {
    const { user, sent } = open();
    await user.click(await screen.findByRole('radio', { name: 'those judged in' }));
    await waitFor(() =>
      expect(sent('POST /lists/overlap').at(-1)).toEqual({
        parts: [{ list: 'rivals', verdict: ['in'] }, { list: 'targets' }],
      }),
    );
  });

  test('keep what was entered where making it fails, and say why', async () => {
    const { user, made } = open({ 'POST /lists/combine': new Error('There is a list “Twice” already.') });
    await screen.findByText('Make it of 83');
    await user.type(screen.getByLabelText('A new list named'), 'Twice{Enter}');
    expect(await screen.findByText('There is a list “Twice” already.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('A new list named').value).toBe('Twice');
    expect(made).toEqual([]);
  });

  test('say that nobody is on any of them', async () => {
    open({ 'POST /lists/overlap': { regions: [] } });
    expect(await screen.findByText('None of them has a member.')).toBeTruthy();
  });
});
