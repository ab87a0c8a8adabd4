import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEPARTMENTS } from '../fields/companies/making.ts';
import { LEVELS } from '../fields/people.ts';
import { ownColumnOf, rightColumn } from '../tape/own-columns.ts';
import { MOST_FUNCTIONS, READY_RIGHT_PEOPLE, readFunctions, spellFunctions } from './functions.ts';

const aWord = fc
  .string({ minLength: 1, maxLength: 12 })
  .filter((word) => word.trim() === word && !word.includes('"'));
const aFunction = fc.record(
  {
    department: fc.constantFrom(...DEPARTMENTS),
    levels: fc.uniqueArray(fc.constantFrom(...LEVELS), { minLength: 1 }),
    title: fc.array(aWord, { minLength: 1, maxLength: 3 }),
  },
  { requiredKeys: [] },
);

describe('functions', () => {
  test('are read as people write them', () => {
    expect(readFunctions('production head, else "technical", else owner')).toEqual([
      { department: 'production', levels: ['head'] },
      { title: ['technical'] },
      { levels: ['owner'] },
    ]);
    expect(readFunctions('Sales Head or Director else anybody')).toEqual([
      { department: 'sales', levels: ['head', 'director'] },
      {},
    ]);
  });

  test('come back from how they are spelled, also as a column', () => {
    fc.assert(
      fc.property(fc.array(aFunction, { minLength: 1, maxLength: MOST_FUNCTIONS }), (functions) => {
        expect(readFunctions(spellFunctions(functions))).toEqual(functions);
        const column = rightColumn('mail', functions);
        expect(ownColumnOf({ subject: 'companies', lines: [] }, column)).toMatchObject({
          part: 'mail',
          functions,
        });
      }),
    );
  });

  test('that say nothing known are refused by the word', () => {
    expect(() => readFunctions('production boss, else owner')).toThrow(
      '“boss” is no department, level or title',
    );
    expect(() => readFunctions(Array(11).fill('owner').join(', else '))).toThrow('At most 10');
  });

  test('a ready choice has a name of its own', () => {
    const labels = [...READY_RIGHT_PEOPLE.values()].map(({ label }) => label);
    expect(new Set(labels).size).toBe(labels.length);
  });
});

describe('a column of the right person', () => {
  test('is of companies, and spelled in one way', () => {
    const of = (subject: string, column: string) => ownColumnOf({ subject, lines: [] }, column);
    expect(of('companies', 'right:name:owner')).toMatchObject({ kind: 'right', label: 'Name, owner' });
    expect(of('companies', 'right:name:owner, else director')).toMatchObject({ label: 'Name, owner …' });
    expect(of('people', 'right:name:owner')).toBeUndefined();
    expect(of('companies', 'right:name:OWNER')).toBeUndefined();
    expect(of('companies', 'right:salary:owner')).toBeUndefined();
    expect(of('companies', 'right:name:nonsense')).toBeUndefined();
  });
});
