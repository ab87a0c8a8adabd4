/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { CorrectionView } from '../../contract/own-values.ts';
import { ApiError } from '../api.ts';
import { redo, undo } from '../app/history.ts';
import { openProfile, profile } from '../testing/profile.tsx';
import { freshDesk, settled } from '../testing/render.tsx';

beforeEach(freshDesk);

const CORRECTIONS = 'POST /companies/CZ%3A7/corrections';
const done = (result: object = {}) => ({
  'GET /jobs/j1': { job: { id: 'j1', state: 'done', result }, refusals: false },
});
const begun = { job: { id: 'j1', state: 'running' } };
const headcount = { basis: 'reported', low: 40, high: 40, point: 40 } as const;
const corrected: CorrectionView = {
  ...{ field: 'headcount', label: 'Headcount', value: '55', reason: 'told on the phone' },
  ...{ person: 'Hana', at: '2026-11-30T08:00:00Z' },
};

describe('a value of a company', () => {
  test('is corrected by hand, with why, and the correction is a step to take back', async () => {
    const { user, sent } = openProfile(
      profile({}, [{ headcount, phone: '+420 1' }], { from: { headcount: 1, phone: 1 } }),
      {
        [CORRECTIONS]: begun,
        ...done(),
      },
    );
    await user.click(await screen.findByRole('button', { name: 'Correct' }));
    const dialog = within(screen.getByRole('dialog', { name: 'Correct Lakovna Sever' }));
    expect(dialog.getByText('40')).toBeTruthy();
    expect(dialog.getByRole<HTMLButtonElement>('button', { name: 'Correct' }).disabled).toBe(true);
    await user.type(dialog.getByLabelText('Headcount'), '55');
    await user.click(dialog.getByLabelText('Phone is not known'));
    expect(dialog.getByLabelText<HTMLInputElement>('Phone').disabled).toBe(true);
    await user.type(dialog.getByLabelText('Why, or who said so'), 'told on the phone');
    await user.click(dialog.getByRole('button', { name: 'Correct 2 values' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    const reason = 'told on the phone';
    const wish = {
      corrections: [
        { field: 'phone', value: '', reason },
        { field: 'headcount', value: '55', reason },
      ],
    };
    const back = {
      corrections: [
        { field: 'phone', value: null, reason: '' },
        { field: 'headcount', value: null, reason: '' },
      ],
    };
    expect(sent(CORRECTIONS)).toEqual([wish]);
    await settled(undo);
    expect(sent(CORRECTIONS)).toEqual([wish, back]);
    await settled(redo);
    expect(sent(CORRECTIONS)).toEqual([wish, back, wish]);
  });
  test('that cannot be understood stays typed, marked, with what it must be', async () => {
    const error = new ApiError(400, {
      code: 'wrong-value',
      message: '“a dozen” is no headcount that can be understood: it must be a number.',
      field: 'corrections.headcount',
    });
    const { user } = openProfile(profile({}, [{ headcount }]), { [CORRECTIONS]: error });
    await user.click(await screen.findByRole('button', { name: 'Correct' }));
    await user.type(screen.getByLabelText('Headcount'), 'a dozen{Enter}');
    expect((await screen.findByRole('alert')).textContent).toMatch(/“a dozen” is no headcount/);
    const box = screen.getByLabelText<HTMLInputElement>('Headcount');
    expect([box.value, box.getAttribute('aria-invalid')]).toEqual(['a dozen', 'true']);
  });
  test('that was corrected says so beside what the sources say, and is taken back', async () => {
    const { user, sent } = openProfile(
      profile(
        {
          headcount: { basis: 'reported', low: 55, high: 55, amount: 55, year: null },
          disputed: ['headcount'],
        },
        [{ headcount }, { headcount: { ...headcount, low: 90, high: 90, point: 90 } }],
        { from: { headcount: -1 }, corrections: [corrected] },
      ),
      { [CORRECTIONS]: begun, ...done() },
    );
    const [fact] = await screen.findAllByText('Headcount');
    expect(fact!.parentElement!.textContent).toMatch(/^Headcount55 .* by hand$/);
    expect(screen.getByText(/told on the phone · Hana/)).toBeTruthy();
    const row = screen.getByRole('rowheader', { name: /Headcount.*they disagree/ }).parentElement!;
    expect(
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['55 (shown)', '40', '90']);
    await user.click(screen.getByRole('button', { name: 'Take back Headcount' }));
    expect(sent(CORRECTIONS)).toEqual([{ corrections: [{ field: 'headcount', value: null, reason: '' }] }]);
    await screen.findByRole('button', { name: 'Take back Headcount' });
    await settled(undo);
    expect(sent(CORRECTIONS)[1]).toEqual({
      corrections: [{ field: 'headcount', value: '55', reason: 'told on the phone' }],
    });
  });
});

describe('the website of a company', () => {
  const open = (cells: object, more = {}) => openProfile(profile({ web: 'old.example', ...cells }), more);
  test.each([
    [{ 'site-state': 'works', 'site-checked': '2026-11-30' }, /^answered on 30 Nov 2026$/],
    [{ 'site-state': 'dead', 'site-checked': '2026-11-30' }, /^did not answer on 30 Nov 2026$/],
    [{ 'site-state': 'parked', 'site-checked': null }, /^only waits for a buyer, as seen$/],
  ])('says how it answered: %j', async (cells, words) => {
    open(cells);
    expect(await screen.findByText(words)).toBeTruthy();
  });
  test('that moved leads to where it is now', async () => {
    open({ 'site-state': 'moved', 'site-moved-to': 'new.example', 'site-checked': '2026-11-30' });
    expect((await screen.findByRole('link', { name: /new\.example/ })).getAttribute('href')).toBe(
      'https://new.example',
    );
    expect(screen.getByRole('link', { name: /old\.example/ })).toBeTruthy();
  });
  test('is tried on the spot; where it may not be read, that is said', async () => {
    const { user, sent } = open({}, { 'POST /websites/try': begun, ...done({ notAllowed: 1 }) });
    await user.click(await screen.findByRole('button', { name: 'try it now' }));
    expect(await screen.findByText(/It was not tried/)).toBeTruthy();
    expect(sent('POST /websites/try')).toEqual([{ companies: ['CZ:7'] }]);
  });
});
