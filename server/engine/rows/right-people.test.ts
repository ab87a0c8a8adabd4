import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFunctions } from '../../../core/people/functions.ts';
import { rightPerson } from '../../../core/people/right-person.ts';
import { rightColumn } from '../../../core/tape/own-columns.ts';
import { rightPersonLine } from '../../../core/tape/right-person.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { overUniverses } from '../../testing/over-universes.ts';
import { RandomUniverse } from '../../testing/random-universe.ts';
import { ListsEngine } from '../lists-engine.ts';
import { everyRightPerson, rightPeopleOf, type Worker } from './right-people.ts';

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

const CHOICES = [
  'production head, else production director, else owner',
  'purchasing "buyer" or "head of", else finance',
  'director or head, else anybody',
  '"head"',
].map(readFunctions);

const workers = () =>
  random.db
    .prepare<[], Worker>(
      'SELECT *, company_id AS company FROM person WHERE company_id IS NOT NULL ORDER BY id',
    )
    .all();

test('the line keeps the companies that anybody is chosen at, and no others', () => {
  let chosenAtAll = 0;
  overUniverses(random, 12, (engine) => {
    for (const functions of CHOICES) {
      const chosen = new Set<number>();
      everyRightPerson(random.db, functions, (company) => chosen.add(company));
      chosenAtAll += chosen.size;
      const tape = { ...emptyTape(), lines: [rightPersonLine(functions, 'l1')] };
      expect([...engine.idsOf(tape, [])].sort((a, b) => a - b)).toEqual([...chosen].sort((a, b) => a - b));
    }
  });
  expect(chosenAtAll).toBeGreaterThan(100);
});

test('who is chosen is the one that the rule chooses, in the sheet, in its order and on a list', () => {
  overUniverses(random, 8, (engine) => {
    const lists = new ListsEngine(engine);
    const people = workers();
    for (const functions of CHOICES) {
      const at = (company: number) => people.filter((one) => one.company === company);
      const column = rightColumn('name', functions);
      const sure = rightColumn('certainty', functions);
      const sort = [{ by: sure, descending: true as const }];
      const { rows } = engine.rows(
        emptyTape(),
        [column, sure, rightColumn('function', functions)],
        sort,
        0,
        1000,
      );
      const ids = engine.idsOf(emptyTape(), sort);
      rows.forEach((row, i) => {
        const found = rightPerson(at(ids[i]!), functions);
        expect(row.cells[column]).toBe(found?.person.name ?? null);
        expect(row.cells[sure]).toBe(found?.person.certainty ?? null);
      });
      const known = rows.map(({ cells }) => cells[sure] as number | null).filter((one) => one !== null);
      expect(known).toEqual([...known].sort((a, b) => b - a));

      const put = lists.recordsFor(emptyTape(), [], {}, 'people', functions);
      const named = [...put.ids].map((id) => people.find((one) => one.id === id)!.company);
      expect(new Set(named).size).toBe(named.length);
      expect(put.ids.length + put.without.length).toBe(engine.tally(emptyTape()).tally);
      // Of all people the same are chosen, company by company.
      const among = lists.recordsFor(emptyTape('people'), [], {}, 'people', functions);
      expect([...among.ids].sort()).toEqual([...put.ids].sort());
    }
  });
});

test('of very many companies all people are read at once, with the same result', () => {
  overUniverses(random, 2, (engine) => {
    const ids = engine.idsOf(emptyTape(), []);
    if (ids.length === 0) return;
    const many = Array.from({ length: 50_000 }, (_, i) => ids[i % ids.length]!);
    for (const functions of CHOICES) {
      const few = rightPeopleOf(random.db, ids, functions);
      expect(rightPeopleOf(random.db, many, functions).slice(0, ids.length)).toEqual(few);
    }
  });
});

test('nobody is chosen by function of what has no people', () => {
  overUniverses(random, 1, (engine) => {
    const lists = new ListsEngine(engine);
    expect(() => lists.recordsFor(emptyTape('deals'), [], {}, 'people', CHOICES[0])).toThrow(
      'by function of deals',
    );
    expect(() => lists.recordsFor(emptyTape(), [], {}, 'sites', CHOICES[0])).toThrow('for sites');
  });
});
