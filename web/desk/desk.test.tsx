/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { Toaster } from 'sonner';
import { emptyTape, type Line } from '../../core/tape/nodes.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { useKey } from '../app/keys.ts';
import { redo, undo } from '../app/history.ts';
import { Desk } from './Desk.tsx';
import { useDesk } from './store.ts';

// The sheet draws into a box that has a size.
for (const side of ['clientWidth', 'clientHeight'])
  Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => 500 });

beforeEach(freshDesk);

const LINES: readonly Line[] = [
  { id: 'l1', field: 'status', test: { any: ['active'] } },
  { id: 'l2', field: 'headcount', test: { from: 50 } },
];
const figures = (line: Line, at: number) => ({
  id: line.id,
  words: { label: `Line ${at + 1}`, text: '' },
  typed: `typed ${line.id}`,
  subtotal: 20 - at,
  cut: 5,
  alone: 20,
  without: 25,
  unknown: 2,
});
const answers = (more: Answers = {}): Answers => ({
  'GET /column-sets': { sets: [] },
  'GET /lists': { lists: [] },
  'GET /tapes': { tapes: [] },
  'POST /tally': ({ tape }: { tape: { lines: Line[] } }) => ({
    universe: 100,
    tally: 20,
    estimated: 0,
    holdsBackMost: null,
    lines: tape.lines.map(figures),
    reads: 'companies that are active',
  }),
  'POST /rows': ({ offset = 0, limit }: { offset?: number; limit: number }) => ({
    total: 20,
    rows: Array.from({ length: Math.max(0, Math.min(limit, 20 - offset)) }, (_, i) => ({
      key: `CZ:${offset + i}`,
      cells: { name: `Company ${offset + i}` },
    })),
  }),
  'POST /summary': { columns: {} },
  'POST /counts': { values: [], unknown: 0, total: 0 },
  'POST /breakdown': { total: 0, base: null, charts: [], known: [], concentration: null },
  ...more,
});
function Keys() {
  useKey('ctrl+z', () => void undo(), { everywhere: true });
  useKey('ctrl+shift+z', () => void redo(), { everywhere: true });
  return null;
}
async function open(lines: readonly Line[] = LINES, more: Answers = {}) {
  const shown = show(
    <>
      <Keys />
      <Desk />
      <Toaster />
    </>,
    answers(more),
  );
  // The address opens an empty tape; the lines are put on it as a hand would.
  await screen.findByRole('link', { name: /Company 0/ });
  await settled(() => useDesk.getState().change({ ...emptyTape(), lines }));
  await screen.findByRole('button', { name: 'Move Line 1' });
  return shown;
}
const desk = () => useDesk.getState();
const lines = () => desk().tape.lines;

describe('keys of the Desk', () => {
  test('go through the lines and change the one they are at', async () => {
    const { user } = await open();
    await user.keyboard('[[');
    await user.keyboard('n');
    expect(lines()[0]).toMatchObject({ id: 'l1', not: true });
    await user.keyboard(']');
    await user.keyboard('pmu');
    expect(lines()[1]).toMatchObject({ parked: true, must: true, unknown: 'keep' });
    await user.keyboard('{Alt>}{ArrowUp}{/Alt}');
    expect(lines().map(({ id }) => id)).toEqual(['l2', 'l1']);
    await user.keyboard('{Delete}');
    expect(lines().map(({ id }) => id)).toEqual(['l1']);
    for (let i = 0; i < 6; i++) await user.keyboard('{Control>}z{/Control}');
    await waitFor(() => expect(lines()).toEqual(LINES));
    await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}');
    await waitFor(() => expect(lines()[0]).toMatchObject({ not: true }));
  });
  test('open a line on the stage and close it; a view goes before it', async () => {
    const { user } = await open();
    await user.keyboard('[[o');
    expect(desk().openLine).toBe('l1');
    expect(await screen.findByRole('region', { name: 'Status picker' })).toBeTruthy();
    // The picker’s search has the hand, so that a single key is a letter of it.
    await user.keyboard(']n');
    expect([desk().openLine, lines()]).toEqual(['l1', LINES]);
    await user.keyboard('{Escape}');
    expect(desk().openLine).toBeNull();
    await user.keyboard('2');
    expect(desk().view).toBe('breakdown');
    expect(await screen.findByText(/nothing to break down/)).toBeTruthy();
    await user.keyboard('1');
    expect(await screen.findByRole('grid')).toBeTruthy();
  });
  test('join two lines by or', async () => {
    const { user } = await open();
    await user.keyboard('[[]r');
    expect(lines()).toMatchObject([{ either: [{ field: 'status' }, { field: 'headcount' }] }]);
  });
  test('go to the entry, where single keys are letters', async () => {
    const { user } = await open(LINES, { 'POST /complete': { completions: [] } });
    await user.keyboard('/');
    const entry = screen.getByRole('combobox');
    expect(document.activeElement).toBe(entry);
    await user.keyboard('jx');
    expect((entry as HTMLInputElement).value).toBe('jx');
    expect([desk().cursor, screen.queryByRole('dialog')]).toEqual([0, null]);
  });
  test('move, pick and open rows', async () => {
    const { user } = await open();
    await user.keyboard('jjj k');
    expect(desk().cursor).toBe(2);
    expect(screen.getByText(/picked$/).textContent).toBe('1 picked');
    await user.keyboard('{End}');
    expect(desk().cursor).toBe(19);
    await user.keyboard('{Home}');
    await user.keyboard('{Control>}a{/Control}');
    expect(desk().picks).toMatchObject({ mode: 'all' });
    await user.keyboard('{Enter}');
    expect(desk().company).toBe('CZ:0');
  });
});

describe('acts asked before their count has come', () => {
  test('take it when it comes', async () => {
    let answer: (count: number) => void = () => {};
    const { user } = await open(LINES);
    const fetched = globalThis.fetch;
    globalThis.fetch = ((input: unknown, init: RequestInit) =>
      String(input).endsWith('/picked')
        ? new Promise((resolve) => {
            answer = (count) =>
              resolve({ ok: true, status: 200, json: () => Promise.resolve({ count }) } as Response);
          })
        : fetched(input as string, init)) as typeof globalThis.fetch;
    await user.keyboard(' j s');
    const dialog = await screen.findByRole('dialog', { name: 'Companies … to a list' });
    await settled(() => answer(2));
    expect(await within(dialog).findByRole('heading', { name: '2 companies to a list' })).toBeTruthy();
  });
});

describe('the head of the stage', () => {
  test('names the tape, says the order and how the whole reads', async () => {
    const { user } = await open();
    await user.type(screen.getByLabelText('Name of the tape'), 'Coaters');
    expect(desk().tape.name).toBe('Coaters');
    expect(document.title).toBe('Coaters · Just Tally');
    await settled(() => desk().set({ sort: [{ by: 'name', descending: true }, { by: 'headcount' }] }));
    expect(screen.getByText(/^sorted by/).textContent).toBe(
      'sorted by company, Z to A, then headcount, smallest first',
    );
    await user.click(screen.getByRole('button', { name: 'How it reads' }));
    expect(await screen.findByText('companies that are active')).toBeTruthy();
    // A name typed letter by letter is one step back.
    await settled(undo);
    await settled(undo);
    expect(desk().tape.name).toBeUndefined();
  });
  test('turns the tape round to what hangs on its records, keeping what it asks', async () => {
    const { user } = await open([LINES[0]!]);
    await user.click(screen.getByRole('button', { name: /^Counts companies/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'The people of these companies' }));
    expect(desk().tape).toMatchObject({
      subject: 'people',
      lines: [{ has: 'company', lines: [{ field: 'status' }] }],
    });
    await user.click(screen.getByRole('button', { name: /^Counts people/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'All deals' }));
    expect([desk().tape.subject, lines()]).toEqual(['deals', []]);
    await settled(undo);
    await settled(undo);
    expect(lines()).toEqual([LINES[0]]);
  });
});

test('an empty universe says what this is and the two ways to fill it', async () => {
  const { user, sent } = show(<Desk />, {
    ...answers(),
    'GET /health': { universe: 0, asOf: '2026-09-30', generation: 0 },
    'POST /demo': new Error('The disk is full.'),
  });
  expect(await screen.findByText('The universe is empty')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Make the demo' }));
  expect(sent('POST /demo')).toHaveLength(1);
  expect(await screen.findByText('The disk is full.')).toBeTruthy();
});
