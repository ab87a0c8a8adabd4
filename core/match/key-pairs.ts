/** Bits by which pairs are sorted at a time. */
const DIGIT = 11;
const DIGITS = 1 << DIGIT;

/** Pairs of a key and a company, gathered in any number, then sorted by key; those of one key stay in the order they came in. */
export class KeyPairs {
  private keys = new Uint32Array(1 << 16);
  private companies = new Uint32Array(1 << 16);
  length = 0;

  push(key: number, company: number): void {
    if (this.length === this.keys.length) {
      this.keys = grown(this.keys);
      this.companies = grown(this.companies);
    }
    this.keys[this.length] = key;
    this.companies[this.length++] = company;
  }

  /** The pairs, sorted by radix from the lowest digit up; nothing can be pushed any more. */
  sorted(): { keys: Uint32Array; companies: Uint32Array } {
    const { length } = this;
    let [keys, companies] = [this.keys, this.companies];
    let [otherKeys, otherCompanies] = [new Uint32Array(length), new Uint32Array(length)];
    for (let shift = 0; shift < 32; shift += DIGIT) {
      const starts = new Uint32Array(DIGITS + 1);
      for (let i = 0; i < length; i++) starts[((keys[i]! >>> shift) & (DIGITS - 1)) + 1]!++;
      for (let d = 1; d <= DIGITS; d++) starts[d]! += starts[d - 1]!;
      for (let i = 0; i < length; i++) {
        const at = starts[(keys[i]! >>> shift) & (DIGITS - 1)]!++;
        otherKeys[at] = keys[i]!;
        otherCompanies[at] = companies[i]!;
      }
      [keys, otherKeys] = [otherKeys, keys];
      [companies, otherCompanies] = [otherCompanies, companies];
    }
    return { keys: keys.subarray(0, length), companies: companies.subarray(0, length) };
  }
}

function grown(array: Uint32Array<ArrayBuffer>): Uint32Array<ArrayBuffer> {
  const larger = new Uint32Array(array.length * 2);
  larger.set(array);
  return larger;
}
