/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { undo } from '../app/history.ts';
import { useFormat } from '../app/format.ts';
import { useTheme, type Settings as Values } from '../app/settings.ts';
import { freshDesk, settled, show } from '../testing/render.tsx';
import { Settings } from './Settings.tsx';

beforeEach(freshDesk);

const USUAL: Values = {
  currency: 'EUR',
  distance: 'km',
  numbers: 'comma',
  dates: 'words',
  theme: 'day',
  paper: 'A4',
  keys: true,
  person: '',
  asOf: null,
};

/** A workspace that keeps its settings, and a figure shown by them. */
function workspace() {
  let kept = USUAL;
  const Figure = () => {
    const format = useFormat();
    useTheme();
    return (
      <output>
        {format.number(-1234.5, 1)} {format.date('2026-09-30')} {format.symbol}
      </output>
    );
  };
  return show(
    <>
      <Figure />
      <Settings />
    </>,
    {
      'GET /settings': () => kept,
      'PATCH /settings': (part: Partial<Values>) =>
        part.asOf === '2199-01-01'
          ? new Error('asOf must not lie in the future')
          : (kept = { ...kept, ...part }),
    },
  );
}
const figure = () => screen.getByRole('status').textContent;
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });

test('settings are written as one, show at once everywhere, and are taken back by undo', async () => {
  const { user, sent } = workspace();
  await screen.findByLabelText('Numbers');
  await waitFor(() => expect(figure()).toBe('−1,234.5 30 Sep 2026 €'));
  expect(save().disabled).toBe(true);
  await user.selectOptions(screen.getByLabelText('Numbers'), '1.234,5');
  await user.selectOptions(screen.getByLabelText('Dates'), '30.9.2026');
  await user.selectOptions(screen.getByLabelText('Currency'), 'CZK');
  await user.selectOptions(screen.getByLabelText('Theme'), 'night');
  await user.click(save());
  await waitFor(() => expect(figure()).toBe('−1.234,5 30.9.2026 CZK'));
  expect(document.documentElement.dataset.theme).toBe('night');
  // What was not changed here is not sent, so that what another window changed stays.
  expect(sent('PATCH /settings')).toEqual([
    { numbers: 'point', dates: 'dotted', currency: 'CZK', theme: 'night' },
  ]);
  await settled(undo);
  await waitFor(() => expect(figure()).toBe('−1,234.5 30 Sep 2026 €'));
  expect(document.documentElement.dataset.theme).toBe('day');
});

test('the system’s own theme leaves no mark on the page, and none for the next start', async () => {
  const { user } = workspace();
  await user.selectOptions(await screen.findByLabelText('Theme'), 'as the system');
  await user.click(save());
  await waitFor(() => expect(document.documentElement.dataset.theme).toBeUndefined());
  expect(localStorage.getItem('theme')).toBeNull();
});

test('the name of who works here is kept, without quotation marks', async () => {
  const { user, sent } = show(<Settings />, {
    'GET /settings': USUAL,
    'PATCH /settings': (part: object) => ({ ...USUAL, ...part }),
  });
  const name = await screen.findByLabelText<HTMLInputElement>('Your name');
  await user.type(name, 'Ho"na');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/no quotation marks/);
  await user.clear(name);
  await user.type(name, 'Hana');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(sent('PATCH /settings')).toEqual([{ person: 'Hana' }]));
});

test('an as-of date is sent as a day, emptied as none; what the server refuses is said and kept', async () => {
  const { user, sent } = workspace();
  const asOf = await screen.findByLabelText<HTMLInputElement>('As-of date');
  fireEvent.change(asOf, { target: { value: '2199-01-01' } });
  await user.click(save());
  expect(await screen.findByText('asOf must not lie in the future')).toBeTruthy();
  expect(asOf.value).toBe('2199-01-01');
  fireEvent.change(asOf, { target: { value: '2026-06-30' } });
  await user.click(save());
  await waitFor(() => expect(sent('PATCH /settings').at(-1)).toMatchObject({ asOf: '2026-06-30' }));
  fireEvent.change(asOf, { target: { value: '' } });
  await user.click(save());
  await waitFor(() => expect(sent('PATCH /settings').at(-1)).toMatchObject({ asOf: null }));
});
