import { expect, test } from '@jest/globals';
import { changeWords, dueAt, toldAs, type TellWish } from './telling.ts';
import { toldBy, toldOfChange, toldOfEvent } from './watched.ts';

const run = (state: 'done' | 'failed' | 'cancelled', joined = 0, left = 0, moved = 0) => ({
  state,
  joined,
  left,
  moved,
});
const tell = (more: Partial<TellWish>): TellWish => ({
  ...{ success: false, failure: true, changes: null, rate: 'at-once' },
  ...more,
});

test('failures, changes beyond a limit and successes are told as asked, and nothing at the rate never', () => {
  expect(toldAs(tell({}), run('failed'))).toBe('failure');
  expect(toldAs(tell({ failure: false }), run('failed'))).toBeNull();
  expect(toldAs(tell({ changes: 5 }), run('done', 3, 2, 0))).toBeNull();
  expect(toldAs(tell({ changes: 5 }), run('done', 3, 2, 1))).toBe('changes');
  expect(toldAs(tell({ changes: 0, success: true }), run('done'))).toBe('run');
  expect(toldAs(tell({ changes: 0, success: true, rate: 'never' }), run('done', 9))).toBeNull();
  expect(toldAs(tell({ success: true }), run('cancelled'))).toBeNull();
});

test('digests wait for their hour, weekly ones for Monday, over a change of the clock too', () => {
  const at = (text: string) => Date.parse(text);
  const due = (rate: 'at-once' | 'daily' | 'weekly', now: string) =>
    new Date(dueAt(rate, at(now), 7, 'Europe/Berlin')).toISOString();
  expect(due('at-once', '2026-10-24T10:00Z')).toBe('2026-10-24T10:00:00.000Z');
  expect(due('daily', '2026-10-24T10:00Z')).toBe('2026-10-25T06:00:00.000Z');
  expect(due('weekly', '2026-10-24T10:00Z')).toBe('2026-10-26T06:00:00.000Z');
});

test('changes in a few words', () => {
  expect(changeWords({ joined: 14, left: 0, moved: 9 })).toBe('14 joined, 9 moved');
  expect(changeWords({ joined: 0, left: 0, moved: 0 })).toBe('nothing changed');
  expect(changeWords({ joined: null, left: null, moved: null })).toBeNull();
});

const change = (
  field: string,
  was: string | null,
  now: string | null,
  wasNumber?: number,
  nowNumber?: number,
) => ({
  ...{ field, was, now, wasNumber: wasNumber ?? null, nowNumber: nowNumber ?? null },
});

test('events and deals are told by their kind, others as changes of the record', () => {
  expect(toldOfEvent({ kind: 'job-opening', name: 'Hiring', date: '2026-10-02' })).toEqual({
    ...{ kind: 'opening', text: 'Hiring (2026-10-02)' },
  });
  expect(toldOfEvent({ kind: 'news', name: 'Open day', date: null }).kind).toBe('record');
});

test('values: new technology alone, growth beyond the limit alone, moves of firms and of people', () => {
  expect(toldOfChange(change('technologies', 'A, B', 'B, C'), null)).toEqual({
    kind: 'technology',
    text: 'uses C now',
  });
  expect(toldOfChange(change('technologies', 'A, B', 'B'), null)).toBeNull();
  expect(toldOfChange(change('headcount', '100', '115', 100, 115), 20)).toBeNull();
  expect(toldOfChange(change('headcount', '100', '79', 100, 79), 20)).toMatchObject({
    ...{ kind: 'growth', text: 'headcount: 100 → 79 (−21 %)' },
  });
  expect(toldOfChange(change('headcount', '0', '5', 0, 5), 20)).toBeNull();
  expect(toldOfChange(change('town', 'A', 'B'), null)?.kind).toBe('move');
  expect(toldOfChange(change('title', 'Buyer', 'Head of purchasing'), null)?.text).toBe(
    'post: Buyer → Head of purchasing',
  );
  expect(toldOfChange(change('status', 'active', null), null)).toEqual({
    kind: 'record',
    text: 'status: active → unknown',
  });
});

test('a watch tells of its kinds alone, and nothing twice', () => {
  const told = [
    toldOfEvent({ kind: 'court', name: 'Appeal', date: null }),
    toldOfEvent({ kind: 'news', name: 'x', date: null }),
  ];
  expect(toldBy({ kinds: ['court'] }, [...told, ...told])).toEqual([{ kind: 'court', text: 'Appeal' }]);
});
