/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import type { GatherAnswer } from '../../contract/gather-views.ts';
import { undo } from '../app/history.ts';
import { around, gatherAnswer, gatherer, gatherRun, look, lookRow } from '../testing/gather.ts';
import { freshDesk, show } from '../testing/render.tsx';
import { Gather } from './Gather.tsx';
import { HostsDialog } from './HostsDialog.tsx';
import { RunRoll } from './RunRoll.tsx';
import { RunRows } from './RunRows.tsx';
import { Teach } from './Teach.tsx';
import { WordsPlaces } from './WordsPlaces.tsx';
import { newSpec } from './teaching.ts';

beforeEach(freshDesk);
afterEach(() => {
  jest.restoreAllMocks();
});

const Where = () => <output data-testid="where">{useLocation().pathname + useLocation().search}</output>;

describe('gatherers', () => {
  const listed = (more: Partial<GatherAnswer> = {}) =>
    gatherAnswer({
      gatherers: [
        {
          ...{ id: 'g1', name: 'Guide', start: 'http://guide.example/', searches: 12 },
          ...{ madeAt: '2026-11-28T10:00:00Z', changedAt: '2026-11-28T10:00:00Z' },
          run: { id: 'r1', state: 'asks', records: 403, startedAt: '2026-11-29T10:42:00Z' },
        },
        {
          ...{ id: 'g2', name: 'Another', start: 'saved pages', searches: 1, run: null },
          ...{ madeAt: '2026-11-29T10:00:00Z', changedAt: '2026-11-29T10:00:00Z' },
        },
      ],
      ...more,
    });

  it('are listed with their last runs, searched, sorted and removed after being asked', async () => {
    const { user, asked } = show(<Gather />, {
      'GET /gather': listed(),
      'GET /gather/runs/r1': { run: gatherRun() },
      'DELETE /gather/gatherers/g2': {},
    });
    const table = await screen.findByRole('table', { name: 'Gatherers' });
    const names = () =>
      within(table)
        .getAllByRole('link')
        .map((link) => link.textContent);
    expect(names()).toEqual(['Another', 'Guide']);
    await user.click(within(table).getByRole('button', { name: /Records/ }));
    expect(names()).toEqual(['Guide', 'Another']);
    expect(within(table).getByText('asks something')).toBeTruthy();
    await user.type(screen.getByRole('searchbox'), 'anoth');
    expect(names()).toEqual(['Another']);
    await user.click(screen.getByRole('button', { name: 'Remove Another' }));
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(false);
    await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Remove' }));
    expect(asked.at(-2) ?? asked.at(-1)).toBeTruthy();
    expect(asked.some(({ method, path }) => method === 'DELETE' && path === '/gather/gatherers/g2')).toBe(
      true,
    );
    await user.clear(screen.getByRole('searchbox'));
    await user.type(screen.getByRole('searchbox'), 'nothing');
    expect(screen.getByText(/No gatherer has/)).toBeTruthy();
  });

  it('begin with the first page of the first search, by the steps that the form asks for', async () => {
    const form = {
      ...{ method: 'get', action: '/find' },
      controls: [
        { kind: 'text', name: 'q', label: 'What', value: '', on: false, options: [] },
        { kind: 'text', name: 'p', label: 'Where', value: '', on: false, options: [] },
      ],
      buttons: [{ label: 'Search', name: null, value: '' }],
    };
    const { user, sent } = show(
      <>
        <Gather />
        <Where />
      </>,
      {
        'GET /gather': gatherAnswer(),
        'POST /gather/gatherers': gatherer(),
        'PUT /gather/gatherers/g1': gatherer(),
        'POST /gather/gatherers/g1/pages': { page: gatherer().pages[0] },
        'POST /gather/look': look([], { forms: [form as never] }),
      },
    );
    await screen.findByText(/Two made-up directories/);
    await user.keyboard('n');
    await user.click(screen.getByRole('button', { name: 'Workshop Guide' }));
    await user.type(screen.getByRole('textbox', { name: 'Words' }), 'joinery, "stairs, spiral"');
    await user.type(screen.getByRole('textbox', { name: 'Places' }), 'Brno');
    expect(screen.getByText('2', { selector: '.text-ink' })).toBeTruthy();
    await user.keyboard('{Control>}{Enter}{/Control}');
    await waitFor(() => expect(screen.getByTestId('where').textContent).toBe('/gather/g1'));
    expect(sent('POST /gather/gatherers')[0]).toMatchObject({
      name: 'Workshop Guide',
      spec: {
        start: 'http://workshop-guide.example/',
        words: ['joinery', 'stairs, spiral'],
        places: ['Brno'],
      },
    });
    expect(sent('PUT /gather/gatherers/g1')[0]).toMatchObject({
      spec: {
        steps: [
          { do: 'type', into: 'What', text: '{word}' },
          { do: 'type', into: 'Where', text: '{place}' },
          { do: 'press', button: 'Search' },
        ],
      },
    });
    expect(sent('POST /gather/gatherers/g1/pages')).toEqual([
      { address: 'http://workshop-guide.example/' },
      { word: 'joinery', place: 'Brno' },
    ]);
  });

  it('leave nothing behind where the first page cannot be read, and what was entered stays', async () => {
    const { user, asked } = show(<Gather />, {
      'GET /gather': gatherAnswer(),
      'POST /gather/gatherers': gatherer(),
      'POST /gather/gatherers/g1/pages': new Error('guild.test is not among the hosts.'),
      'DELETE /gather/gatherers/g1': {},
    });
    await screen.findByText(/Two made-up directories/);
    await user.keyboard('n');
    await user.type(screen.getByRole('textbox', { name: 'Where it begins' }), 'guild.test');
    await user.click(screen.getByRole('button', { name: 'Show me the first page' }));
    expect(await screen.findByText('guild.test is not among the hosts.')).toBeTruthy();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Where it begins' }).value).toBe(
      'guild.test',
    );
    expect(asked.some(({ method }) => method === 'DELETE')).toBe(true);
  });

  it('read hosts that were allowed', async () => {
    const { user, sent } = show(
      <HostsDialog hosts={[{ name: 'a.example', private: true }]} onClose={() => {}} />,
      {
        'PUT /gather/hosts': { hosts: [] },
        'DELETE /gather/hosts/a.example': {},
      },
    );
    await user.type(screen.getByRole('textbox', { name: 'Host' }), 'Directory.test');
    await user.click(screen.getByRole('button', { name: 'Allow it' }));
    expect(sent('PUT /gather/hosts')).toEqual([{ name: 'directory.test', private: false }]);
    await user.click(screen.getByRole('button', { name: 'Remove a.example' }));
    expect(sent('DELETE /gather/hosts/a.example')).toHaveLength(1);
  });
});

describe('a gatherer that is taught', () => {
  const taught = gatherer();
  const rows = look([lookRow(10, { name: 'Drevanko', town: 'Brno' }), lookRow(40, { name: 'Mirovec' })], {
    next: 'http://guide.example/find?page=2',
    adverts: [60],
    lacking: 0,
  });
  const open = (answers: object = {}) => {
    const shown = show(
      <Routes>
        <Route path="/gather/:id" element={<Teach />} />
      </Routes>,
      {
        'GET /gather/gatherers/g1': taught,
        'POST /gather/look': rows,
        'POST /gather/around': around(),
        'PUT /gather/gatherers/g1': (body: object) => ({ ...taught, ...body }),
        ...answers,
      },
      '/gather/g1',
    );
    return shown;
  };
  /** What the frame says. */
  const says = async (message: object) => {
    const frame = await screen.findByTitle<HTMLIFrameElement>(/The page as it came/);
    act(() => {
      window.dispatchEvent(
        new MessageEvent('message', {
          source: frame.contentWindow,
          data: { from: 'gather-page', ...message },
        }),
      );
    });
  };

  it('shows its page in a frame that may run only our own pointer', async () => {
    open();
    const frame = await screen.findByTitle<HTMLIFrameElement>(/The page as it came/);
    expect(frame.getAttribute('sandbox')).toBe('allow-scripts');
    expect(frame.getAttribute('src')).toBe('/api/gather/pages/7/view');
    expect(await screen.findByRole('table', { name: 'What comes of it' })).toBeTruthy();
    expect(screen.getByText('one look, 2 rows like it, 97 % sure')).toBeTruthy();
    expect(screen.getByLabelText('records on this page: 2')).toBeTruthy();
    expect(screen.getByText('2 words × 3 places')).toBeTruthy();
  });

  it('takes what is pointed at for a row, lets it be widened, and takes it back', async () => {
    const { user, sent } = open();
    await screen.findByRole('table', { name: 'What comes of it' });
    await says({ kind: 'point', node: 11, part: null });
    expect(await screen.findByRole('group', { name: 'Example' })).toBeTruthy();
    expect(sent('POST /gather/around')).toEqual([{ page: 7, node: 11, rows: [10, 40] }]);
    expect(sent('PUT /gather/gatherers/g1')[0]).toMatchObject({
      spec: { examples: [{ page: 7, node: 10, as: 'row', fields: [{ field: 'name', node: 11 }] }] },
    });
    await user.click(screen.getByRole('button', { name: 'Wider' }));
    expect(sent('PUT /gather/gatherers/g1').at(-1)).toMatchObject({ spec: { examples: [{ node: 4 }] } });
    await act(() => undo());
    await act(() => undo());
    expect(sent('PUT /gather/gatherers/g1').at(-1)).toMatchObject({ spec: { examples: [] } });
  });

  it('ignores what another window says', async () => {
    const { sent } = open();
    await screen.findByRole('table', { name: 'What comes of it' });
    act(() => {
      window.dispatchEvent(
        new MessageEvent('message', {
          source: window,
          data: { from: 'gather-page', kind: 'point', node: 1, part: null },
        }),
      );
    });
    expect(sent('POST /gather/around')).toEqual([]);
  });

  it('asks what a value is; an address is taken apart', async () => {
    const { user, sent } = open({
      'POST /gather/around': around({ text: 'Cejl 4, 602 00 Brno', field: 'address' }),
    });
    await screen.findByRole('table', { name: 'What comes of it' });
    await user.keyboard('f');
    await says({ kind: 'point', node: 13, part: null });
    const bar = await screen.findByRole('form', { name: 'What this value is' });
    expect(within(bar).getByRole<HTMLSelectElement>('combobox').value).toBe('address');
    await user.click(within(bar).getByRole('button', { name: 'Take it' }));
    await waitFor(() => expect(sent('PUT /gather/gatherers/g1')).toHaveLength(1));
    const [body] = sent('PUT /gather/gatherers/g1') as { spec: { examples: { fields: object[] }[] } }[];
    expect(body!.spec.examples[0]!.fields).toEqual([
      { field: 'name', node: 11 },
      { field: 'street', node: 13 },
      { field: 'postcode', node: 13 },
      { field: 'town', node: 13 },
    ]);
  });

  it('says where something leads nowhere, and keeps a key of the frame as its own', async () => {
    const { sent } = open();
    await screen.findByRole('table', { name: 'What comes of it' });
    await says({ kind: 'key', key: 'n' });
    await says({ kind: 'point', node: 70, part: null });
    expect(await screen.findByText('This leads to no page.')).toBeTruthy();
    await says({ kind: 'key', key: 'a' });
    await says({ kind: 'point', node: 61, part: null });
    await waitFor(() => expect(sent('PUT /gather/gatherers/g1')).toHaveLength(1));
    expect(sent('PUT /gather/gatherers/g1')[0]).toMatchObject({ spec: { examples: [{ as: 'advert' }] } });
  });

  it('opens the page of each company, with what it seems to say', async () => {
    const withPages = look([lookRow(10, { name: 'Drevanko', page: 'http://guide.example/firm/1' })], {
      guess: [{ field: 'mail', node: 88 }],
    });
    const { user, sent } = open({
      'POST /gather/look': withPages,
      'POST /gather/gatherers/g1/pages': { page: { ...taught.pages[0], id: 9 } },
    });
    await user.click(await screen.findByRole('checkbox', { name: /open each company/ }));
    await waitFor(() => expect(sent('PUT /gather/gatherers/g1')).toHaveLength(1));
    expect(sent('POST /gather/gatherers/g1/pages')).toEqual([{ address: 'http://guide.example/firm/1' }]);
    expect(sent('PUT /gather/gatherers/g1')[0]).toMatchObject({
      spec: { detail: { page: 9, fields: [{ field: 'mail', node: 88 }] } },
    });
  });
});

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
    expect(await screen.findByText('Say how its columns are read.')).toBeTruthy();
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
        ...{ method: 'get' as const, action: '', buttons: [{ label: 'Search', name: null, value: '' }] },
        controls: [
          {
            ...{ kind: 'choice' as const, name: 'r', label: 'Region', value: '', on: false },
            options: [
              { value: '', label: 'all' },
              { value: 'm', label: 'Moravia' },
            ],
          },
          { kind: 'tick' as const, name: 'w', label: 'with a website', value: '1', on: false, options: [] },
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
