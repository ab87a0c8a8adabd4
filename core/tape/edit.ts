import { isBlock, type FieldLine, type Line, type Tape } from './nodes.ts';

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
