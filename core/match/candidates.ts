import { domainKey, eachKey, houseKey, phoneKey, switchboardKey, WORTH } from './blocking.ts';
import type { ReadyFirm } from './firm.ts';

/** A company that shares keys with a row; more worth is more and better keys. */
export interface Candidate {
  company: number;
  worth: number;
}

/** Companies under one key after which it says nothing, unless it is an identifier. */
const CROWDED = 400;
/** Rows of a file under one key after which it says nothing. */
const CROWDED_ROWS = 2000;
/** Keys are looked for in a table of bits first: most companies of a universe share none with a small file. */
const BITS = 22;

interface Block {
  /** How many rows have the key. */
  rows: number;
  companies: number[];
  worth: number;
  crowded: boolean;
}

/**
 * Finds for the rows of a file the companies that may be they, while the companies of a universe pass by once:
 *
 *     rows ── keys ──► blocks ◄── keys ── companies, one after the other
 *
 * so that a universe of any size costs one reading, and memory grows with the file alone.
 */
export class CandidateFinder {
  private readonly blocks = new Map<number, Block>();
  private readonly seen = new Uint32Array(2 ** (BITS - 5));
  /** Companies by word of their names. */
  private readonly words = new Map<string, number>();
  /** Companies by what of theirs the rows have, too. */
  private readonly shared = new Map<number, number>();
  /** Whether a row names no country, so that keys within a country are looked for without it, too. */
  readonly anywhere: boolean;

  constructor(rows: readonly ReadyFirm[]) {
    this.anywhere = rows.some(({ firm }) => firm.country === null);
    for (const row of rows) {
      for (const key of sharedKeys(row)) this.shared.set(key, 0);
      eachKey(row, false, (key, worth) => {
        const block = this.blocks.get(key);
        if (!block) this.blocks.set(key, { rows: 1, companies: [], worth, crowded: false });
        else block.rows++;
        this.seen[(key >>> 5) & (this.seen.length - 1)]! |= 1 << (key & 31);
      });
    }
    for (const block of this.blocks.values()) block.crowded = block.rows > CROWDED_ROWS;
  }

  /** Lets a company of the universe pass. */
  offer(company: number, ready: ReadyFirm): void {
    for (const word of ready.words) this.words.set(word, (this.words.get(word) ?? 0) + 1);
    for (const domain of ready.domains) this.count(domainKey(domain));
    if (ready.phone !== null) {
      this.count(phoneKey(ready.phone));
      this.count(switchboardKey(ready.phone));
    }
    const house = houseKey(ready);
    if (house !== null) this.count(house);
    eachKey(ready, this.anywhere, (key, worth) => {
      if ((this.seen[(key >>> 5) & (this.seen.length - 1)]! & (1 << (key & 31))) === 0) return;
      const block = this.blocks.get(key);
      if (!block || block.crowded) return;
      const { companies } = block;
      if (companies.length > 0 && companies[companies.length - 1] === company) return;
      if (companies.length < CROWDED) companies.push(company);
      else if (worth < WORTH.phone) {
        block.crowded = true;
        block.companies = [];
      }
    });
  }

  private count(key: number): void {
    const count = this.shared.get(key);
    if (count !== undefined) this.shared.set(key, count + 1);
  }

  /** How many companies that passed have a domain of the rows, a phone by its last figures, or a switchboard. */
  sharing(key: number): number {
    return this.shared.get(key) ?? 0;
  }

  /** How many companies that passed have a word in their names. */
  withWord(word: string): number {
    return this.words.get(word) ?? 0;
  }

  /** The candidates of a row, the worthiest first, at most `most`; once all companies have passed. */
  candidatesOf(row: ReadyFirm, most: number): Candidate[] {
    const worths = new Map<number, number>();
    const seen = new Set<Block>();
    eachKey(row, false, (key) => {
      const block = this.blocks.get(key)!;
      if (seen.has(block)) return;
      seen.add(block);
      for (const company of block.companies) worths.set(company, (worths.get(company) ?? 0) + block.worth);
    });
    return [...worths]
      .map(([company, worth]) => ({ company, worth }))
      .sort((a, b) => b.worth - a.worth || a.company - b.company)
      .slice(0, most);
  }
}

/** Of what of a record it is counted how many companies have it. */
export function sharedKeys(ready: ReadyFirm): number[] {
  const { domains, phone } = ready;
  const keys = domains.map(domainKey);
  const house = houseKey(ready);
  if (house !== null) keys.push(house);
  if (phone !== null) keys.push(phoneKey(phone), switchboardKey(phone));
  return keys;
}
