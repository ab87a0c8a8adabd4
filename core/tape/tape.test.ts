import { describe, expect, test } from '@jest/globals';
import { dayOf, isoOf, monthsBefore } from '../dates.ts';
import { fold } from '../text/fold.ts';
import { daysOf } from './dates.ts';
import { addLines, freeId, moveLine, removeLine, toggleMark, toggleUnknown } from './edit.ts';
import { emptyTape, passesUnknown, type FieldLine } from './nodes.ts';
import { readFigure, readRange, spellFigure } from './typed/figures.ts';
import { parseWords } from './words-query.ts';

describe('words', () => {
  const term = (word: string, prefix = false) => ({ kind: 'term', words: [word], prefix });
  test('not binds tightest, then and, then or; words side by side mean and', () => {
    expect(parseWords('oak or stair not kitchen')).toEqual({
      kind: 'or',
      parts: [term('oak'), { kind: 'and', parts: [term('stair'), { kind: 'not', part: term('kitchen') }] }],
    });
    expect(parseWords('(oak or ash) stair*')).toEqual({
      kind: 'and',
      parts: [{ kind: 'or', parts: [term('oak'), term('ash')] }, term('stair', true)],
    });
  });
  test('accents and case do not matter', () => {
    expect(parseWords('"Größe ŁÓDŹ"')).toEqual({ kind: 'term', words: ['grosse', 'lodz'], prefix: false });
    expect(fold('Œuvre Æro Dřevo')).toBe('oeuvre aero drevo');
  });
  test.each([
    ['oak and', 'After “oak and” came the end; expected a word.'],
    ['(oak', 'After “( oak” came the end; expected a closing bracket.'],
    ['or oak', 'At the start came "or"; expected a word.'],
    ['oak "stair', 'cannot be read'],
  ])('%s says what was read and what was expected', (text, message) => {
    expect(() => parseWords(text)).toThrow(message);
  });
});

describe('typed figures', () => {
  test.each([
    ['2.5m', 2_500_000],
    ['2.3m', 2_300_000],
    ['500k', 500_000],
    ['1,500', 1500],
    ['1bn', 1e9],
    ['1e3', 1000],
  ])('%s', (text, value) => {
    expect(readFigure(text)).toBe(value);
    expect(readFigure(spellFigure(value))).toBe(value);
  });
  test.each([
    ['20-249', { from: 20, to: 249 }],
    ['20 to 249', { from: 20, to: 249 }],
    ['2m..40m eur', { from: 2e6, to: 4e7 }],
    ['50+', { from: 50 }],
    ['at least 50', { from: 50 }],
    ['up to 9', { to: 9 }],
    ['12', { from: 12, to: 12 }],
  ])('%s is a range', (text, range) => {
    expect(readRange(text)?.test).toEqual(range);
  });
  test('what is no range is none', () => expect(readRange('fifty')).toBeNull());
});

describe('dates', () => {
  const asOf = dayOf('2026-09-30')!;
  const days = (test: Parameters<typeof daysOf>[0]) => {
    const { from, to } = daysOf(test, asOf);
    return [from === null ? null : isoOf(from), to === null ? null : isoOf(to)];
  };
  test('rolling spans end on the as-of date, years are calendar years', () => {
    expect(days({ past: '12 months' })).toEqual(['2025-09-30', '2026-09-30']);
    expect(days({ past: '90 days' })).toEqual(['2026-07-02', '2026-09-30']);
    expect(days({ year: 'last' })).toEqual(['2025-01-01', '2025-12-31']);
    expect(days({ from: '2026-01-01' })).toEqual(['2026-01-01', null]);
  });
  test('a month that is too short gives its last day', () => {
    expect(isoOf(monthsBefore(dayOf('2026-05-31')!, 3))).toBe('2026-02-28');
    expect(dayOf('2026-02-30')).toBeNull();
  });
});

test('edits leave the tape they are given as it was', () => {
  const line = (id: string): FieldLine => ({ id, field: 'headcount', test: { from: 1 } });
  const tape = addLines(emptyTape(), [line('l1'), line('l2'), line('l3')]);
  expect(moveLine(tape, 'l3', 0).lines.map(({ id }) => id)).toEqual(['l3', 'l1', 'l2']);
  expect(removeLine(tape, 'l2').lines.map(({ id }) => id)).toEqual(['l1', 'l3']);
  expect(tape.lines.map(({ id }) => id)).toEqual(['l1', 'l2', 'l3']);
  expect(freeId(tape)).toBe('l4');
  expect(toggleMark(toggleMark(line('l1'), 'must'), 'must')).toEqual(line('l1'));
  for (const start of [line('l1'), toggleMark(line('l1'), 'not')]) {
    const turned = toggleUnknown(start);
    expect(passesUnknown(turned)).toBe(!passesUnknown(start));
    expect(toggleUnknown(turned)).toEqual(start);
  }
});
