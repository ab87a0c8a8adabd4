/** A set of records as bits, 32 a word; record r is bit r & 31 of word r >> 5. Bits beyond the last record stay 0. */
export type Bits = Uint32Array;

/** Words of a set over `size` records; at least one. */
export function wordsFor(size: number): number {
  return Math.max(1, Math.ceil(size / 32));
}

/** An empty set over `size` records. */
export function noBits(size: number): Bits {
  return new Uint32Array(wordsFor(size));
}

/** The set of all `size` records. */
export function allBits(size: number): Bits {
  const bits = noBits(size);
  bits.fill(0xffffffff, 0, size >> 5);
  if (size & 31) bits[size >> 5] = (2 ** (size & 31) - 1) >>> 0;
  return bits;
}

/** The records that are not in a set. */
export function notBits(bits: Bits, size: number): Bits {
  const others = allBits(size);
  for (let w = 0; w < others.length; w++) others[w]! &= ~bits[w]!;
  return others;
}

/** Adds the records of another set to a set. */
export function addBits(bits: Bits, others: Bits): void {
  for (let w = 0; w < bits.length; w++) bits[w]! |= others[w]!;
}

/** Takes the records of another set out of a set. */
export function dropBits(bits: Bits, others: Bits): void {
  for (let w = 0; w < bits.length; w++) bits[w]! &= ~others[w]!;
}

/** Leaves only what is in another set too. */
export function keepBits(bits: Bits, others: Bits): void {
  for (let w = 0; w < bits.length; w++) bits[w]! &= others[w]!;
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

/** Number of set bits of four words: their counts by nibble are summed before they are folded, which nearly halves the work. */
export function popcountOfFour(a: number, b: number, c: number, d: number): number {
  a -= (a >>> 1) & 0x55555555;
  b -= (b >>> 1) & 0x55555555;
  c -= (c >>> 1) & 0x55555555;
  d -= (d >>> 1) & 0x55555555;
  a = (a & 0x33333333) + ((a >>> 2) & 0x33333333) + (b & 0x33333333) + ((b >>> 2) & 0x33333333);
  c = (c & 0x33333333) + ((c >>> 2) & 0x33333333) + (d & 0x33333333) + ((d >>> 2) & 0x33333333);
  a = (a & 0x0f0f0f0f) + ((a >>> 4) & 0x0f0f0f0f) + (c & 0x0f0f0f0f) + ((c >>> 4) & 0x0f0f0f0f);
  return Math.imul(a, 0x01010101) >>> 24;
}

export function countBits(bits: Bits): number {
  const fours = bits.length & ~3;
  let count = 0;
  let w = 0;
  for (; w < fours; w += 4) count += popcountOfFour(bits[w]!, bits[w + 1]!, bits[w + 2]!, bits[w + 3]!);
  for (; w < bits.length; w++) count += popcount(bits[w]!);
  return count;
}

export function isEmpty(bits: Bits): boolean {
  for (let w = 0; w < bits.length; w++) if (bits[w] !== 0) return false;
  return true;
}

/** How many records are in both sets. */
export function countBoth(a: Bits, b: Bits): number {
  const fours = a.length & ~3;
  let count = 0;
  let w = 0;
  for (; w < fours; w += 4)
    count += popcountOfFour(
      a[w]! & b[w]!,
      a[w + 1]! & b[w + 1]!,
      a[w + 2]! & b[w + 2]!,
      a[w + 3]! & b[w + 3]!,
    );
  for (; w < a.length; w++) count += popcount(a[w]! & b[w]!);
  return count;
}

/** Writes what is in both sets to `into`, which may be one of them, and counts it. */
export function intersect(into: Bits, a: Bits, b: Bits): number {
  const fours = a.length & ~3;
  let count = 0;
  let w = 0;
  for (; w < fours; w += 4) {
    const first = a[w]! & b[w]!;
    const second = a[w + 1]! & b[w + 1]!;
    const third = a[w + 2]! & b[w + 2]!;
    const fourth = a[w + 3]! & b[w + 3]!;
    into[w] = first;
    into[w + 1] = second;
    into[w + 2] = third;
    into[w + 3] = fourth;
    count += popcountOfFour(first, second, third, fourth);
  }
  for (; w < a.length; w++) {
    const word = a[w]! & b[w]!;
    into[w] = word;
    count += popcount(word);
  }
  return count;
}

/** The records of a set, ascending. */
export function recordsOf(bits: Bits): Uint32Array {
  const records = new Uint32Array(countBits(bits));
  let at = 0;
  for (let w = 0; w < bits.length; w++) {
    let word = bits[w]!;
    while (word !== 0) {
      const low = word & -word;
      records[at++] = (w << 5) + 31 - Math.clz32(low);
      word ^= low;
    }
  }
  return records;
}
