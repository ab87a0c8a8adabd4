/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { VisitsAnswer } from '../../contract/visits.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { NO_PICKS } from '../desk/picks.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { VisitsDialog } from './VisitsDialog.tsx';

beforeEach(freshDesk);

const stop = (name: string, lat: number, more: object = {}) => ({
  ...{ key: name, name, street: 'Polní 1', postcode: '602 00', town: 'Brno', country: 'CZ', web: null },
  ...{ lat, lon: 16.6, phone: '+420 1', note: null, km: 4.25, minutes: 6, at: '09:06', until: '09:51' },
  person: null,
  ...more,
});
const answer: VisitsAnswer = {
  start: { lat: 49.2, lon: 16.6, label: 'Brno' },
  towns: [
    { name: 'Blansko', lat: 49.36, lon: 16.62 },
    { name: 'Far away', lat: 60, lon: 30 },
  ],
  stops: [
    stop('Alder', 49.3, {
      person: { key: 'p', name: 'Otto', title: 'Owner', mail: null, phone: '+420 9' },
      note: 'Ring first',
    }),
    stop('Birch', 49.4),
  ],
  ...{ back: { km: 20, minutes: 28, at: '11:30' }, km: 28.5, minutes: 40, without: 2, beyond: 5 },
};
const acted = { tape: emptyTape(), sort: [], picks: NO_PICKS, one: false, count: 9, gone: 0, total: 9 };

test('stops stand with their times, whom to ask for, and what stays away', async () => {
  show(<VisitsDialog acted={acted} onClose={() => {}} />, { 'POST /visits': answer });
  const table = await screen.findByRole('table', { name: 'Visits' });
  const [, alder, birch] = within(table).getAllByRole('row');
  expect(alder!.textContent).toContain('09:06–09:51AlderPolní 1, 602 00 BrnoRing firstOttoOwner+420 9');
  expect(birch!.textContent).toContain('+420 1');
  expect(screen.getByRole('img', { name: 'The way from Brno by 2 stops and back' })).toBeTruthy();
  expect(screen.getByText(/5 more are farther than the nearest 8. 2 have no place on the map/)).toBeTruthy();
});

test('the plan names towns that stand on it', async () => {
  show(<VisitsDialog acted={acted} onClose={() => {}} />, { 'POST /visits': answer });
  const plan = await screen.findByRole('img', { name: /^The way from/ });
  expect(plan.textContent).toContain('Blansko');
  expect(plan.textContent).not.toContain('Far away');
});

test('a town, a time and a number are asked for anew; the calendar is of what is shown', async () => {
  URL.createObjectURL = jest.fn(() => 'blob:x');
  URL.revokeObjectURL = jest.fn();
  const { user, sent } = show(<VisitsDialog acted={acted} onClose={() => {}} />, {
    'POST /visits': answer,
    'GET /towns': {
      towns: [
        {
          key: 't',
          name: 'Olomouc',
          regionName: 'Olomouc',
          country: 'CZ',
          region: 'x',
          lat: 49.6,
          lon: 17.25,
          population: 1,
        },
      ],
    },
  });
  await user.type(screen.getByLabelText('From'), 'Olom');
  expect(await screen.findByText('Olomouc, Olomouc')).toBeTruthy();
  const most = screen.getByLabelText('Visits at most');
  await user.clear(most);
  await user.type(most, '3');
  await waitFor(() =>
    expect(sent('POST /visits').at(-1)).toMatchObject({
      start: { lat: 49.6, lon: 17.25, label: 'Olomouc' },
      ...{ from: '09:00', stay: 45 },
    }),
  );
  const wish = sent('POST /visits').at(-1);
  await user.click(screen.getByRole('button', { name: 'Into a calendar' }));
  await waitFor(() => expect(sent('POST /visits/calendar')).toEqual([wish]));
  await user.click(screen.getByRole('button', { name: 'Print' }));
  await waitFor(() => expect(sent('POST /visits/paper')).toEqual([{ ...(wish as object), size: 'A4' }]));
});

test('what cannot be visited is said', async () => {
  show(<VisitsDialog acted={acted} onClose={() => {}} />, {
    'POST /visits': new Error('None of these companies has a place on the map.'),
  });
  expect(await screen.findByText(/has a place on the map/)).toBeTruthy();
});
