import type { JumpAnswer, RecordAnswer } from '../../../contract/responses.ts';
import { isoOf } from '../../../core/dates.ts';
import { columnFields, subjectOf } from '../../../core/fields/registry.ts';
import type { Db } from '../../db/open.ts';
import { NAMED_SUBJECTS } from '../../tables/related.ts';
import type { SubjectEngine } from '../subject-engine.ts';

/** One record of a subject below companies, with the companies it hangs on; null where there is none of this key. */
export function readRecord(db: Db, own: SubjectEngine, key: string): RecordAnswer | null {
  const { subject, table } = own.records;
  const found = own.records.byKey(key);
  if (found === undefined) return null;
  const id = own.records.ids[found]!;
  const relation = subjectOf(subject).relation!;
  const role = relation.roles.length ? 'p.role' : `'company'`;
  const parties = db
    .prepare<[number], RecordAnswer['parties'][number]>(
      `SELECT ${role} AS role, COALESCE(c.name, json_extract(p.reference, '$[2]'), json_extract(p.reference, '$[1]'), json_extract(p.reference, '$[0]')) AS name, c.key
       FROM ${relation.table} p LEFT JOIN company c ON c.id = p.company_id WHERE p.${relation.record} = ? ORDER BY p.rowid`,
    )
    .all(id)
    .filter(({ name }) => name !== null);
  const sources = db
    .prepare<[number], { name: string; as_of: number }>(
      subject === 'deals'
        ? 'SELECT s.name, s.as_of FROM deal_source v JOIN source s ON s.key = v.source WHERE v.deal_id = ?'
        : `SELECT s.name, s.as_of FROM ${table} t JOIN source s ON s.key = t.source WHERE t.id = ?`,
    )
    .all(id);
  const columns = columnFields(subject).map((field) => field.id);
  return {
    subject,
    row: own.rowsOf([id], columns)[0]!,
    parties,
    products: subject === 'brands' ? productsByYear(db, id) : null,
    sources: sources.map(({ name, as_of }) => ({ name, asOf: isoOf(as_of) })),
  };
}

/** Products of a brand by year, as "2024:31; 2025:35" is stored. */
function productsByYear(db: Db, id: number): RecordAnswer['products'] {
  const stored = db
    .prepare<[number], string | null>('SELECT products_history FROM brand WHERE id = ?')
    .pluck()
    .get(id);
  if (!stored) return null;
  return stored.split('; ').map((point) => {
    const [year, value] = point.split(':').map(Number);
    return { year: year!, value: value! };
  });
}

const MOST_FOUND = 4;

/** People, brands and deals by the words of their names, as a query of the full-text index. */
export function findRelated(db: Db, query: string): JumpAnswer['related'] {
  const ids = db
    .prepare<[string], number>(
      `SELECT rowid FROM related_words WHERE related_words MATCH ? LIMIT ${MOST_FOUND}`,
    )
    .pluck()
    .all(query);
  return ids.flatMap((rowid) => {
    const subject = NAMED_SUBJECTS[rowid % 8]!;
    const { table, relation } = subjectOf(subject);
    const about = relation!.roles.length
      ? 'NULL'
      : '(SELECT c.name FROM company c WHERE c.id = t.company_id)';
    const found = db
      .prepare<[number], { key: string; name: string; about: string | null }>(
        `SELECT t.key, t.name, ${about} AS about FROM ${table} t WHERE t.id = ?`,
      )
      .get(Math.floor(rowid / 8));
    return found ? [{ subject, ...found }] : [];
  });
}
