import { describe, expect, test } from '@jest/globals';
import { emptyTape, type Line } from './nodes.ts';
import {
  canBeKept,
  isOfAnyTape,
  isSortable,
  memberColumn,
  ownColumnOf,
  ownColumns,
  reviewColumn,
} from './own-columns.ts';

const onList = (id: string, key: string, more: object = {}): Line => ({
  id,
  field: 'list',
  test: { any: [key] },
  ...more,
});
const tape = (...lines: Line[]) => ({ ...emptyTape(), lines });

describe('columns of what a list says', () => {
  test('are those of the list at hand, whatever the id of its line, and of other lists by theirs', () => {
    const two = tape(onList('a', 'targets'), onList('b', 'rivals'));
    const own = ownColumns(two);
    expect(own).toContain(memberColumn('verdict'));
    expect(own).not.toContain(memberColumn('verdict', 'a'));
    expect(own).toContain(memberColumn('verdict', 'b'));
    expect(ownColumnOf(two, 'member:verdict:*')).toMatchObject({ list: 'targets', part: 'verdict' });
    expect(ownColumnOf(two, 'member:verdict:b')).toMatchObject({ list: 'rivals' });
    // An address of before names the line, and means the same.
    expect(ownColumnOf(two, 'member:verdict:a')).toMatchObject({ list: 'targets' });
  });
  test('follow the list that the tape stands on next', () => {
    const parked = tape(onList('a', 'targets', { parked: true }), onList('b', 'rivals'));
    expect(ownColumnOf(parked, 'review:doubt:*')).toMatchObject({ list: 'rivals', part: 'doubt' });
    const off = tape(onList('a', 'targets', { not: true }));
    expect([ownColumnOf(off, 'member:note:*'), ownColumnOf(off, 'member:note:a')]).toEqual([
      undefined,
      undefined,
    ]);
  });
  test('that no list says are none, also by names that every object has', () => {
    const one = tape(onList('a', 'targets'));
    for (const column of [
      'member:constructor:*',
      'review:toString:a',
      'member::*',
      'member:verdict',
      'review:*',
    ])
      expect(ownColumnOf(one, column)).toBeUndefined();
  });
});

test('are kept for later where they mean something on other tapes', () => {
  for (const column of [
    'name',
    'of:channel:dealers',
    'group:revenue',
    memberColumn('tags'),
    reviewColumn('doubt'),
  ])
    expect([column, isOfAnyTape(column), canBeKept('companies', column)]).toEqual([column, true, true]);
  for (const column of ['member:tags:l1', 'count:l1', 'score:l1', 'member:tags:*:*', 'constructor:name:*'])
    expect([column, isOfAnyTape(column)]).toEqual([column, false]);
  for (const column of ['nothing', 'of:channel:moon', 'list', 'group:revenue'])
    expect([column, canBeKept('people', column)]).toEqual([column, false]);
});

test('have an order, but for reasons in words', () => {
  const like: Line = { id: 'p', field: 'peers', test: { like: ['a'], from: 0.5 } };
  const all = tape(onList('l', 'targets'), like);
  const sortable = (column: string) => isSortable(ownColumnOf(all, column)!);
  expect(['review:doubt:*', 'review:likeness:*', 'member:tags:*', 'score:p'].map(sortable)).toEqual([
    true,
    true,
    true,
    true,
  ]);
  expect(['review:doubts:*', 'why:p'].map(sortable)).toEqual([false, false]);
});
