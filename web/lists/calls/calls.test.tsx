/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import fc from 'fast-check';
import { Route, Routes } from 'react-router';
import { CALL_OUTCOMES, outcomeOf, tagsFor } from '../../../core/lists/calls.ts';
import { READY_RIGHT_PEOPLE } from '../../../core/people/functions.ts';
import { rightColumn } from '../../../core/tape/own-columns.ts';
import { undo } from '../../app/history.ts';
import { aList } from '../../testing/lists.ts';
import { freshDesk, settled, show } from '../../testing/render.tsx';
import { CallSheet } from './CallSheet.tsx';

beforeEach(() => {
  freshDesk();
  localStorage.clear();
});

describe('the outcome of a call', () => {
  test('is one alone, whatever tags there were; others stay', () => {
    const tag = fc.oneof(fc.constantFrom(...CALL_OUTCOMES), fc.constantFrom('stairs', 'spray room'));
    fc.assert(
      fc.property(fc.uniqueArray(tag), fc.option(fc.constantFrom(...CALL_OUTCOMES)), (tags, outcome) => {
        const { tag: on = [], untag = [] } = tagsFor(outcome);
        const now = [...new Set([...tags.filter((one) => !untag.includes(one)), ...on])];
        expect(outcomeOf(now)).toBe(outcome);
        expect(now.filter((one) => (CALL_OUTCOMES as readonly string[]).includes(one))).toHaveLength(
          outcome === null ? 0 : 1,
        );
        expect(now).toEqual(
          expect.arrayContaining(tags.filter((one) => !(CALL_OUTCOMES as readonly string[]).includes(one))),
        );
      }),
    );
  });
});

describe('the call sheet', () => {
  const { functions } = READY_RIGHT_PEOPLE.get('runs-production')!;
  const right = (part: 'name' | 'title' | 'phone') => rightColumn(part, functions);
  const row = (nth: number, tags: string | null) => ({
    key: `cz-${nth}`,
    cells: {
      ...{
        name: `Firm ${nth}`,
        phone: nth === 2 ? null : `+420 000 00${nth}`,
        place: { town: 'Brno', countryName: 'Czechia' },
      },
      ...(nth === 1 ? { [right('name')]: 'Iva Test', [right('title')]: 'Works manager' } : {}),
      ...{ 'member:note:*': nth === 1 ? 'in the morning' : null, 'member:tags:*': tags },
    },
  });
  const open = (more = {}) =>
    show(
      <Routes>
        <Route path="/lists/:list/calls" element={<CallSheet />} />
      </Routes>,
      {
        'GET /lists': {
          lists: [aList({ key: 'visitors', name: 'Visitors', subject: 'companies' })],
          removed: [],
          reasons: [],
        },
        'POST /rows': { total: 1200, rows: [row(1, null), row(2, 'call back, stairs'), row(3, 'reached')] },
        'POST /lists/visitors/details': { undo: 7, list: aList({ key: 'visitors' }) },
        'DELETE /lists/visitors/details/7': {},
        ...more,
      },
      '/lists/visitors/calls',
    );

  test('says whom to ask for; one key says what came of it and goes on, and is taken back', async () => {
    const { user, sent } = open();
    const first = within(await screen.findByRole('row', { name: /Firm 1/ }));
    expect(first.getByText('Iva Test')).toBeTruthy();
    expect(first.getByText('in the morning')).toBeTruthy();
    expect(within(screen.getByRole('row', { name: /Firm 2/ })).getByText('nobody of these')).toBeTruthy();
    expect(screen.getByText(/of/, { selector: 'p.py-3' }).textContent).toContain('1,200');
    await user.keyboard('1');
    await waitFor(() =>
      expect(sent('POST /lists/visitors/details')).toMatchObject([{ members: ['cz-1'], tag: ['reached'] }]),
    );
    // The second is there now; another outcome takes the place of its own.
    await user.keyboard('2');
    await waitFor(() =>
      expect(sent('POST /lists/visitors/details')[1]).toMatchObject({
        members: ['cz-2'],
        tag: ['no answer'],
        untag: ['reached', 'call back', 'wrong number', 'not interested', 'meeting agreed'],
      }),
    );
    await settled(undo);
    expect(sent('DELETE /lists/visitors/details/7')).toHaveLength(1);
  });

  test('its roll adds up to who is left to call', async () => {
    open();
    await screen.findByRole('row', { name: /Firm 1/ });
    const roll = within(screen.getByRole('complementary', { name: 'Visitors' }));
    expect(roll.getByText('reached')).toBeTruthy();
    expect(roll.getByText('call back')).toBeTruthy();
    expect(screen.getByRole('complementary').textContent).toMatch(/left to call1$/);
  });

  test('a note is typed where it stands', async () => {
    const { user, sent } = open();
    await screen.findByRole('row', { name: /Firm 1/ });
    await user.keyboard('e');
    const box = screen.getByLabelText('Note on Firm 1');
    await user.clear(box);
    await user.type(box, 'after six{Enter}');
    await waitFor(() =>
      expect(sent('POST /lists/visitors/details')).toEqual([{ members: ['cz-1'], note: 'after six' }]),
    );
  });

  test('whom to ask for is another choice’s at a press', async () => {
    const { user, sent } = open();
    await screen.findByRole('row', { name: /Firm 1/ });
    await user.selectOptions(screen.getByLabelText('Whom to ask for'), 'Whoever buys');
    await waitFor(() =>
      expect(JSON.stringify(sent('POST /rows').at(-1))).toContain('right:name:purchasing head or director'),
    );
  });

  test('a list that is gone, or of what cannot be called, is said', async () => {
    open({ 'GET /lists': { lists: [], removed: [], reasons: [] } });
    expect(await screen.findByText(/no list under this address/)).toBeTruthy();
  });
});
