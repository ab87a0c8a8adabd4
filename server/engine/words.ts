import type { CategoryColumn, TextColumn } from '../../core/tally/columns.ts';
import { notBits, setBit, noBits } from '../../core/tally/bits.ts';
import { termText } from '../../core/tape/sql/words-column.ts';
import { ftsTerm } from '../../core/tape/words-query.ts';
import type { Db } from '../db/open.ts';

/** The search of words in the database's full-text index. SQLite hands over all matches as one text: a row each would cost ten times as much. */
export function wordsFinder(db: Db, recordOf: Int32Array): TextColumn['find'] {
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

/** A text whose different wordings are few, such as titles: each is looked at once, in whose dictionary they stand as `wordsColumn` makes them. */
export function textOf({ dictionary, values, postings }: CategoryColumn, size: number): TextColumn {
  const undescribed = noBits(size);
  for (let r = 0; r < size; r++) if (values[r] === 0) setBit(undescribed, r);
  return {
    kind: 'text',
    described: notBits(undescribed, size),
    find(term) {
      const wanted = termText(term);
      const found: Uint32Array[] = [];
      let count = 0;
      dictionary.forEach((words, i) => {
        if (!words.includes(wanted)) return;
        const records = postings.records.subarray(postings.starts[i + 1], postings.starts[i + 2]);
        found.push(records);
        count += records.length;
      });
      const all = new Uint32Array(count);
      let at = 0;
      for (const records of found) {
        all.set(records, at);
        at += records.length;
      }
      return all;
    },
  };
}
