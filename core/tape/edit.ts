import { isBlock, passesUnknown, type EitherBlock, type FieldLine, type Line, type Tape } from './nodes.ts';
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
function branchesOf(line: Line): FieldLine[] {
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

/** Puts the lines of a part at the end of a tape, under ids that are free there. */
export function putPart(tape: Tape, part: Tape): Tape {
  let whole = tape;
  for (const line of part.lines) {
    const id = freeId(whole);
    const named: Line = isBlock(line)
      ? { ...line, id, either: line.either.map((branch, i) => ({ ...branch, id: `${id}-${i + 1}` })) }
      : { ...line, id };
    whole = addLines(whole, [named]);
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
  const taken = new Set(
    tape.lines.flatMap((line) =>
      isBlock(line) ? [line.id, ...line.either.map((branch: FieldLine) => branch.id)] : [line.id],
    ),
  );
  for (let n = 1; ; n++) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`;
}
