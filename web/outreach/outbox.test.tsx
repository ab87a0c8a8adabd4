/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { aMessage, anOutreach } from '../testing/outreach.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { Outbox } from './Outbox.tsx';

beforeEach(freshDesk);

const waiting = (messages: object[], state: object = {}) =>
  show(<Outbox />, {
    'GET /outreach/outbox': {
      state: { ...anOutreach().outbox, waiting: messages.length, ...state },
      messages,
    },
  });
const names = () =>
  within(screen.getByRole('table', { name: 'Waiting messages' }))
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('button')[0]!.textContent);
const message = (id: number, name: string, mail: string) =>
  aMessage({ id, name, mail, person: `person-${id}`, state: 'outbox' });

test('messages wait in the order in which they are due, until another is clicked', async () => {
  const { user } = waiting([
    message(1, 'Petr Hladina', 'b@birch.example'),
    message(2, 'Anna Kos', 'c@cedar.example'),
    message(3, 'Monika Planik', 'a@alder.example'),
  ]);
  await screen.findByText('Petr Hladina');
  expect(names()).toEqual(['Petr Hladina', 'Anna Kos', 'Monika Planik']);
  await user.click(screen.getByRole('button', { name: 'To' }));
  expect(names()).toEqual(['Anna Kos', 'Monika Planik', 'Petr Hladina']);
  await user.click(screen.getByRole('button', { name: 'Address' }));
  expect(names()).toEqual(['Monika Planik', 'Petr Hladina', 'Anna Kos']);
  await user.click(screen.getByRole('button', { name: 'Address' }));
  expect(names()).toEqual(['Anna Kos', 'Petr Hladina', 'Monika Planik']);
  expect(screen.getByRole('columnheader', { name: 'Address' }).getAttribute('aria-sort')).toBe('descending');
});

test('one that goes out now cannot be taken back, and more than are shown are counted', async () => {
  waiting([aMessage({ state: 'sending' })], { waiting: 40 });
  const back = await screen.findByRole<HTMLButtonElement>('button', { name: /^Take back the message/ });
  expect(back.disabled).toBe(true);
  expect(screen.getByText('the first 1 of 40')).toBeTruthy();
});

test('an empty outbox says what will stand in it, one in trouble what the trouble is', async () => {
  waiting([], { trouble: 'The mail server does not answer.' });
  expect(await screen.findByText(/Nothing waits/)).toBeTruthy();
  expect(screen.getByRole('alert').textContent).toBe('The mail server does not answer.');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take all back' }).disabled).toBe(true);
});
