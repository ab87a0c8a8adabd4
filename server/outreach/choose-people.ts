import type { PersonFunction } from '../../core/people/right-person.ts';
import { rightPerson } from '../../core/people/right-person.ts';
import type { Db } from '../db/open.ts';

/** People by the ids of one state of the universe. */

export interface ChosenPeople {
  /** Keys of people. */
  people: string[];
  /** Keys of companies where nobody holds any of the functions. */
  without: string[];
}

interface Worker {
  key: string;
  department: string | null;
  level: string | null;
  title: string | null;
  certainty: number | null;
}

/** The right person of each of some companies, in their order. */
export function rightPeople(
  universe: Db,
  companies: Uint32Array,
  functions: readonly PersonFunction[],
): ChosenPeople {
  const workers = universe.prepare<[number], Worker>(
    'SELECT key, department, level, title, certainty FROM person WHERE company_id = ? ORDER BY id',
  );
  const keyOf = universe.prepare<[number], string>('SELECT key FROM company WHERE id = ?').pluck();
  const people: string[] = [];
  const without: string[] = [];
  for (const id of companies) {
    const found = rightPerson(workers.all(id), functions);
    if (found) people.push(found.person.key);
    else {
      const key = keyOf.get(id);
      if (key !== undefined) without.push(key);
    }
  }
  return { people, without };
}

export function peopleByIds(ids: Uint32Array): ChosenPeople {
  return { people: Array.from(ids, (id) => `person-${id}`), without: [] };
}
