import type { WordedLine } from '../../contract/responses.ts';
import { isBlock, isHas, type Line } from '../../core/tape/nodes.ts';

/** Lines in words with all that they are made of, at any depth, by id. */
export function wordedById(lines: readonly (WordedLine & { id: string })[]): Map<string, WordedLine> {
  const found = new Map<string, WordedLine>();
  const walk = (some: readonly (WordedLine & { id: string })[]) => {
    for (const line of some) {
      found.set(line.id, line);
      walk(line.inner ?? []);
    }
  };
  walk(lines);
  return found;
}

/** What a line is called until its words have come. */
export function nameOf(line: Line): string {
  return isBlock(line) ? 'Either' : isHas(line) ? `Has ${line.has}` : line.field;
}
