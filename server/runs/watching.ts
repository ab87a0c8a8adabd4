import type { Told } from '../../core/runs/watched.ts';
import {
  toldBy,
  toldOfChange,
  toldOfEvent,
  toldOfPerson,
  type PersonChange,
} from '../../core/runs/watched.ts';
import type { Happened } from '../../core/runs/reasons.ts';
import { together } from '../../core/runs/reasons.ts';
import { isoOf } from '../../core/dates.ts';
import type { Db } from '../db/open.ts';
import { CAME, GONE, historyOf, type HistoryRow } from '../tables/history.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import { membersOf, runBefore } from '../tables/runs/runs.ts';
import { RecordKeys } from '../tables/keys.ts';
import type { Watch } from '../tables/runs/watches.ts';

/** What happened to what is watched since it was looked at last. */

/** Records of one watch that are looked at; of longer lists the changes of lists alone are told. */
const MOST_WATCHED = 50_000;
/** Lines that one notice names; the rest is said as a number. */
export const MOST_ITEMS = 40;

interface WatchedDbs {
  universe: Db;
  lists: Db;
  runs: Db;
}

/** One line for each thing that happened, grouped by the record that it happened to. */
export function happenedTo(
  { universe, lists, runs }: WatchedDbs,
  watch: Watch,
  upTo: number,
  now: number,
): string[] {
  // Where the universe is as it was, only lists may have changed.
  const { subject, ids } =
    watch.seen < upTo
      ? watchedRecords({ universe, lists, runs }, watch, upTo)
      : { subject: watch.subject, ids: [] };
  const named = namesOf(universe, subject, ids);
  const told = new Map<string, Told[]>();
  const add = (name: string, one: Told | null) => {
    if (one) told.set(name, [...(told.get(name) ?? []), one]);
  };
  for (const [record, { name, changes }] of changesOf(universe, subject, ids, watch.seen, upTo))
    for (const change of changes) add(named.get(record) ?? name, toldOfChange(change, watch.growth));
  if (subject === 'companies')
    for (const { company, ...event } of eventsOf(universe, ids, watch.seen, upTo))
      add(named.get(company)!, toldOfEvent(event));
  if (subject === 'companies')
    for (const { company, ...change } of peopleOf(universe, ids, watch.seen, upTo))
      add(named.get(company)!, toldOfPerson(change));
  for (const one of listChanges(lists, universe, watch, now)) add('', one);
  const several = ids.length !== 1;
  return [...told].flatMap(([name, all]) =>
    toldBy(watch, all).map(({ text }) => (several && name ? `${name}: ${text}` : text)),
  );
}

function watchedRecords(
  { universe, lists, runs }: WatchedDbs,
  { subject, key, seen }: Watch,
  upTo: number,
): { subject: string; ids: number[] } {
  const idsOf = (of: string, keys: readonly string[]) => [
    ...new Set([...new RecordKeys(universe, of).ids(keys), ...goneAmong(universe, of, keys, seen, upTo)]),
  ];
  if (subject === 'companies' || subject === 'people') return { subject, ids: idsOf(subject, [key]) };
  if (subject === 'tapes') {
    const run = runBefore(runs, key, Infinity);
    const ids = run ? [...(membersOf(runs, run.id) ?? [])] : [];
    return { subject: run?.subject ?? 'companies', ids: ids.slice(0, MOST_WATCHED) };
  }
  const list = listByKey(lists, key);
  if (!list) return { subject: 'companies', ids: [] };
  if (list.subject !== 'people' && list.subject !== 'companies') return { subject: list.subject, ids: [] };
  const keys = lists
    .prepare<[string, number], string>('SELECT key FROM list_member WHERE list = ? LIMIT ?')
    .pluck()
    .all(key, MOST_WATCHED);
  return { subject: list.subject, ids: idsOf(list.subject, keys) };
}

/** Numbers of those of some records that left the universe meanwhile. */
function goneAmong(
  universe: Db,
  subject: string,
  keys: readonly string[],
  after: number,
  upTo: number,
): number[] {
  return universe
    .prepare<[number, number, string, string], number>(
      `SELECT record FROM history WHERE revision > ? AND revision <= ? AND subject = ? AND field = '${GONE}'
         AND key IN (SELECT value FROM json_each(?))`,
    )
    .pluck()
    .all(after, upTo, subject, JSON.stringify(keys));
}

function namesOf(universe: Db, subject: string, ids: readonly number[]): Map<number, string> {
  if (subject !== 'companies' && subject !== 'people') return new Map();
  const table = subject === 'companies' ? 'company' : 'person';
  return new Map(
    universe
      .prepare<[string], [number, string]>(
        `SELECT t.id, t.name FROM json_each(?) j CROSS JOIN ${table} t ON t.id = j.value`,
      )
      .raw()
      .all(JSON.stringify(ids)),
  );
}

function changesOf(
  universe: Db,
  subject: string,
  ids: readonly number[],
  after: number,
  upTo: number,
): Map<number, { name: string; changes: Happened[] }> {
  const found = new Map<number, { name: string; changes: Happened[] }>();
  for (const { record, name, field, was, now, was_number, now_number } of historyOf(
    universe,
    subject,
    ids,
    after,
    upTo,
  ))
    found.set(record, {
      name,
      changes: [
        ...(found.get(record)?.changes ?? []),
        { field, was, now, wasNumber: was_number, nowNumber: now_number },
      ],
    });
  for (const one of found.values()) one.changes = together(one.changes);
  return found;
}

function eventsOf(universe: Db, ids: readonly number[], after: number, upTo: number) {
  return universe
    .prepare<
      [string, number, number, string, number, number],
      { company: number; kind: string; name: string; day: number | null }
    >(
      `SELECT e.company_id AS company, e.kind, e.name, e.date_on AS day FROM json_each(?) j CROSS JOIN event e ON e.company_id = j.value
         WHERE e.came_with > ? AND e.came_with <= ?
       UNION ALL
       SELECT p.company_id, 'deal', d.name, d.date_on FROM json_each(?) j CROSS JOIN deal_party p ON p.company_id = j.value JOIN deal d ON d.id = p.deal_id
         WHERE d.came_with > ? AND d.came_with <= ?`,
    )
    .all(JSON.stringify(ids), after, upTo, JSON.stringify(ids), after, upTo)
    .map(({ day, ...event }) => ({ ...event, date: day === null ? null : isoOf(day) }));
}

/** Whom newer versions of sources of people brought to some companies and took from them. */
function peopleOf(
  universe: Db,
  ids: readonly number[],
  after: number,
  upTo: number,
): (PersonChange & { company: number })[] {
  const side = (number: string, other: string, fields: string, isHere: 0 | 1) =>
    `SELECT h.id AS nth, j.value AS company, h.name, h.field, h.was, h.now, ${isHere} AS here
     FROM json_each(@ids) j CROSS JOIN history h
       ON h.${number} = j.value AND h.revision > @after AND h.revision <= @upTo AND h.subject = 'people' AND h.field IN (${fields})
     WHERE h.${other} IS NOT h.${number}`;
  return universe
    .prepare<[object], Pick<HistoryRow, 'name' | 'field' | 'was' | 'now'> & { company: number; here: 0 | 1 }>(
      `${side('was_number', 'now_number', `'company', '${GONE}'`, 0)}
       UNION ALL ${side('now_number', 'was_number', `'company', '${CAME}'`, 1)} ORDER BY nth`,
    )
    .all({ ids: JSON.stringify(ids), after, upTo })
    .map(({ company, name, field, was, now, here }) => ({
      ...{ company, name, wasHere: here === 0, isHere: here === 1 },
      said: here === 0 ? (field === GONE ? null : now) : field === CAME ? now : was && `from ${was}`,
    }));
}

/** Who joined a list and who left it since, by name where the universe has them. */
function listChanges(lists: Db, universe: Db, { subject, key, seenAt }: Watch, now: number): Told[] {
  const list = subject === 'lists' && listByKey(lists, key);
  if (!list) return [];
  const records = new RecordKeys(universe, list.subject);
  const said = (what: string, keys: string[]): Told[] =>
    keys.map((one) => ({ kind: 'list' as const, text: `${records.find(one)?.name ?? one} ${what}` }));
  const joined = lists
    .prepare<[string, number, number], string>(
      'SELECT key FROM list_member WHERE list = ? AND added_at > ? AND added_at <= ? ORDER BY key LIMIT 1000',
    )
    .pluck()
    .all(key, seenAt, now);
  const left = lists
    .prepare<[string, number, number], string>(
      'SELECT m.key FROM list_taken t JOIN list_taken_member m ON m.taken = t.id WHERE t.list = ? AND t.at > ? AND t.at <= ? ORDER BY m.key LIMIT 1000',
    )
    .pluck()
    .all(key, seenAt, now);
  return [...said('joined the list', joined), ...said('was taken off the list', left)];
}
