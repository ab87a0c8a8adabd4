/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { aList } from '../testing/lists.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { Shares } from './Shares.tsx';

beforeEach(freshDesk);

const opened = (shares: object[]) => {
  const onList = jest.fn();
  const list = aList({ members: 20 });
  return {
    ...show(<Shares list={list} onList={onList} />, { 'GET /lists/rivals/shares': { shares } }),
    onList,
  };
};
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole('cell')
        .slice(0, 4)
        .map(({ textContent }) => textContent),
    );

test('lists that share members stand with how many are only here, in both, and only there', async () => {
  const { user, onList } = opened([
    { list: 'fair', name: 'Fair', both: 3, there: 30 },
    { list: 'autumn', name: 'Autumn', both: 8, there: 10 },
  ]);
  await screen.findByText('Fair');
  expect(rows()).toEqual([
    ['Autumn', '12', '8', '2'],
    ['Fair', '17', '3', '27'],
  ]);
  await user.click(screen.getByRole('button', { name: 'only there' }));
  expect(rows().map(([name]) => name)).toEqual(['Fair', 'Autumn']);
  await user.click(screen.getByRole('button', { name: 'list' }));
  expect(rows().map(([name]) => name)).toEqual(['Autumn', 'Fair']);
  await user.click(screen.getByRole('button', { name: 'Fair' }));
  expect(onList.mock.calls).toEqual([['fair']]);
});

test('where no list shares any there is nothing to see', async () => {
  const { asked, container } = opened([]);
  await waitFor(() => expect(asked.some(({ path }) => path === '/lists/rivals/shares')).toBe(true));
  expect(container.querySelector('table')).toBeNull();
});
