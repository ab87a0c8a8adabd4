/** Which records a run kept, by their numbers in the universe, which are never given to another record. */

/** What parts two runs: records ascending that only the second has, that only the first had, and that both have. */
export interface MemberChanges {
  joined: Uint32Array;
  left: Uint32Array;
  stayed: Uint32Array;
}

const HEAD = 4;

/**
 * Numbers as a set of bits: the number of the first byte that is not empty, in four bytes, then one bit a number. A
 * million neighbours take 125 kB. @param ids ascending
 */
export function packIds(ids: Uint32Array): Uint8Array {
  if (ids.length === 0) return new Uint8Array(HEAD);
  const first = ids[0]! >>> 3;
  const packed = new Uint8Array(HEAD + (ids[ids.length - 1]! >>> 3) - first + 1);
  new DataView(packed.buffer).setUint32(0, first, true);
  for (let i = 0; i < ids.length; i++) packed[HEAD + (ids[i]! >>> 3) - first]! |= 1 << (ids[i]! & 7);
  return packed;
}

/** The numbers of a set that `packIds` made, ascending. */
export function unpackIds(packed: Uint8Array): Uint32Array {
  const first = new DataView(packed.buffer, packed.byteOffset).getUint32(0, true);
  let count = 0;
  for (let b = HEAD; b < packed.length; b++)
    for (let byte = packed[b]!; byte !== 0; byte &= byte - 1) count++;
  const ids = new Uint32Array(count);
  let at = 0;
  for (let b = HEAD; b < packed.length; b++)
    for (let bit = 0, byte = packed[b]!; byte !== 0; bit++, byte >>>= 1)
      if (byte & 1) ids[at++] = (first + b - HEAD) * 8 + bit;
  return ids;
}

/** What parts two runs. @param before and `after` ascending */
export function changesOfMembers(before: Uint32Array, after: Uint32Array): MemberChanges {
  const joined = new Uint32Array(after.length);
  const left = new Uint32Array(before.length);
  const stayed = new Uint32Array(Math.min(before.length, after.length));
  const size = { joined: 0, left: 0, stayed: 0 };
  let [b, a] = [0, 0];
  while (b < before.length || a < after.length) {
    const [was, is] = [before[b] ?? Infinity, after[a] ?? Infinity];
    if (was === is) {
      stayed[size.stayed++] = was;
      b++;
      a++;
    } else if (was < is) left[size.left++] = before[b++]!;
    else joined[size.joined++] = after[a++]!;
  }
  return {
    joined: joined.slice(0, size.joined),
    left: left.slice(0, size.left),
    stayed: stayed.slice(0, size.stayed),
  };
}

/** The members after some changes. */
export function changed(
  before: Uint32Array,
  { joined, left }: Pick<MemberChanges, 'joined' | 'left'>,
): Uint32Array {
  const gone = new Set(left);
  const now = [...before.filter((id) => !gone.has(id)), ...joined];
  return Uint32Array.from(now).sort();
}
