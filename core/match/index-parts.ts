import { indexedKeys, isIdentifier } from './blocking.ts';
import type { ReadyFirm } from './firm.ts';
import { KeyPairs } from './key-pairs.ts';
import { lineOf } from './ready-line.ts';

/**
 * What a FirmIndex looks up, as arrays that can be kept in a file. Companies are named by their places in `ids`.
 *
 *     keys[k] ──► counts[k] companies have it; they are companies[starts[k]] to companies[starts[k + 1] - 1]
 *     company ──► its text is lines[lineAt[company]] to lines[lineAt[company + 1] - 1]
 */
export interface IndexParts {
  /** Ascending. */
  ids: Uint32Array;
  lines: Uint8Array;
  lineAt: Uint32Array;
  /** Ascending. */
  keys: Uint32Array;
  counts: Uint32Array;
  starts: Uint32Array;
  companies: Uint32Array;
}

/** Companies under one key after which it says nothing, unless it is an identifier, of which the first so many count. */
export const CROWDED = 400;
/** Companies that may go, or come, before a universe is looked through anew: what is kept under a key lasts for that many. */
export const MOST_PATCHED = 400;
const KEPT_UNDER_KEY = CROWDED + MOST_PATCHED;

/** Makes the parts of an index from companies that pass by once, in the order of their ids. */
export class IndexBuilder {
  private readonly pairs = new KeyPairs();
  private readonly ids: number[] = [];
  private readonly lineAt: number[] = [0];
  private lines = new Uint8Array(1 << 16);
  private readonly encoder = new TextEncoder();

  add(id: number, key: string, ready: ReadyFirm): void {
    const company = this.ids.length;
    this.ids.push(id);
    this.keep(lineOf(key, ready));
    indexedKeys(ready, (one) => this.pairs.push(one, company));
  }

  private keep(line: string): void {
    const at = this.lineAt.at(-1)!;
    // A letter takes three bytes at most.
    if (at + line.length * 3 > this.lines.length) {
      const larger = new Uint8Array(Math.max(this.lines.length * 2, at + line.length * 3));
      larger.set(this.lines);
      this.lines = larger;
    }
    this.lineAt.push(at + this.encoder.encodeInto(line, this.lines.subarray(at)).written);
  }

  /** Nothing can be added any more. */
  finish(): IndexParts {
    const pairs = this.pairs.sorted();
    const last = pairs.keys.length;
    let [kinds, kept] = [0, 0];
    eachRun(pairs, (_key, run) => {
      kinds++;
      kept += run.kept;
    });
    const keys = new Uint32Array(kinds);
    const counts = new Uint32Array(kinds);
    const starts = new Uint32Array(kinds + 1);
    const companies = new Uint32Array(kept);
    let [k, end] = [0, 0];
    eachRun(pairs, (key, run) => {
      keys[k] = key;
      counts[k] = run.count;
      let left = run.kept;
      for (let i = run.from; left > 0 && i < last; i++) {
        if (i > run.from && pairs.companies[i] === pairs.companies[i - 1]) continue;
        companies[end++] = pairs.companies[i]!;
        left--;
      }
      starts[++k] = end;
    });
    return {
      ...{ ids: Uint32Array.from(this.ids), lineAt: Uint32Array.from(this.lineAt) },
      lines: this.lines.slice(0, this.lineAt.at(-1)),
      ...{ keys, counts, starts, companies },
    };
  }
}

/** The pairs of one key: where they begin, how many companies have it, and how many of them are kept under it. */
interface Run {
  from: number;
  count: number;
  kept: number;
}

function eachRun(
  { keys, companies }: { keys: Uint32Array; companies: Uint32Array },
  take: (key: number, run: Run) => void,
): void {
  let from = 0;
  while (from < keys.length) {
    const key = keys[from]!;
    let [to, count] = [from, 0];
    // A company that has a key twice has it once.
    for (; to < keys.length && keys[to] === key; to++)
      if (to === from || companies[to] !== companies[to - 1]) count++;
    const most = isIdentifier(key) ? KEPT_UNDER_KEY : 0;
    take(key, { from, count, kept: count <= KEPT_UNDER_KEY ? count : most });
    from = to;
  }
}
