/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { DOUBLES_JOB } from '../../../contract/matches.ts';
import { undo } from '../../app/history.ts';
import { aList } from '../../testing/lists.ts';
import { matchAnswer, matchServer, matchView } from '../../testing/matches.ts';
import { freshDesk } from '../../testing/render.tsx';
import { answers, job, page, source } from '../../testing/sources.tsx';
import { freeName } from './free-name.ts';

beforeEach(freshDesk);

/** The sources with one match, opened. */
async function opened(more: object = {}) {
  const server = matchServer();
  const shown = page(answers([source('a')], [], { ...server.answers, ...more }));
  await shown.user.click(await screen.findByRole('link', { name: 'Fair visitors' }));
  return { ...shown, settled: server.settled };
}

describe('matched files', () => {
  test('stand under the sources with how much was found and what is left to settle', async () => {
    page(answers([source('a')], [], matchServer().answers));
    const row = (await screen.findByRole('link', { name: 'Fair visitors' })).closest('tr')!;
    expect(row.textContent).toMatch(/403.*84 %.*3/);
  });
  test('are removed only after a question that says what goes', async () => {
    const { user, asked } = page(
      answers([source('a')], [], { ...matchServer().answers, 'DELETE /matches/m1': {} }),
    );
    await user.click(await screen.findByRole('button', { name: 'Remove Fair visitors' }));
    expect(screen.getByRole('dialog').textContent).toMatch(/403 rows goes.*Lists that were made of it stay/);
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.some(({ method }) => method === 'DELETE')).toBe(true));
  });
  test('that are no more are said to be so', async () => {
    const { user } = await opened({ 'GET /matches/m1': new Error('There is no match "m1".') });
    expect(await screen.findByText('There is no match "m1".')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Back to the sources' }));
    expect(await screen.findByRole('heading', { name: 'Sources' })).toBeTruthy();
  });
});

describe('the roll of a match', () => {
  test('adds up from the rows of the file to those to match, and says the rate', async () => {
    await opened();
    const roll = await screen.findByRole('complementary', { name: 'Fair visitors' });
    expect(within(roll).getByLabelText('match rate: 84 %')).toBeTruthy();
    expect(roll.textContent).toMatch(/338 of 403 rows, 85 % at most/);
    expect(roll.textContent).toMatch(/they are 335 companies/);
    const came = within(roll).getByRole('list', { name: 'What became of the rows' });
    expect(came.textContent).toMatch(/Sure338.*by number201.*by domain96.*by name, place and phone41/);
  });
  test('says when the universe has changed since', async () => {
    await opened({ 'GET /matches/m1': matchAnswer(matchView({ changed: true, doubtful: 0 })) });
    expect(await screen.findByText('The universe has changed since.')).toBeTruthy();
  });
  test('opens the rows behind a figure', async () => {
    const { user, asked } = await opened();
    await user.click(await screen.findByRole('button', { name: '96' }));
    expect(await screen.findByRole('heading', { name: 'Sure, by domain' })).toBeTruthy();
    await waitFor(() => expect(asked.some(({ path }) => path.includes('state=sure&by=domain'))).toBe(true));
    await user.click(screen.getByRole('button', { name: 'show all rows' }));
    expect(await screen.findByRole('heading', { name: 'All rows' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Row 8 of the file' }));
    expect(await screen.findByText('Settle the doubtful')).toBeTruthy();
  });
});

test('a match is made again once the universe has changed, and says what moved', async () => {
  let moved = 0;
  const again = job('j5', { kind: 'match' });
  const { user, asked } = await opened({
    'GET /matches/m1': () => matchAnswer(matchView({ doubtful: 0, changed: moved === 0, moved })),
    'POST /matches/m1/again': () => {
      moved = 4;
      return { job: again };
    },
    'GET /jobs/j5': { job: again, refusals: false },
  });
  await user.click(await screen.findByRole('button', { name: 'Match again' }));
  await user.click(await screen.findByRole('button', { name: '4 rows came to something else' }));
  expect(await screen.findByRole('heading', { name: 'Moved' })).toBeTruthy();
  await waitFor(() => expect(asked.some(({ path }) => path.includes('moved=1'))).toBe(true));
  expect(screen.queryByRole('button', { name: 'Match again' })).toBeNull();
});

describe('the doubtful', () => {
  test('begin with the first, its candidates beside it with what speaks for each', async () => {
    await opened();
    const table = await screen.findByRole('table');
    expect(within(table).getByText('Because of Zarmysko Schody a.s..')).toBeTruthy();
    expect(within(table).getByText('It belongs to Zarmysko Holding.')).toBeTruthy();
    expect(within(table).getByText(/Stand 14/)).toBeTruthy();
    expect(within(table).getByText('likely')).toBeTruthy();
    expect(within(table).getByText('perhaps')).toBeTruthy();
    // Of the names only what the other has not is marked, and no legal form.
    expect([...table.querySelectorAll('.underline')].map((one) => one.textContent)).toEqual(['Schody']);
  });
  test('are settled once by a key that is pressed twice, and again where it was refused', async () => {
    let refused = 0;
    const { answers: own } = matchServer();
    const put = own['PUT /matches/m1/rows'];
    const { user, sent } = await opened({
      'PUT /matches/m1/rows': (body: never) =>
        refused++ === 0 ? new Error('The match is being made again.') : (put(body) as unknown),
    });
    await screen.findByText('Because of Zarmysko Schody a.s..');
    await act(async () => {
      for (let i = 0; i < 2; i++)
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '0', bubbles: true }));
      await Promise.resolve();
    });
    expect(await screen.findByText('The match is being made again.')).toBeTruthy();
    expect(sent('PUT /matches/m1/rows')).toHaveLength(1);
    await user.keyboard('0');
    await waitFor(() => expect(sent('PUT /matches/m1/rows')).toHaveLength(2));
  });
  test('are settled by figures, 0 and Space, and taken back', async () => {
    const { user, settled } = await opened();
    await screen.findByText('Because of Zarmysko Schody a.s..');
    await user.keyboard('2');
    await waitFor(() => expect(settled).toEqual([[{ row: 7, as: 'taken', key: 'CZ-2' }]]));
    await screen.findByText((_, element) => element?.textContent === 'the file, row 8');
    await user.keyboard(' ');
    await screen.findByText((_, element) => element?.textContent === 'the file, row 9');
    await user.keyboard('0');
    await waitFor(() => expect(settled[1]).toEqual([{ row: 9, as: 'none' }]));
    await act(() => undo());
    expect(settled[2]).toEqual([{ row: 9, as: 'open' }]);
    await act(() => undo());
    expect(settled[3]).toEqual([{ row: 7, as: 'open' }]);
  });
  test('of one candidate that agrees in the same are taken together', async () => {
    const rows = [
      { row: 7, key: 'CZ-1' },
      { row: 9, key: 'CZ-5' },
    ];
    const { user, settled } = await opened({
      'GET /matches/m1': matchAnswer(matchView(), { together: { fields: ['phone', 'town'], rows } }),
    });
    expect((await screen.findByText(/have one candidate/)).textContent).toBe(
      '2 of the 3 left have one candidate with the same phone and town.',
    );
    await user.click(screen.getByRole('button', { name: 'Take all 2' }));
    await waitFor(() => expect(settled[0]).toEqual(rows.map((one) => ({ ...one, as: 'taken' }))));
  });
  test('keep what is wrong in sight', async () => {
    const { user } = await opened({ 'PUT /matches/m1/rows': new Error('Row 7 cannot be that.') });
    await screen.findByText('Because of Zarmysko Schody a.s..');
    await user.keyboard('1');
    expect(await screen.findByText('Row 7 cannot be that.')).toBeTruthy();
    expect(screen.getByText((_, element) => element?.textContent === 'the file, row 7')).toBeTruthy();
  });
});

describe('what is made of a match', () => {
  test('a list by its name, which goes again when it is taken back', async () => {
    const list = aList({ key: 'fair', name: 'Fair visitors', members: 335 });
    const { user, sent, asked } = await opened({
      'POST /matches/m1/list': { list, added: 335, of: 338, origins: [4] },
      'DELETE /lists/fair': {},
    });
    await user.click(await screen.findByRole('button', { name: /Make a list of 335/ }));
    await waitFor(() => expect(sent('POST /matches/m1/list')).toEqual([{ name: 'Fair visitors' }]));
    expect(await screen.findByText(/335 companies are on the list/)).toBeTruthy();
    await act(() => undo());
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/lists/fair')).toBe(true);
  });
  test('what the file knows of those found is loaded as a source, on the screen of any file', async () => {
    const { user, sent, asked } = await opened({
      'POST /matches/m1/file': 'Company,Mail,Company key',
      'POST /uploads': new Error('Enough seen.'),
    });
    await screen.findByRole('button', { name: /^Fill in/ });
    await user.keyboard('i');
    await waitFor(() => expect(sent('POST /matches/m1/file')).toEqual([{ part: 'fill', columns: [] }]));
    await waitFor(() => expect(asked.some(({ path }) => path === '/uploads')).toBe(true));
    expect(await screen.findByText('Enough seen.')).toBeTruthy();
  });
  test('rows found whose company is gone by now are left out of it, which is said', async () => {
    const { user } = await opened({
      'POST /matches/m1/file': 'Company,Mail,Company key',
      'POST /matches/m1/file headers': { 'rows-left-out': '3' },
      'POST /uploads': new Error('Enough seen.'),
    });
    await screen.findByRole('button', { name: /^Fill in/ });
    await user.keyboard('i');
    expect(
      await screen.findByText(/^3 rows are left out: the companies are not in the universe/),
    ).toBeTruthy();
  });
  test('a name that is taken gets a number', () => {
    expect(freeName('Visitors', [])).toBe('Visitors');
    expect(freeName('Visitors', ['Visitors', 'Visitors 2'])).toBe('Visitors 3');
  });
  test('how it was weighed, in bits', async () => {
    const { user } = await opened();
    await user.click(await screen.findByRole('button', { name: 'how it was weighed' }));
    const table = await screen.findByRole('table');
    expect(within(table).getByText('+16.6')).toBeTruthy();
    expect(within(table).getByText('−6.6')).toBeTruthy();
    expect(screen.getByText(/never by its name alone/)).toBeTruthy();
  });
});

test('a match that runs is shown with how far it is, and loads can begin beside it', async () => {
  page(
    answers([source('a')], [job('j1', { kind: 'match', state: 'running', title: 'Match visitors.csv' })], {
      'GET /matches': { matches: [] },
    }),
  );
  expect(await screen.findByRole('progressbar', { name: 'Match visitors.csv' })).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Load a file' }).disabled).toBe(false);
});

describe('doubles', () => {
  const doubles = matchView({
    id: 'd1',
    of: 'doubles',
    name: 'Doubles',
    toMatch: 1454,
    found: 1450,
    doubtful: 0,
    none: 4,
  });
  const given = {
    ...matchServer().answers,
    'GET /doubles': { withoutNumber: 1454, joined: 12, match: doubles },
    'GET /matches/d1': matchAnswer(doubles),
    'GET /matches/d1/rows': { total: 0, rows: [] },
  };
  test('are looked for, and what was found is said', async () => {
    const { user, sent } = page(
      answers([source('a')], [], { ...given, 'POST /doubles': { job: job('j9') } }),
    );
    const part = await screen.findByRole('region', { name: 'Doubles' });
    expect(part.textContent).toMatch(
      /1,454 companies have no registration number.*12 were joined.*1,450 found, looked for/,
    );
    await user.click(within(part).getByRole('button', { name: 'Look again' }));
    expect(sent('POST /doubles')).toHaveLength(1);
  });
  test('lead to nothing while they are looked for anew: what was found before goes', async () => {
    const search = job('j9', { kind: 'match', state: 'running', title: DOUBLES_JOB });
    page(answers([source('a')], [search], given));
    const part = within(await screen.findByRole('region', { name: 'Doubles' }));
    expect(part.getByText('They are being looked for …')).toBeTruthy();
    expect(part.queryByRole('link')).toBeNull();
    expect(part.getByRole<HTMLButtonElement>('button', { name: 'Look again' }).disabled).toBe(true);
  });
  test('are joined after a question that says what cannot be taken back', async () => {
    const { user, sent } = page(
      answers([source('a')], [], {
        ...given,
        'POST /doubles/join': { job: job('j8', { kind: 'join' }) },
        'GET /jobs/j8': { job: job('j8', { kind: 'join' }), refusals: false },
      }),
    );
    await user.click(await screen.findByRole('link', { name: /1,450 found/ }));
    const roll = await screen.findByRole('complementary', { name: 'Doubles' });
    expect(within(roll).getByLabelText('doubles: 1450')).toBeTruthy();
    expect(within(roll).queryByText('Twice in the file')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Join the 1,450 doubles' }));
    expect(screen.getByRole('dialog').textContent).toMatch(/not taken back by Ctrl Z/);
    await user.click(screen.getByRole('button', { name: 'Leave them as they are' }));
    expect(sent('POST /doubles/join')).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Join the 1,450 doubles' }));
    await user.click(screen.getByRole('button', { name: 'Join them' }));
    await waitFor(() => expect(sent('POST /doubles/join')).toHaveLength(1));
  });
});
