import { fieldOf, RELATED } from '../../core/fields/registry.ts';
import { handedColumn } from '../../core/tally/handed.ts';
import { noBits } from '../../core/tally/bits.ts';
import type {
  CategoryColumn,
  Column,
  ListColumn,
  ManyColumn,
  Relation,
  Universe,
} from '../../core/tally/columns.ts';
import { hangingOn, type Hanging, type Links } from '../../core/tally/links.ts';
import { Tally, TallyCache } from '../../core/tally/tally.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import type { Db } from '../db/open.ts';
import type { StoredSubject, StoredUniverse } from './opening/stored-universe.ts';
import type { Records } from './records.ts';
import { NO_FACTS, type WorkspaceFacts } from './workspace-facts.ts';
import { textOf, wordsFinder } from './words.ts';

/**
 * The universes of all subjects, looking through to each other: stored columns, those of the workspace, and the search of words and
 * keys over the database they are of.
 */
export function openUniverses(
  stored: StoredUniverse,
  db: Db,
  records: ReadonlyMap<string, Records>,
  facts: Pick<
    WorkspaceFacts,
    'members' | 'known' | 'lists' | 'cells' | 'asOf' | 'handed' | 'joined'
  > = NO_FACTS,
): Map<string, Universe> {
  const own = records.get('companies')!;
  const columns = new Map<string, Column>(searchable('companies', stored, wordsFinder(db, own.recordOf)));
  columns.set('list', listsOf('companies', facts));
  columns.set('whom-we-know', { kind: 'known', known: facts.known ?? noBits(stored.size) });
  columns.set('handed-over', ledgerOf(facts.handed, 'companies', stored.size));
  columns.set('joined', ledgerOf(facts.joined, 'companies', stored.size));
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
      columns: new Map<string, Column>([
        ...searchable(id, one, null),
        ['list', listsOf(id, facts)],
        ['handed-over', ledgerOf(facts.handed, id, one.size)],
        ['joined', ledgerOf(facts.joined, id, one.size)],
      ]),
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

/** The lists of a subject. */
function listsOf(
  subject: string,
  { lists, members, cells, asOf }: Pick<WorkspaceFacts, 'lists' | 'members' | 'cells' | 'asOf'>,
): ListColumn {
  const own = lists.flatMap(({ key, subject: of }) =>
    of === subject && members.has(key) ? [[key, members.get(key)!] as const] : [],
  );
  return {
    kind: 'list',
    lists: new Map(own),
    find: (test) => cells.find(subject, test, asOf),
    said: (test, heading) => cells.said(subject, test, heading, asOf),
  };
}

/** What a ledger has of the records of a subject. */
function ledgerOf(of: ReadonlyMap<string, ManyColumn>, subject: string, size: number): ManyColumn {
  return of.get(subject) ?? handedColumn([], size);
}

/** Links turned round, once for each: the universes are opened anew whenever the workspace changes. */
const turned = new WeakMap<Links, Hanging>();

function hangingOf(links: Links, records: number, companies: number): Hanging {
  let hanging = turned.get(links);
  if (!hanging) turned.set(links, (hanging = hangingOn(links, records, companies)));
  return hanging;
}

/** The tallies of all subjects, looking through to each other. */
export function openTallies(
  universes: ReadonlyMap<string, Universe>,
  lookup: Lookup,
  cache = new TallyCache(),
): Map<string, Tally> {
  const tallies = new Map<string, Tally>();
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
