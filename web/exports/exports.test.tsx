/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { Job } from '../../contract/responses.ts';
import { undo } from '../app/history.ts';
import { delivery, exportView as one, NO_PROGRAMS, template } from '../testing/exports.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { Exports } from './Exports.tsx';

beforeEach(freshDesk);

const names = () =>
  within(screen.getByRole('table', { name: 'Exports' }))
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.querySelector('button')!.textContent);

describe('what was handed over', () => {
  test('is the newest first, sorted by what is pressed, and found by receiver, template and line', async () => {
    const { user } = show(<Exports />, {
      'GET /exports': {
        exports: [
          one('a', { name: 'zeta', count: 5, wording: ['status active', 'headcount 20 or more'], picked: 3 }),
          one('b', {
            name: 'Ábel',
            count: null,
            madeAt: '2026-11-03T08:30:00Z',
            format: 'xlsx',
            receiver: 'Print shop',
          }),
          one('c', { name: 'beta', count: 70, madeAt: '2026-11-02T08:30:00Z', template: 'Finance' }),
        ],
      },
    });
    await screen.findByRole('button', { name: 'zeta' });
    expect(names()).toEqual(['Ábel', 'beta', 'zeta']);
    await user.click(screen.getByRole('button', { name: 'Rows' }));
    expect(names()).toEqual(['beta', 'zeta', 'Ábel']);
    const find = screen.getByRole('searchbox', { name: 'Find an export' });
    for (const [text, found] of [
      ['print', ['Ábel']],
      ['finance', ['beta']],
      ['20 or more', ['zeta']],
      ['abel', ['Ábel']],
    ] as const) {
      await user.clear(find);
      await user.type(find, text);
      expect(names()).toEqual(found);
    }
    await user.type(find, 'xyz');
    expect(screen.getByText('No export with these words.')).toBeTruthy();
  });

  test('shows how the selected one came to its rows, with its tape and its columns', async () => {
    const { user } = show(<Exports />, {
      'GET /exports': {
        exports: [
          one('a', {
            name: 'zeta',
            receiver: 'Print shop',
            wording: ['status active'],
            picked: 12,
            roll: {
              steps: [
                { step: 'chosen', label: 'Picked', note: '', delta: 12, total: 12 },
                { step: 'off-x', label: 'On Customers', note: 'suppression list', delta: -2, total: 10 },
              ],
              foot: 10,
            },
          }),
          one('b', { name: 'other', madeAt: '2026-10-01T08:30:00Z', again: 'no', roll: null }),
        ],
      },
    });
    const roll = within(await screen.findByRole('complementary', { name: 'zeta' }));
    expect(roll.getByText('On Customers')).toBeTruthy();
    expect(roll.getByText('−2')).toBeTruthy();
    expect(roll.getByText(/12 picked by hand · Company, Headcount, count/)).toBeTruthy();
    expect(roll.getByRole('link', { name: 'Open the tape' }).getAttribute('href')).toMatch(/^\/desk/);
    expect(roll.getByRole('link', { name: 'Download' }).getAttribute('href')).toBe('/api/exports/a/file');
    await user.click(screen.getByRole('button', { name: 'other' }));
    const again: HTMLButtonElement = screen.getByRole('button', { name: 'Make again' });
    expect(again.disabled).toBe(true);
  });

  test('shows how far one is that is being written, and its file when it is done', async () => {
    const job: Job = {
      ...{ id: 'j1', kind: 'export', title: 'Writing', state: 'running', done: 30, total: 100 },
      ...{ message: null, result: null, startedAt: '2026-11-01T08:30:00Z', endedAt: null },
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

  test('is removed at once and had back, by undo or from those lately removed', async () => {
    let removedAt: string | null = null;
    const { user, asked } = show(<Exports />, {
      'GET /exports': () => ({ exports: [one('a', { removedAt }), one('b', { name: 'stays' })] }),
      'DELETE /exports/a': () => {
        removedAt = '2026-11-29T10:00:00Z';
        return {};
      },
      'POST /exports/a/restore': () => {
        removedAt = null;
        return { export: one('a') };
      },
      'DELETE /exports/b': new Error('The file is being read.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Export a' }));
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(names()).toEqual(['stays']));
    await undo();
    await waitFor(() => expect(names()).toEqual(['Export a', 'stays']));
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await user.click(await screen.findByText('Lately removed: 1'));
    await user.click(screen.getByRole('button', { name: 'Bring back' }));
    await waitFor(() => expect(names()).toHaveLength(2));
    expect(asked.filter(({ path }) => path === '/exports/a/restore')).toHaveLength(2);
    await user.click(screen.getByRole('button', { name: 'stays' }));
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    expect(await screen.findByText('The file is being read.')).toBeTruthy();
  });

  test('goes from the ledger only after a question', async () => {
    const { user, asked } = show(<Exports />, {
      'GET /exports': { exports: [one('a')] },
      'DELETE /exports/a': {},
    });
    await user.click(await screen.findByRole('button', { name: 'It never went out' }));
    expect(screen.getByRole('dialog').textContent).toMatch(/cannot be undone/);
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.map(({ path }) => path)).toContain('/exports/a?forget=true'));
  });

  test('is made again with what changed, or plainly where the ledger lacks it', async () => {
    const { user, sent } = show(<Exports />, {
      'GET /exports': { exports: [one('a'), one('b', { name: 'old', again: 'plain' })] },
      'POST /exports/a/again': { export: 'e2', job: { id: 'j2' } },
      'GET /jobs/j2': { job: { id: 'j2', state: 'failed', message: 'The disk is full.', done: 0, total: 1 } },
    });
    await user.click(await screen.findByRole('button', { name: 'Make again' }));
    await user.click(screen.getByRole('radio', { name: /Only what changed/ }));
    await user.click(screen.getByRole('button', { name: 'Make it again' }));
    expect(sent('POST /exports/a/again')).toEqual([{ rows: 'changes' }]);
    expect(await screen.findByText(/The disk is full/)).toBeTruthy();
    await user.click(within(screen.getByRole('dialog')).getAllByRole('button', { name: 'Close' })[0]!);
    await user.click(screen.getByRole('button', { name: 'old' }));
    await user.click(screen.getByRole('button', { name: 'Make again' }));
    const all: HTMLInputElement = screen.getByRole('radio', { name: /All rows/ });
    expect([all.disabled, screen.getByText(/not in the ledger/) !== null]).toEqual([true, true]);
  });

  test('of nothing yet says how an export is made', async () => {
    show(<Exports />, { 'GET /exports': { exports: [] } });
    expect(await screen.findByText(/Nothing was exported yet/)).toBeTruthy();
  });
});

const open = async (user: ReturnType<typeof show>['user'], tab: string) =>
  user.click(await screen.findByRole('button', { name: tab }));

test('templates are listed with their columns; one’s own are removed and had back', async () => {
  const own = template('Ours', {
    columns: ['name', 'revenue', 'made:1'],
    headings: { name: 'Account' },
    computed: [{ id: 'made:1', heading: 'Margin', way: 'percent', of: ['profit', 'revenue'] }],
    needs: ['mail'],
  });
  let templates = [template('Finance', {}, { ready: true, changedAt: null }), own];
  const { user, sent } = show(<Exports />, {
    'GET /exports': { exports: [] },
    'GET /export-templates': () => ({ templates }),
    'GET /receivers': {
      receivers: [{ key: 'print', name: 'Print shop', exports: 2, records: 1234, last: '2026-11-03' }],
    },
    'DELETE /export-templates/t-Ours': () => {
      templates = templates.slice(0, 1);
      return {};
    },
    'POST /export-templates': () => {
      templates = [...templates, own];
      return { template: own };
    },
  });
  await open(user, 'Templates');
  expect(await screen.findByText('Account, Revenue, Margin')).toBeTruthy();
  expect(screen.getByText('every row must have: mail')).toBeTruthy();
  expect(screen.getByRole('list', { name: 'Whom files went to' }).textContent).toMatch(
    /Print shop.*1,234 records in 2 exports/,
  );
  expect(screen.queryByRole('button', { name: 'Remove Finance' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Remove Ours' }));
  await waitFor(() => expect(screen.queryByText('Ours')).toBeNull());
  await undo();
  expect(await screen.findByText('Ours')).toBeTruthy();
  expect(sent('POST /export-templates')).toEqual([
    { name: 'Ours', subject: 'companies', fileName: '', file: own.file },
  ]);
});

describe('other programs', () => {
  const answers = {
    'GET /exports': { exports: [] },
    'GET /programs': {
      ...NO_PROGRAMS,
      feeds: [
        {
          id: 'f1',
          name: 'Sheet',
          format: 'csv',
          wording: ['status active'],
          madeAt: '2026-11-01T10:00:00Z',
          readAt: null,
          timesRead: 0,
        },
      ],
      folders: [{ id: 'd1', name: 'Shared', path: '/lists', trouble: 'The folder /lists is not there.' }],
      hosts: [{ name: 'hooks.example', private: false }],
      hooks: [
        {
          id: 'h1',
          name: 'Ours',
          url: 'stand-in',
          secret: 'whsec_abc',
          batch: 500,
          waiting: 2,
          delivered: 7,
          givenUp: 1,
        },
      ],
      deliveries: [
        delivery('m1'),
        delivery('m2', { state: 'given-up', attempts: 9, answer: '500 no', to: 'Theirs' }),
        delivery('m3', { kind: 'folder', to: 'Shared', answer: 'Posted 2026.csv' }),
      ],
      standIn: { requests: 10, refused: 2, rows: 40, wrongSignatures: 0 },
    },
  };

  test('are seen with what was delivered, and a webhook can be sent to again', async () => {
    const { user, sent } = show(<Exports />, { ...answers, 'POST /deliveries/m2/again': { waiting: true } });
    await open(user, 'Other programs');
    expect(await screen.findByText('The folder /lists is not there.')).toBeTruthy();
    expect(screen.getByRole('list', { name: 'Webhooks' }).textContent).toMatch(
      /7 delivered, 2 waiting, 1 given up/,
    );
    const row = within(screen.getByRole('cell', { name: 'Theirs' }).closest('tr')!);
    expect(row.getByText('given up after 9 attempts')).toBeTruthy();
    await user.click(row.getByRole('button', { name: 'Send again' }));
    expect(sent('POST /deliveries/m2/again')).toEqual([{ which: 'one' }]);
    const copied = within(screen.getByRole('cell', { name: 'Posted 2026.csv' }).closest('tr')!);
    expect(copied.queryByRole('button', { name: 'Send again' })).toBeNull();
    expect(screen.getByText(/has had/).textContent).toMatch(/10 requests.*refused 2.*took 40 rows/);
  });

  test('an address is shown once it is made, and what is refused keeps what was typed', async () => {
    const { user, sent } = show(<Exports />, {
      ...answers,
      'POST /feeds': { feed: {}, address: '/api/feeds/token.csv' },
      'POST /hooks': new Error('hooks.other is not among the hosts that webhooks may go to.'),
      'PUT /hosts': { hosts: [] },
    });
    await open(user, 'Other programs');
    await user.type(await screen.findByLabelText('Name of the address'), 'For the sheet');
    await user.click(screen.getByRole('button', { name: 'Make' }));
    const shown: HTMLInputElement = await screen.findByLabelText('The address');
    expect(shown.value).toMatch(/^http.*\/api\/feeds\/token\.csv$/);
    expect(sent('POST /feeds')).toMatchObject([
      { name: 'For the sheet', wish: { format: 'csv', name: 'For the sheet' } },
    ]);
    await user.type(screen.getByLabelText('Name of the webhook'), 'Theirs');
    await user.type(screen.getByLabelText('Address of the webhook'), 'https://hooks.other/x');
    await user.click(
      within(screen.getByRole('region', { name: 'Webhooks' })).getByRole('button', { name: 'Add' }),
    );
    expect(await screen.findByText(/not among the hosts/)).toBeTruthy();
    expect((screen.getByLabelText('Address of the webhook') as unknown as HTMLInputElement).value).toBe(
      'https://hooks.other/x',
    );
    await user.type(screen.getByLabelText('Name of the host'), 'Hooks.Other');
    await user.click(screen.getByRole('checkbox', { name: 'private too' }));
    await user.click(screen.getByRole('button', { name: 'Allow' }));
    expect(sent('PUT /hosts')).toEqual([{ name: 'hooks.other', private: true }]);
  });

  test('an address is taken back only after a question', async () => {
    const { user, asked } = show(<Exports />, { ...answers, 'DELETE /feeds/f1': {} });
    await open(user, 'Other programs');
    await user.click(await screen.findByRole('button', { name: 'Take back Sheet' }));
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() =>
      expect(asked.map(({ method, path }) => `${method} ${path}`)).toContain('DELETE /feeds/f1'),
    );
  });
});
