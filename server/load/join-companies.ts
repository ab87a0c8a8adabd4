import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { RELATED } from '../../core/fields/registry.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import type { Db } from '../db/open.ts';
import { companyParts, companyWriter } from '../tables/company.ts';
import { forgetJoin, joinOf, noteJoin, type Join } from '../tables/company-joins.ts';
import { keepIds, nextId, nextRevision } from '../tables/revision.ts';
import { relate, unlinkCompanies } from './relate.ts';
import { findAgain } from './related-load.ts';
import { RecordReader, remakeCompanies } from './remake.ts';

/** Companies made one of several, and several of one again; each inside a transaction that the caller opens. */

type Tables = { trees: ReadonlyMap<Scheme, CodeTree>; places: Gazetteer };

/**
 * Gives the records of companies, and what hangs on them, to others. Joins of which one of the two is not there any more are left
 * out. Returns those that were made.
 */
export function joinCompanies(
  db: Db,
  joins: readonly Join[],
  { trees, places }: Tables,
  progress: (done: number, total: number) => void = () => {},
): Join[] {
  const revision = nextRevision(db, 'Companies were joined');
  keepIds(db, 'company');
  const writer = companyWriter(db, revision);
  const moveRecords = db.prepare(
    'UPDATE record SET company_id = ?, own_key = COALESCE(own_key, ?) WHERE company_id = ?',
  );
  const moveRelated = RELATED.map(({ id, relation }) => ({
    id,
    move: db.prepare(`UPDATE ${relation.table} SET company_id = ? WHERE company_id = ?`),
  }));
  const touched = new Set<string>();
  const remade = new Set<number>();
  const made: Join[] = [];
  for (const [i, join] of joins.entries()) {
    const [from, into] = [writer.find(join.gone), writer.find(join.key)];
    if (from === null || into === null || from === into) continue;
    moveRecords.run(into, join.gone, from);
    for (const { id, move } of moveRelated) if (move.run(into, from).changes > 0) touched.add(id);
    for (const table of ['company_market', 'company_country'])
      db.prepare(`DELETE FROM ${table} WHERE company_id = ?`).run(from);
    writer.remove([from]);
    remade.delete(from);
    remade.add(into);
    noteJoin(db, join);
    made.push(join);
    if (i % 500 === 0) progress(i, joins.length);
  }
  remakeCompanies(db, revision, remade, trees, places, progress);
  relate(db, revision, [...new Set([...touched, ...findAgain(db)])]);
  return made;
}

/**
 * Takes out of a company the records that came under another key, and makes a company of them again. What hangs on either and names
 * its company is found anew. Returns the key of the company that they are taken out of; null where nothing was joined under this one.
 */
export function takeApart(db: Db, gone: string, { trees, places }: Tables): string | null {
  const key = joinOf(db, gone);
  const of =
    key === null
      ? undefined
      : db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck().get(key);
  if (key === null || of === undefined) return null;
  const records = db
    .prepare<[number, string], number>('SELECT id FROM record WHERE company_id = ? AND own_key = ?')
    .pluck()
    .all(of, gone);
  forgetJoin(db, gone);
  if (records.length === 0) return key;
  const revision = nextRevision(db, 'Companies were taken apart');
  keepIds(db, 'company');
  const writer = companyWriter(db, revision);
  const id = nextId(db, 'company');
  // A company is made of its records, so that they have to be its own before it can be made.
  db.pragma('defer_foreign_keys = ON');
  const move = db.prepare('UPDATE record SET company_id = ?, own_key = NULL WHERE id = ?');
  for (const record of records) move.run(id, record);
  const reader = new RecordReader(db, trees, places);
  const merged = reader.merge(id, gone)!;
  writer.insert(id, gone, companyParts(merged.company, merged), merged.sources);
  const left = reader.merge(of);
  for (const { relation } of RELATED)
    db.prepare(
      `UPDATE ${relation.table} SET company_id = NULL WHERE company_id = ? AND reference IS NOT NULL`,
    ).run(of);
  if (left) writer.update(of, companyParts(left.company, left), left.sources);
  else {
    // Its own source was removed meanwhile: it was made of these records alone.
    writer.remove([of]);
    unlinkCompanies(db, [of]);
  }
  findAgain(db);
  relate(
    db,
    revision,
    RELATED.map(({ id: subject }) => subject),
  );
  return key;
}
