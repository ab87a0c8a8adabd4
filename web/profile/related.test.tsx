/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { columnFields, RELATED } from '../../core/fields/registry.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { undo } from '../app/history.ts';
import { useDesk } from '../desk/store.ts';
import { openProfile, place, profile } from '../testing/profile.tsx';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { RecordPage } from './RecordPage.tsx';

beforeEach(freshDesk);

const desk = () => useDesk.getState();
const fact = async (name: string) => (await screen.findByText(name)).parentElement!.textContent;

describe('what hangs on it', () => {
  const counts =
    (some: Record<string, number | null>) =>
    ({ columns, tape }: { columns: string[]; tape: { subject: string } }) =>
      columns.some((id) => id.startsWith('count:'))
        ? {
            total: 1,
            rows: [
              {
                key: 'CZ:7',
                cells: Object.fromEntries(
                  RELATED.map(({ id }) => [`count:${id}`, id in some ? some[id] : 0]),
                ),
              },
            ],
          }
        : tape.subject === 'people'
          ? {
              total: 12,
              rows: [
                {
                  key: 'p1',
                  cells: { name: 'Jana Nová', title: 'Buyer', since: null, mail: null, certainty: null },
                },
              ],
            }
          : { total: 0, rows: [] };
  const matrix = {
    'POST /charts': {
      charts: [
        {
          chart: { id: 'people' },
          slots: [
            {
              kind: 'group',
              key: 'purchasing',
              label: 'Purchasing',
              count: 5,
              parts: [{ count: 3 }, { count: 0 }, { count: 2 }],
            },
            {
              kind: 'unknown',
              key: null,
              label: null,
              count: 1,
              parts: [{ count: 1 }, { count: 0 }, { count: 0 }],
            },
          ],
          split: [
            { kind: 'group', key: 'head', label: 'Head' },
            { kind: 'group', key: 'owner', label: 'Owner' },
            { kind: 'unknown', key: null, label: null },
          ],
        },
      ],
    },
  };
  test('is none, unknown where no source covers it, or the first few and the way to all', async () => {
    const { user } = openProfile(profile({}), {
      ...matrix,
      'POST /rows': counts({ people: 12, brands: null }),
    });
    await screen.findByRole('link', { name: 'Jana Nová' });
    const section = (name: string) =>
      screen.getByRole('heading', { name: new RegExp(`^${name}`) }).closest('section')!;
    expect(section('Brands').textContent).toMatch(/unknown: no source covers them for this company/);
    expect(section('Deals').textContent).toMatch(/none/);
    await user.click(screen.getByRole('link', { name: 'all 12 as a tape' }));
    expect(desk().tape).toMatchObject({ subject: 'people', lines: [{ has: 'company' }] });
    expect(desk().sort).toEqual([{ by: 'level' }]);
  });
  test('stands in the order of the heading that is pressed, and goes to the Desk in it', async () => {
    const { user, sent } = openProfile(profile({}), { ...matrix, 'POST /rows': counts({ people: 12 }) });
    await screen.findByRole('link', { name: 'Jana Nová' });
    const asked = () =>
      (sent('POST /rows') as { tape: { subject: string }; sort?: object }[])
        .filter(({ tape }) => tape.subject === 'people')
        .map(({ sort }) => sort);
    const press = (name: string) => user.click(screen.getByRole('button', { name }));
    await press('Since');
    await waitFor(() => expect(asked().at(-1)).toEqual([{ by: 'since', descending: true }]));
    await press('Name');
    await press('Name');
    await waitFor(() => expect(asked().at(-1)).toEqual([{ by: 'name', descending: true }]));
    const heading = screen.getByRole('button', { name: 'Name' }).closest('th')!;
    expect(heading.getAttribute('aria-sort')).toBe('descending');
    await user.click(screen.getByRole('link', { name: 'all 12 as a tape' }));
    expect(desk().sort).toEqual([{ by: 'name', descending: true }]);
  });
  test('people by department and level: a number is the way to just those', async () => {
    const { user } = openProfile(profile({}), { ...matrix, 'POST /rows': counts({ people: 12 }) });
    const number = await screen.findByRole('button', { name: '3 in Purchasing, Head: as a tape' });
    // Levels that nobody has are left out; who has no level has no line.
    expect(screen.queryByRole('columnheader', { name: 'Owner' })).toBeNull();
    await user.click(number);
    expect(desk().tape.lines).toMatchObject([
      { has: 'company' },
      { field: 'department', test: { any: ['purchasing'] } },
      { field: 'level', test: { any: ['head'] } },
    ]);
  });
  test('a person opens beside its company, and is left for it again', async () => {
    useDesk.setState({ company: 'CZ:7' });
    const { user } = openProfile(profile({}), { ...matrix, 'POST /rows': counts({ people: 12 }) });
    await user.click(await screen.findByRole('link', { name: 'Jana Nová' }));
    expect([desk().company, desk().cameFrom]).toEqual(['people/p1', 'CZ:7']);
    await settled(() => desk().leave());
    expect(desk().company).toBe('CZ:7');
  });
});

describe('its group', () => {
  test('has its top first, what they are together and of how many, and is a tape or a list', async () => {
    const row = (key: string, name: string, ownership: string, headcount: number | null) => ({
      key,
      cells: {
        name,
        ownership,
        place,
        revenue: null,
        headcount:
          headcount === null
            ? null
            : { basis: 'reported', low: headcount, high: headcount, amount: headcount, year: 2025 },
      },
    });
    const { user, sent } = openProfile(profile({ group: 'Sever Holding' }), {
      'POST /rows': ({ columns }: { columns: string[] }) =>
        columns.includes('ownership')
          ? {
              total: 250,
              rows: [row('CZ:9', 'Sever Works', 'subsidiary', 90), row('CZ:1', 'Sever Holding', 'top', null)],
            }
          : { total: 0, rows: [] },
      'POST /summary': {
        columns: { headcount: { known: 3, exact: 2, sum: 1200 }, revenue: { known: 0, exact: 0 } },
      },
      'POST /lists': { list: { key: 'g', name: 'Group Sever Holding', members: 0 } },
      'POST /lists/g/members': {
        added: 250,
        of: 250,
        at: 'T',
        list: { key: 'g', name: 'Group Sever Holding' },
      },
    });
    const group = (await screen.findByRole('heading', { name: /^Group/ })).closest('section')!;
    expect(
      within(group)
        .getAllByRole('listitem')
        .map((item) => item.querySelector('a, strong')!.textContent),
    ).toEqual(['Sever Holding', 'Sever Works']);
    await waitFor(() =>
      expect(group.textContent).toMatch(
        /Together: headcount 1\.2k|Together: headcount 1,200 \(2 of 250 known\)/,
      ),
    );
    expect(group.textContent).toMatch(/revenue unknown/);
    expect(group.textContent).toMatch(/and 248 more/);
    await user.click(within(group).getByRole('button', { name: 'These as a list' }));
    await waitFor(() => expect(sent('POST /lists/g/members')).toHaveLength(1));
    expect(sent('POST /lists/g/members')[0]).toMatchObject({
      tape: { lines: [{ field: 'group', test: { any: ['Sever Holding'] } }] },
    });
    await user.click(within(group).getByRole('button', { name: 'Its sites' }));
    expect(desk().tape.subject).toBe('sites');
    await settled(undo);
    await user.click(within(group).getByRole('button', { name: 'These as a tape' }));
    expect(desk().tape).toMatchObject({ name: 'Group Sever Holding', lines: [{ field: 'group' }] });
  });
});

test('it stands against its industry by its place among those known', async () => {
  openProfile(profile({}), {
    'GET /companies/CZ%3A7/standing': {
      among: { label: 'Coating of metals', count: 1200 },
      strips: [
        {
          field: 'headcount',
          label: 'Headcount',
          value: 34,
          estimated: true,
          known: 900,
          quantiles: [1, 4, 9, 30, 80],
          percentile: 77.4,
        },
        {
          field: 'growth',
          label: 'Growth',
          value: null,
          estimated: false,
          known: 12,
          quantiles: [-9, -2, 0, 4, 20],
          percentile: null,
        },
      ],
    },
  });
  const section = (await screen.findByText('1,200 in Coating of metals')).closest('section')!;
  const [headcount, growth] = within(section).getAllByRole('row');
  expect(headcount!.textContent).toMatch(/34 above 77 %$/);
  expect(growth!.textContent).toBe('Growthunknown');
  expect(within(section).getByTitle('median 9 of 900 known')).toBeTruthy();
});

describe('the page of another record', () => {
  const person = {
    subject: 'deals',
    row: {
      key: 'd1',
      cells: {
        ...Object.fromEntries(columnFields('deals').map(({ id }) => [id, null])),
        name: 'Sale of Sever Works',
      },
    },
    parties: [
      { role: 'target', name: 'Sever Works', key: 'CZ:9' },
      { role: 'buyer', name: 'Somebody Abroad', key: null },
    ],
    products: null,
    sources: [{ name: 'Deals file', asOf: '2026-08-31' }],
  };
  const given = {
    'GET /records/deals/d1': person,
    'GET /notes/deals/d1': { text: '', changedAt: null },
    'POST /position': { position: { at: 4, total: 20, previous: 'd0', next: null } },
  };
  test('names its companies by their roles, those of the universe as links, and its sources with their dates', async () => {
    useDesk.setState({ tape: emptyTape('deals') });
    show(<RecordPage subject="deals" recordKey="d1" />, given);
    expect(await fact('target')).toBe('targetSever Works');
    expect(screen.getByRole('link', { name: 'Sever Works' })).toBeTruthy();
    expect(await fact('buyer')).toBe('buyerSomebody Abroad not in the universe');
    expect(await fact('As of')).toBe('As ofDeals file, 31 Aug 2026');
  });
  test('steps to the one before in the order of the tape, by press and by key, and not beyond the last', async () => {
    useDesk.setState({ tape: emptyTape('deals'), company: 'deals/d1' });
    const { user } = show(<RecordPage subject="deals" recordKey="d1" />, given);
    expect((await screen.findByText('20')).parentElement!.textContent).toBe('5 of 20');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /^next/ }).disabled).toBe(true);
    await user.keyboard('j');
    expect(desk().company).toBe('deals/d1');
    await user.keyboard('k');
    expect([desk().company, desk().cursor]).toEqual(['deals/d0', 3]);
  });
});
