/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { useLocation } from 'react-router';
import {
  READY_RIGHT_PEOPLE,
  type PersonFunction,
  type RightPersonChoice,
} from '../../core/people/functions.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { undo } from '../app/history.ts';
import { AddToListDialog } from '../desk/AddToListDialog.tsx';
import { NO_PICKS } from '../desk/picks.ts';
import { encodeTape } from '../desk/address.ts';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { withoutTape } from './right-people.ts';
import { RightPersonColumns } from './RightPersonColumns.tsx';
import { RightPersonPicker } from './RightPersonPicker.tsx';

beforeEach(() => {
  freshDesk();
  localStorage.clear();
});

/** The address that is open. */
function Where() {
  return <output>{useLocation().search}</output>;
}

/** An API that keeps the workspace's own choices. */
function keeping(own: RightPersonChoice[] = []) {
  const kept = [...own];
  return {
    'GET /right-people': () => ({ ready: [...READY_RIGHT_PEOPLE.values()], own: [...kept] }),
    'PUT /right-people/who-paints': (body: unknown) => {
      kept.push({ key: 'who-paints', ...(body as Omit<RightPersonChoice, 'key'>) });
      return { own: [...kept] };
    },
    'DELETE /right-people/who-paints': () => {
      kept.length = 0;
      return {};
    },
  };
}

function Picked({ first, onNow }: { first: PersonFunction[]; onNow(now: readonly PersonFunction[]): void }) {
  const [functions, setFunctions] = useState<readonly PersonFunction[]>(first);
  onNow(functions);
  return <RightPersonPicker functions={functions} onFunctions={setFunctions} />;
}

test('a ready choice is taken; functions of one’s own are kept under a name, taken back and removed', async () => {
  let now: readonly PersonFunction[] = [];
  const { user, sent } = show(
    <Picked first={[{ title: ['paint'] }]} onNow={(next) => (now = next)} />,
    keeping(),
  );
  await user.type(screen.getByLabelText('Keep these functions under the name'), 'Who paints');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect(await screen.findByRole('option', { name: 'Who paints' })).toBeTruthy();
  expect(sent('PUT /right-people/who-paints')).toEqual([
    { label: 'Who paints', functions: [{ title: ['paint'] }] },
  ]);
  await settled(undo);
  await waitFor(() => expect(screen.queryByRole('option', { name: 'Who paints' })).toBeNull());
  await user.selectOptions(screen.getByLabelText('The right person'), 'Whoever buys');
  expect(now).toEqual(READY_RIGHT_PEOPLE.get('buys')!.functions);
  // What is ready is neither kept again nor removed.
  expect(screen.queryByRole('button', { name: 'Keep' })).toBeNull();
  expect(screen.queryByRole('button', { name: /^Remove/ })).toBeNull();
});

test('a choice of one’s own goes at a press', async () => {
  const own = { key: 'who-paints', label: 'Who paints', functions: [{ title: ['paint'] }] };
  const { user, sent } = show(<Picked first={own.functions} onNow={() => {}} />, keeping([own]));
  await user.click(await screen.findByRole('button', { name: 'Remove Who paints' }));
  await waitFor(() => expect(sent('DELETE /right-people/who-paints')).toHaveLength(1));
});

test('what a server refuses is said, and the name stays', async () => {
  const { user } = show(<Picked first={[{ title: ['paint'] }]} onNow={() => {}} />, {
    ...keeping(),
    'PUT /right-people/who-paints': new Error('There is a choice "Who paints" already.'),
  });
  await user.type(screen.getByLabelText('Keep these functions under the name'), 'Who paints');
  await user.click(screen.getByRole('button', { name: 'Keep' }));
  expect(await screen.findByText(/already/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Keep these functions under the name').value).toBe(
    'Who paints',
  );
});

test('columns of the right person are ticked, by the choice at hand', async () => {
  let columns: readonly string[] = [];
  function Columns({ tell }: { tell(columns: readonly string[]): void }) {
    const [now, setNow] = useState<readonly string[]>(['name']);
    tell(now);
    return <RightPersonColumns columns={now} onColumns={setNow} />;
  }
  const { user } = show(<Columns tell={(now) => (columns = now)} />, keeping());
  await user.click(screen.getByLabelText('Mail'));
  await user.selectOptions(screen.getByLabelText('Whose columns'), 'Whoever buys');
  await user.click(screen.getByLabelText('Name'));
  expect(columns).toEqual([
    'name',
    'right:mail:production head, else production director, else owner',
    'right:name:purchasing head or director, else purchasing manager, else owner',
  ]);
  await user.click(screen.getByLabelText('Name'));
  expect(columns).toHaveLength(2);
  await user.click(screen.getByRole('button', { name: 'Change' }));
  const dialog = within(screen.getByRole('dialog'));
  await user.selectOptions(dialog.getByLabelText('Department 1'), 'finance');
  await user.click(dialog.getByRole('button', { name: 'Take these' }));
  await user.click(screen.getByLabelText('Phone'));
  expect(columns.at(-1)).toBe('right:phone:finance head or director, else purchasing manager, else owner');
});

test('one person a company goes on a list; companies without any are counted and opened', async () => {
  const acted = {
    tape: { ...emptyTape(), name: 'Joineries' },
    ...{ sort: [], picks: NO_PICKS, one: false, count: 12, gone: 0, total: 12 },
  };
  const { user, sent } = show(
    <>
      <AddToListDialog acted={acted} onClose={() => {}} />
      <Where />
    </>,
    {
      ...keeping(),
      'POST /lists/before': {
        count: 10,
        there: {},
        suppressed: 1,
        without: 2,
        withoutKeys: ['cz-1', 'cz-2'],
      },
    },
  );
  expect(await screen.findByText(/is kept off every export/)).toBeTruthy();
  await user.click(screen.getByRole('radio', { name: 'their people' }));
  await user.click(screen.getByRole('radio', { name: /one a company/ }));
  await user.selectOptions(screen.getByLabelText('The right person'), 'Whoever runs the firm');
  await waitFor(() =>
    expect(sent('POST /lists/before').at(-1)).toMatchObject({
      functions: READY_RIGHT_PEOPLE.get('runs-the-firm')!.functions,
    }),
  );
  await user.click(await screen.findByRole('button', { name: '2 companies have nobody of these' }));
  const { functions } = READY_RIGHT_PEOPLE.get('runs-the-firm')!;
  const opened = encodeTape(withoutTape(functions, ['cz-1', 'cz-2']));
  await waitFor(() => expect(screen.getByRole('status', { hidden: true }).textContent).toContain(opened));
});
