/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { WatchView } from '../../contract/runs.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { NO_PROGRAMS } from '../testing/exports.ts';
import { notice, planView } from '../testing/runs.ts';
import { Bell } from './Bell.tsx';
import { PlanDialog } from './PlanDialog.tsx';
import { WatchButton } from './WatchButton.tsx';
import { Watches } from './Watches.tsx';

beforeEach(freshDesk);

const NOTICES = {
  notices: [
    notice('a', {
      title: 'Lakovna: 6 things happened',
      items: ['one', 'two', 'three', 'four', 'five', 'six'],
    }),
    notice('b', { title: 'Targets failed', kind: 'failure', read: true, trouble: 'The mail was not taken' }),
  ],
  unread: 1,
  settings: { mail: '', hour: 7 },
  feed: '/api/notices/token.atom',
};

test('the bell says how much is unread, what happened with why, and marks it as read', async () => {
  const { user, sent } = show(<Bell />, { 'GET /notices': NOTICES, 'POST /notices/read': { unread: 0 } });
  await user.click(await screen.findByRole('button', { name: 'What there is to tell: 1 unread' }));
  const list = screen.getByRole('list', { name: 'Notices' });
  expect(within(list).getByText('and 2 more')).toBeTruthy();
  expect(within(list).queryByText('five')).toBeNull();
  expect(within(list).getByText('The mail was not taken')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'all read' }));
  await user.click(within(list).getByRole('link', { name: /Lakovna/ }));
  await waitFor(() => expect(sent('POST /notices/read')).toEqual([{}, { ids: ['a'] }]));
});

const watched: WatchView = {
  ...{ id: 'w1', subject: 'companies', key: 'CZ-1', name: 'Lakovna', kinds: ['growth', 'deal'], growth: 15 },
  ...{ rate: 'weekly', ways: ['bell'], madeAt: '2026-11-01T00:00:00Z' },
};

test('watching offers what can happen to it, and is changed and ended where it is watched already', async () => {
  const answers = {
    'GET /watches': { watches: [watched] },
    'GET /programs': NO_PROGRAMS,
    'PUT /watches': { watch: watched },
    'DELETE /watches/w1': null,
  };
  const fresh = show(<WatchButton of={{ subject: 'people', key: 'person-1', name: 'Eva' }} />, answers);
  await fresh.user.click(screen.getByRole('button', { name: 'Watch' }));
  const dialog = await screen.findByRole('dialog', { name: 'Watch Eva' });
  expect(within(dialog).queryByRole('checkbox', { name: 'new deals' })).toBeNull();
  await fresh.user.click(within(dialog).getByRole('checkbox', { name: 'departures' }));
  await fresh.user.selectOptions(within(dialog).getByRole('combobox', { name: 'How often' }), 'daily');
  await fresh.user.click(within(dialog).getByRole('button', { name: 'Watch' }));
  await waitFor(() =>
    expect(fresh.sent('PUT /watches')).toEqual([
      {
        subject: 'people',
        key: 'person-1',
        kinds: ['appointment', 'move'],
        rate: 'daily',
        ways: ['bell'],
        growth: null,
      },
    ]),
  );
  fresh.unmount();
  const there = show(<WatchButton of={{ subject: 'companies', key: 'CZ-1', name: 'Lakovna' }} />, answers);
  await there.user.click(await screen.findByRole('button', { name: 'Watched' }));
  const own = await screen.findByRole('dialog', { name: 'Watch Lakovna' });
  expect(within(own).getByRole<HTMLInputElement>('textbox', { name: /Growth beyond/ }).value).toBe('15');
  await there.user.click(within(own).getByRole('button', { name: 'Watch no more' }));
  await waitFor(() =>
    expect(there.asked.some(({ method, path }) => method === 'DELETE' && path === '/watches/w1')).toBe(true),
  );
});

test('what is watched is listed with how one is told, which can be changed; a wrong address is said, and kept', async () => {
  const wrong = Object.assign(new Error('mail must be an address, or empty.'), { status: 400 });
  const { user, sent } = show(<Watches words="" />, {
    'GET /watches': { watches: [watched] },
    'GET /notices': NOTICES,
    'PUT /notices/settings': wrong,
  });
  const table = await screen.findByRole('table', { name: 'What is watched' });
  expect(within(table).getByText('growth beyond 15 %, new deals')).toBeTruthy();
  const field = await screen.findByRole<HTMLInputElement>('textbox', { name: /mails go to/ });
  await user.type(field, 'nobody');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByRole('alert')).toBeTruthy();
  expect(field.value).toBe('nobody');
  expect(sent('PUT /notices/settings')).toEqual([{ mail: 'nobody', hour: 7 }]);
});

test('a plan is made by words: what it is, when, and what is told; what was wrong is said and nothing typed is lost', async () => {
  let refused = true;
  const made = planView('targets');
  const { user, sent } = show(
    <PlanDialog
      plan={null}
      others={[planView('other', { name: 'Other' })]}
      onClose={() => {}}
      onMade={() => {}}
    />,
    {
      'GET /programs': NO_PROGRAMS,
      'GET /tapes': {
        tapes: [
          { id: 't1', name: 'Targets', kind: 'tape' },
          { id: 't2', name: 'A part', kind: 'part' },
        ],
      },
      'POST /runs/when': { words: 'every Monday at 7', cron: '0 7 * * 1', next: ['2026-11-09T06:00:00Z'] },
      'POST /plans': () => {
        if (!refused) return { plan: made, runs: [] };
        refused = false;
        return new Error('“now” says no time that repeats.');
      },
    },
  );
  const choice = await screen.findByRole('combobox', { name: 'Saved tape' });
  await waitFor(() => expect(within(choice).getAllByRole('option')).toHaveLength(2));
  await user.selectOptions(choice, 'Targets');
  const name = screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' });
  expect(name.value).toBe('Targets');
  await user.type(screen.getByRole('textbox', { name: 'When, in words' }), 'every Monday at 7');
  expect(screen.getByRole('radio', { name: 'again and again' }).getAttribute('aria-checked')).toBe('true');
  expect(await screen.findByText(/: next/)).toBeTruthy();
  await user.click(screen.getByRole('checkbox', { name: /when more than/ }));
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('“now” says no time that repeats.')).toBeTruthy();
  expect(name.value).toBe('Targets');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent('POST /plans')).toHaveLength(2));
  expect(sent('POST /plans')[1]).toMatchObject({
    ...{ kind: 'tape', name: 'Targets', target: { tape: 't1' } },
    schedule: { how: 'repeats', words: 'every Monday at 7' },
    tell: { failure: true, success: false, changes: 0, rate: 'at-once', ways: ['bell'] },
  });
});

test('a pattern of cron is behind “more”, and another plan to run after can be chosen', async () => {
  const { user, sent } = show(
    <PlanDialog
      plan={planView('targets')}
      others={[planView('other', { name: 'Other' })]}
      onClose={() => {}}
      onMade={() => {}}
    />,
    {
      'GET /programs': NO_PROGRAMS,
      'GET /tapes': { tapes: [] },
      'POST /runs/when': { words: 'x', cron: null, next: [] },
      'PUT /plans/targets': { plan: planView('targets'), runs: [] },
    },
  );
  expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'When, in words' })).value).toBe(
    'every Monday at 7',
  );
  await user.click(screen.getByRole('radio', { name: 'after another' }));
  await user.selectOptions(screen.getByRole('combobox', { name: 'After what came of it' }), 'changed');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent('PUT /plans/targets')).toHaveLength(1));
  expect(sent('PUT /plans/targets')[0]).toMatchObject({
    schedule: { how: 'after', plan: 'other', outcome: 'changed' },
  });
});
