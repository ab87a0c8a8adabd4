/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { addLines, removeLine, replaceLine } from '../../core/tape/edit.ts';
import { emptyTape, type FieldLine } from '../../core/tape/nodes.ts';
import { addressOf, encodeTape } from './address.ts';
import { redo, undo, useHistory } from '../app/history.ts';
import { NO_PICKS, pickedCount, withPicked, withRun } from './picks.ts';
import { useDesk } from './store.ts';

const line = (from: number): FieldLine => ({ id: 'l1', field: 'headcount', test: { from } });

beforeEach(() => {
  useHistory.setState({ past: [], future: [] });
  useDesk.setState({
    tape: emptyTape(),
    lastTag: null,
    openLine: null,
    company: null,
    sort: [],
    picks: NO_PICKS,
  });
});

describe('undo and redo', () => {
  const { change, set, setColumns } = useDesk.getState();
  const now = () => useDesk.getState().tape.lines.map((one) => (one as FieldLine).test);

  test('go back and forth through every change', async () => {
    change(addLines(emptyTape(), [line(1)]));
    change(replaceLine(useDesk.getState().tape, line(2)));
    change(removeLine(useDesk.getState().tape, 'l1'));
    expect(now()).toEqual([]);
    await undo();
    expect(now()).toEqual([{ from: 2 }]);
    for (let n = 0; n < 3; n++) await undo();
    expect(now()).toEqual([]);
    await redo();
    await redo();
    expect(now()).toEqual([{ from: 2 }]);
    change(replaceLine(useDesk.getState().tape, line(9)));
    await redo();
    expect(now()).toEqual([{ from: 9 }]);
  });

  test('take what was typed or dragged in one picker as one step', async () => {
    change(addLines(emptyTape(), [line(1)]));
    for (const from of [2, 20, 200]) change(replaceLine(useDesk.getState().tape, line(from)), 'line l1');
    await undo();
    expect(now()).toEqual([{ from: 1 }]);
    await redo();
    expect(now()).toEqual([{ from: 200 }]);
  });

  test('close a picker whose line is gone', async () => {
    change(addLines(emptyTape(), [line(1)]));
    set({ openLine: 'l1' });
    await undo();
    expect(useDesk.getState().openLine).toBeNull();
  });

  test('take back columns, the order and the tape in the order they were done', async () => {
    const before = useDesk.getState().columns.companies!;
    change(addLines(emptyTape(), [line(1)]));
    setColumns(['name', 'web']);
    set({ sort: [{ by: 'name' }] });
    await undo();
    expect([useDesk.getState().sort, useDesk.getState().columns.companies]).toEqual([[], ['name', 'web']]);
    await undo();
    expect([now(), useDesk.getState().columns.companies]).toEqual([[{ from: 1 }], before]);
    await undo();
    expect(now()).toEqual([]);
  });

  test('of an edit that brings order and columns along are one step', async () => {
    change(addLines(emptyTape(), [line(1)]), undefined, { sort: [{ by: 'name' }], columns: ['name'] });
    expect(useHistory.getState().past).toHaveLength(1);
    await undo();
    expect([now(), useDesk.getState().sort]).toEqual([[], []]);
  });

  test('of another subject bring its rows and no picks', async () => {
    set({ picks: withPicked(NO_PICKS, [{ key: 'a', at: 0 }], true), company: 'a' });
    change(emptyTape('people'));
    expect(useDesk.getState()).toMatchObject({ company: null, picks: NO_PICKS });
    await undo();
    expect(useDesk.getState().tape.subject).toBe('companies');
  });
});

describe('picks', () => {
  test('of all and of runs end with the tape they were of; picks by hand stay', () => {
    const { set, change } = useDesk.getState();
    set({ picks: { mode: 'all', except: new Set() } });
    change(addLines(emptyTape(), [line(1)]));
    expect(useDesk.getState().picks).toEqual(NO_PICKS);
    set({ picks: withRun(NO_PICKS, [0, 999], true) });
    set({ sort: [{ by: 'name' }] });
    expect(useDesk.getState().picks).toEqual(NO_PICKS);
    set({ picks: withPicked(NO_PICKS, [{ key: 'a', at: 3 }], true) });
    change(emptyTape());
    expect(pickedCount(useDesk.getState().picks, 5)).toBe(1);
  });
});

describe('addresses', () => {
  test('say tape, order, open line and open company', () => {
    const tape = { ...addLines(emptyTape(), [line(20)]), name: 'Žluťoučký' };
    const address = addressOf({
      tape,
      sort: [{ by: 'revenue', descending: true }, { by: 'name' }],
      openLine: 'l1',
      company: 'CZ-1 & co',
    });
    const query = new URL(address, 'http://x').searchParams;
    expect([query.get('sort'), query.get('line'), query.get('company')]).toEqual([
      'revenue-,name',
      'l1',
      'CZ-1 & co',
    ]);
    const text = query.get('t')!;
    expect(text).toMatch(/^[\w-]+$/);
    const bytes = Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (char) =>
      char.charCodeAt(0),
    );
    expect(JSON.parse(new TextDecoder().decode(bytes))).toEqual({
      name: 'Žluťoučký',
      subject: 'companies',
      lines: [line(20)],
    });
  });
  test('of the empty Desk are plain', () => {
    expect(addressOf({ tape: emptyTape(), sort: [], openLine: null, company: null })).toBe('/desk');
    expect(encodeTape(emptyTape())).toBe('');
  });
});
