import { setBit, hasBit, noBits, type Bits } from './bits.ts';
import type { SmallNumbers } from './columns.ts';
import { NOBODY, type Links } from './links.ts';

/** Records with those of their groups. `groups` has 0 where there is no group. */
export function withGroups(records: Bits, groups: SmallNumbers): Bits {
  const among = new Set<number>();
  for (let r = 0; r < groups.length; r++) if (groups[r] !== 0 && hasBit(records, r)) among.add(groups[r]!);
  const all = records.slice();
  if (among.size > 0) for (let r = 0; r < groups.length; r++) if (among.has(groups[r]!)) setBit(all, r);
  return all;
}

/** Records that hang on any of some companies. */
export function hangingOnSome({ starts, companies }: Links, some: Bits): Bits {
  const size = starts ? starts.length - 1 : companies.length;
  const hanging = noBits(size);
  for (let r = 0; r < size; r++) {
    const end = starts ? starts[r + 1]! : r + 1;
    for (let i = starts ? starts[r]! : r; i < end; i++)
      if (companies[i] !== NOBODY && hasBit(some, companies[i]!)) {
        setBit(hanging, r);
        break;
      }
  }
  return hanging;
}
