import { daysOf } from '../tape/dates.ts';
import type { DateTest } from '../tape/nodes.ts';
import { noBits } from './bits.ts';
import { NO_DAY, type DateColumn } from './columns.ts';
import type { Verdict } from './verdict.ts';

export function testDate(column: DateColumn, test: DateTest, asOf: number, size: number): Verdict {
  const limits = daysOf(test, asOf);
  const from = limits.from ?? -0x7fffffff;
  const to = limits.to ?? 0x7fffffff;
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const day = column.days[r]!;
    if (day === NO_DAY) unknown[r >> 5]! |= 1 << (r & 31);
    else if (day >= from && day <= to) yes[r >> 5]! |= 1 << (r & 31);
  }
  return { yes, unknown };
}
