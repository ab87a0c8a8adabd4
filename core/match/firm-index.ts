import { placeIn } from '../bisect.ts';
import { eachKey, indexedKeys, isIdentifier, wordKey } from './blocking.ts';
import type { ReadyFirm } from './firm.ts';
import { CROWDED, type IndexParts } from './index-parts.ts';
import { fromLine } from './ready-line.ts';

/** A company that shares keys with a row; more worth is more and better keys. */
export interface Candidate {
  /** Its place in the index. */
  company: number;
  worth: number;
}

/**
 * A candidate of less than this part of the worthiest one's worth is none: on careless copies of the demo, of 48,000 companies and of a
 * million, the company of a row never had less than a 2.8th.
 */
const FAR_BELOW = 4;
/** Words whose counts are kept at hand. */
const MOST_WORDS = 200_000;

/**
 * The companies of a universe by what they may be found by:
 *
 *     row ── keys ──► companies that have them, too, the worthiest first
 *
 * Companies that went or were made anew since the parts were built are left out by their places; those that came are parts of
 * their own, whose companies stand behind the others.
 */
export class FirmIndex {
  private readonly decoder = new TextDecoder();
  private readonly goneKeys = new Map<number, number>();
  private readonly words = new Map<string, number>();
  private readonly worths: Uint32Array;

  constructor(
    private readonly parts: IndexParts,
    private readonly gone: ReadonlySet<number> = new Set(),
    private readonly came: IndexParts | null = null,
  ) {
    this.worths = new Uint32Array(this.places);
    for (const company of gone) {
      const keys = new Set<number>();
      indexedKeys(this.firmAt(company).ready, (key) => keys.add(key));
      for (const key of keys) this.goneKeys.set(key, (this.goneKeys.get(key) ?? 0) + 1);
    }
  }

  /** How many companies it has. */
  get size(): number {
    return this.places - this.gone.size;
  }

  /** Places of companies, those that are gone among them. */
  private get places(): number {
    return this.parts.ids.length + (this.came?.ids.length ?? 0);
  }

  idAt(company: number): number {
    const behind = company - this.parts.ids.length;
    return behind < 0 ? this.parts.ids[company]! : this.came!.ids[behind]!;
  }

  /** Places of companies by their ids, of those that it has. */
  *placesOf(ids: Iterable<number>): Generator<number> {
    const { ids: own } = this.parts;
    for (const id of ids) {
      const at = placeIn(own, id);
      if (at >= 0 && !this.gone.has(at)) yield at;
      else {
        const behind = this.came ? placeIn(this.came.ids, id) : -1;
        if (behind >= 0) yield own.length + behind;
      }
    }
  }

  firmAt(company: number): { key: string; ready: ReadyFirm } {
    const behind = company - this.parts.ids.length;
    const [{ lines, lineAt }, at] = behind < 0 ? [this.parts, company] : [this.came!, behind];
    // A decoder takes no memory that threads share.
    return fromLine(this.decoder.decode(lines.slice(lineAt[at], lineAt[at + 1])));
  }

  /** How many companies have a key. */
  sharing(key: number): number {
    return (
      countIn(this.parts, key) - (this.goneKeys.get(key) ?? 0) + (this.came ? countIn(this.came, key) : 0)
    );
  }

  /** How many companies have a word in their names. */
  withWord(word: string): number {
    let count = this.words.get(word);
    if (count === undefined) {
      if (this.words.size >= MOST_WORDS) this.words.clear();
      this.words.set(word, (count = this.sharing(wordKey(word))));
    }
    return count;
  }

  /** Companies spread over the universe, at most `most`. */
  spread(most: number): ReadyFirm[] {
    const every = Math.max(1, Math.floor(this.size / most));
    const some: ReadyFirm[] = [];
    let nth = 0;
    for (let company = 0; company < this.places && some.length < most; company++)
      if (!this.gone.has(company) && nth++ % every === 0) some.push(this.firmAt(company).ready);
    return some;
  }

  /**
   * The candidates of a row, the worthiest first, at most `most`, without those far below it.
   * @param itself the company that the row is, which is no candidate of it; null where it is of a file
   */
  candidatesOf(row: ReadyFirm, most: number, itself: number | null = null): Candidate[] {
    const { worths } = this;
    const found: number[] = [];
    const seen = new Set<number>();
    eachKey(row, false, (key, worth) => {
      if (seen.has(key)) return;
      seen.add(key);
      const companies = this.companiesUnder(key);
      for (let i = 0; i < companies.length; i++) {
        const company = companies[i]!;
        if (company === itself) continue;
        if (worths[company] === 0) found.push(company);
        worths[company]! += worth;
      }
    });
    let least = 0;
    for (const company of found) least = Math.max(least, worths[company]! / FAR_BELOW);
    const candidates: Candidate[] = [];
    for (const company of found) {
      if (worths[company]! >= least) candidates.push({ company, worth: worths[company]! });
      worths[company] = 0;
    }
    return candidates
      .sort((a, b) => b.worth - a.worth || this.idAt(a.company) - this.idAt(b.company))
      .slice(0, most);
  }

  /** The companies under a key, in the order of their ids; none where it is crowded. */
  private companiesUnder(key: number): ArrayLike<number> {
    const identifier = isIdentifier(key);
    if (!identifier && this.sharing(key) > CROWDED) return [];
    const first = companiesIn(this.parts, key);
    const behind = this.came === null ? NONE : companiesIn(this.came, key);
    if (behind.length === 0 && !this.goneKeys.has(key))
      return first.length > CROWDED ? first.subarray(0, CROWDED) : first;
    const offset = this.parts.ids.length;
    return [...first, ...Array.from(behind, (company) => company + offset)]
      .filter((company) => !this.gone.has(company))
      .sort((a, b) => this.idAt(a) - this.idAt(b))
      .slice(0, CROWDED);
  }
}

const NONE = new Uint32Array(0);

function countIn({ keys, counts }: IndexParts, key: number): number {
  const at = placeIn(keys, key);
  return at < 0 ? 0 : counts[at]!;
}

function companiesIn({ keys, starts, companies }: IndexParts, key: number): Uint32Array {
  const at = placeIn(keys, key);
  return at < 0 ? NONE : companies.subarray(starts[at], starts[at + 1]);
}
