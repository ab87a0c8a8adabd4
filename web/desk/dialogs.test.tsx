/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { useQueryClient } from '@tanstack/react-query';
import { screen, waitFor, within } from '@testing-library/react';
import { Toaster } from 'sonner';
import type { SavedTapeView } from '../../contract/responses.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { redo, undo, useHistory } from '../app/history.ts';
import { NoteBox } from '../profile/NoteBox.tsx';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import type { Acted } from './acted.ts';
import { aList } from '../testing/lists.ts';
import { putAtOnce } from '../lists/acts.ts';
import { AddToListDialog } from './AddToListDialog.tsx';
import { usePutting } from './putting.ts';
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
const rivals = aList({ members: 90 });
const calls = (asked: { method: string; path: string }[]) =>
  asked
    .filter(({ method, path }) => method !== 'GET' && !path.startsWith('/lists/before'))
    .map(({ method, path }) => `${method} ${path}`);

describe('records on a list', () => {
  const answers: Answers = {
    'GET /lists': { lists: [rivals], removed: [], reasons: [] },
    'POST /lists/before': { count: 2, there: { rivals: 1 }, suppressed: 0 },
    'POST /lists': { list: { ...rivals, key: 'new', name: 'New one', members: 0 } },
    'POST /lists/rivals/members': { added: 1, of: 2, origins: [1], taken: null, list: rivals },
    'POST /lists/new/members': { added: 2, of: 2, origins: [2], taken: null, list: rivals },
    'DELETE /lists/rivals/origins/1': { removed: 1, list: rivals },
    'DELETE /lists/new/origins/2': { removed: 2, list: rivals },
    'DELETE /lists/new': {},
  };
  test('go on one that is there, and off again by undo: just that addition', async () => {
    const { user, asked, sent } = show(<AddToListDialog acted={acted(two)} onClose={onClose} />, answers);
    await user.click(await screen.findByRole('button', { name: 'Rivals' }));
    await waitFor(() => expect(closed).toBe(1));
    expect(sent('POST /lists/rivals/members')).toMatchObject([{ keys: ['a', 'b'] }]);
    await undo();
    await redo();
    expect(calls(asked)).toEqual([
      'POST /lists/rivals/members',
      'DELETE /lists/rivals/origins/1',
      'POST /lists/rivals/members',
    ]);
  });
  test('go on a new one, which goes again with them', async () => {
    const { user, asked } = show(<AddToListDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    const button: HTMLButtonElement = screen.getByRole('button', { name: 'Put on it' });
    expect(button.disabled).toBe(true);
    await user.type(screen.getByRole('textbox', { name: 'A new list named' }), '  New one  {Enter}');
    await waitFor(() => expect(closed).toBe(1));
    await undo();
    expect(calls(asked)).toEqual([
      'POST /lists',
      'POST /lists/new/members',
      'DELETE /lists/new/origins/2',
      'DELETE /lists/new',
    ]);
  });
  test('go by Enter on the list that is called just what was typed, whatever its case, and no other is made', async () => {
    const { user, asked } = show(<AddToListDialog acted={acted(two)} onClose={onClose} />, answers);
    const box = screen.getByRole('textbox', { name: 'A new list named' });
    await screen.findByRole('button', { name: 'Rivals' });
    await user.type(box, 'riv');
    expect(screen.getByRole('button', { name: 'Rivals' })).toBeTruthy();
    await user.type(box, 'x');
    expect(screen.queryByRole('button', { name: 'Rivals' })).toBeNull();
    await user.clear(box);
    await user.type(box, 'rivals{Enter}');
    await waitFor(() => expect(closed).toBe(1));
    expect(calls(asked)).toEqual(['POST /lists/rivals/members']);
    expect(usePutting.getState().last).toMatchObject({ companies: { key: 'rivals' } });
  });
  test('go on the list used last without asking, which is said and taken back', async () => {
    const Again = () => {
      const client = useQueryClient();
      const list = { key: 'rivals', name: 'Rivals' };
      const put = () => void putAtOnce(client, list, acted(two), String);
      return (
        <button type="button" onClick={put}>
          again
        </button>
      );
    };
    const { user, asked } = show(
      <>
        <Again />
        <Toaster />
      </>,
      answers,
    );
    await user.click(screen.getByRole('button', { name: 'again' }));
    expect(await screen.findByText('1 put on Rivals, 1 was on it already')).toBeTruthy();
    await undo();
    expect(calls(asked)).toEqual(['POST /lists/rivals/members', 'DELETE /lists/rivals/origins/1']);
  });
  test('say before how many are new to each list, and how many are kept off exports', async () => {
    show(<AddToListDialog acted={acted(two)} onClose={onClose} />, {
      ...answers,
      'POST /lists/before': { count: 63, there: { rivals: 21 }, suppressed: 4 },
    });
    const row = (await screen.findByRole('button', { name: 'Rivals' })).closest('tr')!;
    await within(row).findByText('42');
    expect(row.textContent).toBe('Rivals902142');
    expect(screen.getByText(/are kept off every export/).textContent).toContain('4');
  });
  test('are only the first so many, or the people of them, where that is asked', async () => {
    const { user, sent } = show(<AddToListDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    await user.type(screen.getByLabelText(/^Only the first so many/), '20');
    await user.click(screen.getByRole('radio', { name: 'their people' }));
    await user.type(screen.getByRole('textbox', { name: 'A new list named' }), 'New one{Enter}');
    await waitFor(() => expect(closed).toBe(1));
    expect(sent('POST /lists')).toEqual([{ name: 'New one', subject: 'people' }]);
    expect(sent('POST /lists/new/members')).toMatchObject([{ tape: { first: 20 } }]);
  });
  test('move from the list that the tape stands on, or are taken off it, and come back by undo', async () => {
    const own = aList({ key: 'own', name: 'Own', members: 63 });
    const onOwn = { ...emptyTape(), lines: [{ id: 'l', field: 'list', test: { any: ['own'] } }] };
    const here = {
      ...answers,
      'GET /lists': { lists: [own, rivals], removed: [], reasons: [] },
      'POST /lists/own/copies': { added: 2, of: 2, origins: [7], taken: 5, list: rivals },
      'DELETE /lists/rivals/origins/7': { removed: 2, list: rivals },
      'DELETE /lists/own/taken/5': { back: 2, list: own },
      'DELETE /lists/own/members': { removed: 2, taken: 6, list: own },
      'DELETE /lists/own/taken/6': { back: 2, list: own },
    };
    const first = show(<AddToListDialog acted={acted(two, { tape: onOwn })} onClose={onClose} />, here);
    await first.user.click(await screen.findByRole('radio', { name: 'they move' }));
    await first.user.click(await screen.findByRole('button', { name: 'Rivals' }));
    await waitFor(() => expect(closed).toBe(1));
    expect(first.sent('POST /lists/own/copies')).toMatchObject([{ to: 'rivals', move: true }]);
    await undo();
    expect(calls(first.asked).slice(1)).toEqual([
      'DELETE /lists/rivals/origins/7',
      'DELETE /lists/own/taken/5',
    ]);
    first.unmount();
    const second = show(<AddToListDialog acted={acted(two, { tape: onOwn })} onClose={onClose} />, here);
    await second.user.click(await screen.findByRole('button', { name: 'Take off Own' }));
    await waitFor(() => expect(closed).toBe(2));
    await undo();
    expect(calls(second.asked)).toEqual(['DELETE /lists/own/members', 'DELETE /lists/own/taken/6']);
  });
  test('leave no empty list behind where it fails, and keep the name that was typed', async () => {
    const { user, asked } = show(<AddToListDialog acted={acted(two)} onClose={onClose} />, {
      ...answers,
      'POST /lists/new/members': new Error('The universe is being written.'),
    });
    const name: HTMLInputElement = screen.getByRole('textbox', { name: 'A new list named' });
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
