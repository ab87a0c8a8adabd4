/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { useLocation } from 'react-router';
import { gatherRun } from '../testing/gather.ts';
import { aList } from '../testing/lists.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { RunRoll } from './RunRoll.tsx';
import { RunRows } from './RunRows.tsx';
import { WordsPlaces } from './WordsPlaces.tsx';
import { newSpec } from './teaching.ts';

beforeEach(freshDesk);
afterEach(() => {
  jest.restoreAllMocks();
});

const Where = () => <output data-testid="where">{useLocation().pathname + useLocation().search}</output>;

describe('a run', () => {
  it('has a roll whose figures open what they count, with words by places and time left', async () => {
    const { user } = show(
      <>
        <RunRoll run={gatherRun({ pagesFailed: 2, pagesNotAllowed: 3 })} to="/gather/g1?run=r1" />
        <Where />
      </>,
    );
    const grid = screen.getByRole('table', { name: 'Records by word and place' });
    expect(within(grid).getAllByText('waits')).toHaveLength(2);
    expect(screen.getByText('2:20')).toBeTruthy();
    expect(screen.getByLabelText('records so far: 403')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: '−41' }));
    expect(screen.getByTestId('where').textContent).toBe('/gather/g1?run=r1&part=adverts');
    await user.click(within(grid).getByRole('button', { name: '60 records of joinery / Zlín' }));
    expect(screen.getByTestId('where').textContent).toBe('/gather/g1?run=r1&part=records&search=2');
    await user.click(screen.getByRole('button', { name: '2 not read' }));
    expect(screen.getByTestId('where').textContent).toContain('part=failed');
  });

  it('is paused, gone on with, and says what it asks', async () => {
    const { user, sent, rerender } = show(<RunRoll run={gatherRun()} to="/g" />, {
      'POST /gather/runs/r1/act': { run: gatherRun({ state: 'paused' }) },
    });
    await user.click(screen.getByRole('button', { name: 'Pause' }));
    expect(sent('POST /gather/runs/r1/act')).toEqual([{ act: 'pause' }]);
    rerender(<></>);
    const asking = gatherRun({
      state: 'asks',
      why: '12 fields empty since page 40. Point at one more example.',
    });
    const asks = show(<RunRoll run={asking} to="/g" />, { 'POST /gather/runs/r1/act': { run: asking } });
    expect(asks.getByRole('status').textContent).toContain('12 fields empty since page 40');
    await asks.user.click(asks.getByRole('button', { name: 'Read again' }));
    expect(asks.sent('POST /gather/runs/r1/act')).toEqual([{ act: 'read-again' }]);
  });

  it('becomes a source in one act, by its name', async () => {
    const { user, sent } = show(<RunRoll run={gatherRun({ state: 'done', timeLeft: null })} to="/g" />, {
      'POST /gather/runs/r1/deliver': { job: 'j1', upload: null, message: 'Loading Guide' },
      'GET /jobs/j1': {
        job: {
          ...{ id: 'j1', kind: 'load', title: 'Load', state: 'done', done: 1, total: 1, message: null },
          result: {},
          startedAt: '2026-11-29T10:00:00Z',
          endedAt: null,
        },
        refusals: false,
      },
    });
    await user.click(screen.getByRole('button', { name: 'Into a source' }));
    expect(await screen.findByText(/is a source now/)).toBeTruthy();
    expect(sent('POST /gather/runs/r1/deliver')).toEqual([{ to: 'source', name: 'Guide' }]);
  });

  it('is loaded by another name where the first was refused', async () => {
    let busy = true;
    const { user, sent } = show(<RunRoll run={gatherRun({ state: 'done', timeLeft: null })} to="/g" />, {
      'POST /gather/runs/r1/deliver': () => {
        if (busy) return new Error('Another load is running.');
        return { job: null, upload: 'u1', message: 'Say how its columns are read.' };
      },
    });
    await user.click(screen.getByRole('button', { name: 'Onto a list' }));
    expect(await screen.findByText('Another load is running.')).toBeTruthy();
    busy = false;
    await user.type(screen.getByRole('textbox', { name: 'Name of the list' }), ' again');
    await user.click(screen.getByRole('button', { name: 'Match them' }));
    expect(await screen.findByText(/Say how its columns are read\./)).toBeTruthy();
    // It does not end there: the file can be taken and read by hand.
    expect(screen.getByRole('link', { name: 'as CSV' }).getAttribute('href')).toContain(
      '/runs/r1/file?format=csv',
    );
    expect(screen.getByRole('link', { name: 'under Sources' })).toBeTruthy();
    expect(sent('POST /gather/runs/r1/deliver').at(-1)).toEqual({ to: 'list', name: 'Guide again' });
  });

  it('shows its rows with the words and places that found them, and why others were refused', async () => {
    const { user, asked } = show(<RunRows run={gatherRun()} />, {
      'GET /gather/runs/r1/rows': {
        total: 2,
        fields: [
          { field: 'name', heading: 'Company' },
          { field: 'town', heading: 'Town' },
        ],
        rows: [
          {
            id: 1,
            values: { name: 'Mirovec', town: 'Zlín' },
            tags: ['joinery / Zlín'],
            page: 'http://p/1',
            at: null,
            reason: null,
          },
          {
            id: 2,
            values: { name: 'Drevanko' },
            tags: ['joinery / Brno', 'joinery / Zlín'],
            page: 'http://p/2',
            at: null,
            reason: null,
          },
        ],
      },
    });
    const table = await screen.findByRole('table', { name: 'records' });
    expect(await within(table).findByText('joinery / Brno; joinery / Zlín')).toBeTruthy();
    expect(within(table).getByText('none')).toBeTruthy();
    await user.click(within(table).getByRole('button', { name: 'Company' }));
    await user.click(screen.getByRole('radio', { name: 'refused' }));
    await waitFor(() => expect(asked.at(-1)!.path).toContain('part=refused'));
  });
});

it('shows the rows beyond the first on demand, all of them', async () => {
  const answers = (offset: number) => ({
    total: 503,
    fields: [{ field: 'name', heading: 'Company' }],
    rows: Array.from({ length: offset === 0 ? 500 : 3 }, (_, i) => ({
      ...{
        id: offset + i,
        values: { name: `Firm ${offset + i}` },
        tags: [],
        page: '',
        at: null,
        reason: null,
      },
    })),
  });
  let pages = 0;
  const { user, asked } = show(<RunRows run={gatherRun({ state: 'done' })} />, {
    'GET /gather/runs/r1/rows': () => answers(500 * pages++),
  });
  expect(await screen.findByText(/the first 500 shown/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Show 3 more' }));
  expect(await screen.findByText('Firm 502')).toBeTruthy();
  expect(asked.at(-1)!.path).toContain('offset=500');
  expect(screen.queryByText(/the first/)).toBeNull();
  expect(screen.queryByRole('button', { name: /more$/ })).toBeNull();
});

describe('words and places', () => {
  it('are changed with the steps before the list, counted before they are kept', async () => {
    const kept = jest.fn((_spec: object) => Promise.resolve());
    const spec = newSpec({
      ...{ start: 'http://guide.example/', words: ['joinery'], places: ['Brno'] },
      steps: [
        { do: 'type', into: 'What', text: '{word}' },
        { do: 'press', button: 'Search' },
      ],
    });
    const forms = [
      {
        ...{
          method: 'get' as const,
          action: '',
          buttons: [{ node: 9, label: 'Search', name: null, value: '' }],
        },
        controls: [
          {
            ...{ node: 5, kind: 'choice' as const, name: 'r', label: 'Region', value: '', on: false },
            options: [
              { value: '', label: 'all' },
              { value: 'm', label: 'Moravia' },
            ],
          },
          {
            node: 6,
            kind: 'tick' as const,
            name: 'w',
            label: 'with a website',
            value: '1',
            on: false,
            options: [],
          },
        ],
      },
    ];
    const { user } = show(<WordsPlaces spec={spec} forms={forms} onSave={kept} onClose={() => {}} />);
    await user.type(screen.getByRole('textbox', { name: 'Words' }), '\nprinter\n"stairs, spiral"');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Add a step' }), 'choose in “Region”');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Choice in Region' }), 'Moravia');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Add a step' }), 'tick “with a website”');
    await user.click(screen.getByRole('checkbox', { name: 'town' }));
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(kept).toHaveBeenCalledWith(
      expect.objectContaining({
        words: ['joinery', 'printer', 'stairs, spiral'],
        needs: ['town'],
        // What fills a box comes before the button is pressed.
        steps: [
          { do: 'type', into: 'What', text: '{word}' },
          { do: 'choose', in: 'Region', option: 'Moravia' },
          { do: 'tick', box: 'with a website', on: true },
          { do: 'press', button: 'Search' },
        ],
      }),
    );
  });

  it('come from a file: of a sheet, from the column that is chosen', async () => {
    const { user } = show(
      <WordsPlaces spec={newSpec()} forms={[]} onSave={() => Promise.resolve()} onClose={() => {}} />,
    );
    const file = (name: string, text: string) =>
      Object.assign(new File([text], name, { type: 'text/plain' }), { text: () => Promise.resolve(text) });
    await user.upload(
      screen.getByLabelText('Words from a file'),
      file('words.txt', 'joinery, "stairs, spiral"'),
    );
    const words = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Words' });
    await waitFor(() => expect(words.value).toBe('joinery\n"stairs, spiral"'));
    await user.upload(
      screen.getByLabelText('Places from a file'),
      file('towns.csv', 'Town,People\nBrno,380000\nZlín,74000'),
    );
    await user.click(await screen.findByRole('button', { name: /^Town/ }));
    expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Places' }).value).toBe('Brno\nZlín');
  });

  it('come from a column of a list, each once', async () => {
    const town = (name: string) => ({ place: { town: name, countryName: 'Czechia' } });
    const members = ['Brno', 'Praha', 'Brno'].map((name, i) => ({ key: `k${i}`, cells: town(name) }));
    const { user, sent } = show(
      <WordsPlaces
        spec={newSpec({ places: ['Zlín'] })}
        forms={[]}
        onSave={() => Promise.resolve()}
        onClose={() => {}}
      />,
      {
        'GET /lists': {
          ...{ removed: [], reasons: [] },
          lists: [
            aList({ key: 'rivals', name: 'Rivals', members: 2 }),
            aList({ key: 'targets', name: 'Targets' }),
          ],
        },
        'POST /rows': { rows: members, total: 3 },
      },
    );
    const [, places] = screen.getAllByRole('button', { name: 'from a list' });
    await user.click(places!);
    await user.selectOptions(await screen.findByLabelText('List'), 'targets');
    await user.selectOptions(screen.getByLabelText('Column'), 'Town');
    await user.click(screen.getByRole('button', { name: 'Take them' }));
    const box = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Places' });
    await waitFor(() => expect(box.value).toBe('Zlín\nBrno\nPraha'));
    expect(sent('POST /rows')).toMatchObject([
      { tape: { lines: [{ field: 'list', test: { any: ['targets'] } }] }, columns: ['place'], offset: 0 },
    ]);
    expect(screen.queryByRole('group', { name: 'Places from a list' })).toBeNull();
  });

  it('say what is wrong with them, and keep what was entered', async () => {
    const failing = () => Promise.reject(new Error('pause must not be less than 0.1'));
    const { user } = show(<WordsPlaces spec={newSpec()} forms={[]} onSave={failing} onClose={() => {}} />);
    const pause = screen.getByRole<HTMLInputElement>('textbox', { name: /Pause between pages/ });
    await user.clear(pause);
    await user.type(pause, '0');
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    expect(await screen.findByText('pause must not be less than 0.1')).toBeTruthy();
    expect(pause.value).toBe('0');
  });
});
