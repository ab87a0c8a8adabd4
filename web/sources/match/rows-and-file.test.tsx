/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { MatchRowView } from '../../../contract/matches.ts';
import { ROW_STATES } from '../../../contract/matches.ts';
import { matchView } from '../../testing/matches.ts';
import { freshDesk, show, type Answers } from '../../testing/render.tsx';
import { EnrichDialog } from './EnrichDialog.tsx';
import { MatchTable } from './MatchTable.tsx';

beforeEach(freshDesk);

const row = (nth: number, more: Partial<MatchRowView>): MatchRowView => ({
  row: nth,
  state: 'sure',
  by: 'domain',
  name: `Row ${nth}`,
  place: '',
  company: { key: `CZ-${nth}`, name: `Company ${nth}`, place: 'Brno, CZ' },
  chance: 0.998,
  twiceOf: null,
  was: null,
  ...more,
});

describe('the rows of a matched file', () => {
  const opened = (rows: MatchRowView[], more: object = {}, total = rows.length) => {
    const onRow = jest.fn();
    const shown = show(
      <MatchTable
        match={matchView()}
        shown={{ states: ROW_STATES, by: null }}
        title="All rows"
        onRow={onRow}
        onAll={null}
        {...more}
      />,
      { 'GET /matches/m1/rows': { total, rows } },
    );
    return { ...shown, onRow };
  };
  const cells = async (name: string | RegExp) =>
    within(await screen.findByRole('row', { name }))
      .getAllByRole('cell')
      .map(({ textContent }) => textContent);

  test('say what each came to, by what, and how sure that is', async () => {
    opened([
      row(2, {}),
      row(3, { state: 'doubtful', by: null, chance: 0.41 }),
      row(4, { state: 'none', by: null, company: null, chance: null }),
      row(5, { state: 'twice', by: null, company: null, twiceOf: 2 }),
      row(6, { state: 'settled', by: null, was: { state: 'none', name: null } }),
      row(7, { state: 'unreadable', by: null, company: null, chance: null }),
    ]);
    expect(await cells(/^2 /)).toEqual([
      '2',
      'Row 2',
      'Company 2Brno, CZ',
      'sure, by domain',
      expect.any(String),
    ]);
    expect((await cells(/^3 /)).slice(2, 4)).toEqual(['perhaps Company 3', 'doubtful']);
    expect((await cells(/^4 /)).slice(2)).toEqual(['', 'none found', '']);
    expect((await cells(/^5 /)).slice(2)).toEqual(['', 'twice in the file as row 2', '']);
    expect((await cells(/^6 /))[3]).toBe('settled by handwas none found');
    expect((await cells(/^7 /)).slice(2)).toEqual(['', 'nothing to go by', '']);
    expect(screen.getByRole('link', { name: 'Company 2' }).getAttribute('href')).toBe('/desk?company=CZ-2');
  });

  test('open to be settled, sure ones too; those that cannot be settled do not', async () => {
    const { user, onRow } = opened([row(2, {}), row(5, { state: 'twice', twiceOf: 2 })]);
    await user.click(await screen.findByRole('button', { name: 'Row 2' }));
    expect(onRow.mock.calls).toEqual([[2]]);
    expect(screen.queryByRole('button', { name: 'Row 5' })).toBeNull();
  });

  test('are put in order by what is clicked, the surest first', async () => {
    const { user, asked } = opened([row(2, {})]);
    await screen.findByRole('button', { name: 'Row 2' });
    const last = () => asked.filter(({ path }) => path.includes('/rows')).at(-1)!.path;
    expect(last()).toContain('sort=row&descending=&');
    await user.click(screen.getByRole('button', { name: 'Certainty' }));
    await waitFor(() => expect(last()).toContain('sort=certainty&descending=1'));
    await user.click(screen.getByRole('button', { name: 'Came to' }));
    await waitFor(() => expect(last()).toContain('sort=state&descending=&'));
  });

  test('come a page at a time', async () => {
    const { user, asked } = opened([row(2, {})], {}, 3);
    await user.click(await screen.findByRole('button', { name: 'Show more of the 3' }));
    await waitFor(() => expect(asked.filter(({ path }) => path.includes('/rows'))).toHaveLength(2));
    expect(asked.at(-1)!.path).toContain('offset=1');
  });

  test('of which there are none are said to be none, and all are a click away', async () => {
    const onAll = jest.fn();
    const { user } = opened([], { onAll });
    expect(await screen.findByText(/no/i, { selector: 'p' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'show all rows' }));
    expect(onAll).toHaveBeenCalledTimes(1);
  });
});

describe('the file with columns', () => {
  const opened = (answers: Answers = {}) => {
    const onClose = jest.fn();
    // The browser keeps what it is handed.
    URL.createObjectURL = () => 'blob:file';
    URL.revokeObjectURL = () => {};
    return { ...show(<EnrichDialog match={matchView()} onClose={onClose} />, answers), onClose };
  };

  test('has all rows, or those found, with the columns that are chosen', async () => {
    const { user, sent, onClose } = opened({ 'POST /matches/m1/file': 'Company,Headcount' });
    expect(screen.getByRole('button', { name: 'Write 411 rows as CSV' })).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'The 338 found' }));
    const boxes = screen.getAllByRole('checkbox', { checked: true });
    for (const box of boxes.slice(1)) await user.click(box);
    await user.click(screen.getByRole('button', { name: 'Write 338 rows as CSV' }));
    await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
    expect(sent('POST /matches/m1/file')).toEqual([{ part: 'found', columns: [expect.any(String)] }]);
  });

  test('that cannot be written says why and stays open', async () => {
    const { user, onClose } = opened({ 'POST /matches/m1/file': new Error('The match is gone.') });
    await user.click(screen.getByRole('button', { name: 'Write 411 rows as CSV' }));
    expect(await screen.findByText('The match is gone.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(onClose).toHaveBeenCalledTimes(1);
  });
});
