import type { EitherBlock, Leaf, PlaceTest } from './nodes.ts';
import { isHas } from './nodes.ts';

/**
 * "In Brno, at any site" in plain lines: the head office lies there, or a site does. Null for all other lines. Counting and SQL
 * both take it apart so.
 */
export function atAnySite(line: Leaf): Pick<EitherBlock, 'either'> | null {
  if (isHas(line) || line.field !== 'place' || (line.test as PlaceTest).site !== 'any') return null;
  const { site: _, ...test } = line.test as PlaceTest;
  const { id, fresh } = line;
  const head = { id, field: 'place', test, ...(fresh === undefined ? {} : { fresh }) };
  return { either: [head, { id, has: 'sites', lines: [head] }] };
}
