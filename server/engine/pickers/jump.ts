import type { JumpAnswer } from '../../../contract/responses.ts';
import { fold } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';
import { findRelated } from '../rows/record.ts';

const MOST_COMPANIES = 5;

/** What the universe has of a text; tapes, lists and lines come from elsewhere. */
export type UniverseHits = Pick<JumpAnswer, 'companies' | 'more' | 'related'>;

/** Companies, people, brands and deals whose name holds words that begin with those typed. */
export function jumpTo(db: Db, text: string): UniverseHits {
  const words = fold(text).match(/[a-z0-9]+/g) ?? [];
  // One letter begins too many names to say anything, and would take longest to look for.
  const query = words.some(({ length }) => length > 1) ? words.map((word) => `"${word}"*`).join(' AND ') : '';
  const companies =
    query === ''
      ? []
      : db
          .prepare<[string], { key: string; name: string; town: string | null; country: string | null }>(
            `SELECT c.key, c.name, c.town, c.country FROM company_words w JOIN company c ON c.id = w.rowid WHERE company_words MATCH ? LIMIT ${MOST_COMPANIES + 1}`,
          )
          .all(`{name} : (${query})`);
  return {
    companies: companies.slice(0, MOST_COMPANIES),
    more: companies.length > MOST_COMPANIES,
    related: query === '' ? [] : findRelated(db, query),
  };
}
