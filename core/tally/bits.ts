/** A set of records as bits, 32 a word; record r is bit r & 31 of word r >> 5. Bits beyond the last record stay 0. */
export type Bits = Uint32Array;

/** An empty set over `size` records, in memory that threads can share. */
export function noBits(size: number): Bits {
  return new Uint32Array(new SharedArrayBuffer(Math.max(4, Math.ceil(size / 32) * 4)));
}

/** The set of all `size` records. */
export function allBits(size: number): Bits {
  const bits = noBits(size);
  bits.fill(0xffffffff, 0, size >> 5);
  if (size & 31) bits[size >> 5] = (2 ** (size & 31) - 1) >>> 0;
  return bits;
}

export function setBit(bits: Bits, record: number): void {
  bits[record >> 5]! |= 1 << (record & 31);
}

export function hasBit(bits: Bits, record: number): boolean {
  return ((bits[record >> 5]! >>> (record & 31)) & 1) === 1;
}

/** Number of set bits of one word (Hacker's Delight, figure 5-2). */
export function popcount(word: number): number {
  word -= (word >>> 1) & 0x55555555;
  word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
  return Math.imul((word + (word >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

export function countBits(bits: Bits): number {
  let count = 0;
  for (let w = 0; w < bits.length; w++) count += popcount(bits[w]!);
  return count;
}

/** Calls `visit` with each record of the set, ascending. */
export function eachBit(bits: Bits, visit: (record: number) => void): void {
  for (let w = 0; w < bits.length; w++) {
    let word = bits[w]!;
    while (word !== 0) {
      const low = word & -word;
      visit((w << 5) + 31 - Math.clz32(low));
      word ^= low;
    }
  }
}
