import { addLines, joinLines } from './edit.ts';
import {
  isBlock,
  isHas,
  type CategoryTest,
  type CodesTest,
  type FieldLine,
  type Line,
  type PlaceTest,
  type Tape,
  type Test,
} from './nodes.ts';

/** How lines come onto a tape: beside the others, as a branch of the last, or as further choices of the line that asks the like. */
export type Joint = 'and' | 'or' | 'also';

/** The tape with some lines put on it. @throws Problem where a *not* block would be joined */
export function putLines(tape: Tape, lines: readonly Line[], joint: Joint): Tape {
  const last = tape.lines.at(-1);
  if (joint === 'or' && last) return joinLines(tape, last.id, lines);
  if (joint === 'also') return lines.reduce((so, line) => alsoLine(so, line) ?? addLines(so, [line]), tape);
  return addLines(tape, lines);
}

/**
 * The tape where a line's choices are also let through by the last line on the same field: its values join that line's own, or
 * where their tests do not go together the two become an either-block. Null where the tape has no line on the field that keeps.
 */
export function alsoLine(tape: Tape, line: Line): Tape | null {
  if (isBlock(line) || isHas(line) || line.not) return null;
  const at = tape.lines.findLast((one): boolean =>
    isBlock(one)
      ? !one.not && !one.parked && one.either.every((branch) => onField(branch, line.field))
      : !one.parked && onField(one, line.field),
  );
  if (!at) return null;
  if (isBlock(at) || isHas(at)) return joinLines(tape, at.id, [line]);
  const test = joinedTest(at.test, line.test);
  if (!test || at.fresh !== line.fresh) return joinLines(tape, at.id, [line]);
  return { ...tape, lines: tape.lines.map((one) => (one === at ? { ...at, test } : one)) };
}

function onField(line: Line, field: string): line is FieldLine {
  return !isBlock(line) && !isHas(line) && line.field === field && !line.not;
}

/** A test that asks any of what two ask, or null where no one test says that. */
function joinedTest(one: Test, other: Test): Test | null {
  if ('scheme' in one && 'scheme' in other) return joinedCodes(one, other);
  if (PLACE_NAMES.some((kind) => kind in one) && PLACE_NAMES.some((kind) => kind in other))
    return joinedPlaces(one as PlaceTest, other as PlaceTest);
  const [a, b] = [one as CategoryTest, other as CategoryTest];
  if (Array.isArray(a.any) && Array.isArray(b.any) && onlyAny(a) && onlyAny(b))
    return { any: union(a.any, b.any) };
  return null;
}

function onlyAny(test: object): boolean {
  return Object.keys(test).every((key) => key === 'any');
}

function joinedCodes(one: CodesTest, other: CodesTest): CodesTest | null {
  const same = one.scheme === other.scheme && (other.rank === undefined || one.rank === other.rank);
  if (!same || one.except || other.except || (other.kin !== undefined && one.kin !== other.kin)) return null;
  return { ...one, any: union(one.any, other.any) };
}

const PLACE_NAMES = ['countries', 'regions', 'towns', 'metro', 'postcodes'] as const;

function joinedPlaces(one: PlaceTest, other: PlaceTest): PlaceTest | null {
  const named = (test: PlaceTest) =>
    Object.keys(test).every((key) => key === 'site' || PLACE_NAMES.some((kind) => kind === key));
  if (!named(one) || !named(other) || (one.site ?? 'head') !== (other.site ?? 'head')) return null;
  const joined: Record<string, unknown> = { ...one };
  for (const kind of PLACE_NAMES) if (other[kind]) joined[kind] = union(one[kind] ?? [], other[kind]);
  return joined;
}

function union(one: readonly string[], other: readonly string[]): string[] {
  return [...new Set([...one, ...other])];
}
