/** Runs checks one after the other, says how each ended, and counts them. */
export class Harness {
  passed = 0;
  failed = 0;
  skipped = 0;
  /** Figures to be read by people, by name. */
  readonly figures: [string, string][] = [];
  private readonly start = Date.now();

  /** Runs a check; an error thrown is its failure, and the others go on. */
  async check(name: string, work: () => Promise<void> | void): Promise<void> {
    const start = Date.now();
    try {
      await work();
      this.passed++;
      console.log(`  ✓ ${name} (${((Date.now() - start) / 1000).toFixed(1)} s)`);
    } catch (error) {
      if (error instanceof Skipped) {
        this.skipped++;
        console.log(`  - ${name}: left out, ${error.message}`);
        return;
      }
      this.failed++;
      console.log(`  ✗ ${name}\n      ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  figure(name: string, value: string): void {
    this.figures.push([name, value]);
  }

  /** Says all figures and the total, which is the last line. */
  end(): void {
    console.log();
    for (const [name, value] of this.figures) console.log(`  ${name}: ${value}`);
    console.log(
      `\nFaults: ${this.passed} passed, ${this.failed} failed, ${this.skipped} left out, in ${((Date.now() - this.start) / 1000).toFixed(0)} s`,
    );
  }
}

/** Thrown where a check cannot be made on this machine, saying why. */
export class Skipped extends Error {}

/** @throws Error saying what was found, unless the claim holds */
export function hold(claim: boolean, otherwise: string): asserts claim {
  if (!claim) throw new Error(otherwise);
}

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32, Tommy Ettinger 2017, public domain). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}
