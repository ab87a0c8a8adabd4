import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { COMBINE_WAYS, combinedCount, isWithin, type CombineWay } from '../../../core/lists/combine.ts';
import { listMembers } from '../../../core/tape/sql/list-members.ts';
import { openLists, type Db } from '../../db/open.ts';
import { countMembers } from './changes.ts';
import { combineInto, regionsOf } from './combined.ts';
import { addList, changeList, listByKey, purgeLists, removeList, restoreList } from './list-rows.ts';
import { addMembers, copyMembers, putBack, removeOrigins, takeOff } from './members.ts';
import { rollOf } from './roll.ts';
import { describeMembers, judge, membershipsOf, takeBackDetails, takeBackVerdicts } from './verdicts.ts';

/** Lists in their database, held against plain sets. */

let dir: string;
let db: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'lists-'));
  db = openLists(dir);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

const ORIGIN = { kind: 'tape', what: 'a tape', tape: null, asOf: null, person: 'Ilona' } as const;
let made = 0;
const newList = () => addList(db, { name: `List ${++made}` }).key;
const put = (list: string, keys: string[]) => addMembers(db, list, ORIGIN, { keys });
const members = (list: string) =>
  db.prepare<[string], string>('SELECT key FROM list_member WHERE list = ? ORDER BY key').pluck().all(list);
const stepped = (list: string, step: string) => {
  const { text, values } = listMembers({ any: [list], step }, 0);
  return db
    .prepare<unknown[], string>(text)
    .pluck()
    .all(...values);
};
const sorted = (keys: Iterable<string>) => [...new Set(keys)].sort();

const someKeys = fc.subarray(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h']);
type Act =
  | { act: 'put'; keys: string[] }
  | { act: 'take'; keys: string[] }
  | { act: 'judge'; keys: string[]; verdict: 'in' | 'out' | 'unsure' }
  | { act: 'undo'; which: number };
const anyAct: fc.Arbitrary<Act> = fc.oneof(
  someKeys.map((keys) => ({ act: 'put' as const, keys })),
  someKeys.map((keys) => ({ act: 'take' as const, keys })),
  fc
    .tuple(someKeys, fc.constantFrom('in' as const, 'out' as const, 'unsure' as const))
    .map(([keys, verdict]) => ({ act: 'judge' as const, keys, verdict })),
  fc.nat(9).map((which) => ({ act: 'undo' as const, which })),
);

test('whatever is put on, taken off, judged and taken back: the roll sums to the members, each step has as many records as it says, and the counts are right', () => {
  fc.assert(
    fc.property(fc.array(anyAct, { maxLength: 14 }), (acts) => {
      const list = newList();
      const undos: (() => void)[] = [];
      for (const one of acts) {
        if (one.act === 'put') {
          const { origins } = put(list, one.keys);
          undos.push(() => removeOrigins(db, list, origins));
        } else if (one.act === 'take') {
          const { taken } = takeOff(db, list, { keys: one.keys }, 'by hand', '');
          if (taken !== null) undos.push(() => putBack(db, list, taken));
        } else if (one.act === 'judge') {
          const { batch } = judge(db, list, { keys: one.keys }, one.verdict, null, '');
          undos.push(() => takeBackVerdicts(db, list, batch));
        } else if (undos.length) {
          const [undo] = undos.splice(one.which % undos.length, 1);
          try {
            undo!();
          } catch (error) {
            // What was taken off may have been undone with the origin that had put it there.
            expect((error as { code?: string }).code).toBe('unknown-step');
          }
        }
        const { roll, list: view } = rollOf(db, list);
        expect(roll.foot).toBe(members(list).length);
        for (const { step, delta } of roll.steps)
          expect([step, new Set(stepped(list, step)).size]).toEqual([step, Math.abs(delta)]);
        const { members: all, judgedIn, judgedOut, unsure } = view;
        expect({ members: all, judgedIn, judgedOut, unsure }).toEqual(countMembers(db, list));
      }
    }),
    { numRuns: 120 },
  );
});

test('undone in the order it was done, a list is as it was after each act, with verdicts and origins', () => {
  const state = (list: string) =>
    db.prepare('SELECT key, origins, verdict, reason FROM list_member WHERE list = ? ORDER BY key').all(list);
  fc.assert(
    fc.property(fc.array(anyAct, { maxLength: 10 }), (acts) => {
      const list = newList();
      const undos: { undo(): void; before: unknown }[] = [];
      for (const one of acts) {
        const before = state(list);
        if (one.act === 'put') {
          const { origins } = put(list, one.keys);
          undos.push({ before, undo: () => removeOrigins(db, list, origins) });
        } else if (one.act === 'take') {
          const { taken } = takeOff(db, list, { keys: one.keys }, 'by hand', '');
          if (taken !== null) undos.push({ before, undo: () => putBack(db, list, taken) });
        } else if (one.act === 'judge') {
          const { batch } = judge(db, list, { keys: one.keys }, one.verdict, 'why', '');
          undos.push({ before, undo: () => takeBackVerdicts(db, list, batch) });
        }
      }
      for (const { undo, before } of undos.reverse()) {
        undo();
        expect(state(list)).toEqual(before);
      }
    }),
    { numRuns: 100 },
  );
});

describe('lists combined', () => {
  const plain: Record<CombineWay, (sets: string[][]) => string[]> = {
    both: (sets) => sets[0]!.filter((key) => sets.every((set) => set.includes(key))),
    either: (sets) => sets.flat(),
    without: ([first, ...others]) => first!.filter((key) => !others.some((set) => set.includes(key))),
    one: (sets) => sets.flat().filter((key) => sets.filter((set) => set.includes(key)).length === 1),
  };
  const anyCase = fc.tuple(
    fc.array(someKeys, { minLength: 2, maxLength: 6 }),
    fc.constantFrom(...COMBINE_WAYS),
  );
  test('are what plain sets say, in every way, and their regions count the same', () => {
    fc.assert(
      fc.property(anyCase, ([sets, way]) => {
        const parts = sets.map((keys) => {
          const list = newList();
          put(list, keys);
          return { list };
        });
        const list = newList();
        combineInto(db, list, { way, parts }, null);
        const wanted = sorted(plain[way](sets));
        expect(members(list)).toEqual(wanted);
        const regions = regionsOf(db, parts);
        expect(combinedCount(way, regions, parts.length)).toBe(wanted.length);
        const drawn = regions.filter((region) => isWithin(way, region, parts.length));
        expect(drawn.reduce((sum, { count }) => sum + count, 0)).toBe(wanted.length);
        expect(rollOf(db, list).roll.foot).toBe(wanted.length);
      }),
      { numRuns: 80 },
    );
  });
  test('that stay true follow whatever is done to the lists they are of, and keep the verdicts given on them', () => {
    fc.assert(
      fc.property(
        someKeys,
        someKeys,
        fc.constantFrom(...COMBINE_WAYS),
        fc.array(anyAct, { maxLength: 6 }),
        (a, b, way, acts) => {
          const [first, second, list] = [newList(), newList(), newList()];
          put(first, a);
          put(second, b);
          const stays = {
            way,
            parts: [{ list: first, verdict: ['in' as const, 'not-judged' as const] }, { list: second }],
          };
          combineInto(db, list, stays, null);
          db.prepare('UPDATE list SET stays = ? WHERE key = ?').run(JSON.stringify(stays), list);
          judge(db, list, { keys: members(list) }, 'in', null, '');
          const kept = new Set(members(list));
          for (const one of acts) {
            if (one.act === 'put') put(first, one.keys);
            if (one.act === 'take') takeOff(db, second, { keys: one.keys }, 'by hand', '');
            if (one.act === 'judge') judge(db, first, { keys: one.keys }, one.verdict, null, '');
            const judged = db
              .prepare<[string], string>(
                `SELECT key FROM list_member WHERE list = ? AND verdict IN ('in', 'not-judged')`,
              )
              .pluck()
              .all(first);
            expect(members(list)).toEqual(sorted(plain[way]([judged, members(second)])));
            for (const key of kept) if (!members(list).includes(key)) kept.delete(key);
          }
          const still = db
            .prepare<[string], string>(`SELECT key FROM list_member WHERE list = ? AND verdict = 'in'`)
            .pluck()
            .all(list);
          expect(still).toEqual(expect.arrayContaining([...kept]));
        },
      ),
      { numRuns: 60 },
    );
  });
  test('keep the origins of their members', () => {
    const [first, second, list] = [newList(), newList(), newList()];
    put(first, ['a', 'b']);
    put(second, ['b', 'c']);
    combineInto(db, list, { way: 'either', parts: [{ list: first }, { list: second }] }, null);
    const [, , own] = membershipsOf(db, 'companies', 'b').sort(
      (x, y) => x.list.length - y.list.length || (x.list < y.list ? -1 : 1),
    );
    expect(own!.origins.map(({ what, person }) => [what, person])).toEqual([
      ['a tape', 'Ilona'],
      ['a tape', 'Ilona'],
    ]);
  });
});

describe('members moved to another list', () => {
  test('go with their origins, and come back by undo of both halves', () => {
    const [from, to] = [newList(), newList()];
    put(from, ['a', 'b', 'c']);
    put(to, ['c']);
    const { added, of, origins, taken } = copyMembers(
      db,
      from,
      to,
      { keys: ['b', 'c', 'x'] },
      { person: '' },
    );
    expect([added, of, members(from), members(to)]).toEqual([1, 2, ['a'], ['b', 'c']]);
    removeOrigins(db, to, origins);
    putBack(db, from, taken!);
    expect([members(from), members(to)]).toEqual([['a', 'b', 'c'], ['c']]);
  });
  test('are refused where the other list holds other records, is frozen or follows lists', () => {
    const from = newList();
    put(from, ['a']);
    const people = addList(db, { name: 'People', subject: 'people' }).key;
    expect(() => copyMembers(db, from, people, { keys: ['a'] }, null)).toThrow(/holds people, not companies/);
    const frozen = newList();
    changeList(db, frozen, { frozen: true });
    expect(() => put(frozen, ['a'])).toThrow(/is frozen/);
    const follows = newList();
    db.prepare('UPDATE list SET stays = ? WHERE key = ?').run(
      JSON.stringify({ way: 'both', parts: [{ list: from }] }),
      follows,
    );
    expect(() => put(follows, ['a'])).toThrow(/follow other lists/);
    expect(() => removeList(db, from)).toThrow(/follows the list/);
  });
});

describe('what is said of a member', () => {
  test('is taken back together, but where it was judged again since', () => {
    const list = newList();
    put(list, ['a', 'b']);
    const { batch } = judge(db, list, { keys: ['a', 'b', 'nobody'] }, 'out', 'closed', 'Hana');
    judge(db, list, { keys: ['b'] }, 'in', null, 'Jonas');
    expect(takeBackVerdicts(db, list, batch)).toBe(1);
    const [a] = membershipsOf(db, 'companies', 'a');
    const [b] = membershipsOf(db, 'companies', 'b');
    expect([a!.verdict, a!.reason, a!.judgedBy]).toEqual(['not-judged', null, null]);
    expect([b!.verdict, b!.history.map(({ verdict, person }) => [verdict, person])]).toEqual([
      'in',
      [
        ['in', 'Jonas'],
        ['out', 'Hana'],
      ],
    ]);
  });
  test('in notes, tags and names is changed for all and had back as it was for each', () => {
    const list = newList();
    put(list, ['a', 'b']);
    describeMembers(db, list, { keys: ['a'] }, { note: 'call first', tag: ['stairs'] });
    const { undo, described } = describeMembers(
      db,
      list,
      { keys: ['a', 'b'] },
      { note: '', assigned: 'Hana', tag: ['oak'], untag: ['stairs'] },
    );
    const said = (key: string) => {
      const { note, assigned, tags } = membershipsOf(db, 'companies', key)[0]!;
      return { note, assigned, tags };
    };
    expect([described, said('a')]).toEqual([2, { note: null, assigned: 'Hana', tags: ['oak'] }]);
    takeBackDetails(db, list, undo);
    expect(said('a')).toEqual({ note: 'call first', assigned: null, tags: ['stairs'] });
    expect(said('b')).toEqual({ note: null, assigned: null, tags: [] });
  });
});

describe('a removed list', () => {
  test('is had back with all that is on it, unless its name is taken, and ends after its days', () => {
    const { key, name } = addList(db, { name: 'Autumn' });
    put(key, ['a']);
    removeList(db, key);
    expect(listByKey(db, key)).toBeUndefined();
    const other = addList(db, { name }).key;
    expect(other).not.toBe(key);
    expect(() => restoreList(db, key)).toThrow(/already/);
    changeList(db, other, { name: 'Winter' });
    expect(restoreList(db, key)).toMatchObject({ members: 1, name: 'Autumn' });
    removeList(db, key);
    db.prepare('UPDATE list SET removed_at = removed_at - 31 * 86400000 WHERE key = ?').run(key);
    purgeLists(db);
    expect(() => restoreList(db, key)).toThrow(/No list/);
    expect(members(key)).toEqual([]);
  });
});
