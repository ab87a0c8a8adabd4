/** @jest-environment jsdom */
import { beforeEach, expect, jest, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { emptyTape } from '../../../core/tape/nodes.ts';
import type { Acted } from '../../desk/acted.ts';
import { NO_PICKS } from '../../desk/picks.ts';
import { NO_PROGRAMS, template } from '../../testing/exports.ts';
import { freshDesk, show, type Answers } from '../../testing/render.tsx';
import { ExportDialog } from './ExportDialog.tsx';
import { fileOfSheet, fileOfTemplate, needChoices, splitChoices } from './wish.ts';

beforeEach(freshDesk);

const acted: Acted = {
  tape: emptyTape(),
  sort: [],
  picks: NO_PICKS,
  one: false,
  count: 63,
  gone: 0,
  total: 63,
};
const answers: Answers = {
  'POST /tally': { tally: 63, universe: 100, lines: [] },
  'POST /rows': { total: 63, rows: [] },
  'POST /exports/before': ({
    handed,
    needs,
    format,
  }: {
    handed?: object;
    needs?: string[];
    format: string;
  }) => {
    const goes = 63 - (handed ? 20 : 0) - (needs?.length ?? 0) * 5 - (format === 'geojson' ? 3 : 0);
    return {
      ...{ of: 63, goes, off: [] },
      roll: {
        foot: goes,
        steps: [
          { step: 'chosen', label: 'All that pass', note: '', delta: 63, total: 63 },
          ...(handed
            ? [{ step: 'handed', label: 'Print shop has them', note: 'at any time', delta: -20, total: 43 }]
            : []),
        ],
      },
    };
  },
  'POST /exports': { export: 'e1', job: { id: 'j1' } },
  'GET /jobs/j1': { job: { id: 'j1', state: 'running', done: 0, total: 1, title: 'Export' } },
  'GET /export-templates': {
    templates: [
      template('Finance', {
        format: 'xlsx',
        columns: ['name', 'revenue'],
        needs: ['mail'],
        receiver: 'Finance',
      }),
      template('For people', {}, { subject: 'people' }),
    ],
  },
  'GET /receivers': {
    receivers: [{ key: 'print-shop', name: 'Print shop', exports: 1, records: 20, last: '2026-11-03' }],
  },
  'GET /programs': {
    ...NO_PROGRAMS,
    folders: [{ id: 'd1', name: 'Shared', path: '/lists', trouble: null }],
    hooks: [
      {
        id: 'h1',
        name: 'Ours',
        url: 'stand-in',
        secret: 's',
        batch: 500,
        waiting: 0,
        delivered: 0,
        givenUp: 0,
      },
    ],
  },
};
const start = (more: Answers = {}) =>
  show(<ExportDialog acted={acted} onClose={jest.fn()} />, { ...answers, ...more });
const exported = async (user: ReturnType<typeof show>['user'], count: number) =>
  user.click(await screen.findByRole('button', { name: `Export ${count}` }));

test('a template sets columns, file, what each must have and whom it is for; the others are not offered', async () => {
  const { user, sent } = start();
  await user.click(await screen.findByRole('radio', { name: 'Finance' }));
  expect(screen.queryByRole('radio', { name: 'For people' })).toBeNull();
  expect((screen.getByLabelText('Whom it is for') as unknown as HTMLInputElement).value).toBe('Finance');
  await exported(user, 58);
  expect(sent('POST /exports')).toMatchObject([
    {
      format: 'xlsx',
      columns: ['name', 'revenue'],
      needs: ['mail'],
      receiver: 'Finance',
      template: 'Finance',
    },
  ]);
});

test('a template leaves out what only lists say where the tape stands on none, and has it where it does', () => {
  const columns = ['name', 'member:verdict:*', 'group:revenue', 'made:1'];
  const template = { file: { ...fileOfSheet(columns, 'EUR', 'A4'), handed: undefined } } as never;
  const file = fileOfSheet(['name'], 'EUR', 'A4');
  expect(fileOfTemplate(template, emptyTape(), file).columns).toEqual(['name', 'group:revenue', 'made:1']);
  const onList = { ...emptyTape(), lines: [{ id: 'l', field: 'list', test: { any: ['rivals'] } }] };
  expect(fileOfTemplate(template, onList, file).columns).toEqual(columns);
});

test('what the receiver has had stays off when asked, and its step opens its records', async () => {
  const { user, sent } = start({
    'POST /exports/before/step': {
      tape: null,
      why: 'More than 10,000 companies are too many to name one by one.',
    },
  });
  await user.type(await screen.findByLabelText('Whom it is for'), 'Print shop');
  expect(screen.getByText(/has had .*records|records in/).textContent).toMatch(/20 records in one export/);
  await user.selectOptions(screen.getByLabelText('Whose earlier records stay off'), 'receiver');
  const roll = within(screen.getByRole('complementary', { name: 'What goes out' }));
  await user.click(await roll.findByRole('button', { name: '−20' }));
  expect(sent('POST /exports/before/step')).toMatchObject([
    { step: 'handed', handed: { receiver: 'print-shop' } },
  ]);
  expect(await roll.findByText(/too many to name/)).toBeTruthy();
  await user.selectOptions(screen.getByLabelText('Within which span'), '90');
  await exported(user, 43);
  expect(sent('POST /exports')).toMatchObject([
    { receiver: 'Print shop', handed: { receiver: 'print-shop', days: 90 } },
  ]);
});

test('a computed column is made, worded and refused where its units do not fit', async () => {
  const { user, sent } = start();
  await user.click(await screen.findByRole('radio', { name: 'chosen here' }));
  await user.click(screen.getByRole('button', { name: /a column computed of others/ }));
  await user.selectOptions(screen.getByLabelText('How it is computed'), 'difference');
  await user.selectOptions(screen.getByLabelText('First column'), 'revenue');
  await user.selectOptions(screen.getByLabelText('Second column'), 'headcount');
  expect((await screen.findByRole('alert')).textContent).toMatch(/takes staff from EUR/);
  const button: HTMLButtonElement = await screen.findByRole('button', { name: 'Export 63' });
  expect(button.disabled).toBe(true);
  await user.selectOptions(screen.getByLabelText('Second column'), 'profit');
  await user.clear(screen.getByLabelText('Heading of the computed column'));
  await user.type(screen.getByLabelText('Heading of the computed column'), 'Costs');
  await user.type(screen.getByLabelText('Heading of Company'), 'Account');
  await exported(user, 63);
  expect(sent('POST /exports')).toMatchObject([
    {
      computed: [{ id: 'made:1', heading: 'Costs', way: 'difference', of: ['revenue', 'profit'] }],
      headings: { name: 'Account' },
    },
  ]);
  expect((sent('POST /exports')[0] as { columns: string[] }).columns.at(-1)).toBe('made:1');
});

test('several files, a sample and values each must have are under more', async () => {
  const { user, sent } = start();
  await user.click(await screen.findByRole('button', { name: /several files, a sample/ }));
  await user.selectOptions(screen.getByLabelText('In how many files'), 'Country');
  await user.selectOptions(screen.getByLabelText('A value that every row must have'), 'phone');
  await user.click(screen.getByRole('checkbox', { name: /only a sample of/ }));
  await user.click(screen.getByRole('button', { name: 'Draw others' }));
  await exported(user, 58);
  expect(sent('POST /exports')).toMatchObject([
    { split: { by: 'Country', field: 'place' }, needs: ['phone'], sample: { size: 100, seed: 2 } },
  ]);
});

test('a folder takes any file, a webhook only JSON Lines without a ZIP', async () => {
  const { user, sent } = start();
  const hook: HTMLInputElement = await screen.findByRole('checkbox', { name: 'Ours' });
  expect(hook.disabled).toBe(true);
  await user.click(screen.getByRole('checkbox', { name: 'Shared' }));
  expect(screen.getByLabelText('Language of headings')).toBeTruthy();
  await user.click(screen.getByRole('radio', { name: 'JSON Lines' }));
  // Machines call columns by names of their own.
  expect(screen.queryByLabelText('Language of headings')).toBeNull();
  await user.click(screen.getByRole('checkbox', { name: /in a ZIP/ }));
  await user.click(screen.getByRole('checkbox', { name: 'Ours' }));
  await exported(user, 63);
  expect(sent('POST /exports')).toMatchObject([
    { format: 'jsonl', beside: false, deliver: { folders: ['d1'], hooks: ['h1'] } },
  ]);
});

test('choices are saved as a template, which is then the one chosen', async () => {
  const saved = template('Mine', { format: 'ods' });
  const { user, sent } = start({ 'POST /export-templates': { template: saved } });
  await user.click(await screen.findByRole('radio', { name: 'ODS spreadsheet' }));
  await user.selectOptions(screen.getByLabelText('Language of headings'), 'de');
  await user.click(screen.getByRole('button', { name: 'Save as a template' }));
  await user.type(screen.getByLabelText('Name of the template'), 'Mine{Enter}');
  await waitFor(() =>
    expect(sent('POST /export-templates')).toMatchObject([
      { name: 'Mine', subject: 'companies', file: { format: 'ods', language: 'de' } },
    ]),
  );
  await exported(user, 63);
  expect(sent('POST /exports')).toMatchObject([{ template: 'Mine' }]);
});

test('letters say what they say, and paper has its size', async () => {
  const { user, sent } = start();
  await user.click(await screen.findByRole('radio', { name: 'Letters' }));
  await user.click(screen.getByRole('radio', { name: 'Letter' }));
  await user.type(screen.getByLabelText('Sender'), 'Us');
  await user.type(screen.getByLabelText('Text of the letter'), 'Dear all');
  expect(screen.queryByRole('radiogroup', { name: 'Which columns' })).toBeNull();
  await exported(user, 63);
  expect(sent('POST /exports')).toMatchObject([
    { format: 'letters', paper: 'Letter', letter: { sender: 'Us', text: 'Dear all' } },
  ]);
});

test('what can be asked of rows and shared out by is of the subject', () => {
  expect(
    needChoices('people')
      .slice(0, 2)
      .map(({ id }) => id),
  ).toEqual(['mail', 'phone']);
  expect(needChoices('companies').map(({ id }) => id)).not.toContain('handed-over');
  expect(
    splitChoices('companies')
      .slice(0, 4)
      .map(({ by }) => by),
  ).toEqual(['Main industry code', 'Country', 'Region', 'Town']);
  expect(splitChoices('deals').map(({ by }) => by)).toContain('Kind');
});

test('amounts stay in their own currency where that is chosen, and only where there are any', async () => {
  const { user, sent } = start();
  await user.click(await screen.findByRole('radio', { name: 'Finance' }));
  await user.click(screen.getByRole('radio', { name: /chosen here/ }));
  await user.click(screen.getByLabelText('Revenue', { exact: true }));
  await waitFor(() => expect(screen.queryByLabelText('Currency of amounts')).toBeNull());
  await user.click(screen.getByLabelText('Revenue', { exact: true }));
  await user.selectOptions(await screen.findByLabelText('Currency of amounts'), 'their own currency');
  await exported(user, 58);
  expect(sent('POST /exports')).toMatchObject([{ ownCurrency: true, currency: 'EUR' }]);
});
