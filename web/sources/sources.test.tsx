/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Toaster } from 'sonner';
import type { Job, SourceView, UploadAnswer, FileReadingAnswer } from '../../contract/responses.ts';
import { PLAIN_MAPPING } from '../../core/testing/plain-mapping.ts';
import { freshDesk, show, type Answers } from '../testing/render.tsx';
import { Sources } from './Sources.tsx';

beforeEach(freshDesk);

const source = (key: string, more: Partial<SourceView> = {}): SourceView => ({
  key,
  name: `Register ${key}`,
  fileName: `${key}.csv`,
  licence: null,
  asOf: '2026-09-30',
  loadedAt: '2026-10-01T00:00:00Z',
  rowsRead: 100,
  rowsRefused: 0,
  subject: 'companies',
  companies: 90,
  countries: [],
  ...more,
});
const job = (id: string, more: Partial<Job> = {}): Job => ({
  id,
  kind: 'load',
  title: `Loading ${id}`,
  state: 'done',
  done: 5,
  total: 10,
  message: null,
  result: null,
  startedAt: '2026-11-01T10:00:00Z',
  endedAt: null,
  ...more,
});
const answers = (sources: SourceView[], jobs: Job[] = [], more: Answers = {}): Answers => ({
  'GET /sources': { sources },
  'GET /jobs': { jobs },
  'GET /contacts': { books: [] },
  ...Object.fromEntries(jobs.map((one) => [`GET /jobs/${one.id}`, { job: one, refusals: false }])),
  ...more,
});
const page = (given: Answers) =>
  show(
    <>
      <Sources />
      <Toaster />
    </>,
    given,
  );

describe('the sources', () => {
  const three = [
    source('a', { name: 'zeta', companies: 5, rowsRead: 900, asOf: '2026-01-31' }),
    source('b', { name: 'Émile', companies: 90, rowsRead: 100 }),
    source('c', {
      name: 'alpha 10',
      companies: 40,
      rowsRead: 50,
      rowsRefused: 3,
      subject: 'people',
      countries: ['CZ', 'DE', 'AT', 'PL', 'SK', 'HU', 'DK', ''].map((country, i) => ({
        country,
        companies: i + 1,
      })),
    }),
  ];
  const names = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.querySelector('strong')!.textContent);

  test('are the largest first, and sorted by name whatever the case and accents', async () => {
    const { user } = page(answers(three));
    await screen.findByText('zeta');
    expect(names()).toEqual(['Émile', 'alpha 10', 'zeta']);
    await user.click(screen.getByRole('button', { name: 'Source' }));
    expect(names()).toEqual(['alpha 10', 'Émile', 'zeta']);
    await user.click(screen.getByRole('button', { name: 'Source' }));
    expect(names()).toEqual(['zeta', 'Émile', 'alpha 10']);
    await user.click(screen.getByRole('button', { name: 'Rows' }));
    expect(names()).toEqual(['zeta', 'Émile', 'alpha 10']);
    expect(screen.getByRole('columnheader', { name: 'Rows' }).getAttribute('aria-sort')).toBe('descending');
  });
  test('say what they hold, what was refused, where from, and that no licence is stated', async () => {
    page(answers(three));
    const row = (await screen.findByText('alpha 10')).closest('tr')!;
    expect(row.textContent).toMatch(/503 refused/);
    expect(row.textContent).toMatch(/PL 4.*and 2 more.*not stated/);
    expect(within(row).getByText('people')).toBeTruthy();
    expect(screen.getByText('31 Jan 2026')).toBeTruthy();
  });
  test('that are none say what to do; the demo is made by a press, and what fails is said', async () => {
    const { user, sent } = page(answers([], [], { 'POST /demo': new Error('Another load is running.') }));
    expect(await screen.findByText(/Nothing is loaded yet/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Make the demo' }));
    expect(sent('POST /demo')).toEqual([{ companies: 48_000 }]);
    expect(await screen.findByText('Another load is running.')).toBeTruthy();
  });
  test('are removed only after a question that says what leaves', async () => {
    const { user, asked } = page(answers(three, [], { 'DELETE /sources/a': { job: job('j1') } }));
    await user.click(await screen.findByRole('button', { name: 'Remove zeta' }));
    expect(screen.getByRole('dialog').textContent).toMatch(/Its 900 records leave the universe/);
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Remove zeta' }));
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.some(({ path }) => path === '/sources/a')).toBe(true));
  });
});

describe('loads', () => {
  test('that run show how far they are and can be cancelled; meanwhile no other begins', async () => {
    const { user, sent } = page(
      answers([source('a')], [job('j1', { state: 'running', message: 'reading rows' })], {
        'POST /jobs/j1/cancel': {},
      }),
    );
    const bar = await screen.findByRole('progressbar', { name: 'Loading j1' });
    expect(bar.getAttribute('aria-valuenow')).toBe('50');
    expect(screen.getByText(/reading rows/).textContent).toMatch(/^50 % reading rows/);
    for (const name of ['Load a file', 'Remove Register a', 'Make the demo'])
      expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(sent('POST /jobs/j1/cancel')).toHaveLength(1);
  });
  test('that ended stand below with how they ended, and what they refused row by row', async () => {
    const refusal = { row: 17, column: 'Umsatz', value: '', rule: 'a number' };
    const refused = job('j1', {
      result: {
        read: 120,
        refused: 1,
        refusals: [refusal],
        refusedCells: 0,
        found: { number: 80, domain: 20, name: 10, not: 9 },
        joinedDeals: 4,
      },
    });
    const { user } = page(
      answers([source('a')], [refused, job('j2', { state: 'failed', message: 'The file is empty.' })], {
        'GET /jobs/j1': { job: refused, refusals: true },
      }),
    );
    expect(await screen.findByText('The file is empty.')).toBeTruthy();
    await user.click(await screen.findByRole('button', { name: 'refused rows' }));
    expect(screen.getByText(/rows landed/).textContent).toBe('119 rows landed, 1 were refused.');
    expect(screen.getByText(/^Companies found/).textContent).toBe(
      'Companies found by registration number 80, by domain 20, by name 10, not found 9; 4 deals another source had already.',
    );
    expect(screen.getByRole('row', { name: '17 Umsatz (empty) a number' })).toBeTruthy();
    expect(screen.getByRole('link', { name: /All refused rows/ }).getAttribute('href')).toBe(
      '/api/jobs/j1/refusals',
    );
    await user.click(screen.getByRole('button', { name: 'refused rows' }));
    expect(screen.queryByText(/rows landed/)).toBeNull();
  });
});

describe('an address book', () => {
  test('is loaded, counted and forgotten', async () => {
    let books = [{ book: 'Old.vcf', contacts: 12, found: 3 }];
    const { user, asked } = page(
      answers([source('a')], [], {
        'GET /contacts': () => ({ books }),
        'POST /contacts': () => {
          books = [...books, { book: 'New.vcf', contacts: 1200, found: 300 }];
          return { book: 'New.vcf', contacts: 1200, found: 300 };
        },
        'DELETE /contacts/Old.vcf': () => {
          books = books.slice(1);
          return {};
        },
      }),
    );
    const part = within(screen.getByRole('region', { name: 'Address book' }));
    expect((await part.findByText('Old.vcf')).closest('li')!.textContent).toMatch(
      /12 people, 3 at companies here/,
    );
    await user.upload(part.getByLabelText('Address book file'), new File(['BEGIN:VCARD'], 'New.vcf'));
    expect(await part.findByText('New.vcf')).toBeTruthy();
    expect(await screen.findByText('1,200 people, 300 of them at companies of the universe')).toBeTruthy();
    await user.click(part.getByRole('button', { name: 'Remove Old.vcf' }));
    await waitFor(() => expect(part.queryByText('Old.vcf')).toBeNull());
    expect(asked.filter(({ method }) => method === 'DELETE')).toHaveLength(1);
  });
  test('that cannot be read says why', async () => {
    const { user } = page(answers([], [], { 'POST /contacts': new Error('No card has a name.') }));
    await user.upload(await screen.findByLabelText('Address book file'), new File(['x'], 'x.vcf'));
    expect(await screen.findByText('No card has a name.')).toBeTruthy();
  });
});

describe('loading a file', () => {
  const column = (id: string, label: string) => ({ id, label });
  const upload = (more: Partial<UploadAnswer> = {}): UploadAnswer => ({
    upload: 'u1',
    was: null,
    above: [],
    sheets: [],
    undecodable: 0,
    skip: 0,
    headerRows: 1,
    fileName: 'Lackierer 2026.csv',
    kind: 'csv',
    encoding: 'utf-8',
    delimiter: ';',
    hasHeader: true,
    header: ['Firma', 'Umsatz', ''],
    rows: [['Dubina', '12,5', 'x']],
    bytes: 2048,
    subject: 'companies',
    mapping: { ...PLAIN_MAPPING, columns: ['name', 'revenue', null], decimal: ',', styles: [{}, {}, {}] },
    columns: [
      column('name', 'Company'),
      column('revenue', 'Revenue'),
      column('country', 'Country'),
      column('revenue-year', 'Year of revenue'),
      column('main-code', 'Main code'),
    ] as never,
    ...more,
  });
  const plain = { understood: 3, empty: 0, emptyWords: [], notUnderstood: 0, values: [], more: 0 };
  const reading = (more: Partial<FileReadingAnswer> = {}): FileReadingAnswer => ({
    rows: 9,
    notData: 1,
    refused: 2,
    twice: 1,
    records: 5,
    columns: [plain, plain, plain],
    came: [['Dubina', '12,5', 'x']],
    understood: [['Dubina', '12.5', '']],
    refusals: [{ row: 4, column: 'Firma', value: '', rule: 'a name' }],
    notDataRows: [{ row: 9, why: 'total', text: 'Summe · 40' }],
    ...more,
  });
  const done = (answer: FileReadingAnswer) => ({
    job: { ...job('r1'), kind: 'read', state: 'done', result: answer },
  });
  const chosen = async (given: Answers = {}, first = upload()) => {
    const shown = page(
      answers([source('a')], [], {
        'POST /uploads': first,
        'POST /uploads/u1/readings': done(reading()),
        ...given,
      }),
    );
    await shown.user.click(await screen.findByRole('button', { name: 'Load a file' }));
    await shown.user.upload(
      screen.getByLabelText('File of companies'),
      new File(['x'], first.fileName, { type: 'text/csv' }),
    );
    await screen.findByText('How each column is read');
    return shown;
  };
  const readAs = (name: string) => screen.getByLabelText<HTMLSelectElement>(`Column ${name} is read as`);

  test('shows how each column is read, takes corrections, and loads as it is shown', async () => {
    const started = jest.fn(() => ({ job: job('j7') }));
    const { user, sent } = await chosen({ 'POST /sources': started });
    expect(screen.getByText(/columns are read/).textContent).toMatch(/^2 of 3 columns are read; the others/);
    await user.selectOptions(screen.getByLabelText('Currency where none is named'), 'CZK');
    fireEvent.change(screen.getByLabelText('Year of the figures'), { target: { value: '2024' } });
    await user.type(screen.getByLabelText('Country of all rows'), 'cz');
    // A column has one reading: taken over by the third, it leaves the second.
    await user.selectOptions(readAs('3'), 'Revenue');
    expect([readAs('Umsatz').value, readAs('3').value]).toEqual(['', 'revenue']);
    await user.selectOptions(readAs('Umsatz'), 'Revenue');
    await user.selectOptions(screen.getByLabelText('Umsatz is in'), 'thousands');
    await user.selectOptions(screen.getByLabelText('Umsatz: decimals'), '1,234.5');
    await user.clear(screen.getByLabelText('Name of the source'));
    await user.type(screen.getByLabelText('Name of the source'), ' Coaters ');
    await user.type(screen.getByLabelText('Licence, if any'), 'CC0');
    await user.selectOptions(screen.getByLabelText('A cell that is not understood'), 'and nothing is loaded');
    await user.click(screen.getByRole('button', { name: 'Load it' }));
    await waitFor(() => expect(started).toHaveBeenCalled());
    expect(sent('POST /sources')).toEqual([
      {
        upload: 'u1',
        name: 'Coaters',
        licence: 'CC0',
        asOf: '2026-09-30',
        read: {
          ...{ encoding: 'utf-8', delimiter: ';', hasHeader: true, skip: 0, headerRows: 1 },
          subject: 'companies',
        },
        mapping: {
          ...upload().mapping,
          columns: ['name', 'revenue', null],
          styles: [{}, { unit: 1000, decimal: '.' }, {}],
          undecided: [],
          unreadable: 'refuse',
          currency: 'CZK',
          year: 2024,
          country: 'CZ',
        },
        allOrNothing: true,
        covers: [],
      },
    ]);
    expect(await screen.findByRole('heading', { name: 'Sources' })).toBeTruthy();
  });
  test('says what the whole file comes to, in steps down to the records', async () => {
    await chosen();
    const roll = within(await screen.findByRole('complementary', { name: 'What it comes to' }));
    await roll.findByText(/Rows under the headings/);
    expect(roll.getAllByRole('listitem').map((step) => step.textContent)).toEqual([
      '+Rows under the headings9+9',
      '−Not data: totals, notes, headings again8row 9: Summe · 40−1',
      '−Refused6row 4, Firma: expected a name−2',
      '−Twice: a company that an earlier row has5−1',
    ]);
    expect(roll.getByLabelText('companies: 5')).toBeTruthy();
    expect(screen.getByRole('row', { name: /^Umsatz/ }).textContent).toContain('12,5 → 12.5');
  });
  test('lets what is not understood be answered once, and taken back', async () => {
    const open = { ...plain, notUnderstood: 7, emptyWords: [{ word: 'k.A.', count: 2 }], empty: 2 };
    const values = [
      { value: 'viele', count: 4, rule: 'a number' },
      { value: '?!', count: 2, rule: 'a number' },
      { value: 'x', count: 1, rule: 'a number' },
    ];
    const { user, sent } = await chosen({
      'POST /uploads/u1/readings': done(reading({ columns: [plain, { ...open, values }, plain] })),
    });
    await user.click(await screen.findByRole('button', { name: '7 not understood in Umsatz' }));
    expect(screen.getByText('k.A.')).toBeTruthy();
    await user.type(screen.getByLabelText('Read “viele” as'), '250+{Enter}');
    await user.click(screen.getByRole('button', { name: 'Leave “?!” empty' }));
    await user.click(screen.getByRole('button', { name: 'Refuse rows with “x”' }));
    const given = await screen.findByRole('list', { name: 'Answers for Umsatz' });
    expect(
      within(given)
        .getAllByRole('listitem')
        .map((one) => one.textContent),
    ).toEqual([
      '“viele” is read as “250+”take back',
      '“?!” is left emptytake back',
      '“x” refuses its rowtake back',
    ]);
    await user.click(within(given).getAllByRole('button', { name: 'take back' })[1]!);
    await waitFor(() =>
      expect(sent('POST /uploads/u1/readings').at(-1)).toMatchObject({
        mapping: { answers: [null, { viele: '250+', x: null }, null] },
      }),
    );
  });
  test('asks what nobody can see, and loads nothing before it is said', async () => {
    const first = upload();
    first.mapping = { ...first.mapping, undecided: [{ column: 1, what: 'decimal' }] };
    const { user, sent } = await chosen({ 'POST /sources': { job: job('j9') } }, first);
    const load = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Load it' });
    expect(load().disabled).toBe(true);
    expect(screen.getByText(/Say how “Umsatz” is written/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Umsatz: decimals'), '1.234,5');
    expect(load().disabled).toBe(false);
    await user.click(load());
    await waitFor(() =>
      expect(sent('POST /sources')).toMatchObject([
        { mapping: { styles: [{}, { decimal: ',' }, {}], undecided: [] } },
      ]),
    );
  });
  test('asks for a name column before anything is loaded, and keeps what was entered when loading fails', async () => {
    const { user } = await chosen({ 'POST /sources': new Error('as-of date lies in the future') });
    await user.selectOptions(readAs('Firma'), 'left out');
    expect(screen.getByRole('alert').textContent).toMatch(/No column is read as the company’s name/);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Load it' }).disabled).toBe(true);
    await user.selectOptions(readAs('Firma'), 'Company');
    await user.type(screen.getByLabelText('Licence, if any'), 'CC0');
    await user.click(screen.getByRole('button', { name: 'Load it' }));
    expect(await screen.findByText('as-of date lies in the future')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Licence, if any').value).toBe('CC0');
  });
  test('reads the file anew with another encoding, shape or kind of row', async () => {
    const people = upload({
      subject: 'people',
      mapping: { ...upload().mapping, columns: [null, null, null] },
      columns: [column('person-name', 'Person'), column('company-domain', 'Domain')] as never,
    });
    const { user, sent } = await chosen({
      'POST /uploads/u1/preview': ({ subject, encoding }: { subject: string; encoding: string }) =>
        subject === 'people' ? people : upload({ encoding, header: ['Firma', 'Umsatz', 'ř'] }),
      'POST /sources': { job: job('j8') },
    });
    await user.selectOptions(screen.getByLabelText('Encoding'), 'windows-1250');
    expect(await screen.findByLabelText('Column ř is read as')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('Headings'), 'two rows, joined');
    await waitFor(() =>
      expect(sent('POST /uploads/u1/preview').at(-1)).toMatchObject({ headerRows: 2, skip: 0 }),
    );
    await user.click(screen.getByRole('radio', { name: /person/ }));
    expect(await screen.findByText(/No column says which company a row belongs to/)).toBeTruthy();
    expect(sent('POST /uploads/u1/preview').at(-1)).toMatchObject({ delimiter: ';', subject: 'people' });
    expect(screen.queryByLabelText('Currency where none is named')).toBeNull();
    await user.selectOptions(readAs('Firma'), 'Domain');
    await user.type(screen.getByLabelText(/Countries of which this file has all people/), 'cz, at');
    await user.click(screen.getByRole('button', { name: 'Load it' }));
    await waitFor(() => expect(sent('POST /sources')).toMatchObject([{ covers: ['CZ', 'AT'] }]));
  });
  test('of a workbook offers its sheets, hidden ones marked, and says what stands above and what is damaged', async () => {
    const book = upload({
      kind: 'xlsx',
      sheet: 'Firms',
      sheets: [
        { name: 'Draft', hidden: true },
        { name: 'Firms', hidden: false },
      ],
      above: [['Suppliers', '2026']],
      skip: 2,
      undecodable: 3,
    });
    const { user, sent } = await chosen({ 'POST /uploads/u1/preview': book }, book);
    expect(screen.queryByLabelText('Encoding')).toBeNull();
    expect(screen.getByText('Suppliers 2026')).toBeTruthy();
    expect(screen.getByText(/bytes are no character/).textContent).toMatch(/^3 bytes/);
    await user.selectOptions(screen.getByLabelText('Sheet'), 'Draft (hidden)');
    await waitFor(() => expect(sent('POST /uploads/u1/preview')).toMatchObject([{ sheet: 'Draft' }]));
    expect(sent('POST /uploads/u1/preview')[0]).not.toHaveProperty('skip');
  });
  test('that cannot be read says why, and another can be chosen', async () => {
    const { user } = page(
      answers([source('a')], [], { 'POST /uploads': new Error('x.csv is empty; choose another file.') }),
    );
    await user.click(await screen.findByRole('button', { name: 'Load a file' }));
    await user.upload(screen.getByLabelText('File of companies'), new File([''], 'x.csv'));
    expect(await screen.findByText('x.csv is empty; choose another file.')).toBeTruthy();
    expect(screen.getByLabelText('File of companies')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Back to the sources' }));
    expect(await screen.findByRole('heading', { name: 'Sources' })).toBeTruthy();
  });
});
