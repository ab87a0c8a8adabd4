import { afterEach, beforeEach, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ChangeRow } from '../../../contract/runs.ts';
import { CHANGE_ORDERS, sortedChanges } from '../../../core/runs/change-order.ts';
import { openRuns, type Db } from '../../db/open.ts';
import { addPlan, duePlans, nextDue, planByKey, setPlanRemoved, type PlanWish } from './plans.ts';
import { addNotice, dueNotices, notices, noteTold, readNotices, unreadCount } from './notices.ts';
import { joinableTapes, noteJoined, joinedRevision } from './joined.ts';
import {
  addRun,
  beginRun,
  bytesOfMembers,
  changedKeys,
  changesOfRun,
  endRun,
  failUnfinished,
  isUnderWay,
  membersOf,
  runBefore,
  runById,
  writeFound,
  type Found,
} from './runs.ts';

/** What is kept of plans, their runs and what there is to tell. */

let dir: string;
let db: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-runs-db-'));
  db = openRuns(dir);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

const NOW = Date.parse('2026-11-02T06:00Z');
const wish = (name: string, more: Partial<PlanWish> = {}): PlanWish => ({
  ...{ kind: 'tape', name, target: { tape: 't' }, schedule: { how: 'hand' } },
  tell: { success: false, failure: true, changes: null, rate: 'at-once', ways: ['bell'] },
  ...more,
});
const planned = (name: string, more: Partial<PlanWish> = {}) =>
  addPlan(db, wish(name, more), 'Ilona', NOW).key;
const ran = (plan: string, state: 'done' | 'failed' = 'done') => {
  const id = addRun(db, plan, 'hand', NOW);
  beginRun(db, id, NOW);
  endRun(db, id, { state, message: null, now: NOW + 1000, log: ['it ran'] });
  return id;
};
const change = (key: string, more: Partial<ChangeRow> = {}): ChangeRow => ({
  ...{
    what: 'joined',
    reason: 'new',
    key,
    name: key,
    place: null,
    why: 'new',
    was: null,
    now: null,
    there: true,
  },
  ...more,
});
const found = (ids: Uint32Array, changes: ChangeRow[] = []): Found => ({
  ...{
    subject: 'companies',
    tape: '{"lines":[]}',
    revision: 3,
    universe: 'u',
    asOf: 20_000,
    ids,
    comparedTo: null,
  },
  ...{
    before: null,
    joined: 0,
    left: 0,
    moved: 0,
    roll: { steps: [], foot: ids.length },
    moves: [],
    changes,
  },
});

test('plans have keys of their first names, and are due by the clock alone', () => {
  const monday = {
    how: 'repeats',
    words: 'every Monday at 7',
    cron: '0 7 * * 1',
    zone: 'UTC',
    missed: 'run',
  } as const;
  expect([planned('Ziele, wöchentlich'), planned('Ziele, wöchentlich')]).toEqual([
    'ziele-wochentlich',
    'ziele-wochentlich-2',
  ]);
  const key = planned('Mondays', { schedule: monday });
  const due = Date.parse('2026-11-02T07:00Z');
  expect(nextDue(db)).toBe(due);
  expect([duePlans(db, due - 1), duePlans(db, due)].map((plans) => plans.map((plan) => plan.key))).toEqual([
    [],
    [key],
  ]);
  setPlanRemoved(db, key, NOW);
  expect([nextDue(db), planByKey(db, key), duePlans(db, due)]).toEqual([null, undefined, []]);
});

const bytesOf = ({ buffer, byteOffset, byteLength }: Uint32Array) =>
  Buffer.from(buffer, byteOffset, byteLength);

test('a million members take less than 200 kB, and come back as they were', () => {
  const plan = planned('Everybody');
  const id = ran(plan);
  const ids = Uint32Array.from({ length: 1_000_000 }, (_, i) => i + 1 + Math.floor(i / 7));
  writeFound(db, id, found(ids));
  expect(bytesOfMembers(db, id)).toBeLessThan(200_000);
  // As bytes: comparing a million numbers one by one takes ten seconds.
  expect(Buffer.compare(bytesOf(membersOf(db, id)!), bytesOf(ids))).toBe(0);
  expect(membersOf(db, 'none')).toBeNull();
});

test('the run before is the last that was done; one under way is neither done nor begun again', () => {
  const plan = planned('Everybody');
  const [first] = [ran(plan), ran(plan, 'failed')];
  const third = addRun(db, plan, 'clock', NOW);
  expect(runBefore(db, plan, 3)!.id).toBe(first);
  expect(isUnderWay(db, plan)).toBe(true);
  beginRun(db, third, NOW);
  expect(failUnfinished(db, NOW)).toBe(1);
  expect([runById(db, third)!.state, isUnderWay(db, plan)]).toEqual(['failed', false]);
});

test('of a plan that runs every few minutes the last runs are kept, with all that hangs on them', () => {
  const plan = planned('Often');
  const oldest = ran(plan);
  writeFound(db, oldest, found(Uint32Array.of(1), [change('a')]));
  for (let i = 0; i < 500; i++) ran(plan);
  expect(runById(db, oldest)).toBeUndefined();
  expect(membersOf(db, oldest)).toBeNull();
  expect(db.prepare('SELECT count(*) FROM run').pluck().get()).toBe(500);
  expect(db.prepare('SELECT count(*) FROM run_change').pluck().get()).toBe(0);
});

test('changes are told apart by kind and reason; only those that are there can be opened', () => {
  const id = ran(planned('Everybody'));
  const rows = [
    change('a'),
    change('b', { reason: 'line l1' }),
    change('c', { what: 'left', reason: 'gone', there: false }),
    change('d', { what: 'moved', reason: 'field address' }),
    change('d', { what: 'moved', reason: 'field name' }),
  ];
  writeFound(db, id, found(Uint32Array.of(1, 2), rows));
  const all = { what: null, reason: null, offset: 0, limit: 10 };
  expect(changesOfRun(db, id, all)).toEqual({ changes: rows, total: 5 });
  expect(changesOfRun(db, id, { ...all, what: 'joined', limit: 1 })).toEqual({
    changes: [rows[0]],
    total: 2,
  });
  expect(changesOfRun(db, id, { ...all, reason: 'line l1' }).changes).toEqual([rows[1]]);
  expect([changedKeys(db, id, 'moved', null), changedKeys(db, id, 'left', null)]).toEqual([['d'], []]);
});

test('who joined a tape is noted with the day, and not any more once they leave it', () => {
  const plan = planned('Targets');
  ran(plan);
  expect(joinableTapes(db)).toEqual([{ key: plan, name: 'Targets', revision: 1 }]);
  const of = (day: number, first = false) => ({ subject: 'companies', tape: plan, day, first });
  const rows = () => db.prepare('SELECT key, day FROM joined_tape ORDER BY key').raw().all();
  noteJoined(db, of(20_000, true), [], []);
  noteJoined(db, of(20_030), ['a', 'b'], []);
  const before = joinedRevision(db);
  noteJoined(db, of(20_060), [], []);
  expect(joinedRevision(db)).toBe(before);
  noteJoined(db, of(20_060), ['c'], ['a']);
  expect([rows(), joinedRevision(db)]).toEqual([
    [
      ['b', 20_030],
      ['c', 20_060],
    ],
    before + 1,
  ]);
});

test('what only stands under the bell waits for nobody; what is to be sent waits for its hour', () => {
  const notice = (title: string, ways: string[], dueAt = NOW) => ({
    ...{ kind: 'run' as const, title, why: 'w', items: ['x'], link: '/runs', ways, dueAt },
  });
  const bell = addNotice(db, notice('bell', ['bell', 'feed']), NOW);
  const mail = addNotice(db, notice('mail', ['mail'], NOW + 5000), NOW + 1);
  expect(dueNotices(db, NOW + 4999)).toEqual([]);
  expect(dueNotices(db, NOW + 5000).map(({ id }) => id)).toEqual([mail]);
  noteTold(db, [mail], NOW + 6000, 'It was not taken.');
  expect(dueNotices(db, NOW + 9000)).toEqual([]);
  expect(notices(db, null, 10).map(({ id, trouble }) => [id, trouble])).toEqual([
    [mail, 'It was not taken.'],
    [bell, null],
  ]);
  expect([notices(db, 'feed', 10).length, unreadCount(db)]).toEqual([1, 1]);
  readNotices(db, [mail], NOW);
  expect(unreadCount(db)).toBe(1);
  readNotices(db, null, NOW);
  expect(unreadCount(db)).toBe(0);
});

test('changes are sorted as a comparison of two runs is: values by their figures, unknown ones last', () => {
  const text = fc.constantFrom('Abel', 'abel', 'Łódź Drzwi', 'Zarmysko', '10-49', '');
  const value = fc.option(
    fc.oneof(
      text,
      fc.nat(3000).map((figure) => `${figure} EUR (2025)`),
      fc.nat(300).map((figure) => `about ${figure}.5`),
      fc.constantFrom('-12 (2024)', 'active'),
    ),
    { nil: null },
  );
  const plan = planned('Sorted');
  fc.assert(
    fc.property(
      fc.array(fc.record({ name: text, why: text, was: value, now: value }), { maxLength: 12 }),
      fc.constantFrom(...CHANGE_ORDERS),
      fc.boolean(),
      (rows, by, descending) => {
        const id = ran(plan);
        const changes = rows.map((row, i) => change(`k${i}`, row));
        writeFound(db, id, found(Uint32Array.of(1), changes));
        const wish = { what: null, reason: null, offset: 0, limit: 100 };
        const keys = (some: readonly ChangeRow[]) => some.map(({ key }) => key);
        expect(keys(changesOfRun(db, id, { ...wish, order: { by, descending } }).changes)).toEqual(
          keys(sortedChanges(changes, { by, descending })),
        );
        expect(keys(changesOfRun(db, id, wish).changes)).toEqual(keys(changes));
      },
    ),
    { numRuns: 60 },
  );
});
