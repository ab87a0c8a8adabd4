/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { useDesk } from '../desk/store.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { GroupSection } from './GroupSection.tsx';

beforeEach(freshDesk);

const reported = (point: number) => ({ basis: 'reported', low: point, high: point, point, year: 2025 });
const row = (key: string, name: string, more: object = {}) => ({
  key,
  cells: { name, ownership: 'subsidiary', place: null, headcount: null, revenue: null, ...more },
});
const answers: Answers = {
  'POST /rows': {
    total: 3,
    rows: [
      row('CZ:7', 'Lakovna Sever', { headcount: reported(40) }),
      row('CZ:8', 'Lakovna Jih', { place: { town: 'Brno', countryName: 'Czechia' } }),
      row('AT:1', 'Mirovec Holding', { ownership: 'top' }),
    ],
  },
  'POST /summary': {
    columns: {
      headcount: { known: 1, exact: 1, median: 40, sum: 40 },
      revenue: { known: 0, exact: 0 },
    },
  },
  'POST /lists': { list: aList({ key: 'g', name: 'Group Mirovec' }) },
  'POST /lists/g/members': { added: 3, already: 0, list: aList({ key: 'g', members: 3 }) },
};
const open = (more: Answers = {}) =>
  show(<GroupSection group="Mirovec" companyKey="CZ:7" />, { ...answers, ...more });
const names = () =>
  screen.getAllByRole('listitem').map((item) => item.querySelector('strong, a, button')?.textContent);

describe('the group of a company', () => {
  test('stands with its top first, the company itself marked, and what they are together', async () => {
    open();
    await screen.findByText('3 companies');
    expect(names()).toEqual(['Mirovec Holding', 'Lakovna Sever', 'Lakovna Jih']);
    expect(within(screen.getAllByRole('listitem')[1]!).queryByRole('button')).toBeNull();
    expect(screen.getByText('Brno, Czechia')).toBeTruthy();
    expect(await screen.findByText('40 (1 of 3 known)')).toBeTruthy();
    expect(screen.getByText('unknown')).toBeTruthy();
  });

  test('is ordered by headcount where that is asked', async () => {
    const { user, sent } = open();
    await user.click(await screen.findByRole('radio', { name: 'by headcount' }));
    await waitFor(() =>
      expect(sent('POST /rows').at(-1)).toMatchObject({ sort: [{ by: 'headcount', descending: true }] }),
    );
  });

  test('becomes the tape, or the sites of all of them', async () => {
    const { user } = open();
    await user.click(await screen.findByRole('button', { name: 'These as a tape' }));
    const { tape, company, view } = useDesk.getState();
    expect({ lines: tape.lines, company, view }).toEqual({
      lines: [{ id: 'l1', field: 'group', test: { any: ['Mirovec'] } }],
      company: null,
      view: 'sheet',
    });
    await user.click(screen.getByRole('button', { name: 'Its sites' }));
    expect(useDesk.getState().tape.subject).toBe('sites');
    expect(useDesk.getState().sort).toEqual([{ by: 'headcount', descending: true }]);
  });

  test('says where nobody else in it is recorded', async () => {
    open({ 'POST /rows': { total: 1, rows: [row('CZ:7', 'Lakovna Sever')] } });
    expect(await screen.findByText('nobody else in it is recorded')).toBeTruthy();
  });

  test('says how many more there are than are shown', async () => {
    open({ 'POST /rows': { total: 450, rows: [row('CZ:7', 'Lakovna Sever')] } });
    expect(await screen.findByText('and 449 more, which “These as a tape” shows')).toBeTruthy();
  });

  test('says why it cannot be shown', async () => {
    open({ 'POST /rows': new Error('The universe is being opened.') });
    expect(await screen.findByText('The universe is being opened.')).toBeTruthy();
  });
});
