/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { screen, within } from '@testing-library/react';
import { emptyTape } from '../../../core/tape/nodes.ts';
import type { Acted } from '../../desk/acted.ts';
import { NO_PICKS, withPicked, type Picks } from '../../desk/picks.ts';
import { freshDesk, show, type Answers } from '../../testing/render.tsx';
import { ExportDialog } from './ExportDialog.tsx';

beforeEach(freshDesk);

const onClose = jest.fn();
const two = withPicked(
  NO_PICKS,
  [
    { key: 'a', at: 0 },
    { key: 'b', at: 1 },
  ],
  true,
);
const acted = (picks: Picks, more: Partial<Acted> = {}): Acted => ({
  ...{ tape: emptyTape(), sort: [], picks, one: false, gone: 0, total: 63 },
  count: picks === NO_PICKS ? 63 : 2,
  ...more,
});

/** What goes out of 63, of the first so many or of those picked; none is on a suppression list unless it is said. */
const goingOut = ({ tape, keys }: { tape: { first?: number }; keys?: string[] }) => {
  const of = keys?.length ?? Math.min(63, tape.first ?? 63);
  return { of, goes: of, off: [], roll: { steps: [], foot: of } };
};
const mailing = {
  ...{
    id: 'ready-mailing',
    name: 'Names and addresses',
    subject: 'companies',
    fileName: '',
    ready: true,
    changedAt: null,
  },
  file: {
    ...{ format: 'merge', columns: ['name', 'street', 'postcode', 'place'], language: 'en', currency: 'EUR' },
    ...{ delimiter: ',', bom: true, quoteAll: false, decimalComma: false, lineEnd: 'crlf', paper: 'A4' },
    ...{ beside: false, receiver: '' },
  },
};
const FILES: Answers = {
  'GET /export-templates': { templates: [] },
  'GET /receivers': { receivers: [] },
  'GET /programs': { feeds: [], folders: [], hosts: [], hooks: [], deliveries: [] },
};

describe('an export', () => {
  const answers: Answers = {
    ...FILES,
    'POST /tally': { tally: 63, universe: 100, lines: [] },
    'POST /rows': {
      total: 63,
      rows: [
        {
          key: 'a',
          cells: {
            name: '=SUM(1)',
            street: 'Long 1',
            postcode: '602 00',
            place: { town: 'Brno', region: null },
          },
        },
      ],
    },
    'POST /exports/before': goingOut,
    'POST /exports': { export: 'e1', job: { id: 'j1' } },
    'GET /jobs/j1': {
      job: { id: 'j1', state: 'failed', message: 'The disk is full.', done: 0, total: 1, title: 'Export' },
    },
  };
  test('is of those picked where any is, and of all where all are asked', async () => {
    const { user, sent } = show(<ExportDialog acted={acted(two)} onClose={onClose} />, answers);
    await user.click(screen.getByRole('radio', { name: 'all 63' }));
    expect(await screen.findByRole('button', { name: 'Export 63' })).toBeTruthy();
    await user.click(screen.getByRole('radio', { name: 'the 2 picked' }));
    await user.click(screen.getByRole('radio', { name: 'CSV' }));
    await user.selectOptions(screen.getByRole('combobox', { name: 'Delimiter' }), ';');
    await user.click(screen.getByRole('checkbox', { name: /byte order mark/ }));
    await user.clear(screen.getByLabelText('Name of the export'));
    await user.type(screen.getByLabelText('Name of the export'), ' Two of them ');
    await user.click(await screen.findByRole('button', { name: 'Export 2' }));
    expect(sent('POST /exports')).toMatchObject([
      { name: 'Two of them', format: 'csv', delimiter: ';', bom: false, keys: ['a', 'b'], currency: 'EUR' },
    ]);
    // What stopped it is said where it was started.
    expect(await screen.findByText(/The disk is full/)).toBeTruthy();
  });
  test('shows the first rows as the file will have them', async () => {
    const { user } = show(<ExportDialog acted={acted(NO_PICKS)} onClose={onClose} />, {
      ...answers,
      'GET /export-templates': { templates: [mailing] },
    });
    await user.click(await screen.findByRole('radio', { name: 'Names and addresses' }));
    const preview = await screen.findByLabelText('The first rows');
    expect(
      within(preview)
        .getAllByRole('columnheader')
        .map(({ textContent }) => textContent),
    ).toEqual(['Company', 'Street', 'Postcode', 'Town', 'Region', 'Country']);
    expect(within(preview).getByText('Brno')).toBeTruthy();
  });
  test('of nobody, of no columns or without a name cannot be started', async () => {
    const { user, unmount } = show(
      <ExportDialog acted={acted(NO_PICKS, { count: 0, total: 0 })} onClose={onClose} />,
      { ...answers, 'POST /exports/before': { of: 0, goes: 0, off: [], roll: { steps: [], foot: 0 } } },
    );
    const start: HTMLButtonElement = await screen.findByRole('button', { name: 'Export 0' });
    expect([start.disabled, start.title]).toEqual([true, 'Nobody is left to export']);
    unmount();
    show(<ExportDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    await user.clear(screen.getByLabelText('Name of the export'));
    const nameless: HTMLButtonElement = await screen.findByRole('button', { name: 'Export 63' });
    expect(nameless.disabled).toBe(true);
  });
  test('of one record asks not which', async () => {
    show(<ExportDialog acted={acted(two, { one: true, count: 1, total: 1 })} onClose={onClose} />, answers);
    expect(screen.queryByRole('radiogroup', { name: /^Which companies/ })).toBeNull();
    expect(await screen.findByRole('button', { name: 'Export 2' })).toBeTruthy();
  });
  test('of a tape that takes the first so many takes those', async () => {
    const tape = { ...emptyTape(), first: 20 };
    const { user, sent } = show(
      <ExportDialog acted={acted(NO_PICKS, { tape })} onClose={onClose} />,
      answers,
    );
    await user.click(await screen.findByRole('button', { name: 'Export 20' }));
    expect(sent('POST /exports')).toMatchObject([{ tape: { first: 20 } }]);
  });
});

describe('an export of which some are on a suppression list', () => {
  const answers: Answers = {
    ...FILES,
    'POST /tally': { tally: 63, universe: 100, lines: [] },
    'POST /rows': { total: 63, rows: [] },
    'POST /exports/before': ({ along }: { along: string[] }) => ({
      of: 63,
      goes: along.length ? 63 : 60,
      off: [{ list: 'customers', name: 'Our customers', count: 3, along: along.length > 0 }],
      roll: {
        foot: along.length ? 63 : 60,
        steps: [
          { step: 'chosen', label: 'All that pass', note: '', delta: 63, total: 63 },
          ...(along.length
            ? []
            : [
                {
                  step: 'off-customers',
                  label: 'On Our customers',
                  note: 'suppression list',
                  delta: -3,
                  total: 60,
                },
              ]),
        ],
      },
    }),
    'POST /exports': { export: 'e1', job: { id: 'j1' } },
    'GET /jobs/j1': { job: { id: 'j1', state: 'running', done: 0, total: 1, title: 'Export' } },
  };
  test('leaves them out, and takes them along only with a reason', async () => {
    const { user, sent } = show(<ExportDialog acted={acted(NO_PICKS)} onClose={onClose} />, answers);
    expect(await screen.findByRole('button', { name: 'Export 60' })).toBeTruthy();
    expect(screen.getByText('On Our customers')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'take along' }));
    const start: HTMLButtonElement = await screen.findByRole('button', { name: 'Export 63' });
    expect([start.disabled, start.title]).toEqual([true, 'Say why those of a suppression list go out']);
    await user.type(screen.getByLabelText('Why those on Our customers go out'), ' a service letter ');
    await user.click(screen.getByRole('button', { name: 'Export 63' }));
    expect(sent('POST /exports')).toMatchObject([
      { along: [{ list: 'customers', reason: 'a service letter' }] },
    ]);
  });
});
