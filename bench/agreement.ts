import type { Scheme } from '../core/codes/tree.ts';
import { recordsOf, type Bits } from '../core/tally/bits.ts';
import type { CategoryColumn, CodesColumn, ManyColumn, PlaceColumn } from '../core/tally/columns.ts';
import { countCodes } from '../core/tally/code-counts.ts';
import { countCategory, countMany } from '../core/tally/counts.ts';
import { groupsOf } from '../core/tally/evaluate.ts';
import type { Tally } from '../core/tally/tally.ts';
import type { Lookup } from '../core/tape/lookup.ts';
import { isLive, type Tape } from '../core/tape/nodes.ts';
import { PLACE_COLUMNS, TapeCompiler, type CountsBy } from '../core/tape/sql/compile.ts';
import type { Records } from '../server/engine/records.ts';
import type { Answer, Peer } from './databases.ts';

/** Holds the tally to what databases answer to the SQL compiled from the same tapes. */

interface Counting {
  by: CountsBy;
  /** The tally's own counts, by value. */
  count(context: Bits): Iterable<readonly [string, number]>;
}

export class Agreement {
  private readonly tallies: ReadonlyMap<string, Tally>;
  private readonly lookup: Lookup;
  private readonly records: ReadonlyMap<string, Records>;
  private readonly peers: readonly Peer[];
  private readonly countings: readonly Counting[];
  private next = 0;

  constructor(
    tallies: ReadonlyMap<string, Tally>,
    lookup: Lookup,
    records: ReadonlyMap<string, Records>,
    peers: readonly Peer[],
  ) {
    this.tallies = tallies;
    this.lookup = lookup;
    this.records = records;
    this.peers = peers;
    this.countings = countings(tallies.get('companies')!, lookup);
  }

  /**
   * What any database answers otherwise than the tally: all figures of the tape, the companies it
   * keeps, and counts by one of the kinds of value in turn. Empty where all agree.
   *
   * @param peers whom to ask of this tape; all of them unless said.
   */
  async differences(tape: Tape, peers = this.peers): Promise<string[]> {
    const found: string[] = [];
    const kept = this.tallies.get(tape.subject)!.kept(tape);
    const { ids } = this.records.get(tape.subject)!;
    const counting =
      tape.subject === 'companies' ? this.countings[this.next++ % this.countings.length]! : null;
    const wanted = {
      figures: this.figures(tape),
      kept: [...recordsOf(kept)].map((r) => ids[r]!),
      counts: Object.fromEntries([...(counting?.count(kept) ?? [])].filter(([, count]) => count > 0)),
    };
    for (const peer of peers) {
      const compiler = new TapeCompiler(peer.dialect, this.lookup);
      const compare = async (what: string, mine: unknown, theirs: Promise<unknown>) => {
        const [a, b] = [JSON.stringify(mine), JSON.stringify(await theirs)];
        if (a !== b) found.push(`${what}: tally ${a}, ${peer.name} ${b}`);
      };
      await compare(
        'figures',
        wanted.figures,
        peer.ask(compiler.figures(tape)).then(([row]) => row),
      );
      await compare(
        'companies kept',
        wanted.kept,
        peer.ask(compiler.kept(tape)).then((rows) => rows.map((row) => row.id as number)),
      );
      if (!counting) continue;
      await compare(
        `counts by ${JSON.stringify(counting.by)}`,
        sorted(wanted.counts),
        peer.ask(compiler.counts(tape, counting.by)).then((rows) => sorted(byValue(rows))),
      );
    }
    return found;
  }

  /** The tally's figures under the names that the compiled statement gives them. */
  private figures(tape: Tape): Record<string, number> {
    const answer = this.tallies.get(tape.subject)!.tally(tape);
    const figures: Record<string, number> = { universe: answer.universe, tally: answer.tally };
    answer.lines
      .filter((_, at) => isLive(tape.lines[at]!))
      .forEach(({ subtotal, alone, without, unknown }, i) => {
        figures[`subtotal_${i}`] = subtotal;
        figures[`alone_${i}`] = alone;
        figures[`without_${i}`] = without;
        figures[`unknown_${i}`] = unknown;
      });
    return figures;
  }
}

function countings({ universe }: Tally, lookup: Lookup): Counting[] {
  const { columns } = universe;
  const place = columns.get('place') as PlaceColumn;
  const codes = columns.get('industry') as Map<Scheme, CodesColumn>;
  const technology = columns.get('technology') as ManyColumn;
  const source = columns.get('source') as ManyColumn;
  const category = (column: CategoryColumn) => (context: Bits) => countCategory(column, context).counts;
  const all: Counting[] = [
    {
      by: { by: 'column', expression: 'c.status' },
      count: category(columns.get('status') as CategoryColumn),
    },
    { by: { by: 'column', expression: PLACE_COLUMNS.countries }, count: category(place.country) },
    { by: { by: 'column', expression: PLACE_COLUMNS.regions }, count: category(place.region) },
    { by: { by: 'column', expression: PLACE_COLUMNS.towns }, count: category(place.town) },
    {
      by: { by: 'many', table: 'company_technology', value: 'technology', groups: true },
      count: (context) =>
        countMany(technology, context, groupsOf(lookup, { subject: 'companies', id: 'technology' })).counts,
    },
    {
      by: { by: 'many', table: 'company_source', value: 'source', groups: false },
      count: (context) => countMany(source, context, new Map()).counts,
    },
  ];
  for (const [scheme, column] of codes)
    for (const mainOnly of [false, true])
      all.push({
        by: { by: 'codes', scheme, mainOnly },
        count: (context) => {
          const tree = lookup.codes(scheme);
          const { counts } = countCodes(column, tree, context, mainOnly);
          return tree.codes.map((code, node) => [code, counts[node]!] as const);
        },
      });
  return all;
}

function byValue(rows: Answer): Record<string, number> {
  return Object.fromEntries(
    rows.flatMap((row): [string, number][] =>
      row.value === null ? [] : [[String(row.value), row.companies as number]],
    ),
  );
}

function sorted(counts: Record<string, number>): [string, number][] {
  return Object.entries(counts).sort(([a], [b]) => (a < b ? -1 : 1));
}
