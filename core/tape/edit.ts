import { relationsOf } from '../fields/registry.ts';
import {
  isBlock,
  isHas,
  passesUnknown,
  withInner,
  type EitherBlock,
  type HasLine,
  type Leaf,
  type Line,
  type Tape,
} from './nodes.ts';
import { Problem } from './problem.ts';

/** Edits of a tape. Each returns a new tape; the one given stays as it is. */

export function addLines(tape: Tape, lines: readonly Line[]): Tape {
  return { ...tape, lines: [...tape.lines, ...lines] };
}

export function replaceLine(tape: Tape, line: Line): Tape {
  return { ...tape, lines: tape.lines.map((other) => (other.id === line.id ? line : other)) };
}

export function removeLine(tape: Tape, id: string): Tape {
  return { ...tape, lines: tape.lines.filter((line) => line.id !== id) };
}

/** Moves a line to stand where another stands. */
export function moveLine(tape: Tape, id: string, to: number): Tape {
  const from = tape.lines.findIndex((line) => line.id === id);
  if (from < 0 || to < 0 || to >= tape.lines.length) return tape;
  const lines = [...tape.lines];
  lines.splice(to, 0, ...lines.splice(from, 1));
  return { ...tape, lines };
}

/** Branches that a line gives to a block: itself, or its own; what only a whole line can have stays behind. */
function branchesOf(line: Line): Leaf[] {
  if (isBlock(line)) return [...line.either];
  const { must: _must, unknown: _unknown, ...branch } = line;
  return [branch];
}

/**
 * Joins further lines to one of the tape by *or*: they become branches of one block that stands where it stood.
 * The block keeps the line's marks; a line that let unknown records through still does. Joined lines that were on the
 * tape leave their places. A *not* block cannot take branches without turning their sense, so it is refused.
 * @throws Problem where a *not* block is joined
 */
export function joinLines(tape: Tape, id: string, others: readonly Line[]): Tape {
  const target = tape.lines.find((line) => line.id === id);
  const joined = others.filter((line) => line.id !== id);
  if (!target || joined.length === 0) return tape;
  for (const line of [target, ...joined])
    if (isBlock(line) && line.not)
      throw new Problem('not-block', 'A block that takes out cannot be joined; turn it round first (N).', {
        rule: 'lines, or blocks that keep',
      });
  const gone = new Set(joined.map((line) => line.id));
  const left: Tape = { ...tape, lines: tape.lines.filter((line) => !gone.has(line.id)) };
  const { must, parked } = target;
  const blockId = isBlock(target) ? target.id : freeId(tape, 'e');
  const block: EitherBlock = {
    id: blockId,
    ...(must ? { must } : {}),
    ...(parked ? { parked } : {}),
    ...(passesUnknown(target) ? { unknown: 'keep' as const } : {}),
    either: [target, ...joined].flatMap(branchesOf),
  };
  return { ...left, lines: left.lines.map((line) => (line.id === id ? block : line)) };
}

/** A line under another id, with all that it is made of under ids made of that. */
export function renamed<L extends Line>(line: L, id: string): L {
  const within = (lines: readonly Line[]) => lines.map((one, i) => renamed(one, `${id}-${i + 1}`));
  if (isBlock(line)) return { ...line, id, either: within(line.either) };
  if (isHas(line)) return { ...line, id, lines: within(line.lines) };
  return { ...line, id };
}

/** The line of a tape under an id, at any depth. */
export function lineOf(tape: Pick<Tape, 'lines'>, id: string | null): Line | undefined {
  return id === null ? undefined : [...withInner(tape.lines)].find((line) => line.id === id);
}

/**
 * The tape with the line under an id, at any depth, replaced, or taken out for null. A block left without branches goes too;
 * a has-line left without lines asks for any related record.
 */
export function editLine(tape: Tape, id: string, edit: (line: Line) => Line | null): Tape {
  const within = (lines: readonly Line[]): Line[] =>
    lines.flatMap((line): Line[] => {
      if (line.id === id) return [edit(line) ?? []].flat();
      if (isBlock(line)) {
        const either = within(line.either) as Leaf[];
        return either.length ? [{ ...line, either }] : [];
      }
      return isHas(line) ? [{ ...line, lines: within(line.lines) }] : [line];
    });
  return { ...tape, lines: within(tape.lines) };
}

/** The has-line in whose lines a line stands, itself or as a branch; undefined for a line of the tape. */
export function holderOf(tape: Pick<Tape, 'lines'>, id: string): HasLine | undefined {
  return [...withInner(tape.lines)].find(
    (line): line is HasLine =>
      isHas(line) &&
      line.lines.some(
        (one) => one.id === id || (isBlock(one) && one.either.some((branch) => branch.id === id)),
      ),
  );
}

/**
 * Puts lines on a subject at the end of a tape, under ids that are free there. On a tape of another subject they stand in a has-line
 * that looks through to theirs.
 * @throws Problem where the two do not hang on each other
 */
export function putPart(tape: Tape, part: Pick<Tape, 'subject' | 'lines'>): Tape {
  if (part.subject !== tape.subject) {
    const has = [...relationsOf(tape.subject)].find(([, related]) => related.id === part.subject)?.[0];
    if (!has)
      throw new Problem(
        'unknown-subject',
        `These lines are on ${part.subject}, the tape counts ${tape.subject}; the one does not hang on the other.`,
        { rule: 'lines on the same subject, or on companies' },
      );
    return addLines(tape, [renamed({ id: '', has, lines: part.lines }, freeId(tape))]);
  }
  let whole = tape;
  for (const line of part.lines) {
    whole = addLines(whole, [renamed(line, freeId(whole))]);
  }
  return whole;
}

/**
 * Takes a block apart: its branches become lines of their own where it stood, joined by *and* from then on. Those of a block
 * that takes out take out each.
 */
export function splitBlock(tape: Tape, id: string): Tape {
  return {
    ...tape,
    lines: tape.lines.flatMap((line) => {
      if (line.id !== id || !isBlock(line)) return [line];
      return line.not ? line.either.map((branch) => toggleMark(branch, 'not')) : [...line.either];
    }),
  };
}

/** A line with a mark set or taken off. */
export function toggleMark<L extends Line>(line: L, mark: 'not' | 'must' | 'parked'): L {
  const { [mark]: was, ...rest } = line;
  return (was ? rest : { ...rest, [mark]: true }) as L;
}

/** A line with its policy for unknowns turned round. */
export function toggleUnknown<L extends Line>(line: L): L {
  const keeps = line.unknown ? line.unknown === 'keep' : line.not === true;
  const { unknown: _, ...rest } = line;
  const byItself = line.not === true;
  return (byItself === !keeps ? rest : { ...rest, unknown: keeps ? 'drop' : 'keep' }) as L;
}

/** An id that no line of the tape has. */
export function freeId(tape: Tape, stem = 'l'): string {
  const taken = new Set([...withInner(tape.lines)].map((line) => line.id));
  for (let n = 1; ; n++) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`;
}
