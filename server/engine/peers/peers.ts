import type { Statement } from 'better-sqlite3';
import { likenessTo, peersFrom, scoresOf, type Likeness, type Scores } from '../../../core/peers/likeness.ts';
import { MOST_SEEDS } from '../../../core/peers/parts.ts';
import { reasonsOf } from '../../../core/peers/reasons.ts';
import { Recent } from '../../../core/recent.ts';
import { type Bits } from '../../../core/tally/bits.ts';
import { wantedMembers } from '../../../core/tally/members.ts';
import type { ListColumn, Universe } from '../../../core/tally/columns.ts';
import type { PeersTest } from '../../../core/tape/nodes.ts';
import type { Db } from '../../db/open.ts';
import type { ReferenceData } from '../universe-lookup.ts';
import type { Records } from '../records.ts';
import { wordsFinder } from '../words.ts';

/** Bytes of likeness that are kept: some seeds' parts, and their scores as they are weighed. */
const PARTS_BYTES = 160 * 2 ** 20;
const SCORES_BYTES = 64 * 2 ** 20;
/** Words that more than this share of all descriptions have say nothing. */
const COMMON = 0.05;

/** The companies most alike some others, with their reasons. */
export class Peers {
  private readonly db: Db;
  private readonly reference: ReferenceData;
  private readonly records: Records;
  private readonly find: ReturnType<typeof wordsFinder>;
  private readonly count: Statement<[string, number], number>;
  private readonly likenesses = new Recent<Likeness>(PARTS_BYTES, ({ parts, words }) =>
    [...parts.values()].reduce((sum, one) => sum + one.byteLength, words?.has.byteLength ?? 0),
  );
  private readonly weighed = new Recent<Scores>(
    SCORES_BYTES,
    ({ low, high }) => low.byteLength + high.byteLength,
  );
  /** The universe at hand; its lists change. */
  universe!: Universe;

  constructor(db: Db, reference: ReferenceData, records: Records) {
    this.db = db;
    this.reference = reference;
    this.records = records;
    this.find = wordsFinder(db, records.recordOf);
    this.count = db
      .prepare<[string, number], number>(
        'SELECT count(*) FROM (SELECT 1 FROM company_words WHERE company_words MATCH ? LIMIT ?)',
      )
      .pluck();
  }

  /** What a line of peers keeps, surely and possibly. */
  sets(test: PeersTest): { yes: Bits; unknown: Bits; ids: Uint32Array } {
    const { seeds } = this.likeness(test);
    return { ...peersFrom(this.scored(test), test.from, seeds), ids: this.records.ids };
  }

  /** Scores of some records: from how alike they surely are to how alike they may be. */
  scores(test: PeersTest, records: Uint32Array): { low: Float64Array; high: Float64Array } {
    const { low, high } = this.scored(test);
    const shown = (scores: Float32Array) =>
      Float64Array.from(records, (r) => Math.round(scores[r]! * 100) / 100);
    return { low: shown(low), high: shown(high) };
  }

  /** How alike every record surely is. */
  all(test: PeersTest): Float32Array {
    return this.scored(test).low;
  }

  /** Why a record is alike, in words. */
  why(test: PeersTest, r: number): string {
    return reasonsOf(this.likeness(test), r, test.weights, this.universe, (scheme) =>
      this.reference.trees.get(scheme)!,
    );
  }

  private scored(test: PeersTest): Scores {
    const likeness = this.likeness(test);
    return this.weighed.get(JSON.stringify([likeness.seeds, test.weights]), () =>
      scoresOf(likeness, test.weights, this.universe.size),
    );
  }

  private likeness(test: PeersTest): Likeness {
    const seeds = this.seedsOf(test);
    return this.likenesses.get(JSON.stringify(seeds), () =>
      likenessTo(seeds, this.descriptionsOf(seeds), {
        universe: this.universe,
        trees: (scheme) => this.reference.trees.get(scheme)!,
        crosswalk: () => this.reference.crosswalk(),
        findWord: (word) => this.findWord(word),
      }),
    );
  }

  /** The companies that likeness is measured from; of a list with many, some taken evenly. */
  private seedsOf({ like, list }: PeersTest): number[] {
    if (like) return like.map((key) => this.records.byKey(key)!).sort((a, b) => a - b);
    const { lists } = this.universe.columns.get('list') as ListColumn;
    const members = wantedMembers(lists.get(list!)!);
    const step = Math.max(1, members.length / MOST_SEEDS);
    return Array.from(
      { length: Math.min(MOST_SEEDS, members.length) },
      (_, i) => members[Math.floor(i * step)]!,
    );
  }

  private descriptionsOf(seeds: readonly number[]): string[] {
    return this.db
      .prepare<[string], string>(
        'SELECT description FROM company WHERE id IN (SELECT value FROM json_each(?)) AND description IS NOT NULL ORDER BY id',
      )
      .pluck()
      .all(JSON.stringify(seeds.map((r) => this.records.ids[r]!)));
  }

  /** Words that many use are asked for again and again; that they are too common is remembered. */
  private readonly common = new Set<string>();

  private findWord(word: string): Uint32Array | null {
    if (this.common.has(word)) return null;
    const most = Math.max(20, Math.floor(this.universe.size * COMMON));
    const count = this.count.get(`{description} : "${word}"`, most + 1)!;
    if (count <= most) return this.find({ words: [word], prefix: false }, 'description');
    this.common.add(word);
    return null;
  }
}
