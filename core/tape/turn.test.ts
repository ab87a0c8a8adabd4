import { describe, expect, test } from '@jest/globals';
import { holderOf, lineOf, editLine, putPart } from './edit.ts';
import { emptyTape, type HasLine, type Line, type Tape } from './nodes.ts';
import { relatedTape, subjectWithin, turnRound } from './turn.ts';

const status = (id: string): Line => ({ id, field: 'status', test: { any: ['active'] } });
const level = (id: string): Line => ({ id, field: 'level', test: { any: ['director'] } });
const on = (subject: string, lines: Line[]): Tape => ({ ...emptyTape(subject), lines });

describe('a tape turned round', () => {
  test('keeps what it asks inside, and is taken out of it again', () => {
    const companies = on('companies', [status('x'), { id: 'y', has: 'deals', as: 'target', lines: [] }]);
    const people = turnRound(companies, 'people');
    expect(people).toEqual(
      on('people', [
        {
          id: 'l1',
          has: 'company',
          lines: [status('l1-1'), { id: 'l1-2', has: 'deals', as: 'target', lines: [] }],
        },
      ]),
    );
    expect(turnRound(people, 'companies')).toEqual(
      on('companies', [status('l1'), { id: 'l2', has: 'deals', as: 'target', lines: [] }]),
    );
  });

  test('asks of companies what their people must be, and leads from people to deals by way of companies', () => {
    const people = on('people', [{ id: 'a', has: 'company', lines: [status('b')] }, level('c')]);
    const companies = turnRound(people, 'companies');
    expect(companies.lines).toEqual([status('l1'), { id: 'l2', has: 'people', lines: [level('l2-1')] }]);
    expect(turnRound(people, 'deals').lines).toEqual([
      {
        id: 'l1',
        has: 'company',
        lines: [status('l1-1'), { id: 'l1-2', has: 'people', lines: [level('l1-2-1')] }],
      },
    ]);
    // Without lines, the companies of people are those that have any.
    expect(turnRound(on('people', []), 'companies').lines).toEqual([{ id: 'l1', has: 'people', lines: [] }]);
    expect(turnRound(on('companies', []), 'people').lines).toEqual([]);
  });

  test('a has-line that may not be taken out stays one', () => {
    const not: HasLine = { id: 'a', not: true, has: 'company', lines: [status('b')] };
    expect(turnRound(on('people', [not]), 'companies').lines).toEqual([
      { id: 'l1', has: 'people', lines: [{ ...not, id: 'l1-1', lines: [status('l1-1-1')] }] },
    ]);
  });

  test('is refused where it would stand three deep', () => {
    const deep: Line = { id: 'a', has: 'deals', lines: [{ id: 'b', has: 'company', lines: [status('c')] }] };
    expect(() => turnRound(on('companies', [deep]), 'people')).toThrow('three deep');
  });
});

test('the records behind a number are a tape of their own', () => {
  const line: HasLine = { id: 'l9', has: 'deals', as: 'buyer', count: { from: 2 }, lines: [status('x')] };
  expect(relatedTape(line, 'CZ-1').lines).toEqual([
    {
      id: 'l1',
      has: 'company',
      as: 'buyer',
      lines: [{ id: 'l1-1', field: 'company', test: { any: ['CZ-1'] } }],
    },
    status('l2'),
  ]);
});

test('lines are found, edited and taken off at any depth', () => {
  const tape = on('companies', [
    { id: 'a', either: [{ id: 'b', has: 'people', lines: [level('c')] }, status('d') as never] },
  ]);
  expect(lineOf(tape, 'c')).toEqual(level('c'));
  expect(holderOf(tape, 'c')!.id).toBe('b');
  expect(holderOf(tape, 'b')).toBeUndefined();
  expect(subjectWithin(tape, 'b')).toBe('people');
  const without = editLine(tape, 'c', () => null);
  expect(lineOf(without, 'b')).toEqual({ id: 'b', has: 'people', lines: [] });
  expect(
    editLine(
      editLine(tape, 'b', () => null),
      'd',
      () => null,
    ).lines,
  ).toEqual([]);
});

test('a part on companies stands in a has-line where the tape counts something else', () => {
  const part = on('companies', [status('p')]);
  expect(putPart(on('people', [level('l1')]), part).lines).toEqual([
    level('l1'),
    { id: 'l2', has: 'company', lines: [status('l2-1')] },
  ]);
  expect(putPart(on('companies', []), on('people', [level('p')])).lines).toEqual([
    { id: 'l1', has: 'people', lines: [level('l1-1')] },
  ]);
  expect(() => putPart(on('deals', []), on('people', [level('p')]))).toThrow('does not hang on the other');
});
