import { wordsColumn } from '../../core/tape/sql/words-column.ts';
import { historyWriter } from '../../server/tables/history.ts';
import { keepIds } from '../../server/tables/revision.ts';
import type { Db } from '../../server/db/open.ts';
import type { relatedWriter } from '../../server/tables/related.ts';
import { Chance } from '../random.ts';

/** What a month makes of people: some change posts, some go to another company, some leave. */

const SHARES = { moved: 0.004, promoted: 0.006, left: 0.003 } as const;

interface Person {
  id: number;
  key: string;
  name: string;
  title: string | null;
  department: string | null;
  company: number;
  employer: string;
}

const HIGHER: Record<string, readonly [title: string, level: string]> = {
  production: ['Head of production', 'head'],
  engineering: ['Head of design', 'head'],
  sales: ['Head of sales', 'head'],
  purchasing: ['Head of purchasing', 'head'],
  finance: ['Finance director', 'director'],
  logistics: ['Head of logistics', 'head'],
  management: ['Managing director', 'director'],
};

/** Changes people inside the transaction that the caller opened, with the events that tell of it. @param day of the month's end */
export function peopleOfMonth(
  db: Db,
  { revision, day, seed }: { revision: number; day: number; seed: number },
  writer: ReturnType<typeof relatedWriter>,
): { moved: number; promoted: number; left: number } {
  const note = historyWriter(db, revision, 'people');
  const people = db
    .prepare<[], Person>(
      `SELECT p.id, p.key, p.name, p.title, p.department, p.company_id AS company, c.name AS employer
       FROM person p JOIN company c ON c.id = p.company_id ORDER BY p.id`,
    )
    .all();
  const counts = { moved: 0, promoted: 0, left: 0 };
  const move = db.prepare(
    'UPDATE person SET company_id = ?, recorded_mail = NULL, mail = NULL, since_on = ?, checked_on = ?, earlier = ?, earlier_words = ? WHERE id = ?',
  );
  const promote = db.prepare(
    'UPDATE person SET title = ?, title_words = ?, level = ?, since_on = ?, checked_on = ? WHERE id = ?',
  );
  const remove = db.prepare('DELETE FROM person WHERE id = ?');
  const removeWords = db.prepare('DELETE FROM related_words WHERE rowid = ?');
  const event = (company: number, name: string, kind: string, on: number) =>
    writer.event('event-log', { id: company, reference: null }, { name, kind, date: on });
  keepIds(db, 'person');
  for (const [at, one] of people.entries()) {
    const chance = new Chance(seed ^ Math.imul(one.id, 0x2c1b3c6d));
    const on = day - chance.whole(0, 27);
    const post = one.title ?? 'A manager';
    const drawn = chance.next();
    if (drawn < SHARES.left) {
      remove.run(one.id);
      removeWords.run(one.id * 8);
      note(one, 'gone', [one.employer, null]);
      event(one.company, `${post} ${one.name} leaves`, 'departure', on);
      counts.left++;
    } else if (drawn < SHARES.left + SHARES.moved) {
      const to = people[(at + chance.whole(40, 4000)) % people.length]!;
      if (to.company === one.company) continue;
      const before = `${post}, ${one.employer}, until ${new Date(on * 86_400_000).getUTCFullYear()}`;
      move.run(to.company, on, day, before, wordsColumn(before), one.id);
      note(one, 'company', [one.employer, to.employer]);
      event(one.company, `${post} ${one.name} goes to ${to.employer}`, 'departure', on);
      event(to.company, `${one.name} from ${one.employer} is new ${post.toLowerCase()}`, 'appointment', on);
      counts.moved++;
    } else if (drawn < SHARES.left + SHARES.moved + SHARES.promoted) {
      const higher = HIGHER[one.department ?? ''];
      if (!higher || one.title === higher[0]) continue;
      promote.run(higher[0], wordsColumn(higher[0]), higher[1], on, day, one.id);
      note(one, 'title', [one.title, higher[0]]);
      event(one.company, `${one.name} is new ${higher[0].toLowerCase()}`, 'appointment', on);
      counts.promoted++;
    }
  }
  return counts;
}
