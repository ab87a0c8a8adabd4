/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { freshDesk } from '../testing/render.tsx';
import { answers, job, page, source } from '../testing/sources.tsx';

beforeEach(freshDesk);

describe('the sources', () => {
  const three = [
    source('a', { name: 'zeta', companies: 5, rowsRead: 900, asOf: '2026-01-31' }),
    source('b', { name: 'Émile', companies: 90, rowsRead: 100 }),
    source('c', {
      name: 'alpha 10',
      companies: 40,
      rowsRead: 50,
      rowsRefused: 3,
      subject: 'people',
      countries: ['CZ', 'DE', 'AT', 'PL', 'SK', 'HU', 'DK', ''].map((country, i) => ({
        country,
        companies: i + 1,
      })),
    }),
  ];
  const names = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.querySelector('strong')!.textContent);

  test('are the largest first, and sorted by name whatever the case and accents', async () => {
    const { user } = page(answers(three));
    await screen.findByText('zeta');
    expect(names()).toEqual(['Émile', 'alpha 10', 'zeta']);
    await user.click(screen.getByRole('button', { name: 'Source' }));
    expect(names()).toEqual(['alpha 10', 'Émile', 'zeta']);
    await user.click(screen.getByRole('button', { name: 'Source' }));
    expect(names()).toEqual(['zeta', 'Émile', 'alpha 10']);
    await user.click(screen.getByRole('button', { name: 'Rows' }));
    expect(names()).toEqual(['zeta', 'Émile', 'alpha 10']);
    expect(screen.getByRole('columnheader', { name: 'Rows' }).getAttribute('aria-sort')).toBe('descending');
  });
  test('say what they hold, what was refused, where from, and that no licence is stated', async () => {
    page(answers(three));
    const row = (await screen.findByText('alpha 10')).closest('tr')!;
    expect(row.textContent).toMatch(/503 refused/);
    expect(row.textContent).toMatch(/PL 4.*and 2 more.*not stated/);
    expect(within(row).getByText('people')).toBeTruthy();
    expect(screen.getByText('31 Jan 2026')).toBeTruthy();
  });
  test('that are none say what to do; the demo is made by a press, and what fails is said', async () => {
    const { user, sent } = page(answers([], [], { 'POST /demo': new Error('Another load is running.') }));
    expect(await screen.findByText(/Nothing is loaded yet/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Make the demo' }));
    expect(sent('POST /demo')).toEqual([{ companies: 48_000 }]);
    expect(await screen.findByText('Another load is running.')).toBeTruthy();
  });
  test('are removed only after a question that says what leaves', async () => {
    const { user, asked } = page(answers(three, [], { 'DELETE /sources/a': { job: job('j1') } }));
    await user.click(await screen.findByRole('button', { name: 'Remove zeta' }));
    expect(screen.getByRole('dialog').textContent).toMatch(/Its 900 records leave the universe/);
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Remove zeta' }));
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.some(({ path }) => path === '/sources/a')).toBe(true));
  });
});

describe('loads', () => {
  test('that run show how far they are and can be cancelled; meanwhile no other begins', async () => {
    const { user, sent } = page(
      answers([source('a')], [job('j1', { state: 'running', message: 'reading rows' })], {
        'POST /jobs/j1/cancel': {},
      }),
    );
    const bar = await screen.findByRole('progressbar', { name: 'Loading j1' });
    expect(bar.getAttribute('aria-valuenow')).toBe('50');
    expect(screen.getByText(/reading rows/).textContent).toMatch(/^50 % reading rows/);
    for (const name of ['Load a file', 'Remove Register a', 'Make the demo'])
      expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(sent('POST /jobs/j1/cancel')).toHaveLength(1);
  });
  test('that ended stand below with how they ended, and what they refused row by row', async () => {
    const refusal = { row: 17, column: 'Umsatz', value: '', rule: 'a number' };
    const refused = job('j1', {
      result: {
        read: 120,
        refused: 1,
        refusals: [refusal],
        refusedCells: 0,
        found: { number: 80, domain: 20, name: 10, not: 9 },
        joinedDeals: 4,
      },
    });
    const { user } = page(
      answers([source('a')], [refused, job('j2', { state: 'failed', message: 'The file is empty.' })], {
        'GET /jobs/j1': { job: refused, refusals: true },
      }),
    );
    expect(await screen.findByText('The file is empty.')).toBeTruthy();
    await user.click(await screen.findByRole('button', { name: 'refused rows' }));
    expect(screen.getByText(/rows landed/).textContent).toBe('119 rows landed, 1 were refused.');
    expect(screen.getByText(/^Companies found/).textContent).toBe(
      'Companies found by registration number 80, by domain 20, by name 10, not found 9; 4 deals another source had already.',
    );
    expect(screen.getByRole('row', { name: '17 Umsatz (empty) a number' })).toBeTruthy();
    expect(screen.getByRole('link', { name: /All refused rows/ }).getAttribute('href')).toBe(
      '/api/jobs/j1/refusals',
    );
    await user.click(screen.getByRole('button', { name: 'refused rows' }));
    expect(screen.queryByText(/rows landed/)).toBeNull();
  });
});

describe('an address book', () => {
  test('is loaded, counted and forgotten', async () => {
    let books = [{ book: 'Old.vcf', contacts: 12, found: 3 }];
    const { user, asked } = page(
      answers([source('a')], [], {
        'GET /contacts': () => ({ books }),
        'POST /contacts': () => {
          books = [...books, { book: 'New.vcf', contacts: 1200, found: 300 }];
          return { book: 'New.vcf', contacts: 1200, found: 300 };
        },
        'DELETE /contacts/Old.vcf': () => {
          books = books.slice(1);
          return {};
        },
      }),
    );
    const part = within(screen.getByRole('region', { name: 'Address book' }));
    expect((await part.findByText('Old.vcf')).closest('li')!.textContent).toMatch(
      /12 people, 3 at companies here/,
    );
    await user.upload(part.getByLabelText('Address book file'), new File(['BEGIN:VCARD'], 'New.vcf'));
    expect(await part.findByText('New.vcf')).toBeTruthy();
    expect(await screen.findByText('1,200 people, 300 of them at companies of the universe')).toBeTruthy();
    await user.click(part.getByRole('button', { name: 'Remove Old.vcf' }));
    await waitFor(() => expect(part.queryByText('Old.vcf')).toBeNull());
    expect(asked.filter(({ method }) => method === 'DELETE')).toHaveLength(1);
  });
  test('that cannot be read says why', async () => {
    const { user } = page(answers([], [], { 'POST /contacts': new Error('No card has a name.') }));
    await user.upload(await screen.findByLabelText('Address book file'), new File(['x'], 'x.vcf'));
    expect(await screen.findByText('No card has a name.')).toBeTruthy();
  });
});
