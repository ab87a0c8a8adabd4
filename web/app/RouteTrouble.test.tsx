/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { freshDesk } from '../testing/render.tsx';
import { RouteTrouble } from './RouteTrouble.tsx';

beforeEach(freshDesk);

/** A page that fails with an error as it is shown. */
function failing(error: unknown) {
  jest.spyOn(console, 'error').mockImplementation(() => {});
  const routes = [
    {
      path: '/desk',
      Component: () => {
        throw error;
      },
      ErrorBoundary: () => <RouteTrouble />,
    },
    { path: '*', Component: () => <RouteTrouble missing /> },
  ];
  return (at: string) =>
    render(<RouterProvider router={createMemoryRouter(routes, { initialEntries: [at] })} />);
}

describe('a page that could not be shown', () => {
  test('says to load it again where a part of the program is gone', async () => {
    failing(new TypeError('Failed to fetch dynamically imported module: /assets/ExportDialog.js'))('/desk');
    expect(await screen.findByText(/may have been renewed since this page was opened/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Load it again' })).toBeTruthy();
    expect(screen.getByRole('link', { name: 'To the Desk' })).toBeTruthy();
  });
  test('says what went wrong elsewhere, and that nothing is lost where nothing is known of it', async () => {
    failing(new Error('The universe cannot be read.'))('/desk');
    expect(await screen.findByText('The universe cannot be read.')).toBeTruthy();
  });
  test('says so where the address is none', async () => {
    failing(null)('/nowhere');
    expect(await screen.findByText('There is no such page')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Load it again' })).toBeNull();
  });
});
