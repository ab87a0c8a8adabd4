/** @jest-environment jsdom */
import { expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import type { MatchView } from '../../../contract/matches.ts';
import { matchView } from '../../testing/matches.ts';
import { show } from '../../testing/render.tsx';
import { MatchRoll } from './MatchRoll.tsx';
import type { RowsShown } from './use-match.ts';

function open(more: Partial<MatchView> = {}) {
  const opened: RowsShown[] = [];
  const shown = show(
    <MatchRoll match={matchView(more)} onShow={(rows) => opened.push(rows)}>
      {null}
    </MatchRoll>,
  );
  return { ...shown, opened };
}
const became = () => within(screen.getByRole('list', { name: 'What became of the rows' }));
/** The figure behind a word. */
const figureOf = (word: string) => within(became().getByText(word).closest('li')!).getAllByRole('button')[0]!;

test('what became of the rows adds up to those that were to be matched', async () => {
  open();
  const parts = ['Sure', 'Settled by hand', 'Doubtful, left to settle', 'None found'].map((word) =>
    Number(figureOf(word).textContent),
  );
  expect(parts).toEqual([338, 0, 3, 62]);
  expect(parts.reduce((sum, part) => sum + part, 0)).toBe(403);
  expect(await screen.findByText('84')).toBeTruthy();
});

test('each figure opens its rows, and those that are none do not', async () => {
  const { user, opened } = open();
  await user.click(figureOf('Doubtful, left to settle'));
  await user.click(figureOf('by domain'));
  await user.click(figureOf('Sure'));
  expect(opened).toEqual([
    { states: ['doubtful'], by: null },
    { states: ['sure'], by: 'domain' },
    { states: ['sure'], by: null },
  ]);
  expect((figureOf('Settled by hand') as HTMLButtonElement).disabled).toBe(true);
});

test('our own key stands among what made sure only where a file carried it', () => {
  const { unmount } = open();
  expect(became().queryByText(/Company key|our key|by key/i)).toBeNull();
  unmount();
  open({ sure: { key: 12, number: 201, domain: 84, name: 41 } });
  expect(became().getAllByText('12')).toHaveLength(1);
});

test('rows that are one company are told as that many companies, and rows that are no data are taken off', () => {
  open();
  expect(screen.getByText(/they are/).textContent).toBe('they are 335 companies');
  expect(screen.getByText('Not data: totals, notes')).toBeTruthy();
  expect(screen.getByText(/% at most/).textContent).toContain('338 of 403 rows, 85 % at most');
});

test('where every row is a company of its own, and all are data, neither is said', () => {
  open({ foundCompanies: 338, notData: 0, rows: 411 });
  expect(screen.queryByText(/they are/)).toBeNull();
  expect(screen.queryByText('Not data: totals, notes')).toBeNull();
});

test('doubles of the universe are counted as companies, without what only files have', () => {
  open({ of: 'doubles', rows: 500, toMatch: 500, notData: 0, unreadable: 0, twice: 0 });
  expect(screen.getByText(/companies that the universe may have twice/)).toBeTruthy();
  expect(screen.queryByText('Twice in the file')).toBeNull();
});

test('it is said that the universe has changed since', () => {
  const { unmount } = open();
  expect(screen.queryByText('The universe has changed since.')).toBeNull();
  unmount();
  open({ changed: true });
  expect(screen.getByText('The universe has changed since.')).toBeTruthy();
});

test('a file of which nothing was to be matched has a share of nought', () => {
  open({
    ...{ rows: 4, notData: 1, unreadable: 3, twice: 0, toMatch: 0, found: 0, foundCompanies: 0 },
    ...{ sure: { key: 0, number: 0, domain: 0, name: 0 }, doubtful: 0, none: 0 },
  });
  expect(screen.queryByText(/NaN|Infinity/)).toBeNull();
});
