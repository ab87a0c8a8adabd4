/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import { freshDesk, show } from '../testing/render.tsx';
import { HandedTo } from './HandedTo.tsx';

beforeEach(freshDesk);

test('a record says whom it was handed over to, and leads to those exports', async () => {
  show(<HandedTo subject="people" recordKey="person-1" />, {
    'GET /handed/people/person-1': {
      handed: [{ receiver: 'print-shop', name: 'Print shop, Brno', day: '2026-11-03' }],
    },
  });
  const link = await screen.findByRole('link', { name: 'Print shop, Brno' });
  expect(link.getAttribute('href')).toBe('/exports?find=Print%20shop%2C%20Brno');
  expect(screen.getByText('3 Nov 2026')).toBeTruthy();
});

test('one that never was says nothing', async () => {
  const { asked, container } = show(<HandedTo subject="companies" recordKey="k" />, {
    'GET /handed/companies/k': { handed: [] },
  });
  await waitFor(() => expect(asked.map(({ path }) => path)).toContain('/handed/companies/k'));
  expect(container.textContent).toBe('');
});
