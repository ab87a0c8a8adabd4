/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ListView, SavedTapeView } from '../../contract/responses.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { redo, undo, useHistory } from '../app/history.ts';
import { Lists } from '../lists/Lists.tsx';
import { NoteBox } from '../profile/NoteBox.tsx';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import type { Acted } from './acted.ts';
import { AddToListDialog } from './AddToListDialog.tsx';
import { ExportDialog } from './ExportDialog.tsx';
import { NO_PICKS, withPicked, type Picks } from './picks.ts';
import { useDesk } from './store.ts';
import { SavedTapesDialog } from './tape/SavedTapesDialog.tsx';
import { SaveTapeDialog } from './tape/SaveTapeDialog.tsx';

let closed: number;
const onClose = () => void closed++;
beforeEach(() => {
  freshDesk();
  closed = 0;
});

const two = withPicked(
  NO_PICKS,
  [
    { key: 'a', at: 0 },
    { key: 'b', at: 1 },
  ],
  true,
);
const acted = (picks: Picks, more: Partial<Acted> = {}): Acted => ({
  tape: emptyTape(),
  sort: [],
  picks,
  one: false,
  count: picks === NO_PICKS ? 63 : 2,
  gone: 0,
  total: 63,
  ...more,
});
const rivals: ListView = { key: 'rivals', name: 'Rivals', madeAt: '2026-10-01T09:00:00Z', members: 90 };
const calls = (asked: { method: string; path: string }[]) =>
  asked.filter(({ method }) => method !== 'GET').map(({ method, path }) => `${method} ${path}`);

describe('records on a list', () => {
  const answers: Answers = {
    'GET /lists': { lists: [rivals] },
    'POST /lists': { list: { ...rivals, key: 'new', name: 'New one', members: 0 } },
    'POST /lists/rivals/members': { added: 1, of: 2, at: 'T1', list: rivals },
    'POST /lists/new/members': { added: 2, of: 2, at: 'T2', list: rivals },
    'DELETE /lists/rivals/additions/T1': { removed: 1, list: rivals },
    'DELETE /lists/new/additions/T2': { removed: 2, list: rivals },
    'DELETE /lists/new': {},
  };
  test('go on one that is there, and off again by undo: just that addition', async () => {
    const { user, asked, sent } = show(<AddToListDialog acted={acted(two)} onClose={onClose} />, answers);
    await user.click(await screen.findByRole('button', { name: /Rivals 90 companies/ }));
    await waitFor(() => expect(closed).toBe(1));
    expect(sent('POST /lists/rivals/members')).toMatchObject([{ keys: ['a', 'b'] }]);
    await undo();
    await redo();
    expect(calls(asked)).toEqual([
      'POST /lists/rivals/members',
      'DELETE /lists/rivals/additions/T1',
      'POST /lists/rivals/members',
    ]);
  });
  test('go on a new one, which goes again with them', async () => {
    const { user, asked } = show(<AddToListDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    const button: HTMLButtonElement = screen.getByRole('button', { name: 'Put on it' });
    expect(button.disabled).toBe(true);
    await user.type(screen.getByRole('textbox'), '  New one  {Enter}');
    await waitFor(() => expect(closed).toBe(1));
    await undo();
    expect(calls(asked)).toEqual([
      'POST /lists',
      'POST /lists/new/members',
      'DELETE /lists/new/additions/T2',
      'DELETE /lists/new',
    ]);
  });
  test('leave no empty list behind where it fails, and keep the name that was typed', async () => {
    const { user, asked } = show(<AddToListDialog acted={acted(two)} onClose={onClose} />, {
      ...answers,
      'POST /lists/new/members': new Error('The universe is being written.'),
    });
    const name: HTMLInputElement = screen.getByRole('textbox');
    await user.type(name, 'New one{Enter}');
    expect(await screen.findByText(/The universe is being written/)).toBeTruthy();
    await waitFor(() => expect(calls(asked).at(-1)).toBe('DELETE /lists/new'));
    expect([name.value, closed, useHistory.getState().past]).toEqual(['New one', 0, []]);
  });
  test('say how many of those picked stay off', () => {
    show(<AddToListDialog acted={acted(two, { gone: 3 })} onClose={onClose} />, answers);
    expect(screen.getByText(/^3 of the companies picked no longer pass/)).toBeTruthy();
  });
});

describe('an export', () => {
  const answers: Answers = {
    'POST /tally': { tally: 63, universe: 100, lines: [] },
    'POST /rows': {
      total: 63,
      rows: [
        {
          key: 'a',
          cells: {
            name: '=SUM(1)',
            street: 'Long 1',
            postcode: '602 00',
            place: { town: 'Brno', region: null },
          },
        },
      ],
    },
    'POST /exports': { export: 'e1', job: { id: 'j1' } },
    'GET /jobs/j1': {
      job: { id: 'j1', state: 'failed', message: 'The disk is full.', done: 0, total: 1, title: 'Export' },
    },
  };
  test('is of those picked where any is, and of all where all are asked', async () => {
    const { user, sent } = show(<ExportDialog acted={acted(two)} onClose={onClose} />, answers);
    await user.click(screen.getByRole('radio', { name: 'all 63' }));
    expect(screen.getByRole('button', { name: 'Export 63' })).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'the 2 picked' }));
    await user.click(screen.getByRole('radio', { name: 'CSV' }));
    await user.selectOptions(screen.getByRole('combobox', { name: 'Delimiter' }), ';');
    await user.click(screen.getByRole('checkbox', { name: /byte order mark/ }));
    await user.clear(screen.getByLabelText('Name of the export'));
    await user.type(screen.getByLabelText('Name of the export'), ' Two of them ');
    await user.click(screen.getByRole('button', { name: 'Export 2' }));
    expect(sent('POST /exports')).toMatchObject([
      { name: 'Two of them', format: 'csv', delimiter: ';', bom: false, keys: ['a', 'b'], currency: 'EUR' },
    ]);
    // What stopped it is said where it was started.
    expect(await screen.findByText(/The disk is full/)).toBeTruthy();
  });
  test('shows the first rows as the file will have them', async () => {
    const { user } = show(<ExportDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    await user.click(screen.getByRole('radio', { name: 'names and addresses' }));
    const preview = await screen.findByLabelText('The first rows');
    expect(
      within(preview)
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent),
    ).toEqual(['Company', 'Street', 'Postcode', 'Town', 'Region', 'Country']);
    expect(within(preview).getByText('Brno')).toBeTruthy();
  });
  test('of nobody, of no columns or without a name cannot be started', async () => {
    const { user, unmount } = show(
      <ExportDialog acted={acted(NO_PICKS, { count: 0, total: 0 })} onClose={onClose} />,
      answers,
    );
    const start: HTMLButtonElement = screen.getByRole('button', { name: 'Export 0' });
    expect([start.disabled, start.title]).toEqual([true, 'Nobody is left to export']);
    unmount();
    show(<ExportDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    await user.clear(screen.getByLabelText('Name of the export'));
    const nameless: HTMLButtonElement = screen.getByRole('button', { name: 'Export 63' });
    expect(nameless.disabled).toBe(true);
  });
  test('of one record asks not which', () => {
    show(<ExportDialog acted={acted(two, { one: true, count: 1, total: 1 })} onClose={onClose} />, answers);
    expect(screen.queryByRole('radiogroup', { name: /^Which companies/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Export 1' })).toBeTruthy();
  });
  test('of a tape that takes the first so many takes those', async () => {
    const tape = { ...emptyTape(), first: 20 };
    const { user, sent } = show(
      <ExportDialog acted={acted(NO_PICKS, { tape })} onClose={onClose} />,
      answers,
    );
    await user.click(screen.getByRole('button', { name: 'Export 20' }));
    expect(sent('POST /exports')).toMatchObject([{ tape: { first: 20 } }]);
  });
});

describe('the lists', () => {
  const answers: Answers = {
    'GET /lists': { lists: [rivals] },
    'PUT /lists/rivals': { list: rivals },
    'DELETE /lists/rivals': {},
  };
  test('are renamed, and named as before by undo', async () => {
    const { user, sent } = show(<Lists />, answers);
    await user.click(await screen.findByRole('button', { name: 'Rename' }));
    const name = screen.getByRole('textbox', { name: 'Name of the list' });
    await user.clear(name);
    await user.type(name, 'Others{Enter}');
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await undo();
    expect(sent('PUT /lists/rivals')).toEqual([{ name: 'Others' }, { name: 'Rivals' }]);
  });
  test('keep what was typed where a name is refused, and say why', async () => {
    const { user } = show(<Lists />, {
      ...answers,
      'PUT /lists/rivals': new Error('There is a list named "Others" already.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Rename' }));
    const name: HTMLInputElement = screen.getByRole('textbox', { name: 'Name of the list' });
    await user.clear(name);
    await user.type(name, 'Others{Enter}');
    expect(await screen.findByText(/already/)).toBeTruthy();
    expect(name.value).toBe('Others');
  });
  test('are removed only after it was asked', async () => {
    const { user, asked } = show(<Lists />, answers);
    await user.click(await screen.findByRole('button', { name: 'Remove Rivals' }));
    await user.click(await screen.findByRole('button', { name: 'Keep it' }));
    expect(calls(asked)).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Remove Rivals' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(calls(asked)).toEqual(['DELETE /lists/rivals']));
  });
  test('say how to make the first', async () => {
    show(<Lists />, { 'GET /lists': { lists: [] } });
    expect(await screen.findByText(/None yet/)).toBeTruthy();
  });
});

describe('saved tapes', () => {
  const tape: Tape = {
    ...emptyTape(),
    name: 'Joineries',
    lines: [{ id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['16.23'] } }],
    sort: [{ by: 'headcount', descending: true }],
  };
  const saved: SavedTapeView = {
    id: 's1',
    kind: 'tape',
    name: 'Joineries',
    description: null,
    tape,
    reads: 'Companies with industry 16.23.',
    savedAt: '2026-10-01T09:00:00Z',
    then: 120,
    now: 113,
    problem: null,
  } as unknown as SavedTapeView;
  const part = { ...saved, id: 's2', kind: 'part', name: 'Trade' } as SavedTapeView;
  const answers: Answers = {
    'GET /tapes': { tapes: [saved, part] },
    'POST /tapes': { tape: { ...saved, id: 's9' } },
    'PUT /tapes/s1': { tape: saved },
    'DELETE /tapes/s1': {},
    'DELETE /tapes/s9': {},
  };
  test('say what they left then and leave now, and open with their order', async () => {
    const { user } = show(<SavedTapesDialog onClose={onClose} />, answers);
    const row = (await screen.findByText('Joineries')).closest('li')!;
    expect(row.textContent).toMatch(/113 now.*−7 since/);
    await user.click(within(row).getByRole('button', { name: 'Open' }));
    const { tape: open, sort } = useDesk.getState();
    expect([open.name, sort, closed]).toEqual(['Joineries', tape.sort, 1]);
    await undo();
    expect(useDesk.getState().tape.lines).toEqual([]);
  });
  test('put their lines on the tape at hand where they are parts, under free ids', async () => {
    useDesk.setState({
      tape: { ...emptyTape(), lines: [{ id: 'a', field: 'status', test: { any: ['active'] } }] },
    });
    const { user } = show(<SavedTapesDialog onClose={onClose} />, answers);
    await user.click(await screen.findByRole('button', { name: 'Put on the tape' }));
    const { lines } = useDesk.getState().tape;
    expect(lines).toHaveLength(2);
    expect(new Set(lines.map(({ id }) => id)).size).toBe(2);
  });
  test('are removed at once, and had back by undo', async () => {
    const { user, asked } = show(<SavedTapesDialog onClose={onClose} />, answers);
    const row = (await screen.findByText('Joineries')).closest('li')!;
    await user.click(within(row).getByRole('button', { name: /Remove/ }));
    await waitFor(() => expect(useHistory.getState().past).toHaveLength(1));
    await undo();
    await redo();
    expect(calls(asked)).toEqual(['DELETE /tapes/s1', 'POST /tapes', 'DELETE /tapes/s9']);
  });
  test('are written over where one of that name is there, and by undo as it was', async () => {
    useDesk.setState({ tape: { ...emptyTape(), name: 'Joineries' } });
    const { user, sent } = show(<SaveTapeDialog onClose={onClose} />, answers);
    await user.click(await screen.findByRole('button', { name: 'Replace the one of this name' }));
    await waitFor(() => expect(closed).toBe(1));
    await undo();
    expect(sent('PUT /tapes/s1')).toMatchObject([
      { kind: 'tape', name: 'Joineries', tape: { lines: [] } },
      { kind: 'tape', name: 'Joineries', tape },
    ]);
  });
});

describe('a note', () => {
  const note = (text: string) => ({ text, changedAt: '2026-10-01T09:00:00Z' });
  const answers: Answers = {
    'GET /notes/companies/a': note('Rang them.'),
    'PUT /notes/companies/a': (body: unknown) => note((body as { text: string }).text),
  };
  test('is kept, and by undo as it was before', async () => {
    const { user, sent } = show(<NoteBox subject="companies" recordKey="a" open onOpen={onClose} />, answers);
    const box: HTMLTextAreaElement = screen.getByRole('textbox', { name: 'Note' });
    await waitFor(() => expect(box.value).toBe('Rang them.'));
    await user.type(box, ' Nobody there.');
    await user.keyboard('{Control>}{Enter}{/Control}');
    await waitFor(() => expect(closed).toBe(1));
    await undo();
    expect(sent('PUT /notes/companies/a')).toEqual([
      { text: 'Rang them. Nobody there.' },
      { text: 'Rang them.' },
    ]);
  });
  test('that cannot be read is not written over', async () => {
    show(<NoteBox subject="companies" recordKey="a" open onOpen={onClose} />, {
      'GET /notes/companies/a': new Error('The workspace cannot be read.'),
    });
    expect(await screen.findByText(/cannot be read/)).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
  });
});
