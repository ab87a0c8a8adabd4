/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { waitFor } from '@testing-library/react';
import { useLocation, useNavigate, type NavigateFunction } from 'react-router';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { freshDesk, settled, show, type Answers } from '../testing/render.tsx';
import { addressOf, encodeTape, useDeskAddress } from './address.ts';
import { useDesk } from './store.ts';

beforeEach(freshDesk);

const tapeOf = (...names: string[]): Tape => ({
  ...emptyTape(),
  lines: names.map((any, i) => ({ id: `l${i + 1}`, field: 'technology', test: { any: [any] } })),
});

interface Now {
  go: NavigateFunction;
  where: string;
  problem: string | null;
}
const now = {} as Now;
function Address({ tell }: { tell(now: Now): void }) {
  const { pathname, search } = useLocation();
  tell({ go: useNavigate(), where: pathname + search, problem: useDeskAddress() });
  return null;
}
const desk = () => useDesk.getState();
async function opened(answers: Answers = {}) {
  const shown = show(<Address tell={(one) => Object.assign(now, one)} />, answers);
  await settled(() => {});
  return shown;
}
const to = (address: string) => settled(() => now.go(address));
const state = (tape: Tape) => ({ tape, sort: [], openLine: null, company: null });

describe('the address of the Desk', () => {
  test('follows what is done, and shows what it says', async () => {
    await opened();
    await settled(() => desk().change(tapeOf('Rutavel')));
    expect(now.where).toBe(addressOf(state(tapeOf('Rutavel'))));
    await settled(() => desk().set({ sort: [{ by: 'headcount', descending: true }], company: 'CZ-1' }));
    expect(new URLSearchParams(now.where.split('?')[1]).get('sort')).toBe('headcount-');
    await to(addressOf({ ...state(tapeOf('Planodor')), view: 'map' }));
    expect(desk().tape.lines).toEqual(tapeOf('Planodor').lines);
    expect([desk().view, desk().company, desk().sort]).toEqual(['map', null, []]);
  });
  test('keeps an order by columns whose names have commas and hyphens', async () => {
    await opened();
    const sort = [
      { by: 'carried:*:50%, up-', descending: true as const },
      { by: 'right:name:owner, else director' },
      { by: 'carried:*:%2C-' },
    ];
    await to(addressOf({ ...state(tapeOf('a')), sort }));
    expect(desk().sort).toEqual(sort);
  });
  test('goes back and forth as a browser does', async () => {
    await opened();
    await settled(() => desk().change(tapeOf('a')));
    await settled(() => desk().change(tapeOf('a', 'b')));
    await settled(() => now.go(-1));
    expect(desk().tape.lines).toHaveLength(1);
    await settled(() => now.go(1));
    expect(desk().tape.lines).toHaveLength(2);
  });
  test('names a long tape by an id, and finds it again', async () => {
    const long = tapeOf(...Array.from({ length: 120 }, (_, i) => `Technology ${i}`));
    await opened({ 'POST /addresses': { id: 'abc' }, 'GET /addresses/abc': { tape: long } });
    await settled(() => desk().change(long));
    await waitFor(() => expect(now.where).toBe('/desk?t=%7Eabc'));
    await to('/desk');
    expect(desk().tape.lines).toEqual([]);
    await to('/desk?t=~abc');
    await waitFor(() => expect(desk().tape.lines).toHaveLength(120));
  });
  test('an answer that comes late does not show a tape that was left meanwhile', async () => {
    let answer: (value: unknown) => void = () => {};
    await opened({ 'GET /addresses/slow': () => new Promise((resolve) => (answer = resolve)) });
    await to('/desk?t=~slow');
    await to(addressOf(state(tapeOf('Rutavel'))));
    await settled(() => answer({ tape: tapeOf('too', 'late') }));
    expect(desk().tape.lines).toEqual(tapeOf('Rutavel').lines);
    expect(now.problem).toBeNull();
  });
  test('that was cut says so and leaves the tape that is there', async () => {
    await opened();
    await settled(() => desk().change(tapeOf('Rutavel')));
    await to(`/desk?t=${encodeTape(tapeOf('Planodor')).slice(0, -9)}`);
    expect(now.problem).toMatch(/may have been cut/);
    expect(desk().tape.lines).toEqual(tapeOf('Rutavel').lines);
  });
  test('of a stored tape that is gone says what the server says', async () => {
    await opened({ 'GET /addresses/gone': new Error('There is no stored tape "gone".') });
    await to('/desk?t=~gone');
    expect(now.problem).toBe('There is no stored tape "gone".');
  });
});
