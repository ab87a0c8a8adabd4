/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { useDesk } from '../desk/store.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { Lists } from './Lists.tsx';

beforeEach(freshDesk);

const rivals = aList({ members: 90 });
const customers = aList({ key: 'customers', name: 'Customers', members: 12, suppression: 'members' });
const answers: Answers = {
  'GET /lists': { lists: [rivals, customers], removed: [], reasons: [] },
  'GET /lists/rivals': { list: rivals, roll: { steps: [], foot: 90 }, reasons: [] },
  'GET /lists/customers': { list: customers, roll: { steps: [], foot: 12 }, reasons: [] },
  'GET /lists/rivals/shares': { shares: [] },
  'GET /lists/customers/shares': { shares: [] },
};
const select = async (name: string) => {
  const row = (await screen.findByRole('button', { name })).closest('tr')!;
  fireEvent.click(row);
  return row;
};

describe('the websites of a list', () => {
  const counts = {
    total: 90,
    values: [
      { key: 'works', label: 'works', count: 70 },
      { key: 'dead', label: 'dead', count: 4 },
    ],
    unknown: 16,
  };
  const job = (more: object) => ({ id: 'j1', title: 'Try', done: 0, total: 90, message: null, ...more });
  test('are counted by how they answered, and every figure opens those companies', async () => {
    const { user } = show(<Lists />, { ...answers, 'POST /counts': counts });
    await select('Rivals');
    const websites = within(await screen.findByRole('list', { name: 'Websites' }));
    expect(websites.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      'answer70',
      'do not answer4',
      'not tried, or without a website16',
    ]);
    await user.click(websites.getByRole('button', { name: '4' }));
    expect(useDesk.getState().tape.lines[1]).toMatchObject({ field: 'site-state', test: { any: ['dead'] } });
    expect(useDesk.getState().columns.companies).toEqual(
      expect.arrayContaining(['domain', 'site-state', 'site-checked']),
    );
    await user.click(websites.getByRole('button', { name: '16' }));
    expect(useDesk.getState().tape.lines[1]).toMatchObject({ not: true, unknown: 'keep' });
  });
  test('are tried in one act, with progress, and counted anew', async () => {
    let ended = false;
    const { user, sent, asked } = show(<Lists />, {
      ...answers,
      'POST /counts': counts,
      'POST /websites/try': { job: job({ state: 'running' }) },
      'GET /jobs/j1': () => ({
        job: job({
          done: 45,
          ...(ended ? { state: 'done', result: { notAllowed: 3 } } : { state: 'running' }),
        }),
        refusals: false,
      }),
    });
    await select('Rivals');
    await user.click(await screen.findByRole('button', { name: 'Try them' }));
    expect(sent('POST /websites/try')).toEqual([{ list: 'rivals' }]);
    expect((await screen.findByRole('progressbar')).getAttribute('aria-valuenow')).toBe('50');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Try them' }).disabled).toBe(true);
    const before = asked.filter(({ path }) => path === '/counts').length;
    ended = true;
    await screen.findByText('Done.');
    expect(screen.getByText(/were not tried/).textContent).toMatch(/^3 were not tried: their hosts/);
    await waitFor(() =>
      expect(asked.filter(({ path }) => path === '/counts').length).toBeGreaterThan(before),
    );
  });
});

describe('addresses that a suppression list keeps off', () => {
  const off = aList({ ...customers, addresses: 2 });
  const known = { addresses: ['lakovna.example', 'a@veldin.example'] };
  test('are pasted as they come, understood, and a step to take back', async () => {
    const { user, sent } = show(<Lists />, {
      ...answers,
      'GET /lists': { lists: [off], removed: [], reasons: [] },
      'GET /lists/customers': { list: off, roll: { steps: [], foot: 12 }, reasons: [] },
      'GET /lists/customers/addresses': known,
      'PUT /lists/customers': { list: off },
      'PUT /lists/customers/addresses': { list: off },
    });
    expect(within(await select('Customers')).getByText('kept off every export')).toBeTruthy();
    expect((await screen.findByText(/and whoever has one of/)).textContent).toMatch(/2 addresses/);
    await user.click(screen.getByRole('button', { name: 'More for Customers' }));
    await user.click(await screen.findByRole('menuitem', { name: /Name, folder/ }));
    const box = await screen.findByLabelText<HTMLTextAreaElement>('Addresses');
    await waitFor(() => expect(box.value).toBe('lakovna.example\na@veldin.example'));
    await user.click(box);
    await user.paste('\nhttps://www.b.example/x, lakovna.example nobody');
    expect(screen.getByText(/“nobody”/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    const wished = { addresses: ['lakovna.example', 'a@veldin.example', 'b.example'] };
    expect(sent('PUT /lists/customers/addresses')).toEqual([wished]);
    await undo();
    expect(sent('PUT /lists/customers/addresses')).toEqual([wished, known]);
  });
});
