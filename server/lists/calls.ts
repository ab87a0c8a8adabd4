import type { ListWish } from '../tables/lists/list-rows.ts';
import type { Combination } from '../../core/lists/combine.ts';
import { Recent } from '../../core/recent.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { addCheck, addToCheck, judgeChecked, removeCheck, setAtLeast } from '../tables/lists/checks.ts';
import { combineInto, regionsOf, sharesOf } from '../tables/lists/combined.ts';
import { addList, changeList, knownList, removeList, restoreList } from '../tables/lists/list-rows.ts';
import {
  addCarried,
  addMembers,
  copyMembers,
  countThere,
  putBack,
  removeOrigins,
  takeOff,
} from '../tables/lists/members.ts';
import { setAddresses } from '../tables/lists/addresses.ts';
import { followKeys } from '../tables/lists/follow-keys.ts';
import { rollOf } from '../tables/lists/roll.ts';
import type { Revision } from '../tables/revision.ts';
import { companiesBySource } from '../tables/source.ts';
import { describeMembers, judge, takeBackDetails, takeBackVerdicts } from '../tables/lists/verdicts.ts';
import { chooseWanted, type Wanted } from '../tables/lists/wanted.ts';

/** Everything that the thread of lists does: changes, each in one transaction, and counts that may take a while. */
export const listCalls = {
  add: addList,
  change: (db: Db, key: string, wish: Partial<ListWish>, fixed: boolean) => {
    if (fixed) db.prepare('UPDATE list SET stays = NULL WHERE key = ?').run(knownList(db, key).key);
    return changeList(db, key, wish);
  },
  setAddresses,
  remove: removeList,
  restore: restoreList,
  addMembers,
  addCarried,
  removeOrigins,
  takeOff,
  putBack,
  copyMembers,
  followKeys,
  judge,
  takeBackVerdicts,
  describe: describeMembers,
  takeBackDetails,
  addCheck,
  addToCheck,
  setAtLeast,
  judgeChecked,
  removeCheck,
  combine: (db: Db, wish: ListWish, made: Combination, stays: boolean) => {
    const lists = made.parts.map(({ list }) => knownList(db, list));
    const { subject } = lists[0]!;
    const other = lists.find((one) => one.subject !== subject);
    if (other)
      throw new Problem('other-subject', `${other.name} holds ${other.subject}, not ${subject}.`, {
        field: 'parts',
        value: other.key,
        rule: `lists of ${subject}`,
      });
    const { key } = addList(db, { ...wish, subject });
    combineInto(db, key, made, null);
    if (stays) db.prepare('UPDATE list SET stays = ? WHERE key = ?').run(JSON.stringify(made), key);
    return knownList(db, key);
  },
} as const;

/** The companies of sources, as they were counted of one state of the universe. */
const bySource = new Recent<ReturnType<typeof companiesBySource>>(1, () => 1);

/** What only counts, and runs beside the changes. */
export const listCounts = {
  /** How many companies each source has by country, counted once for each state of the universe. */
  companiesBySource: (db: Db) => {
    const { stamp, revision } = db.prepare<[], Revision>('SELECT stamp, revision FROM u.universe').get()!;
    return bySource.get(`${stamp} ${revision}`, () => companiesBySource(db));
  },
  roll: rollOf,
  shares: sharesOf,
  overlap: (db: Db, parts: Combination['parts']) => {
    for (const { list } of parts) knownList(db, list);
    return regionsOf(db, parts);
  },
  /** How many of some records each list of their subject has. */
  there: (db: Db, lists: string[], wanted: Wanted) => {
    const { count } = chooseWanted(db, wanted);
    return { count, there: Object.fromEntries(lists.map((key) => [key, countThere(db, key)])) };
  },
} as const;
