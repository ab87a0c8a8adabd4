import { parseSpan } from '../dates.ts';
import { wrong } from './shapes.ts';

/** Checks a span back from the as-of date. @throws Problem */
export function spanAt(value: unknown, at: string): string {
  if (typeof value !== 'string' || !parseSpan(value)) throw wrong(at, value, 'a span such as "24 months"');
  return value;
}
