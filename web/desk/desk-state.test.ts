import { beforeEach, describe, expect, test } from '@jest/globals';
import { addLines, removeLine, replaceLine } from '../../core/tape/edit.ts';
import { emptyTape, type FieldLine } from '../../core/tape/nodes.ts';
import { addressOf, encodeTape } from './address.ts';
import { isPicked, NO_PICKS, pickedCount, useDesk, withPicked, type Picks } from './store.ts';

const line = (from: number): FieldLine => ({ id: 'l1', field: 'headcount', test: { from } });

beforeEach(() =>
  useDesk.setState({
    tape: emptyTape(),
    past: [],
    future: [],
    lastTag: null,
    openLine: null,
    company: null,
    sort: [],
    picks: NO_PICKS,
  }),
);

describe('undo and redo', () => {
  const { change, undo, redo } = useDesk.getState();
  const now = () => useDesk.getState().tape.lines.map((one) => (one as FieldLine).test);

  test('go back and forth through every change', () => {
    change(addLines(emptyTape(), [line(1)]));
    change(replaceLine(useDesk.getState().tape, line(2)));
    change(removeLine(useDesk.getState().tape, 'l1'));
    expect(now()).toEqual([]);
    undo();
    expect(now()).toEqual([{ from: 2 }]);
    undo();
    undo();
    undo();
    expect(now()).toEqual([]);
    redo();
    redo();
    expect(now()).toEqual([{ from: 2 }]);
    change(replaceLine(useDesk.getState().tape, line(9)));
    redo();
    expect(now()).toEqual([{ from: 9 }]);
  });

  test('take what was typed or dragged in one picker as one step', () => {
    change(addLines(emptyTape(), [line(1)]));
    for (const from of [2, 20, 200]) change(replaceLine(useDesk.getState().tape, line(from)), 'line l1');
    undo();
    expect(now()).toEqual([{ from: 1 }]);
  });

  test('close a picker whose line is gone', () => {
    change(addLines(emptyTape(), [line(1)]));
    useDesk.getState().set({ openLine: 'l1' });
    undo();
    expect(useDesk.getState().openLine).toBeNull();
  });
});

describe('picks', () => {
  test('some by key, or all but some', () => {
    let picks: Picks = withPicked(NO_PICKS, ['a', 'b'], true);
    picks = withPicked(picks, ['b'], false);
    expect([isPicked(picks, 'a'), isPicked(picks, 'b'), pickedCount(picks, 10)]).toEqual([true, false, 1]);
    picks = withPicked({ mode: 'all', except: new Set() }, ['a', 'b'], false);
    expect([isPicked(picks, 'a'), isPicked(picks, 'c'), pickedCount(picks, 10)]).toEqual([false, true, 8]);
    expect(pickedCount(withPicked(picks, ['a'], true), 10)).toBe(9);
  });

  test('of all end with the tape they were of; picks by hand stay', () => {
    useDesk.getState().set({ picks: { mode: 'all', except: new Set() } });
    useDesk.getState().change(addLines(emptyTape(), [line(1)]));
    expect(useDesk.getState().picks).toEqual(NO_PICKS);
    useDesk.getState().set({ picks: withPicked(NO_PICKS, ['a'], true) });
    useDesk.getState().change(emptyTape());
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
