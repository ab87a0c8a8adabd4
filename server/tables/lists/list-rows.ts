import type { ListView } from '../../../contract/lists.ts';
import type { CarriedColumn } from '../../../core/lists/carried.ts';
import type { Combination } from '../../../core/lists/combine.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { foldedWords } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';
import { noteListsChange } from './changes.ts';

/** Lists themselves: names, folders, and what they are for. */

/** Days for which a removed list can be had back. */
export const DAYS_KEPT = 30;
const MS_A_DAY = 86_400_000;

interface ListRow extends Omit<
  ListView,
  'stays' | 'frozen' | 'madeAt' | 'changedAt' | 'removedAt' | 'notJudged' | 'carried'
> {
  stays: string | null;
  carried: string;
  frozen: number;
  madeAt: number;
  changedAt: number;
  removedAt: number | null;
}

const COLUMNS = `key, name, subject, purpose, folder, owner, suppression, stays, frozen, made_at AS madeAt,
  changed_at AS changedAt, removed_at AS removedAt, revision, members, judged_in AS judgedIn,
  judged_out AS judgedOut, unsure, (SELECT group_concat(kind || ' ' || n, ', ') FROM
    (SELECT kind, count(*) AS n FROM list_origin o WHERE o.list = list.key GROUP BY kind ORDER BY kind)) AS origins,
  (SELECT count(*) FROM list_address a WHERE a.list = list.key) AS addresses,
  (SELECT json_group_array(json_object('column', c.heading, 'kind', c.kind)) FROM
    (SELECT heading, kind FROM list_carried_column d WHERE d.list = list.key ORDER BY place, heading) c) AS carried`;

function viewOf(row: ListRow): ListView {
  const iso = (ms: number) => new Date(ms).toISOString();
  return {
    ...row,
    stays: row.stays === null ? null : (JSON.parse(row.stays) as Combination),
    carried: JSON.parse(row.carried) as CarriedColumn[],
    frozen: row.frozen === 1,
    madeAt: iso(row.madeAt),
    changedAt: iso(row.changedAt),
    removedAt: row.removedAt === null ? null : iso(row.removedAt),
    notJudged: row.members - row.judgedIn - row.judgedOut - row.unsure,
  };
}

/** Lists that are there, by name. */
export function allLists(db: Db): ListView[] {
  return db
    .prepare<[], ListRow>(`SELECT ${COLUMNS} FROM list WHERE removed_at IS NULL ORDER BY name`)
    .all()
    .map(viewOf);
}

/** Lists removed within the last days, the latest first. */
export function removedLists(db: Db): ListView[] {
  return db
    .prepare<[], ListRow>(`SELECT ${COLUMNS} FROM list WHERE removed_at IS NOT NULL ORDER BY removed_at DESC`)
    .all()
    .map(viewOf);
}

export function listByKey(db: Db, key: string): ListView | undefined {
  const row = db
    .prepare<[string], ListRow>(`SELECT ${COLUMNS} FROM list WHERE key = ? AND removed_at IS NULL`)
    .get(key);
  return row && viewOf(row);
}

/** Keys of the members of a list, in their order. */
export function memberKeys(db: Db, list: string): string[] {
  return db
    .prepare<[string], string>('SELECT key FROM list_member WHERE list = ? ORDER BY key')
    .pluck()
    .all(list);
}

/** @throws Problem where there is no such list */
export function knownList(db: Db, key: string): ListView {
  const list = listByKey(db, key);
  if (!list)
    throw new Problem('unknown-list', `There is no list "${key}" in this workspace.`, {
      field: 'key',
      value: key,
    });
  return list;
}

/** @throws Problem where members of a list neither come nor go by hand */
export function openList(db: Db, key: string): ListView {
  const list = knownList(db, key);
  if (list.frozen || list.stays)
    throw new Problem(
      list.frozen ? 'list-frozen' : 'list-follows',
      list.frozen
        ? `The list ${list.name} is frozen. Thaw it to change its members.`
        : `The members of ${list.name} follow other lists. Change those, or make it a fixed list.`,
      { field: 'key', value: key, rule: 'a list whose members may change' },
    );
  return list;
}

export interface ListWish {
  name: string;
  subject?: string;
  purpose?: string;
  folder?: string;
  owner?: string;
  suppression?: ListView['suppression'];
  frozen?: boolean;
}

/** Adds an empty list. Its key is made of its name and never changes. @throws Problem where the name is taken */
export function addList(db: Db, wish: ListWish): ListView {
  refuseTakenName(db, wish.name, null);
  const stem = foldedWords(wish.name).join('-').slice(0, 60) || 'list';
  const taken = db.prepare<[string], number>('SELECT 1 FROM list WHERE key = ?').pluck();
  let key = stem;
  for (let n = 2; taken.get(key) !== undefined; n++) key = `${stem}-${n}`;
  const now = Date.now();
  db.prepare(
    `INSERT INTO list (key, name, subject, purpose, folder, owner, suppression, made_at, changed_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    key,
    wish.name,
    wish.subject ?? 'companies',
    wish.purpose ?? '',
    wish.folder ?? '',
    wish.owner ?? '',
    wish.suppression ?? null,
    now,
    now,
  );
  noteListsChange(db);
  return listByKey(db, key)!;
}

/** Changes what is said of a list; what is left out stays. @throws Problem where the name is another list's */
export function changeList(db: Db, key: string, wish: Partial<ListWish>): ListView {
  const { name, purpose, folder, owner, suppression, frozen } = { ...knownList(db, key), ...wish };
  refuseTakenName(db, name, key);
  db.prepare(
    'UPDATE list SET name = ?, purpose = ?, folder = ?, owner = ?, suppression = ?, frozen = ?, changed_at = ? WHERE key = ?',
  ).run(name, purpose, folder, owner, suppression, Number(frozen), Date.now(), key);
  noteListsChange(db);
  return listByKey(db, key)!;
}

function refuseTakenName(db: Db, name: string, own: string | null): void {
  const holder = db
    .prepare<[string], string>('SELECT key FROM list WHERE name = ? AND removed_at IS NULL')
    .pluck()
    .get(name);
  if (holder !== undefined && holder !== own)
    throw new Problem('name-taken', `There is a list named "${name}" already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other list has',
    });
}

/** Lists whose members follow one. */
export function followersOf(db: Db, key: string): ListView[] {
  return allLists(db).filter(({ stays }) => stays?.parts.some(({ list }) => list === key));
}

/** Removes a list; it can be had back for some days. @throws Problem where others follow it */
export function removeList(db: Db, key: string): void {
  const { name } = knownList(db, key);
  const followers = followersOf(db, key);
  if (followers.length)
    throw new Problem(
      'list-followed',
      `${followers.map((one) => one.name).join(', ')} follow${followers.length === 1 ? 's' : ''} the list ${name}. Make ${followers.length === 1 ? 'it a fixed list' : 'them fixed lists'} first.`,
      { field: 'key', value: key, rule: 'a list that no other follows' },
    );
  db.prepare('UPDATE list SET removed_at = ? WHERE key = ?').run(Date.now(), key);
  noteListsChange(db);
}

/** Puts a removed list back. @throws Problem where it is gone for good, or its name is another's now */
export function restoreList(db: Db, key: string): ListView {
  const name = db
    .prepare<[string], string>('SELECT name FROM list WHERE key = ? AND removed_at IS NOT NULL')
    .pluck()
    .get(key);
  if (name === undefined)
    throw new Problem('unknown-list', `No list "${key}" was removed in the last ${DAYS_KEPT} days.`, {
      field: 'key',
      value: key,
    });
  refuseTakenName(db, name, key);
  db.prepare('UPDATE list SET removed_at = NULL WHERE key = ?').run(key);
  noteListsChange(db);
  return listByKey(db, key)!;
}

/** Ends for good what was removed too long ago. */
export function purgeLists(db: Db): void {
  db.prepare('DELETE FROM list WHERE removed_at < ?').run(Date.now() - DAYS_KEPT * MS_A_DAY);
}
