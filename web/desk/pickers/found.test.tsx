/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, within } from '@testing-library/react';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { useDesk } from '../store.ts';
import { pick } from '../../testing/picker.tsx';
import { freshDesk } from '../../testing/render.tsx';
import { CodesPicker } from './CodesPicker.tsx';
import { PeersPicker } from './PeersPicker.tsx';
import { RecordPicker } from './RecordPicker.tsx';

beforeEach(freshDesk);

const company = (key: string, name: string) => ({ key, name, town: 'Brno', country: 'CZ' });
const FOUND = {
  'GET /jump': { companies: [company('CZ:1', 'Dubina'), company('CZ:2', 'Lakovna Sever')] },
  'POST /rows': ({ columns }: { columns: string[] }) => ({
    total: 1,
    rows: columns.includes('score:l1')
      ? [
          { key: 'CZ:7', cells: { name: 'Alike', 'score:l1': 0.912, 'why:l1': 'same trade' } },
          {
            key: 'CZ:8',
            cells: { name: 'Perhaps', 'score:l1': { low: 0.4, high: 0.75 }, 'why:l1': 'size unknown' },
          },
        ]
      : [{ key: 'CZ:9', cells: { name: 'Truhlárna Novák' } }],
  }),
};

describe('certain companies', () => {
  test('are found by name and taken one by one; those taken are called by their names', async () => {
    const { user, last } = pick(RecordPicker, 'company', FOUND, { start: { any: ['CZ:9'] } });
    expect(await screen.findByText(/Truhlárna Novák/)).toBeTruthy();
    await user.type(screen.getByLabelText('Find a company by name'), 'sever');
    await user.click(await screen.findByRole('checkbox', { name: /Lakovna Sever/ }));
    expect(last()).toEqual({ any: ['CZ:9', 'CZ:2'] });
    // What is taken stands above and is offered no more.
    const found = screen.getByRole('list', { name: 'Companies found' });
    expect(within(found).queryByText(/Lakovna Sever/)).toBeNull();
    const taken = screen.getByRole('list', { name: 'Companies taken' });
    for (const box of within(taken).getAllByRole('checkbox')) await user.click(box);
    expect(last()).toBeNull();
  });
  test('that are not there are said not to be', async () => {
    const { user } = pick(RecordPicker, 'company', { ...FOUND, 'GET /jump': { companies: [] } });
    await user.type(screen.getByLabelText('Find a company by name'), 'zzz');
    expect(await screen.findByText('No company of that name.')).toBeTruthy();
  });
});

describe('the most alike', () => {
  const answers = {
    ...FOUND,
    'GET /lists': { lists: [{ key: 'rivals', name: 'Rivals', members: 12 }] },
    'POST /alternatives': { counts: [700, 600, 500, 400, 300, 200, 100] },
  };
  test('need a company or a list first, then show scores with reasons, and a span where parts are unknown', async () => {
    const { user, last } = pick(PeersPicker, 'peers', answers);
    expect(screen.getByText('Choose a company or a list first.')).toBeTruthy();
    expect(screen.queryByLabelText('How alike at least')).toBeNull();
    await user.type(screen.getByLabelText('Add a company by name'), 'dub');
    await user.click(await screen.findByRole('button', { name: /Dubina/ }));
    expect(last()).toEqual({ like: ['CZ:1'], from: 0.6 });
    const alike = screen.getByRole('region', { name: 'The most alike' });
    expect(await within(alike).findByText('0.91')).toBeTruthy();
    expect(within(alike).getByText(/^0.40/).textContent).toBe('0.40to 0.75');
    expect(within(alike).getByText('size unknown')).toBeTruthy();
  });
  test('of a list take its place; how alike is a slide or a step with what it would leave', async () => {
    const { user, last } = pick(PeersPicker, 'peers', answers, { start: { like: ['CZ:9'], from: 0.6 } });
    await screen.findByText('Truhlárna Novák');
    await user.click(await screen.findByRole('button', { name: '0.8 200' }));
    expect(last()).toEqual({ like: ['CZ:9'], from: 0.8 });
    fireEvent.change(screen.getByLabelText('How alike at least'), { target: { value: '0.55' } });
    expect(last()).toEqual({ like: ['CZ:9'], from: 0.55 });
    await user.selectOptions(await screen.findByRole('combobox'), 'rivals');
    expect(last()).toEqual({ list: 'rivals', from: 0.55 });
    await user.selectOptions(screen.getByRole('combobox'), 'none');
    expect(last()).toBeNull();
  });
  test('a weight back at its usual size is not written', () => {
    const { last } = pick(PeersPicker, 'peers', answers, { start: { like: ['CZ:9'], from: 0.6 } });
    const size = within(screen.getByRole('region', { name: 'What counts how much' })).getByLabelText(/^size/);
    const usual = (size as HTMLInputElement).value;
    fireEvent.change(size, { target: { value: '0.95' } });
    expect(last()).toEqual({ like: ['CZ:9'], from: 0.6, weights: { size: 0.95 } });
    fireEvent.change(size, { target: { value: usual } });
    expect(last()).toEqual({ like: ['CZ:9'], from: 0.6 });
  });
  test('put score and reasons beside the name on the sheet, and take them off again', async () => {
    const start = { like: ['CZ:9'], from: 0.6 };
    useDesk.setState({ tape: { ...emptyTape(), lines: [{ id: 'l1', field: 'peers', test: start }] } });
    const before = useDesk.getState().columns.companies!;
    const { user } = pick(PeersPicker, 'peers', answers, { start, at: 'l1' });
    await user.click(screen.getByRole('button', { name: 'Score and reasons as columns' }));
    expect(useDesk.getState().columns.companies).toEqual([...before, 'score:l1', 'why:l1']);
    await user.click(await screen.findByRole('button', { name: 'Off the sheet' }));
    expect(useDesk.getState().columns.companies).toEqual(before);
  });
});

describe('industry codes', () => {
  const code = (code: string, level: number, parent: string | null, count: number, below: boolean) => ({
    code,
    title: `Trade ${code}`,
    level,
    parent,
    count,
    below,
  });
  const CODES = [
    code('C', 1, null, 90, true),
    code('25', 2, 'C', 60, true),
    code('25.5', 3, '25', 40, true),
    code('25.51', 4, '25.5', 30, false),
    code('25.53', 4, '25.5', 10, false),
    code('16', 2, 'C', 30, false),
  ];
  const schemes = [
    { key: 'nace-2.1', label: 'NACE 2.1', used: true },
    { key: 'naics-2022', label: 'NAICS 2022', used: true },
    { key: 'isic-4', label: 'ISIC 4', used: false },
  ];
  const answers = {
    'POST /counts': ({ search, scheme }: { search?: string; scheme: string }) => ({
      kind: 'codes',
      scheme,
      schemes,
      unknown: 4,
      codes: search
        ? CODES.filter((one) => one.code === '25.51').map((one) => ({ ...one, by: 'spray paint' }))
        : CODES,
    }),
    'GET /codes/nace-2.1/25.51': {
      code: '25.51',
      note: { text: `${'All that coats metal. '.repeat(20)}The end.`, from: 'ISIC 2592' },
      kin: [
        { scheme: 'naics-2022', code: '332812', title: 'Metal coating', kind: 'part-of', sure: true },
        { scheme: 'isic-4', code: '2592', title: 'Treatment of metals', kind: 'covers', sure: false },
      ],
      together: [{ code: '25.53', title: 'Trade 25.53', count: 6, share: 0.2 }],
    },
    'POST /tally': { universe: 100, tally: 30, lines: [{ id: 'l1', kin: 7 }] },
  };
  const codes = (start: object | null = null, at?: string) =>
    pick(CodesPicker, 'industry', answers, { start: start as never, ...(at ? { at } : {}) });
  const shown = () =>
    screen.getAllByRole('checkbox').map((box) => box.getAttribute('aria-label')!.split(' ')[0]);

  test('are a tree that opens where it is pressed, and down to what is picked', async () => {
    const { user, unmount } = codes();
    await screen.findByRole('checkbox', { name: 'C Trade C' });
    expect(shown()).toEqual(['C']);
    await user.click(screen.getByRole('button', { name: /Trade C/ }));
    expect(shown()).toEqual(['C', '25', '16']);
    await user.click(screen.getByRole('button', { name: /Trade C/ }));
    expect(shown()).toEqual(['C']);
    unmount();
    codes({ scheme: 'nace-2.1', any: ['25.51'] });
    await screen.findByRole('checkbox', { name: /^25.51/ });
    expect(shown()).toEqual(['C', '25', '25.5', '25.51', '25.53', '16']);
    const above: HTMLInputElement = screen.getByRole('checkbox', { name: '25 Trade 25' });
    expect([above.checked, above.indeterminate]).toEqual([false, true]);
  });
  test('are picked with all below them; one of those let go is an exception', async () => {
    const { user, last } = codes({ scheme: 'nace-2.1', any: ['25.51'] });
    await user.click(await screen.findByRole('checkbox', { name: '25.5 Trade 25.5' }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['25.5'] });
    await user.click(screen.getByRole('checkbox', { name: /^25.53/ }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['25.5'], except: ['25.53'] });
    await user.click(screen.getByRole('radio', { name: 'main only' }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['25.5'], except: ['25.53'], rank: 'main' });
  });
  test('are found by words, with what they were found by; a press on one picks it', async () => {
    const { user, last } = codes();
    await user.type(screen.getByLabelText('Search codes'), 'spray');
    await user.click(await screen.findByRole('button', { name: /spray paint/ }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['25.51'] });
    expect(screen.getByText('1 codes')).toBeTruthy();
  });
  test('can be pasted from elsewhere: dots and letters forgiven, what is no code named', async () => {
    const { user, last } = codes({ scheme: 'nace-2.1', any: ['16'] });
    await screen.findByRole('checkbox', { name: 'C Trade C' });
    await user.click(screen.getByRole('button', { name: 'Paste codes' }));
    const box = screen.getByRole('textbox', { name: /^Codes of/ });
    await user.click(box);
    await user.paste('2551, C25.53\n99.99 77');
    expect(screen.getByRole('alert').textContent).toMatch(/“99.99” is no code of .*nor are 1 more/);
    await user.clear(box);
    await user.paste('2551, C25.53 25.51');
    await user.click(screen.getByRole('button', { name: 'Add 2 codes' }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['16', '25.51', '25.53'] });
    expect(screen.queryByRole('textbox', { name: /^Codes of/ })).toBeNull();
  });
  test('of another scheme start the line anew, and say so; kin in other schemes can count too', async () => {
    const { user, last, unmount } = codes({ scheme: 'nace-2.1', any: ['16'] }, 'l1');
    await screen.findByText(/found by their codes in other schemes/);
    await user.click(screen.getByRole('radio', { name: 'and sure kin in others' }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['16'], kin: 'sure' });
    await user.click(screen.getByRole('radio', { name: 'this scheme alone' }));
    expect(last()).toEqual({ scheme: 'nace-2.1', any: ['16'] });
    await user.click(screen.getByRole('radio', { name: /NAICS/ }));
    expect(screen.getByText(/A choice here starts it anew/)).toBeTruthy();
    await user.click(await screen.findByRole('checkbox', { name: 'C Trade C' }));
    expect(last()).toMatchObject({ scheme: 'naics-2022' });
    unmount();
  });
  test('show beside them their note, their kin and what is filed with them; kin is looked for by a press', async () => {
    const { user, last } = codes({ scheme: 'nace-2.1', any: ['25.51'], rank: 'main' });
    expect(await screen.findByText('Note of its exact kin ISIC 2592.')).toBeTruthy();
    expect(screen.getByText(/The end\.$/)).toBeTruthy();
    expect(screen.getByText('20 %')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /332812/ }));
    expect(last()).toEqual({ scheme: 'naics-2022', any: ['332812'], rank: 'main' });
  });
});
