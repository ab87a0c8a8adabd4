import { isBlock, isHas, isLive, type FieldLine, type ListTest, type Tape } from '../tape/nodes.ts';

/** The list that a tape stands on: its first line that keeps the members of one list. What is judged is judged there. */
export function listAtHand(tape: Pick<Tape, 'lines'>): { line: FieldLine; list: string } | null {
  for (const line of tape.lines) {
    if (isBlock(line) || isHas(line) || line.field !== 'list' || line.not || !isLive(line)) continue;
    const { any } = line.test as ListTest;
    if (any.length === 1) return { line, list: any[0]! };
  }
  return null;
}
