import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import type { Db } from '../../db/open.ts';
import { NAMED_SUBJECTS } from '../../tables/related.ts';

/** Ids of the records of a subject whose name holds words that begin with some folded ones. */
export function namedBy(db: Db, subject: string, words: readonly string[]): number[] {
  const query = words.map((word) => `"${word}"*`).join(' AND ');
  if (subject === 'companies')
    return db
      .prepare<[string], number>('SELECT rowid FROM company_words WHERE company_words MATCH ?')
      .pluck()
      .all(`{name} : (${query})`);
  const at = NAMED_SUBJECTS.indexOf(subject as (typeof NAMED_SUBJECTS)[number]);
  if (at >= 0)
    return db
      .prepare<[string, number], number>(
        'SELECT rowid / 8 FROM related_words WHERE related_words MATCH ? AND rowid % 8 = ?',
      )
      .pluck()
      .all(query, at);
  // Sites and events are in no index: their names are looked through.
  const { table } = subjectOf(subject);
  const column = fieldOf(subject, 'name')!.store.at === 'text' ? 'name_words' : 'name';
  return db
    .prepare<string[], number>(
      `SELECT id FROM ${table} WHERE ${words.map(() => `${column} LIKE '%' || ? || '%'`).join(' AND ')}`,
    )
    .pluck()
    .all(...words);
}
