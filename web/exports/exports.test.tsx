/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { ExportView, Job } from '../../contract/responses.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { Exports } from './Exports.tsx';

beforeEach(freshDesk);

const one = (id: string, more: Partial<ExportView> = {}): ExportView => ({
  id,
  name: `Export ${id}`,
  format: 'csv',
  tape: { subject: 'companies', lines: [] },
  wording: [],
  columns: ['name', 'headcount', 'count:l1'],
  picked: null,
  count: 10,
  madeAt: '2026-11-01T08:30:00Z',
  bytes: 2048,
  job: null,
  ...more,
});
const names = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.querySelector('td')!.textContent);

test('exports are the newest first, sorted by what is pressed, each with the tape that made it', async () => {
  const { user } = show(<Exports />, {
    'GET /exports': {
      exports: [
        one('a', { name: 'zeta', count: 5, wording: ['status active', 'headcount 20 or more'], picked: 3 }),
        one('b', { name: 'Ábel', count: null, madeAt: '2026-11-03T08:30:00Z', format: 'xlsx' }),
        one('c', { name: 'beta', count: 70, madeAt: '2026-11-02T08:30:00Z' }),
      ],
    },
  });
  await screen.findByText('zeta');
  expect(names()).toEqual(['Ábel', 'beta', 'zeta']);
  await user.click(screen.getByRole('button', { name: 'Name' }));
  expect(names()).toEqual(['Ábel', 'beta', 'zeta']);
  await user.click(screen.getByRole('button', { name: 'Companies' }));
  expect(names()).toEqual(['beta', 'zeta', 'Ábel']);
  const row = within(screen.getByText('zeta').closest('tr')!);
  expect(row.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
    'status active',
    'headcount 20 or more',
  ]);
  expect(row.getByText(/picked by hand/).textContent).toBe('3 picked by hand · Company, Headcount, count');
  expect(row.getByRole('link', { name: 'Open the tape' }).getAttribute('href')).toMatch(/^\/desk/);
  expect(row.getByRole('link', { name: /CSV/ }).getAttribute('href')).toBe('/api/exports/a/file');
  expect(screen.getAllByText('the whole universe')).toHaveLength(2);
});

test('an export that is being written shows how far it is, and its file when it is done', async () => {
  const job: Job = {
    id: 'j1',
    kind: 'export',
    title: 'Writing',
    state: 'running',
    done: 30,
    total: 100,
    message: null,
    result: null,
    startedAt: '2026-11-01T08:30:00Z',
    endedAt: null,
  };
  let state: Job['state'] = 'running';
  show(<Exports />, {
    'GET /exports': () => ({
      exports: [state === 'done' ? one('a', { bytes: 3_145_728 }) : one('a', { bytes: null, job })],
    }),
    'GET /jobs/j1': () => ({ job: { ...job, state }, refusals: false }),
  });
  const bar = await screen.findByRole('progressbar', { name: 'Writing' });
  expect(bar.getAttribute('aria-valuenow')).toBe('30');
  state = 'done';
  expect((await screen.findByRole('link', { name: /CSV/ })).textContent).toMatch(/3 MB/);
});

test('an export is removed after a question, since that cannot be undone; a failure is said', async () => {
  let there = true;
  const { user, asked } = show(<Exports />, {
    'GET /exports': () => ({ exports: there ? [one('a'), one('b')] : [one('b')] }),
    'DELETE /exports/a': () => {
      there = false;
      return {};
    },
    'DELETE /exports/b': new Error('The file is being read.'),
  });
  await user.click(await screen.findByRole('button', { name: 'Remove Export a' }));
  expect(screen.getByRole('dialog').textContent).toMatch(/this cannot be undone/);
  expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
  await user.click(screen.getByRole('button', { name: 'Remove' }));
  await waitFor(() => expect(screen.queryByText('Export a')).toBeNull());
  await user.click(screen.getByRole('button', { name: 'Remove Export b' }));
  await user.click(screen.getByRole('button', { name: 'Remove' }));
  expect(await screen.findByText('The file is being read.')).toBeTruthy();
  expect(screen.getByText('Export b')).toBeTruthy();
});

test('no export says how one is made', async () => {
  show(<Exports />, { 'GET /exports': { exports: [] } });
  expect(await screen.findByText(/Nothing was exported yet/)).toBeTruthy();
});
