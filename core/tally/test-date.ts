import { daysOf } from '../tape/dates.ts';
import type { DateTest } from '../tape/nodes.ts';
import { noBits } from './bits.ts';
import { NO_DAY, type DateColumn } from './columns.ts';
import type { Verdict } from './verdict.ts';

export function testDate({ days }: DateColumn, test: DateTest, asOf: number, size: number): Verdict {
  const limits = daysOf(test, asOf);
  const from = limits.from ?? -0x7fffffff;
  const to = limits.to ?? 0x7fffffff;
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let w = 0, r = 0; r < size; w++) {
    const end = Math.min(size, r + 32);
    let yesWord = 0;
    let unknownWord = 0;
    for (let bit = 1; r < end; r++, bit <<= 1) {
      const day = days[r]!;
      if (day >= from && day <= to) yesWord |= bit;
      else if (day === NO_DAY) unknownWord |= bit;
    }
    yes[w] = yesWord;
    unknown[w] = unknownWord;
  }
  return { yes, unknown };
}
