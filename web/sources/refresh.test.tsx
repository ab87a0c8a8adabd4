/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk } from '../testing/render.tsx';
import { answers, page, source } from '../testing/sources.tsx';

beforeEach(freshDesk);

const refreshed = { on: '2026-11-20', before: 90, added: 12, gone: 3, now: 99, changed: 2, keptAs: null };
const firms = source('firms', { name: 'Firms', fileName: 'firms-10.csv', refreshed });
const changes = [
  {
    ...{ key: 'CZ-2', name: 'Birch Works', there: true },
    changes: { town: { was: 'Brno', is: 'Praha' }, headcount: { was: null, is: '45' } },
  },
  { key: 'CZ-3', name: 'Cedar Works', there: false, changes: { web: { was: 'cedar.example', is: null } } },
];

async function opened(more: object = {}) {
  const shown = page(
    answers([firms], [], { 'GET /sources/firms/changes': { what: 'changed', changes }, ...more }),
  );
  await shown.user.click(
    await screen.findByRole('link', { name: 'newer version: 12 new, 2 changed, 3 gone' }),
  );
  return shown;
}

describe('a source that was refreshed', () => {
  test('has a roll that adds up, and says of each company what was and is', async () => {
    await opened();
    const roll = await screen.findByRole('complementary', { name: 'Firms' });
    expect(within(roll).getByLabelText('companies now: 99')).toBeTruthy();
    expect(roll.textContent).toMatch(/Companies before90.*New102.*\+12.*Gone99.*−3/);
    const rows = (await screen.findAllByRole('row')).slice(1).map((row) => row.textContent);
    expect(rows).toEqual([
      'Birch WorkstownBrnoPraha',
      'headcountunknown45',
      'Cedar Workswebcedar.exampleunknown',
    ]);
    // Only those that are there lead anywhere.
    expect(screen.getByRole('link', { name: 'Birch Works' })).toBeTruthy();
    expect(screen.queryByRole('link', { name: 'Cedar Works' })).toBeNull();
  });
  test('opens those behind each figure', async () => {
    const { user, asked } = await opened();
    await user.click(await screen.findByRole('button', { name: '−3' }));
    expect(await screen.findByRole('heading', { name: 'Gone' })).toBeTruthy();
    await waitFor(() => expect(asked.some(({ path }) => path.endsWith('what=gone'))).toBe(true));
  });
  test('makes a list of them, which goes again when it is taken back', async () => {
    const list = aList({ key: 'firms-changed', name: 'Firms, changed', members: 2 });
    const { user, sent, asked } = await opened({
      'POST /sources/firms/list': { list, added: 2, of: 2, origins: [1] },
      'DELETE /lists/firms-changed': {},
    });
    await user.click(await screen.findByRole('button', { name: 'Make a list of the 2 changed' }));
    await waitFor(() =>
      expect(sent('POST /sources/firms/list')).toEqual([{ what: 'changed', name: 'Firms, changed' }]),
    );
    expect(await screen.findByRole('button', { name: 'Open it on the Desk' })).toBeTruthy();
    await act(() => undo());
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/lists/firms-changed')).toBe(
      true,
    );
  });
  test('of people speaks of people, and leads to them', async () => {
    const staff = source('staff', { name: 'Staff', subject: 'people', refreshed });
    const moved = {
      ...{ key: 'person-7', name: 'Bruno Second', there: true },
      changes: { company: { was: 'Alder Works', is: 'Birch Coatings' } },
    };
    const promoted = {
      ...{ key: 'person-8', name: 'Anna First', there: true },
      changes: { title: { was: 'Buyer', is: 'Head of purchasing' } },
    };
    const { user } = page(
      answers([staff], [], { 'GET /sources/staff/changes': { what: 'changed', changes: [moved, promoted] } }),
    );
    await user.click(await screen.findByRole('link', { name: 'newer version: 12 new, 2 changed, 3 gone' }));
    const roll = await screen.findByRole('complementary', { name: 'Staff' });
    expect(within(roll).getByLabelText('people now: 99')).toBeTruthy();
    expect(roll.textContent).toMatch(/People before90/);
    expect(await screen.findByRole('columnheader', { name: 'Person' })).toBeTruthy();
    const link = screen.getByRole('link', { name: 'Bruno Second' });
    expect(link.getAttribute('href')).toBe('/desk?company=people%2Fperson-7');
    const names = () => screen.getAllByRole('link', { name: /First|Second/ }).map((one) => one.textContent);
    expect(names()).toEqual(['Anna First', 'Bruno Second']);
    await user.click(screen.getByRole('button', { name: 'Field' }));
    expect(names()).toEqual(['Bruno Second', 'Anna First']);
  });
});
