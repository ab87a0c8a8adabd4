import { fieldOf, RELATED, subjectOf } from '../../core/fields/registry.ts';
import { noBits } from '../../core/tally/bits.ts';
import type { CategoryColumn, Column, Relation, Universe } from '../../core/tally/columns.ts';
import { hangingOn, type Hanging, type Links } from '../../core/tally/links.ts';
import { Tally, TallyCache } from '../../core/tally/tally.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import type { Db } from '../db/open.ts';
import { recordsById, type StoredSubject, type StoredUniverse } from './opening/stored-universe.ts';
import { NO_FACTS, type WorkspaceFacts } from './workspace-facts.ts';
import { textOf, wordsFinder } from './words.ts';

/** The records of one subject, found by id and by key. */
export interface Records {
  subject: string;
  table: string;
  ids: Uint32Array;
  /** Record of each id, or -1. */
  recordOf: Int32Array;
  /** The record under a key, or undefined where there is none. */
  byKey(key: string): number | undefined;
}

/** The id in a key that is made of one. */
function numberIn(found: RegExpExecArray | null): number | undefined {
  return found ? Number(found[1]) : undefined;
}

/** The records of every subject of a stored universe. */
export function recordsOfAll(stored: StoredUniverse, db: Db): Map<string, Records> {
  const of = (subject: string, { ids }: StoredSubject): [string, Records] => {
    const { table } = subjectOf(subject);
    const recordOf = recordsById(ids);
    const find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    const own = new RegExp(`^${table}-(\\d{1,10})$`);
    const byKey = (key: string) => {
      const id = subject === 'companies' ? find.get(key) : numberIn(own.exec(key));
      return id === undefined || (recordOf[id] ?? -1) < 0 ? undefined : recordOf[id];
    };
    return [subject, { subject, table, ids, recordOf, byKey }];
  };
  return new Map([of('companies', stored), ...[...stored.related].map(([id, one]) => of(id, one))]);
}

/**
 * The universes of all subjects, looking through to each other: stored columns, those of the workspace, and the search of words and
 * keys over the database they are of.
 */
export function openUniverses(
  stored: StoredUniverse,
  db: Db,
  records: ReadonlyMap<string, Records>,
  facts: Pick<WorkspaceFacts, 'members' | 'known'> = NO_FACTS,
): Map<string, Universe> {
  const own = records.get('companies')!;
  const nobody = noBits(stored.size);
  const columns = new Map<string, Column>(searchable('companies', stored, wordsFinder(db, own.recordOf)));
  columns.set('list', { kind: 'list', lists: facts.members });
  columns.set('whom-we-know', {
    kind: 'list',
    lists: new Map([['', { in: facts.known ?? nobody, unsure: nobody, out: nobody }]]),
  });
  columns.set('company', { kind: 'key', find: own.byKey });
  const down = new Map<string, Relation>();
  const companies: Universe = { size: stored.size, columns, relations: down };
  const universes = new Map([['companies', companies]]);
  for (const { id } of RELATED) {
    const one = stored.related.get(id);
    if (!one) continue;
    const up: Relation = {
      subject: 'companies',
      related: companies,
      down: false,
      links: one.links,
      hanging: new Map(),
      known: null,
    };
    const related: Universe = {
      size: one.size,
      columns: new Map(searchable(id, one, null)),
      relations: new Map([['company', up]]),
    };
    universes.set(id, related);
    const hanging = new Map(
      [...one.links].map(([role, links]) => [role, hangingOf(links, one.size, stored.size)]),
    );
    down.set(id, { subject: id, related, down: true, links: one.links, hanging, known: one.known });
  }
  return universes;
}

/** Links turned round, once for each: the universes are opened anew whenever the workspace changes. */
const turned = new WeakMap<Links, Hanging>();

function hangingOf(links: Links, records: number, companies: number): Hanging {
  let hanging = turned.get(links);
  if (!hanging) turned.set(links, (hanging = hangingOn(links, records, companies)));
  return hanging;
}

/** The tallies of all subjects, looking through to each other. */
export function openTallies(universes: ReadonlyMap<string, Universe>, lookup: Lookup): Map<string, Tally> {
  const tallies = new Map<string, Tally>();
  const cache = new TallyCache();
  for (const [subject, universe] of universes)
    tallies.set(subject, new Tally(universe, subject, lookup, tallies, cache));
  return tallies;
}

function* searchable(
  subject: string,
  { size, columns }: StoredSubject,
  find: ReturnType<typeof wordsFinder> | null,
): Generator<[string, Column]> {
  for (const [id, column] of columns) {
    if ('kind' in column && column.kind === 'text') yield [id, { ...column, find: find! }];
    else if (fieldOf(subject, id)!.kind === 'text') yield [id, textOf(column as CategoryColumn, size)];
    else yield [id, column];
  }
}
