/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { redo, undo, useHistory } from '../app/history.ts';
import { usePutting } from '../desk/putting.ts';
import { useDesk } from '../desk/store.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { Lists } from './Lists.tsx';
import { columnsOfList } from './use-lists.ts';

beforeEach(freshDesk);

const rivals = aList({
  members: 90,
  judgedIn: 50,
  judgedOut: 20,
  unsure: 5,
  folder: 'Rivals',
  owner: 'Ilona',
});
const targets = aList({
  key: 'targets',
  name: 'Targets',
  members: 40,
  folder: 'Autumn',
  changedAt: '2026-10-05T09:00:00Z',
});
const customers = aList({ key: 'customers', name: 'Customers', members: 12, suppression: 'groups' });
const steps = [
  { step: 'origin-1', label: 'Tape Makers', note: '2026-09-12, Ilona', delta: 80, total: 80 },
  { step: 'origin-2', label: 'File visitors.csv', note: '2026-09-14', delta: 20, total: 100 },
  { step: 'again-2', label: 'of these already there', note: 'they keep all origins', delta: -4, total: 96 },
  { step: 'taken-1', label: 'Taken off by hand', note: '2026-09-15', delta: -6, total: 90 },
];
const answers: Answers = {
  'GET /lists': { lists: [rivals, targets, customers], removed: [], reasons: ['too small'] },
  'GET /lists/rivals': {
    list: rivals,
    roll: { steps, foot: 90 },
    reasons: [
      { reason: 'too small', count: 15 },
      { reason: 'closed', count: 5 },
    ],
  },
  'GET /lists/targets': { list: targets, roll: { steps: [], foot: 40 }, reasons: [] },
  'GET /lists/customers': { list: customers, roll: { steps: [], foot: 12 }, reasons: [] },
  'GET /lists/rivals/shares': { shares: [{ list: 'targets', name: 'Targets', both: 7, there: 40 }] },
  'GET /lists/targets/shares': { shares: [] },
  'GET /lists/customers/shares': { shares: [] },
  'PUT /lists/rivals': { list: rivals },
  'DELETE /lists/rivals': {},
  'POST /lists/rivals/restore': { list: rivals },
};
const sentChanges = (asked: { method: string; path: string }[]) =>
  asked
    .filter(({ method, path }) => method !== 'GET' && path !== '/tally' && path !== '/counts')
    .map(({ method, path }) => `${method} ${path}`);
const names = () =>
  screen
    .getAllByRole('row')
    .map((row) => within(row).queryByTitle(/on the Desk$/)?.textContent)
    .filter(Boolean);
const select = async (name: string) => {
  const row = (await screen.findByRole('button', { name })).closest('tr')!;
  fireEvent.click(row);
  return row;
};
const keyed = (key: string) => fireEvent.keyDown(document.body, { key });

test('a list brings what it says of its members once, and as one has put it the next time', () => {
  const companies = { subject: 'companies', carried: [] };
  const first = columnsOfList(companies, ['name', 'headcount']);
  expect(first).toEqual(['name', 'member:verdict:*', 'member:reason:*', 'member:tags:*', 'headcount']);
  expect(columnsOfList(companies, first)).toEqual(first);
  const moved = ['name', 'headcount', 'member:verdict:*'];
  expect(columnsOfList(companies, moved)).toEqual(moved);
  const stand = { column: 'Stand', kind: 'category' } as const;
  expect(columnsOfList({ ...companies, carried: [stand] }, ['name', 'headcount'])).toEqual([
    'name',
    'member:verdict:*',
    'member:reason:*',
    'member:tags:*',
    'carried:*:Stand',
    'headcount',
  ]);
  useDesk.getState().setColumns(['name', 'headcount', 'headcount']);
  expect(useDesk.getState().columns.companies).toEqual(['name', 'headcount']);
});

test('the members of a list go on another by S, which asks which one', async () => {
  show(<Lists />, answers);
  await select('Rivals');
  keyed('s');
  expect(usePutting.getState().acted).toMatchObject({
    one: false,
    tape: { lines: [{ field: 'list', test: { any: ['rivals'] } }] },
  });
});

describe('the table of lists', () => {
  test('stands by the day of change, sorts, and finds words of name, folder and owner', async () => {
    const { user } = show(<Lists />, answers);
    await screen.findByRole('button', { name: 'Targets' });
    expect(names()[0]).toBe('Targets');
    await user.click(screen.getByRole('button', { name: 'Members' }));
    expect(names()).toEqual(['Rivals', 'Targets', 'Customers']);
    await user.type(screen.getByLabelText('Find a list'), 'ilona');
    expect(names()).toEqual(['Rivals']);
    await user.type(screen.getByLabelText('Find a list'), ' nobody');
    expect(screen.getByText(/No list has these words/)).toBeTruthy();
  });
  test('draws of five hundred only those in view, and scrolls to the one that keys go to', async () => {
    const many = Array.from({ length: 500 }, (_, i) =>
      aList({
        key: `n${i}`,
        name: `Number ${i}`,
        changedAt: new Date(Date.UTC(2026, 0, 1, 0, i)).toISOString(),
      }),
    );
    show(<Lists />, { 'GET /lists': { lists: many, removed: [], reasons: [] } });
    await screen.findByRole('button', { name: 'Number 499' });
    const table = screen.getByRole('table', { name: 'Lists' });
    expect(table.getAttribute('aria-rowcount')).toBe('501');
    expect(table.querySelectorAll('[data-list]').length).toBeLessThan(60);
    const scrolled: number[] = [];
    table.parentElement!.scrollTo = ((to: { top: number }) => scrolled.push(to.top)) as never;
    for (let i = 0; i < 20; i++) keyed('j');
    expect(scrolled.at(-1)).toBeGreaterThan(19 * 48);
  });
  test('shows one folder alone', async () => {
    const { user } = show(<Lists />, answers);
    await screen.findByRole('button', { name: 'Targets' });
    await user.selectOptions(screen.getByLabelText('Folder'), 'Autumn');
    expect(names()).toEqual(['Targets']);
  });
  test('says of a suppression list that it is one, and of others how they were judged', async () => {
    show(<Lists />, answers);
    expect(within(await select('Customers')).getByText('kept off every export')).toBeTruthy();
    expect(within(await select('Rivals')).getByTitle('50 in, 20 out, 5 unsure, 15 not judged')).toBeTruthy();
  });
  test('says how to make the first where there is none', async () => {
    show(<Lists />);
    expect(await screen.findByText(/None yet/)).toBeTruthy();
  });
});

describe('the roll of a list', () => {
  test('goes from its origins to its members, and every figure opens those records', async () => {
    const { user } = show(<Lists />, answers);
    await select('Rivals');
    const roll = await screen.findByRole('complementary', { name: 'Rivals' });
    await within(roll).findByText('Tape Makers');
    expect(within(roll).getByLabelText('members: 90')).toBeTruthy();
    await user.click(within(roll).getByRole('button', { name: '−4' }));
    expect(useDesk.getState().tape.lines).toMatchObject([
      { field: 'list', test: { any: ['rivals'], step: 'again-2' } },
    ]);
    await user.click(within(roll).getByRole('button', { name: '20' }));
    expect(useDesk.getState().tape.lines).toMatchObject([{ test: { any: ['rivals'], verdict: ['out'] } }]);
    const byReason = within(within(roll).getByRole('list', { name: 'Out by reason' }));
    await user.click(byReason.getByRole('button', { name: '15' }));
    expect(useDesk.getState().tape.lines).toMatchObject([
      { test: { any: ['rivals'], verdict: ['out'], reason: ['too small'] } },
    ]);
  });
  test('opens a list on the Desk with what it says of its members as columns', async () => {
    show(<Lists />, answers);
    await select('Rivals');
    keyed('Enter');
    const { tape, columns } = useDesk.getState();
    expect([tape.name, tape.lines[0]]).toEqual([
      'Rivals',
      { id: 'l1', field: 'list', test: { any: ['rivals'] } },
    ]);
    expect(columns.companies!.slice(0, 2)).toEqual(['name', 'member:verdict:*']);
  });
  test('says how many of them exports leave out, and how many the universe has no more', async () => {
    show(<Lists />, { ...answers, 'POST /tally': { tally: 87, suppressed: 2, universe: 900, lines: [] } });
    await select('Rivals');
    const roll = within(await screen.findByRole('complementary', { name: 'Rivals' }));
    expect((await roll.findByText(/kept off exports/)).textContent).toBe('2 are kept off exports');
    expect(roll.getByText(/not in the universe/).textContent).toBe('3 are not in the universe now');
  });
  test('is beside the lists that share members, each counted both ways', async () => {
    show(<Lists />, answers);
    await select('Rivals');
    const row = (await screen.findByText('83')).closest('tr')!;
    expect(row.textContent).toBe('Targets83733');
  });
});

describe('a list', () => {
  const edit = async (user: ReturnType<typeof show>['user']) => {
    await user.click(await screen.findByRole('button', { name: 'More for Rivals' }));
    await user.click(await screen.findByRole('menuitem', { name: /Name, folder/ }));
    return await screen.findByLabelText<HTMLInputElement>('Name');
  };
  test('is given another name and folder, and has those it had by undo', async () => {
    const { user, sent } = show(<Lists />, answers);
    const name = await edit(user);
    await user.clear(name);
    await user.type(name, 'Others{Enter}');
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await undo();
    expect(sent('PUT /lists/rivals')).toMatchObject([
      { name: 'Others' },
      { name: 'Rivals', folder: 'Rivals' },
    ]);
  });
  test('keeps what was typed where a name is refused, and says why', async () => {
    const { user } = show(<Lists />, {
      ...answers,
      'PUT /lists/rivals': new Error('There is a list named "Others" already.'),
    });
    const name = await edit(user);
    await user.clear(name);
    await user.type(name, 'Others{Enter}');
    expect(await screen.findByText(/named "Others" already/)).toBeTruthy();
    expect(name.value).toBe('Others');
  });
  test('that follows others is made a fixed one by its dialog', async () => {
    const stays = { way: 'both' as const, parts: [{ list: 'targets' }] };
    const follows = { lists: [{ ...rivals, stays }], removed: [], reasons: [] };
    const { user, sent } = show(<Lists />, { ...answers, 'GET /lists': follows });
    await edit(user);
    await user.click(screen.getByLabelText(/^other lists/));
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent('PUT /lists/rivals').at(-1)).toEqual({ stays: false }));
  });
  test('is removed by a key, had back by undo, and removed again', async () => {
    const { asked } = show(<Lists />, answers);
    await select('Rivals');
    keyed('Delete');
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await undo();
    await redo();
    expect(sentChanges(asked)).toEqual([
      'DELETE /lists/rivals',
      'POST /lists/rivals/restore',
      'DELETE /lists/rivals',
    ]);
  });
  test('removed lately is offered to be had back', async () => {
    const removed = { ...rivals, removedAt: '2026-11-01T10:00:00Z' };
    const { user, asked } = show(<Lists />, {
      ...answers,
      'GET /lists': { lists: [targets], removed: [removed], reasons: [] },
    });
    await user.click(await screen.findByRole('button', { name: 'Lately removed: 1' }));
    await user.click(screen.getByRole('button', { name: 'Have it back' }));
    expect(sentChanges(asked)).toEqual(['POST /lists/rivals/restore']);
  });
  test('gives a shortlist of those judged in, in one act', async () => {
    const made = aList({ key: 'short', name: 'Rivals, shortlist', members: 50 });
    const { user, sent } = show(<Lists />, { ...answers, 'POST /lists/combine': { list: made } });
    await user.click(await screen.findByRole('button', { name: 'More for Rivals' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Shortlist of the 50 judged in' }));
    expect(sent('POST /lists/combine')).toEqual([
      { parts: [{ list: 'rivals', verdict: ['in'] }], way: 'both', name: 'Rivals, shortlist', stays: false },
    ]);
  });
});

describe('from a list, in one act', () => {
  const see = async (what: string) => {
    const { user } = show(<Lists />, answers);
    await user.click(await screen.findByRole('button', { name: 'More for Rivals' }));
    await user.click(await screen.findByRole('menuitem', { name: what }));
    return useDesk.getState();
  };
  test('its people are a tape on people at companies on it', async () => {
    const { tape } = await see('Its people');
    expect([tape.subject, tape.lines[0]]).toMatchObject([
      'people',
      { has: 'company', lines: [{ field: 'list', test: { any: ['rivals'] } }] },
    ]);
  });
  test('more like these leaves out those that are on it, the most alike first', async () => {
    const { tape, sort } = await see('More like these');
    expect(tape.lines).toMatchObject([
      { field: 'peers', test: { list: 'rivals' } },
      { field: 'list', test: { any: ['rivals'] }, not: true },
    ]);
    expect(sort).toEqual([{ by: 'score:l1', descending: true }]);
  });
  test('its map and its Breakdown are views of the same tape', async () => {
    expect((await see('Its map')).view).toBe('map');
  });
});

describe('a new list', () => {
  test('is made with what is said of it, gone again by undo', async () => {
    const made = aList({ key: 'new', name: 'New' });
    const { user, sent, asked } = show(<Lists />, {
      ...answers,
      'POST /lists': { list: made },
      'DELETE /lists/new': {},
    });
    await screen.findByRole('button', { name: 'Rivals' });
    keyed('n');
    const dialog = within(await screen.findByRole('dialog'));
    await user.type(dialog.getByLabelText('Name'), ' New ');
    await user.selectOptions(dialog.getByLabelText('Holds'), 'people');
    await user.type(dialog.getByLabelText('Folder'), 'Autumn');
    await user.selectOptions(dialog.getByLabelText('Suppression'), 'keeps its members off every export');
    await user.click(screen.getByRole('button', { name: 'Make it' }));
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    expect(sent('POST /lists')).toMatchObject([
      { name: 'New', subject: 'people', folder: 'Autumn', suppression: 'members' },
    ]);
    await undo();
    expect(sentChanges(asked).at(-1)).toBe('DELETE /lists/new');
  });
});

describe('lists combined', () => {
  const overlap = {
    regions: [
      { lists: [0], count: 83 },
      { lists: [1], count: 33 },
      { lists: [0, 1], count: 7 },
    ],
  };
  test('are counted before, in each way, and made one by its name', async () => {
    const { user, sent } = show(<Lists />, {
      ...answers,
      'POST /lists/overlap': overlap,
      'POST /lists/combine': { list: aList({ key: 'new', name: 'New' }) },
    });
    await select('Rivals');
    keyed(' ');
    await user.click(screen.getByLabelText('Pick Targets'));
    keyed('c');
    const dialog = within(await screen.findByRole('dialog'));
    expect(await dialog.findByRole('button', { name: 'Make it of 83' })).toBeTruthy();
    await user.click(dialog.getByRole('radio', { name: 'in both' }));
    expect(dialog.getByRole('button', { name: 'Make it of 7' })).toBeTruthy();
    await user.click(dialog.getByRole('radio', { name: 'in exactly one' }));
    expect(dialog.getByRole('button', { name: 'Make it of 116' })).toBeTruthy();
    await user.click(dialog.getByRole('radio', { name: 'in any' }));
    await user.click(dialog.getByRole('radio', { name: 'stays true' }));
    await user.type(dialog.getByLabelText('A new list named'), 'New{Enter}');
    expect(sent('POST /lists/combine')).toEqual([
      { parts: [{ list: 'rivals' }, { list: 'targets' }], way: 'either', name: 'New', stays: true },
    ]);
  });
});
