import type { CodeTree, Scheme } from '../../../core/codes/tree.ts';
import type { Subject, Relation } from '../../../core/fields/field.ts';
import { RELATED } from '../../../core/fields/registry.ts';
import { setBit, wordsFor, type Bits } from '../../../core/tally/bits.ts';
import { NOBODY, type Links } from '../../../core/tally/links.ts';
import type { Db } from '../../db/open.ts';
import { subjectRevision } from '../../tables/revision.ts';
import { buildColumns, planAll, storedFields } from './build-columns.ts';
import { sharedInt32, sharedUint32 } from './shared-arrays.ts';
import type { StoredRelated, StoredUniverse } from './stored-universe.ts';

/** Records whose companies SQLite hands over as one text. */
const RECORDS_A_READ = 2000;

/**
 * All that hangs on companies, by subject. Columns are taken over from `earlier` where the subject was not touched since; then only
 * its links are set to where the companies stand now.
 */
export function buildRelated(
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
  recordOf: Int32Array,
  companies: number,
  earlier: StoredUniverse | null,
): Map<string, StoredRelated> {
  const related = new Map<string, StoredRelated>();
  for (const subject of RELATED) {
    const revision = subjectRevision(db, subject.id);
    const before = earlier?.related.get(subject.id);
    const known = knownCompanies(db, subject.relation.known, recordOf, companies);
    if (before?.revision === revision) {
      related.set(subject.id, { ...before, known, links: relinked(before.links, earlier!.ids, recordOf) });
      continue;
    }
    const plan = planAll(db, subject.id);
    const fields = storedFields(subject.id).map((field) => field.id);
    related.set(subject.id, {
      revision,
      size: plan.size,
      ids: plan.ids,
      columns: buildColumns(db, plan, trees, fields),
      links: subject.relation.roles.length
        ? partyLinks(db, subject.relation, plan.recordOf, plan.size, recordOf)
        : new Map([['', ownLinks(db, subject, plan.ids, recordOf)]]),
      known,
    });
  }
  return related;
}

function knownCompanies(db: Db, column: string, recordOf: Int32Array, companies: number): Bits {
  const known = sharedUint32(wordsFor(companies));
  const run = db
    .prepare<[number, number], string | null>(
      `SELECT group_concat(id) FROM company WHERE ${column} IS NOT NULL AND id BETWEEN ? AND ?`,
    )
    .pluck();
  for (let id = 0; id < recordOf.length; id += RECORDS_A_READ)
    for (const one of run.get(id, id + RECORDS_A_READ - 1)?.split(',') ?? [])
      setBit(known, recordOf[Number(one)]!);
  return known;
}

/** The one company of each record, which its own table names. */
function ownLinks(db: Db, { table }: Subject, ids: Uint32Array, recordOf: Int32Array): Links {
  const companies = sharedInt32(ids.length).fill(NOBODY);
  const run = db
    .prepare<[number, number], string | null>(
      `SELECT group_concat(COALESCE(company_id, '')) FROM (SELECT company_id FROM ${table} WHERE id BETWEEN ? AND ? ORDER BY id)`,
    )
    .pluck();
  for (let r = 0; r < ids.length; r += RECORDS_A_READ) {
    const last = ids[Math.min(ids.length, r + RECORDS_A_READ) - 1]!;
    run
      .get(ids[r]!, last)!
      .split(',')
      .forEach((company, i) => {
        if (company !== '') companies[r + i] = companyRecord(recordOf, Number(company));
      });
  }
  return { starts: null, companies };
}

function companyRecord(recordOf: Int32Array, id: number): number {
  const record = recordOf[id] ?? -1;
  return record < 0 ? NOBODY : record;
}

/** The companies of each record by role, from a table of parties. */
function partyLinks(
  db: Db,
  { table, record, roles }: Relation,
  recordOf: Int32Array,
  size: number,
  companyOf: Int32Array,
): Map<string, Links> {
  const pairs = db
    .prepare<[], [number, number, string]>(
      `SELECT ${record}, company_id, role FROM ${table} WHERE company_id IS NOT NULL ORDER BY ${record}, company_id`,
    )
    .raw()
    .all();
  const linksOf = (stored: readonly string[] | null): Links => {
    const starts = sharedUint32(size + 1);
    const found: number[] = [];
    let next = 0;
    let last = '';
    for (const [id, company, role] of pairs) {
      if (stored && !stored.includes(role)) continue;
      // A company may be two things to one deal; it counts once.
      if (last === `${id} ${company}`) continue;
      last = `${id} ${company}`;
      while (next <= recordOf[id]!) starts[next++] = found.length;
      found.push(companyOf[company]!);
    }
    while (next <= size) starts[next++] = found.length;
    const companies = sharedInt32(found.length);
    companies.set(found);
    return { starts, companies };
  };
  return new Map([
    ['', linksOf(null)],
    ...roles.map(({ key, stored }): [string, Links] => [key, linksOf(stored)]),
  ]);
}

/** Links to where the companies of the ids before stand now. */
function relinked(
  links: ReadonlyMap<string, Links>,
  idsBefore: Uint32Array,
  recordOf: Int32Array,
): Map<string, Links> {
  return new Map(
    [...links].map(([role, { starts, companies }]) => {
      const now = sharedInt32(companies.length);
      for (let i = 0; i < companies.length; i++)
        now[i] = companies[i] === NOBODY ? NOBODY : companyRecord(recordOf, idsBefore[companies[i]!]!);
      return [role, { starts, companies: now }];
    }),
  );
}
