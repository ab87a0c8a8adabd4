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

/** Records that hang on some companies, of those that hang on one each; null where they may hang on several. */
export function hangingOnSome({ starts, companies }: Links, some: Bits): Bits | null {
  if (starts !== null) return null;
  const hanging = noBits(companies.length);
  for (let r = 0; r < companies.length; r++)
    if (companies[r] !== NOBODY && hasBit(some, companies[r]!)) setBit(hanging, r);
  return hanging;
}
