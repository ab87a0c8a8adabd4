import { stepOf, type Field } from '../fields/field.ts';
import type { NumberTest } from '../tape/nodes.ts';

/**
 * The range that each bar takes, as a line asks it: both ends included. A bar ends a step before the next begins. The first
 * bar has no beginning and the last no end. What is counted in a bar, and what a press on it leaves, both come from here.
 */
export function barRanges(field: Pick<Field, 'kind' | 'unit'>, edges: readonly number[]): NumberTest[] {
  const step = stepOf(field);
  return edges.map((from, i) => {
    const next = edges[i + 1];
    return {
      ...(i === 0 && edges.length > 1 ? {} : { from }),
      ...(next === undefined ? {} : { to: Number((next - step).toFixed(3)) }),
    };
  });
}
