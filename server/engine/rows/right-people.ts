import type { Candidate } from '../../../core/people/right-person.ts';
import type { PersonFunction } from '../../../core/people/functions.ts';
import { rightPerson } from '../../../core/people/right-person.ts';
import type { Db } from '../../db/open.ts';

/** Who holds the first of some functions that anybody holds, at each of some companies. */

/** What is read of somebody who may be chosen. */
export interface Worker extends Candidate {
  id: number;
  key: string;
  company: number;
  name: string;
  mail: string | null;
  phone: string | null;
}

/** Somebody chosen, and by which of the functions, from 0. */
export interface Chosen {
  person: Worker;
  rank: number;
}

const COLUMNS = 'id, key, company_id AS company, name, department, level, title, certainty, mail, phone';

/** Companies from which on all people are read once rather than those of each company. */
const MANY = 50_000;

/** The right person of each of some companies by id, in their order; null where nobody holds any of the functions. */
export function rightPeopleOf(
  universe: Db,
  companies: ArrayLike<number>,
  functions: readonly PersonFunction[],
): (Chosen | null)[] {
  if (companies.length >= MANY) {
    const found = new Map<number, Chosen>();
    everyRightPerson(universe, functions, (company, chosen) => found.set(company, chosen));
    return Array.from(companies, (id) => found.get(id) ?? null);
  }
  const workers = universe.prepare<[number], Worker>(
    `SELECT ${COLUMNS} FROM person WHERE company_id = ? ORDER BY id`,
  );
  return Array.from(companies, (id) => rightPerson(workers.all(id), functions));
}

/** The same of every company that has any people, in one reading of them all; `take` is told of those who are chosen. */
export function everyRightPerson(
  universe: Db,
  functions: readonly PersonFunction[],
  take: (company: number, chosen: Chosen) => void,
): void {
  let at: Worker[] = [];
  const settle = () => {
    const found = at.length ? rightPerson(at, functions) : null;
    if (found) take(at[0]!.company, found);
  };
  const everybody = universe
    .prepare<[], Worker>(`SELECT ${COLUMNS} FROM person WHERE company_id IS NOT NULL ORDER BY company_id, id`)
    .iterate();
  for (const worker of everybody) {
    if (at.length && at[0]!.company !== worker.company) {
      settle();
      at = [];
    }
    at.push(worker);
  }
  settle();
}

/** Of some people by id one a company, those who hold the first of some functions; in the order of who came first at each. */
export function rightPeopleAmong(
  universe: Db,
  people: Iterable<number>,
  functions: readonly PersonFunction[],
): { chosen: Chosen[]; without: number[] } {
  const find = universe.prepare<[number], Worker>(
    `SELECT ${COLUMNS} FROM person WHERE id = ? AND company_id IS NOT NULL`,
  );
  const byCompany = new Map<number, Worker[]>();
  for (const id of people) {
    const worker = find.get(id);
    if (!worker) continue;
    const beside = byCompany.get(worker.company);
    if (beside) beside.push(worker);
    else byCompany.set(worker.company, [worker]);
  }
  const chosen: Chosen[] = [];
  const without: number[] = [];
  for (const [company, beside] of byCompany) {
    const found = rightPerson(beside, functions);
    if (found) chosen.push(found);
    else without.push(company);
  }
  return { chosen, without };
}
