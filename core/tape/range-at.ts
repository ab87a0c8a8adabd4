import type { NumberTest } from './nodes.ts';
import { Problem } from './problem.ts';
import { wrong } from './shapes.ts';

/** Checks the limits of a range, both ends in; one may be left out. @throws Problem */
export function rangeAt(raw: Record<string, unknown>, at: string): NumberTest {
  const end = (key: 'from' | 'to') => {
    const value = raw[key];
    if (value !== undefined && (typeof value !== 'number' || !Number.isFinite(value)))
      throw wrong(`${at}.${key}`, value, 'a number');
    return value;
  };
  const from = end('from');
  const to = end('to');
  if (from === undefined && to === undefined) throw wrong(at, raw, 'at least one of from and to');
  if (from !== undefined && to !== undefined && from > to)
    throw new Problem('reversed-range', `The range is reversed: from ${from} is above to ${to}.`, {
      field: at,
      value: { from, to },
      rule: 'from must not be above to',
    });
  return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
}
