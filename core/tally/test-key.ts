import { isBlock, isHas, type Line } from '../tape/nodes.ts';

/** A line within another, as what the outer one depends on. */
export function marked(line: Line): unknown[] {
  return [testKey(line), line.not, line.parked, line.unknown];
}

/** What a line's verdict, before its own *not* and policy, depends on, as text: its id is left out. */
export function testKey(line: Line): string {
  if (isBlock(line)) return `either ${JSON.stringify(line.either.map(marked))}`;
  if (isHas(line))
    return `has ${line.has} ${line.as ?? ''} ${JSON.stringify([line.count, line.lines.map(marked)])}`;
  return `${line.field} ${line.estimates ? '≈' : ''} ${line.fresh ?? ''} ${JSON.stringify(line.test)}`;
}
