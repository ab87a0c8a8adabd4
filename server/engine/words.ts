import type { TextColumn, Universe } from '../../core/tally/columns.ts';
import { ftsTerm } from '../../core/tape/words-query.ts';
import type { Db } from '../db/open.ts';
import type { StoredUniverse } from './stored-universe.ts';

/** The search of words in the database's full-text index. SQLite hands over all matches as one text: a row each would cost ten times as much. */
function wordsFinder(db: Db, recordOf: Int32Array): TextColumn['find'] {
  const match = db
    .prepare<[string], string | null>(
      'SELECT group_concat(rowid) FROM company_words WHERE company_words MATCH ?',
    )
    .pluck();
  return (term, where) => {
    const text = match.get(ftsTerm(term, where)) ?? '';
    let count = text === '' ? 0 : 1;
    for (let at = text.indexOf(','); at >= 0; at = text.indexOf(',', at + 1)) count++;
    const records = new Uint32Array(count);
    let company = 0;
    let found = 0;
    for (let at = 0; at <= text.length && count > 0; at++) {
      const char = at < text.length ? text.charCodeAt(at) : 44;
      if (char === 44) {
        records[found++] = recordOf[company]!;
        company = 0;
      } else company = company * 10 + char - 48;
    }
    return records;
  };
}

/** Stored columns with the search of words over the database they are of. */
export function searchable({ size, columns }: StoredUniverse, db: Db, recordOf: Int32Array): Universe {
  const find = wordsFinder(db, recordOf);
  return {
    size,
    columns: new Map(
      [...columns].map(([id, column]) => [
        id,
        'kind' in column && column.kind === 'text' ? { ...column, find } : column,
      ]),
    ),
  };
}
