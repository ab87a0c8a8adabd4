import type { Told } from '../../core/runs/watched.ts';
import { toldBy, toldOfChange, toldOfEvent } from '../../core/runs/watched.ts';
import type { Happened } from '../../core/runs/reasons.ts';
import { together } from '../../core/runs/reasons.ts';
import { isoOf } from '../../core/dates.ts';
import type { Db } from '../db/open.ts';
import { historyOf } from '../tables/history.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import { membersOf, runBefore } from '../tables/runs/runs.ts';
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
      ? watchedRecords({ universe, lists, runs }, watch)
      : { subject: watch.subject, ids: [] };
  const named = namesOf(universe, subject, ids);
  const told = new Map<string, Told[]>();
  const add = (name: string, one: Told | null) => {
    if (one) told.set(name, [...(told.get(name) ?? []), one]);
  };
  for (const [record, changes] of changesOf(universe, subject, ids, watch.seen, upTo))
    for (const change of changes)
      add(named.get(record) ?? 'a record that is gone', toldOfChange(change, watch.growth));
  if (subject === 'companies')
    for (const { company, ...event } of eventsOf(universe, ids, watch.seen, upTo))
      add(named.get(company)!, toldOfEvent(event));
  for (const one of listChanges(lists, universe, watch, now)) add('', one);
  const several = ids.length !== 1;
  return [...told].flatMap(([name, all]) =>
    toldBy(watch, all).map(({ text }) => (several && name ? `${name}: ${text}` : text)),
  );
}

function watchedRecords(
  { universe, lists, runs }: WatchedDbs,
  { subject, key }: Watch,
): { subject: string; ids: number[] } {
  if (subject === 'companies' || subject === 'people') {
    const table = subject === 'companies' ? 'company' : 'person';
    const id = universe.prepare<[string], number>(`SELECT id FROM ${table} WHERE key = ?`).pluck().get(key);
    return { subject, ids: id === undefined ? [] : [id] };
  }
  if (subject === 'tapes') {
    const run = runBefore(runs, key, Infinity);
    const ids = run ? [...(membersOf(runs, run.id) ?? [])] : [];
    return { subject: run?.subject ?? 'companies', ids: ids.slice(0, MOST_WATCHED) };
  }
  const list = listByKey(lists, key);
  if (!list) return { subject: 'companies', ids: [] };
  const table = list.subject === 'people' ? 'person' : 'company';
  if (list.subject !== 'people' && list.subject !== 'companies') return { subject: list.subject, ids: [] };
  const keys = lists
    .prepare<[string, number], string>('SELECT key FROM list_member WHERE list = ? LIMIT ?')
    .pluck()
    .all(key, MOST_WATCHED);
  const ids = universe
    .prepare<[string], number>(`SELECT t.id FROM json_each(?) j CROSS JOIN ${table} t ON t.key = j.value`)
    .pluck()
    .all(JSON.stringify(keys));
  return { subject: list.subject, ids };
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
): Map<number, Happened[]> {
  const found = new Map<number, Happened[]>();
  for (const { record, field, was, now, was_number, now_number } of historyOf(
    universe,
    subject,
    ids,
    after,
    upTo,
  ))
    found.set(record, [
      ...(found.get(record) ?? []),
      { field, was, now, wasNumber: was_number, nowNumber: now_number },
    ]);
  for (const [record, changes] of found) found.set(record, together(changes));
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

/** Who joined a list and who left it since, by name where the universe has them. */
function listChanges(lists: Db, universe: Db, { subject, key, seenAt }: Watch, now: number): Told[] {
  if (subject !== 'lists') return [];
  const name = universe.prepare<[string, string], string>(
    'SELECT name FROM company WHERE key = ? UNION ALL SELECT name FROM person WHERE key = ? LIMIT 1',
  );
  const said = (what: string, keys: string[]): Told[] =>
    keys.map((one) => ({ kind: 'list' as const, text: `${name.pluck().get(one, one) ?? one} ${what}` }));
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
