import { fieldOf } from '../fields/registry.ts';
import type { Lookup } from '../tape/lookup.ts';
import {
  isAbsent,
  isBlock,
  isHas,
  isLive,
  passesUnknown,
  type EitherBlock,
  type FieldLine,
  type HasLine,
  type Leaf,
  type Line,
  type Tape,
} from '../tape/nodes.ts';
import { atAnySite } from '../tape/any-site.ts';
import { Recent } from '../recent.ts';
import {
  addBits,
  allBits,
  countBits,
  countBoth,
  intersect,
  keepBits,
  noBits,
  popcount,
  type Bits,
} from './bits.ts';
import { REASONS, type RangeColumn, type Reason, type Relation, type Universe } from './columns.ts';
import { evaluate } from './evaluate.ts';
import {
  hasVerdict,
  relatedCounts,
  relatedFigures,
  relatedTo,
  together,
  type RelatedFigures,
} from './has.ts';
import type { RelatedCounts } from './links.ts';
import { marked, testKey } from './test-key.ts';
import { notVerdict, orVerdict, type Verdict } from './verdict.ts';

/** The figures of one line. All are exact numbers of records. */
export interface LineFigures {
  id: string;
  /** Left after this line in tape order. */
  subtotal: number;
  /** Taken away by this line from what the lines before it left. */
  cut: number;
  /** Passing this line by itself. */
  alone: number;
  /** What the tally would be without this line. */
  without: number;
  /** Records that pass all other lines and are unknown to this one. */
  unknown: number;
  /** Why, where the field records it; the rest of `unknown` has no reason recorded. */
  reasons?: Partial<Record<Reason, number>>;
  /** Of the tally, records that an estimate decided here, and those whose range reaches over a limit. */
  estimated?: number;
  straddling?: number;
  /** Codes: of the tally, records found by their codes in other schemes alone. */
  kin?: number;
  /** Blocks: how many pass each branch by itself. */
  branches?: { id: string; alone: number }[];
  /** Has-lines, also in blocks and in each other: the related records, and how many of them pass each inner line. */
  related?: (RelatedFigures & { id: string; lines: { id: string; alone: number }[] })[];
}

export interface TallyAnswer {
  universe: number;
  tally: number;
  /** Of the tally, records that at least one line decided by an estimate. */
  estimated: number;
  lines: LineFigures[];
  /** The id of the line, among those not marked must, without which the tally would grow most; null where none would. */
  holdsBackMost: string | null;
}

/** A line as sets: what passes it, and what it cannot decide. */
interface LineSets {
  pass: Bits;
  alone: number;
  verdict: Verdict;
}

/** Bytes of verdicts, and as many of lines made of them, that are kept between tallies. */
const CACHE_BYTES = 96 * 2 ** 20;

/** What tallies keep of what they were asked, all subjects together. */
export class TallyCache {
  readonly verdicts = new Recent<Verdict>(CACHE_BYTES, (one) => Object.keys(one).length * one.yes.byteLength);
  readonly sets = new Recent<LineSets>(CACHE_BYTES, ({ pass }) => 3 * pass.byteLength);

  /** Forgets what was found of lines whose text is such. */
  forget(which: (text: string) => boolean): void {
    this.verdicts.forget(which);
    this.sets.forget(which);
  }
}

/** Counts tapes over one universe. Verdicts and lines are kept by their text, so that editing one line costs one line. */
export class Tally {
  readonly universe: Universe;
  private readonly lookup: Lookup;
  readonly subject: string;
  private readonly all: Bits;
  private readonly cache: TallyCache;
  /** For the figures of one tape: what passes the lines before each, and what passes those after it. */
  private readonly before: Bits[];
  private readonly walked: { sets: LineSets; subtotal: number }[] = [];
  private readonly after: Bits;
  private readonly others: Bits;
  private readonly relatives: ReadonlyMap<string, Tally>;

  /** `relatives` has the tallies of other subjects, by subject, for has-lines. */
  constructor(
    universe: Universe,
    subject: string,
    lookup: Lookup,
    relatives: ReadonlyMap<string, Tally> = new Map(),
    cache = new TallyCache(),
  ) {
    this.cache = cache;
    this.universe = universe;
    this.subject = subject;
    this.lookup = lookup;
    this.relatives = relatives;
    this.all = allBits(universe.size);
    this.before = [this.all];
    this.after = noBits(universe.size);
    this.others = noBits(universe.size);
  }

  /** All figures of a tape. */
  tally(tape: Tape): TallyAnswer {
    const live = tape.lines.filter(isLive);
    const sets = live.map((line) => this.setsOf(line));
    const { figures, kept } = this.figures(live, sets);
    const tally = live.length ? figures.get(live.at(-1)!.id)!.subtotal : this.universe.size;
    const lines = tape.lines.map((line, at): LineFigures => {
      const found = figures.get(line.id);
      if (found) return found;
      const before = tape.lines.slice(0, at).findLast((other) => figures.has(other.id));
      const subtotal = before ? figures.get(before.id)!.subtotal : this.universe.size;
      return {
        id: line.id,
        subtotal,
        cut: 0,
        // A block of which every branch is parked is not there, and lets all through.
        alone: isAbsent(line) ? this.universe.size : this.setsOf(line).alone,
        without: tally,
        unknown: 0,
      };
    });
    let most: LineFigures | null = null;
    // Of one line there is nothing to say: it is all there is.
    for (const line of live.length > 1 ? live : []) {
      const one = figures.get(line.id)!;
      if (!line.must && one.without > tally && (!most || one.without > most.without)) most = one;
    }
    return {
      universe: this.universe.size,
      tally,
      estimated: this.estimatedIn(sets, kept),
      lines,
      holdsBackMost: most?.id ?? null,
    };
  }

  /** The records that pass the whole tape, or all lines but one. */
  kept(tape: Tape, exceptLine?: string): Bits {
    return this.passAll(
      tape.lines.filter((line) => isLive(line) && line.id !== exceptLine).map((line) => this.setsOf(line)),
    );
  }

  private passAll(sets: readonly LineSets[]): Bits {
    const kept = noBits(this.universe.size);
    kept.set(this.all);
    for (const { pass } of sets) keepBits(kept, pass);
    return kept;
  }

  /**
   * Subtotal, cut, alone, without and unknown of every line, in one walk down the tape and one up:
   * `before[i]` is the and of lines 0 … i-1, and `after` grows from the last line back, so that
   * what passes all lines but i is `before[i] & after`.
   */
  private figures(
    lines: readonly Line[],
    sets: readonly LineSets[],
  ): { figures: Map<string, LineFigures>; kept: Bits } {
    const { before, after, others } = this;
    this.walkDown(sets);
    const figures = lines.map((line, i): LineFigures => {
      const subtotal = this.walked[i]!.subtotal;
      const left = i === 0 ? this.universe.size : this.walked[i - 1]!.subtotal;
      const { alone } = sets[i]!;
      return { id: line.id, subtotal, cut: left - subtotal, alone, without: 0, unknown: 0 };
    });
    const kept = before[sets.length]!;
    after.set(this.all);
    for (let i = sets.length - 1; i >= 0; i--) {
      const line = lines[i]!;
      const { pass, verdict } = sets[i]!;
      const one = figures[i]!;
      one.without = intersect(others, before[i]!, after);
      keepBits(after, pass);
      one.unknown = countBoth(others, verdict.unknown);
      if (verdict.estimated) one.estimated = countBoth(verdict.estimated, kept);
      if (verdict.straddling) one.straddling = countBoth(verdict.straddling, kept);
      if (verdict.kin) one.kin = countBoth(verdict.kin, kept);
      if (isBlock(line))
        one.branches = line.either.map((branch) => ({
          id: branch.id,
          alone: countBits(this.branchVerdict(branch).yes),
        }));
      else if (!isHas(line) && one.unknown > 0) one.reasons = this.reasonsOf(line, verdict, others);
      const related = this.relatedIn(line);
      if (related.length) one.related = related;
    }
    return { figures: new Map(figures.map((one) => [one.id, one])), kept };
  }

  /** Fills `before` and the subtotals; what the last walk left is taken over down to the first other line. */
  private walkDown(sets: readonly LineSets[]): void {
    const { before, walked } = this;
    let same = 0;
    while (same < sets.length && walked[same]?.sets === sets[same]) same++;
    walked.length = same;
    for (let i = same; i < sets.length; i++) {
      before[i + 1] ??= noBits(this.universe.size);
      walked.push({ sets: sets[i]!, subtotal: intersect(before[i + 1]!, before[i]!, sets[i]!.pass) });
    }
  }

  /** Why a line does not know of those of the given records that it does not know of. */
  private reasonsOf(
    line: FieldLine,
    { stale, coarse, unrated }: Verdict,
    among: Bits,
  ): LineFigures['reasons'] {
    const reasons: Partial<Record<Reason, number>> = {};
    const add = (reason: Reason, records: Bits | null | undefined) => {
      const count = records ? countBoth(records, among) : 0;
      if (count) reasons[reason] = (reasons[reason] ?? 0) + count;
    };
    const field = fieldOf(this.subject, line.field)!;
    const column = this.universe.columns.get(field.yearsSince ?? field.id) as RangeColumn | undefined;
    if (column?.kind === 'range') column.index.reasons.forEach((records, i) => add(REASONS[i]!, records));
    add('too coarse', coarse);
    add('too old', stale);
    add('no exchange rate', unrated);
    return reasons;
  }

  private estimatedIn(sets: readonly LineSets[], kept: Bits): number {
    const estimated = sets.flatMap(({ verdict }) => verdict.estimated ?? []);
    let count = 0;
    if (estimated.length)
      for (let w = 0; w < kept.length; w++) {
        let any = 0;
        for (const set of estimated) any |= set[w]!;
        count += popcount(any & kept[w]!);
      }
    return count;
  }

  private relatedIn(line: Line): NonNullable<LineFigures['related']> {
    if (isBlock(line)) return line.either.flatMap((branch) => this.relatedIn(branch));
    if (!isHas(line)) return [];
    const { relation, tally } = this.relativeOf(line);
    const figures = relatedFigures(line, relation, tally.verdictOfAll(line.lines));
    const lines = line.lines.map((inner) => ({ id: inner.id, alone: tally.surelyAlone(inner) }));
    return [{ id: line.id, ...figures, lines }, ...line.lines.flatMap((inner) => tally.relatedIn(inner))];
  }

  /** The subject that a has-line looks through to. */
  private relativeOf(line: HasLine): { relation: Relation; tally: Tally } {
    const relation = this.universe.relations?.get(line.has);
    const tally = relation && this.relatives.get(relation.subject);
    if (!relation || !tally) throw new Error(`The universe has no ${line.has}.`);
    return { relation, tally };
  }

  /** How many related records of a has-line hang on each record, and on which records that is known. */
  relatedCounts(line: HasLine): RelatedCounts & { known: Bits } {
    const { relation, tally } = this.relativeOf(line);
    return relatedCounts(line, relation, tally.verdictOfAll(line.lines), this.universe.size);
  }

  /**
   * The related records that the other lines let through where a line within a has-line is picked: those that pass the has-line's
   * other lines and hang on a record that passes the tape's. Null where the tape has no such inner line.
   */
  innerContext(tape: Tape, at: string): { tally: Tally; kept: Bits } | null {
    for (const top of tape.lines)
      for (const line of isBlock(top) ? top.either : [top])
        if (isHas(line)) {
          const found = this.within(line, at, this.kept(tape, top.id));
          if (found) return found;
        }
    return null;
  }

  private within(line: HasLine, at: string, outer: Bits): { tally: Tally; kept: Bits } | null {
    const { relation, tally } = this.relativeOf(line);
    const inner = (except?: string) => {
      const { yes } = tally.verdictOfAll(line.lines.filter((one) => one.id !== except));
      const kept = relatedTo(outer, line, relation);
      keepBits(kept, yes);
      return kept;
    };
    if (line.id === at) return { tally, kept: inner() };
    const own = line.lines.find(
      (one) => one.id === at || (isBlock(one) && one.either.some((branch) => branch.id === at)),
    );
    if (own) return { tally, kept: inner(own.id) };
    for (const top of line.lines)
      for (const one of isBlock(top) ? top.either : [top])
        if (isHas(one)) {
          const found = tally.within(one, at, inner(top.id));
          if (found) return found;
        }
    return null;
  }

  /** Records of which a line cannot be sure: unknown to it, or decided by an estimate whose range reaches over a limit. */
  unsureOf(line: Line): Bits {
    const { verdict } = this.setsOf(line);
    const unsure = verdict.unknown.slice();
    if (verdict.straddling) addBits(unsure, verdict.straddling);
    return unsure;
  }

  /** What lines together say of every record: pure Kleene, but for lines that say what happens to their unknowns. */
  verdictOfAll(lines: readonly Line[]): Verdict {
    const live = lines.filter(isLive);
    const all = () =>
      together(
        live.map((line) => this.decided(line)),
        this.universe.size,
      );
    if (live.length < 2) return all();
    return this.cache.verdicts.get(`${this.subject} all ${JSON.stringify(live.map(marked))}`, all);
  }

  private decided(line: Line): Verdict {
    const { verdict } = this.setsOf(line);
    if (!line.unknown) return verdict;
    const { size } = this.universe;
    if (line.unknown === 'drop') return { yes: verdict.yes, unknown: noBits(size) };
    const yes = verdict.yes.slice();
    addBits(yes, verdict.unknown);
    return { yes, unknown: noBits(size) };
  }

  /** How many surely pass an inner line by itself. */
  private surelyAlone(line: Line): number {
    const { pass, verdict, alone } = this.setsOf(line);
    return line.unknown === 'keep' || pass === verdict.yes ? alone : countBits(verdict.yes);
  }

  private setsOf(line: Line): LineSets {
    const key = `${this.subject} ${line.not ? 'not' : ''} ${passesUnknown(line) ? 'keep' : ''} ${testKey(line)}`;
    return this.cache.sets.get(key, () => {
      let verdict = isBlock(line) ? this.blockVerdict(line) : this.verdictOf(line);
      if (line.not) verdict = notVerdict(verdict, this.universe.size);
      let pass = verdict.yes;
      if (passesUnknown(line)) addBits((pass = pass.slice()), verdict.unknown);
      return { pass, verdict, alone: countBits(pass) };
    });
  }

  private blockVerdict(block: Pick<EitherBlock, 'either'>): Verdict {
    const live = block.either.filter((branch) => !branch.parked);
    return orVerdict((live.length ? live : block.either).map((branch) => this.branchVerdict(branch)));
  }

  private branchVerdict(branch: Leaf): Verdict {
    const verdict = this.verdictOf(branch);
    return branch.not ? notVerdict(verdict, this.universe.size) : verdict;
  }

  private verdictOf(line: Leaf): Verdict {
    return this.cache.verdicts.get(`${this.subject} ${testKey(line)}`, () => {
      const anySite = atAnySite(line);
      if (anySite) return this.blockVerdict(anySite);
      if (!isHas(line)) return evaluate(this.universe, this.subject, line, this.lookup);
      const { relation, tally } = this.relativeOf(line);
      return hasVerdict(line, relation, tally.verdictOfAll(line.lines), this.universe.size);
    });
  }
}
