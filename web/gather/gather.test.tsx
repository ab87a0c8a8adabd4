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
import { Teach } from './Teach.tsx';

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

  it('records what is done on the page before the list, and shows what its button leads to', async () => {
    const forms = [
      {
        ...{ method: 'get' as const, action: '/find' },
        controls: [
          { node: 21, kind: 'text' as const, name: 'q', label: 'What', value: '', on: false, options: [] },
        ],
        buttons: [{ node: 22, label: 'Search', name: null, value: '' }],
      },
    ];
    const { user, sent } = open({
      'POST /gather/look': look([], { forms }),
      'POST /gather/gatherers/g1/pages': { page: { ...taught.pages[0], id: 9 } },
    });
    await user.click(await screen.findByRole('radio', { name: 'what is done before' }));
    await screen.findByText(/fill a box of the page/);
    await says({ kind: 'did', node: 21, value: 'joinery', on: true });
    expect(await screen.findByText('type “{word}” into “What”')).toBeTruthy();
    await says({ kind: 'did', node: 22, value: '', on: true });
    await waitFor(() =>
      expect(sent('POST /gather/gatherers/g1/pages')).toEqual([{ word: 'joinery', place: 'Brno' }]),
    );
    expect(sent('PUT /gather/gatherers/g1').at(-1)).toMatchObject({
      spec: {
        steps: [
          { do: 'type', into: 'What', text: '{word}' },
          { do: 'press', button: 'Search' },
        ],
      },
    });
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
