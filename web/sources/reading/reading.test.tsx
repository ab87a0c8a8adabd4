/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { FileReadingAnswer } from '../../../contract/readings.ts';
import type { UploadAnswer } from '../../../contract/responses.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { PLAIN_MAPPING } from '../../../core/testing/plain-mapping.ts';
import { freshDesk, type Answers } from '../../testing/render.tsx';
import { answers, job, page, source } from '../../testing/sources.tsx';

beforeEach(freshDesk);

describe('loading a file', () => {
  const column = (id: string, label: string) => ({ id, label });
  const upload = (more: Partial<UploadAnswer> = {}): UploadAnswer => ({
    upload: 'u1',
    was: null,
    sameAs: null,
    above: [],
    sheets: [],
    undecodable: 0,
    remembered: [],
    made: [],
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

  test('puts a newer version in the place of the likeliest source, and asks what becomes of those gone', async () => {
    const started = jest.fn(() => ({ job: job('j7') }));
    const { user, sent } = await chosen({
      'POST /sources': started,
      'GET /sources': {
        sources: [
          source('zeta', { name: 'Zeta' }),
          source('people', { name: 'Alpha', subject: 'people' }),
          source('beta', { name: 'Beta', fileName: upload().fileName.replace('.', ' 2025.') }),
        ],
      },
    });
    await user.click(screen.getByRole('radio', { name: 'a newer version of …' }));
    const older = screen.getByLabelText<HTMLSelectElement>('The source whose place it takes');
    expect([...older.options].map(({ value }) => value)).toEqual(['beta', 'zeta']);
    expect(screen.queryByLabelText('Name of the source')).toBeNull();
    await user.selectOptions(older, 'Zeta, 30 Sep 2026');
    await user.selectOptions(
      screen.getByLabelText('Companies that it has no more'),
      'stay, as a source of their own',
    );
    await user.click(screen.getByRole('button', { name: 'Put it in place' }));
    await waitFor(() => expect(started).toHaveBeenCalled());
    expect(sent('POST /sources')).toMatchObject([{ name: 'Zeta', refreshes: 'zeta', gone: 'kept' }]);
  });

  test('says that this very file is loaded already, and puts it in the place of that', async () => {
    const started = jest.fn(() => ({ job: job('j7') }));
    const { user, sent } = await chosen(
      { 'POST /sources': started, 'GET /sources': { sources: [source('alpha'), source('beta')] } },
      upload({ sameAs: 'beta' }),
    );
    expect((await screen.findByRole('status')).textContent).toContain(
      'This very file was loaded on 1 Oct 2026 as “Register beta”',
    );
    await user.click(screen.getByRole('button', { name: 'Put it in the place of that' }));
    expect(screen.queryByText(/This very file/)).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Put it in place' }));
    await waitFor(() => expect(started).toHaveBeenCalled());
    expect(sent('POST /sources')).toMatchObject([{ refreshes: 'beta' }]);
  });

  test('of companies in mind asks only by what they are known, and carries the other columns along', async () => {
    const started = jest.fn(() => ({ job: job('j7', { kind: 'match', state: 'running' }) }));
    const { user, sent } = await chosen({
      'POST /matches': started,
      'GET /jobs/j7': { job: job('j7', { kind: 'match', state: 'running' }), refusals: false },
    });
    await user.click(screen.getByRole('radio', { name: 'companies I already have in mind' }));
    expect(screen.queryByLabelText('As of')).toBeNull();
    expect(readAs('Umsatz').selectedOptions[0]!.textContent).toBe('carried along');
    expect([...readAs('Umsatz').options].some(({ value }) => value === 'revenue')).toBe(false);
    await waitFor(() =>
      expect(sent('POST /uploads/u1/readings').at(-1)).toMatchObject({
        matching: true,
        mapping: { columns: ['name', null, null] },
      }),
    );
    await user.clear(screen.getByLabelText('Name of the match'));
    await user.type(screen.getByLabelText('Name of the match'), 'Visitors');
    await user.click(screen.getByRole('button', { name: 'Match them' }));
    await waitFor(() => expect(started).toHaveBeenCalled());
    expect(sent('POST /matches')).toMatchObject([
      { upload: 'u1', name: 'Visitors', mapping: { columns: ['name', null, null], unreadable: 'empty' } },
    ]);
    expect(await screen.findByRole('progressbar')).toBeTruthy();
  });

  test('says of a country that it was told by the headings, until another is typed', async () => {
    const first = upload();
    const { user } = await chosen({}, { ...first, mapping: { ...first.mapping, country: 'SE' } });
    const country = screen.getByLabelText<HTMLInputElement>('Country of all rows, as the file suggests');
    expect(country.value).toBe('SE');
    await user.clear(country);
    expect(screen.queryByLabelText('Country of all rows, as the file suggests')).toBeNull();
    await user.type(screen.getByLabelText('Country of all rows'), 'no');
    expect(screen.getByLabelText<HTMLInputElement>('Country of all rows').value).toBe('NO');
  });

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
    await user.selectOptions(
      screen.getByLabelText('What surely is a company of another source'),
      'stays beside it',
    );
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
        joinSure: false,
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
  test('asks nothing any more of a column that is left out', async () => {
    const first = upload();
    first.mapping = { ...first.mapping, undecided: [{ column: 1, what: 'decimal' }] };
    const { user } = await chosen({}, first);
    const load = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Load it' });
    expect(load().disabled).toBe(true);
    await user.selectOptions(readAs('Umsatz'), 'left out');
    expect(screen.queryByText(/Say how/)).toBeNull();
    expect(load().disabled).toBe(false);
  });
  test('takes a currency of its own for a column, and that of the file again', async () => {
    const { user, sent } = await chosen();
    await user.selectOptions(screen.getByLabelText('Umsatz: currency'), 'CHF');
    const last = () => (sent('POST /uploads/u1/readings').at(-1) as { mapping: Mapping }).mapping.styles![1];
    await waitFor(() => expect(last()).toEqual({ currency: 'CHF' }));
    await user.selectOptions(screen.getByLabelText('Umsatz: currency'), 'EUR, as the file');
    await waitFor(() => expect(last()).toEqual({}));
  });
  test('reads it again after it was cancelled', async () => {
    let reads = 0;
    const { user } = await chosen({
      'POST /uploads/u1/readings': () =>
        ++reads === 1 ? { job: { ...job('r1'), kind: 'read', state: 'cancelled' } } : done(reading()),
    });
    expect(await screen.findByText(/The reading was cancelled/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Read it whole' }));
    expect(await screen.findByLabelText('companies: 5')).toBeTruthy();
    expect(screen.queryByText(/The reading was cancelled/)).toBeNull();
  });
  test('skips rows by a number that is typed whole, and keeps what was chosen while the columns are the same', async () => {
    const { user, sent } = await chosen({ 'POST /uploads/u1/preview': upload({ skip: 12 }) });
    await user.selectOptions(screen.getByLabelText('Umsatz is in'), 'millions');
    await user.clear(screen.getByLabelText('Rows to skip above'));
    await user.type(screen.getByLabelText('Rows to skip above'), '12{Enter}');
    await waitFor(() => expect(sent('POST /uploads/u1/preview')).toMatchObject([{ skip: 12 }]));
    expect(screen.getByLabelText<HTMLSelectElement>('Umsatz is in').value).toBe('1000000');
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
  test('with headings that are known is read as the last such file, answers and all', async () => {
    const before = {
      ...upload().mapping,
      answers: [null, { viele: '250+' }, null],
      styles: [{}, { unit: 1000 }, {}],
      unreadable: 'refuse' as const,
    };
    const first = upload({
      remembered: [
        { name: 'Coaters', subject: 'companies', made: [], mapping: before, usedAt: '2026-09-01T10:00:00Z' },
      ],
    });
    const { user, sent } = await chosen({ 'POST /sources': { job: job('j9') } }, first);
    await user.click(screen.getByRole('button', { name: /^Coaters/ }));
    expect(screen.getByLabelText<HTMLSelectElement>('Umsatz is in').value).toBe('1000');
    await user.click(screen.getByRole('button', { name: 'Load it' }));
    await waitFor(() => expect(sent('POST /sources')).toMatchObject([{ name: 'Coaters', mapping: before }]));
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
