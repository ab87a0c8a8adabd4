import { daysOf } from '../tape/dates.ts';
import type { DateTest } from '../tape/nodes.ts';
import { noBits, notBits } from './bits.ts';
import type { DateColumn } from './columns.ts';
import { addRecords, dropRecords } from './sorted.ts';
import type { Verdict } from './verdict.ts';

export function testDate(
  { days, records, undated }: DateColumn,
  test: DateTest,
  asOf: number,
  size: number,
): Verdict {
  const { from, to } = daysOf(test, asOf);
  const yes = noBits(size);
  const first = from === undefined || from === null ? 0 : firstDay(days, records, from);
  const end = to === undefined || to === null ? records.length : firstDay(days, records, to + 1);
  if (2 * (end - first) <= records.length) addRecords(yes, records, first, end);
  else {
    yes.set(notBits(undated, size));
    dropRecords(yes, records, 0, first);
    dropRecords(yes, records, end, records.length);
  }
  return { yes, unknown: undated };
}

/** The first position in order of days that is not before `day`. */
function firstDay(days: Int32Array, records: Uint32Array, day: number): number {
  let low = 0;
  let high = records.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (days[records[middle]!]! < day) low = middle + 1;
    else high = middle;
  }
  return low;
}
