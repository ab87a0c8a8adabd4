import type { PersonAboutAnswer, PersonHappening } from '../../contract/people.ts';
import { isoOf } from '../../core/dates.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';
import type { HistoryRow } from '../tables/history.ts';
import { CAME, GONE } from '../tables/history.ts';
import { titleReading } from '../tables/title-readings.ts';

/** What is known about one person beyond the fields. */

interface PersonRow {
  id: number;
  name: string;
  title: string | null;
  company_id: number | null;
  company: string | null;
}

const MOST_HAPPENINGS = 100;
const MOST_KNOWN = 20;

/** Null where the universe has nobody under the key. */
export function aboutPerson(universe: Db, workspace: Db, key: string): PersonAboutAnswer | null {
  const id = Number(/^person-(\d{1,15})$/.exec(key)?.[1] ?? NaN);
  const person = universe
    .prepare<[number], PersonRow>(
      'SELECT p.id, p.name, p.title, p.company_id, c.key AS company FROM person p LEFT JOIN company c ON c.id = p.company_id WHERE p.id = ?',
    )
    .get(id);
  if (!person) return null;
  return {
    happenings: happeningsOf(universe, person),
    known: knownAt(workspace, person),
    reading: (person.title === null ? undefined : titleReading(universe, person.title)) ?? null,
  };
}

function happeningsOf(universe: Db, { id, name, company_id }: PersonRow): PersonHappening[] {
  const changes = universe
    .prepare<[number], HistoryRow & { day: number }>(
      `SELECT h.*, l.day FROM history h JOIN revision_log l ON l.revision = h.revision
       WHERE h.subject = 'people' AND h.record = ? ORDER BY h.revision DESC LIMIT ${MOST_HAPPENINGS}`,
    )
    .all(id);
  // Events at the company of today and those of before, where they name the person.
  const companies = new Set<number>(company_id === null ? [] : [company_id]);
  for (const { field, was_number, now_number } of changes)
    if (field === 'company' || field === CAME || field === GONE)
      for (const one of [was_number, now_number]) if (one !== null) companies.add(one);
  const named = universe
    .prepare<[string, string], { name: string; kind: string | null; date_on: number | null }>(
      `SELECT name, kind, date_on FROM event
       WHERE company_id IN (SELECT value FROM json_each(?)) AND instr(name, ?) > 0 AND date_on IS NOT NULL
       ORDER BY date_on DESC LIMIT ${MOST_HAPPENINGS}`,
    )
    .all(JSON.stringify([...companies]), name);
  const happenings: PersonHappening[] = [
    ...changes.flatMap((one) => {
      const what = wordChange(one);
      return what === null ? [] : [{ on: isoOf(one.day), what, kind: null }];
    }),
    ...named.map(({ name: what, kind, date_on }) => ({ on: isoOf(date_on!), what, kind })),
  ];
  return happenings.sort((a, b) => (a.on < b.on ? 1 : a.on > b.on ? -1 : 0)).slice(0, MOST_HAPPENINGS);
}

/** A change of the record in words; null for one that says nothing of the person. */
function wordChange({ field, was, now }: HistoryRow): string | null {
  switch (field) {
    case CAME:
      return now === null ? 'Came with a newer file' : `Came with a newer file, as ${now}`;
    case GONE:
      return was === null ? 'Left' : `Left ${was}`;
    case 'company':
      return `Moved${was === null ? '' : ` from ${was}`}${now === null ? '' : ` to ${now}`}`;
    case 'title':
      return now === null ? `No longer ${was}` : `Became ${now}${was === null ? '' : `, before ${was}`}`;
    default:
      return null;
  }
}

function knownAt(workspace: Db, { name, company }: PersonRow): PersonAboutAnswer['known'] {
  if (company === null) return [];
  const own = fold(name);
  return workspace
    .prepare<[string], { name: string; title: string | null; book: string }>(
      `SELECT name, title, book FROM contact WHERE company = ? ORDER BY name LIMIT ${MOST_KNOWN}`,
    )
    .all(company)
    .map((one) => ({ ...one, same: fold(one.name) === own }))
    .sort((a, b) => Number(b.same) - Number(a.same));
}
