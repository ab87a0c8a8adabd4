import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyTape } from '../testing/any-tape.ts';
import { joinLines, putPart, splitBlock } from './edit.ts';
import { emptyTape, isBlock, passesUnknown, type FieldLine, type Line, type Tape } from './nodes.ts';
import { Problem } from './problem.ts';

const line = (id: string, more: Partial<FieldLine> = {}): FieldLine => ({
  id,
  field: 'status',
  test: { any: [id] },
  ...more,
});
const tape = (...lines: Line[]): Tape => ({ ...emptyTape(), lines });
const ids = ({ lines }: Tape) =>
  lines.flatMap((one) => (isBlock(one) ? one.either : [one])).map(({ id }) => id);

describe('lines joined by or', () => {
  test('stand as one block in the place of the first, and keep what it let through', () => {
    const joined = joinLines(tape(line('a'), line('b', { not: true, must: true }), line('c')), 'b', [
      line('c'),
    ]);
    expect(joined.lines).toEqual([
      line('a'),
      { id: 'e1', must: true, unknown: 'keep', either: [line('b', { not: true }), line('c')] },
    ]);
  });
  test('join a block that is there, and come apart again as they were', () => {
    const once = joinLines(tape(line('a'), line('b'), line('c')), 'a', [line('b')]);
    const twice = joinLines(once, 'e1', [line('c')]);
    expect(twice.lines).toHaveLength(1);
    expect(splitBlock(twice, 'e1').lines).toEqual([line('a'), line('b'), line('c')]);
  });
  test('of a block that takes out take out each when it comes apart', () => {
    const block: Line = { id: 'e', not: true, either: [line('x'), line('y', { not: true })] };
    expect(splitBlock(tape(block), 'e').lines).toEqual([line('x', { not: true }), line('y')]);
  });
  test('are refused where a block takes out, whose sense would turn', () => {
    const block: Line = { id: 'e', not: true, either: [line('x'), line('y')] };
    expect(() => joinLines(tape(line('a'), block), 'a', [block])).toThrow(Problem);
  });
  test('lose no branch and change no other line', () => {
    fc.assert(
      fc.property(anyTape, fc.nat(9), fc.nat(9), (whole, a, b) => {
        if (whole.lines.length < 2) return;
        const target = whole.lines[a % whole.lines.length]!;
        const moved = whole.lines[b % whole.lines.length]!;
        if ([target, moved].some((one) => isBlock(one) && one.not)) return;
        const joined = joinLines(whole, target.id, [moved]);
        expect(ids(joined).sort()).toEqual(ids(whole).sort());
        if (target === moved) return expect(joined).toEqual(whole);
        const others = whole.lines.filter((one) => one !== target && one !== moved);
        expect(joined.lines.filter((one) => others.includes(one))).toEqual(others);
        const block = joined.lines.find((one) => !others.includes(one))!;
        expect(passesUnknown(block)).toBe(passesUnknown(target));
      }),
    );
  });
});

test('a part is put at the end under ids that are free', () => {
  fc.assert(
    fc.property(anyTape, anyTape, (whole, part) => {
      const put = putPart(whole, part);
      expect(put.lines.slice(0, whole.lines.length)).toEqual(whole.lines);
      expect(put.lines).toHaveLength(whole.lines.length + part.lines.length);
      const all = put.lines.flatMap((one) => [
        one.id,
        ...(isBlock(one) ? one.either.map(({ id }) => id) : []),
      ]);
      expect(new Set(all).size).toBe(all.length);
    }),
  );
});
