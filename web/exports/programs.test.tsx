/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { DeliveryView, ProgramsAnswer } from '../../contract/program-views.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { OtherPrograms } from './OtherPrograms.tsx';

/** Addresses, folders, webhooks and hosts that other programs are given exports by. */

beforeEach(freshDesk);

const delivery = (more: Partial<DeliveryView>): DeliveryView => ({
  ...{ id: 'd1', to: 'Our CRM', kind: 'hook', export: 'e1', exportName: 'Makers' },
  ...{ nth: 1, of: 2, rows: 500, state: 'delivered', attempts: 1, dueAt: null, triedAt: null, answer: '200' },
  ...more,
});
const programs: ProgramsAnswer = {
  feeds: [
    {
      ...{ id: 'f1', name: 'For the notebook', format: 'csv', wording: ['status active', 'in Czechia'] },
      ...{ madeAt: '2026-11-01T08:00:00Z', readAt: '2026-11-20T08:00:00Z', timesRead: 12 },
    },
    {
      ...{ id: 'f2', name: 'Everybody', format: 'jsonl', wording: [] },
      ...{ madeAt: '2026-11-01T08:00:00Z', readAt: null, timesRead: 0 },
    },
  ],
  folders: [{ id: 'o1', name: 'Lists', path: '/data/lists', trouble: 'It is not there any more.' }],
  hosts: [{ name: 'hooks.example', private: false }],
  hooks: [
    {
      ...{ id: 'h1', name: 'Our CRM', url: 'https://hooks.example/in', secret: 'whsec_abc', batch: 500 },
      ...{ waiting: 3, delivered: 40, givenUp: 1 },
    },
  ],
  deliveries: [],
  standIn: { requests: 0, refused: 0, rows: 0, wrongSignatures: 0 },
};
const open = (answers: Answers = {}) =>
  show(<OtherPrograms head={null} />, { 'GET /programs': programs, ...answers });
const part = async (name: string) => within(await screen.findByRole('region', { name }));

describe('what other programs are given', () => {
  test('is listed with how often it is read, what is wrong with it, and how it fared', async () => {
    open();
    const feeds = await part('Addresses to read from');
    await feeds.findByText('For the notebook');
    expect(feeds.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      'For the notebook CSVstatus active; in Czechiaread 12 times, last 20 Nov 2026Take back',
      'Everybody JSON Linesthe whole universenever readTake back',
    ]);
    expect((await part('Folders')).getByText('It is not there any more.')).toBeTruthy();
    const hook = (await part('Webhooks')).getByRole('listitem').textContent;
    expect(hook).toMatch(/40 delivered, 3 waiting, 1 given up/);
    expect(hook).toMatch(/whsec_abc/);
    expect((await part('Hosts that webhooks may go to')).getByText('open internet only')).toBeTruthy();
  });
  test('an address is made of the tape on the Desk, and said once', async () => {
    const { user, sent } = open({
      'POST /feeds': { feed: programs.feeds[0], address: '/feeds/secret.jsonl' },
    });
    const feeds = await part('Addresses to read from');
    const make = feeds.getByRole<HTMLButtonElement>('button', { name: 'Make' });
    expect(make.disabled).toBe(true);
    await user.type(feeds.getByLabelText('Name of the address'), ' Notebook ');
    await user.click(feeds.getByRole('radio', { name: 'JSON Lines' }));
    await user.click(make);
    expect((await feeds.findByLabelText<HTMLInputElement>('The address')).value).toMatch(
      /^http:\/\/.*\/feeds\/secret\.jsonl$/,
    );
    const [body] = sent('POST /feeds') as [{ name: string; wish: Record<string, unknown> }];
    expect(body).toMatchObject({ name: 'Notebook', wish: { format: 'jsonl', currency: 'EUR' } });
    expect(body.wish.columns).toContain('name');
    expect(feeds.getByLabelText<HTMLInputElement>('Name of the address').value).toBe('');
  });
  test('a folder and a webhook are added by name; what is refused is said, and stays typed', async () => {
    const { user, sent } = open({
      'POST /folders': new Error('There is no folder /nowhere.'),
      'POST /hooks': {},
    });
    const folders = await part('Folders');
    await user.type(folders.getByLabelText('Name of the folder'), 'Shared');
    await user.type(folders.getByLabelText('Path of the folder'), '/nowhere{Enter}');
    expect((await folders.findByRole('alert')).textContent).toMatch(/no folder \/nowhere/);
    expect(folders.getByLabelText<HTMLInputElement>('Path of the folder').value).toBe('/nowhere');
    const hooks = await part('Webhooks');
    await user.type(hooks.getByLabelText('Name of the webhook'), 'Test');
    await user.type(hooks.getByLabelText('Address of the webhook'), ' stand-in ');
    await user.click(hooks.getByRole('button', { name: 'Add' }));
    await waitFor(() => expect(sent('POST /hooks')).toEqual([{ name: 'Test', url: 'stand-in' }]));
    await waitFor(() => expect(hooks.getByLabelText<HTMLInputElement>('Name of the webhook').value).toBe(''));
  });
  test('a host is allowed in small letters, private too if so wished, and forgotten without a word', async () => {
    const { user, sent, asked } = open({ 'PUT /hosts': {}, 'DELETE /hosts/hooks.example': {} });
    const hosts = await part('Hosts that webhooks may go to');
    await user.type(hosts.getByLabelText('Name of the host'), 'Hooks.Example');
    await user.click(hosts.getByRole('checkbox', { name: 'private too' }));
    await user.click(hosts.getByRole('button', { name: 'Allow' }));
    expect(sent('PUT /hosts')).toEqual([{ name: 'hooks.example', private: true }]);
    await user.click(await hosts.findByRole('button', { name: 'Remove hooks.example' }));
    await waitFor(() => expect(asked.some(({ method }) => method === 'DELETE')).toBe(true));
  });
  test('what cannot be undone asks first', async () => {
    const { user, asked } = open({ 'DELETE /hooks/h1': {} });
    const gone = () => asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path);
    await user.click(await screen.findByRole('button', { name: 'Remove Our CRM' }));
    expect((await screen.findByRole('dialog')).textContent).toMatch(/that cannot be undone/);
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(gone()).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Remove Our CRM' }));
    await user.click(await screen.findByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(gone()).toEqual(['/hooks/h1']));
  });
});

test('deliveries are listed with what the receiver said, sorted, and sent again', async () => {
  const { user, asked } = open({
    'GET /programs': {
      ...programs,
      standIn: { requests: 9, refused: 2, rows: 700, wrongSignatures: 0 },
      deliveries: [
        delivery({ triedAt: '2026-11-30T08:00:00Z' }),
        delivery({ id: 'd2', nth: 2, rows: 20, state: 'given-up', attempts: 8, answer: 'said 500' }),
        delivery({ id: 'd3', to: 'Lists', kind: 'folder', rows: 900, of: 1 }),
      ],
    },
    'POST /deliveries/d2/again': {},
  });
  const table = within(await screen.findByRole('table', { name: 'What was delivered' }));
  const rows = () => table.getAllByRole('row').slice(1);
  const failed = rows().find(({ textContent }) => textContent.includes('said 500'))!;
  expect(failed.textContent).toMatch(/Makers 2\/2.*given up after 8 attempts/);
  expect(screen.getByText(/The stand-in has had/).textContent).toMatch(
    /9 requests.*refused 2.*took 700 rows/,
  );
  await user.click(table.getByRole('button', { name: 'Rows' }));
  const counts = rows().map((row) => within(row).getAllByRole('cell')[3]!.textContent);
  expect([...counts].sort((a, b) => Number(b) - Number(a))).toEqual(counts);
  // What a folder was given lies there; only a webhook is asked again.
  expect(table.getAllByRole('button', { name: 'Send again' })).toHaveLength(2);
  await user.click(within(failed).getByRole('button', { name: 'Send again' }));
  await waitFor(() =>
    expect(asked.some(({ method, path }) => method === 'POST' && path === '/deliveries/d2/again')).toBe(true),
  );
});
