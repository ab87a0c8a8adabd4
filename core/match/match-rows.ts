import { compare, marksOf, type Comparison, type NameFigures } from './compare.ts';
import type { ReadyFirm } from './firm.ts';
import {
  byChance,
  learn,
  randomShares,
  scorer,
  type ComparedPair,
  type Frequencies,
  type Learning,
  type Model,
} from './model.ts';
import {
  honestChance,
  limitsFor,
  outcomeOf,
  sureBy,
  type Limits,
  type Outcome,
  type SureBy,
} from './outcome.ts';

/** Rows that are matched, made ready when they are asked for. */
export interface Rows {
  readonly length: number;
  /** Of a row that is there. */
  at(row: number): ReadyFirm | undefined;
}

/** A candidate of a row. */
export interface Scored<C> {
  company: C;
  /** 0 to 1: how sure it is that this is the company of the row. */
  chance: number;
  by: SureBy | null;
}

export interface RowOutcome<C> {
  outcome: Outcome;
  /** The likeliest first; those that are worth a look. */
  candidates: Scored<C>[];
}

export interface Matching<C> {
  rows: RowOutcome<C>[];
  model: Model;
  limits: Limits;
  learning: Learning;
}

/** Candidates that are shown of a row; keys 1 to 9 take them. */
const MOST_SHOWN = 9;
/** Below this chance a candidate is not worth a look; the best few stand beside each other down to a lower one. */
const WORTH_A_LOOK = 0.02;
const WORTH_A_GLANCE = 0.0005;
const ALWAYS_SHOWN = 3;

/** Rows from which is learned: more teach nothing new, and all of their pairs are held in memory. */
const LEARNED_ROWS = 20_000;

/**
 * Matches rows with their candidates: compares them, learns the weights from them, and says what becomes of each row. Beyond the rows
 * that are learned from, memory does not grow with the pairs.
 * @param found the companies that a row may be, ready to be compared; asked once for a row, or twice
 * @param strangers companies drawn at random, from which is learned what comes up by chance
 * @param precision asked of the sure ones, such as 0.99
 */
export function matchRows<C>(
  rows: Rows,
  found: (row: number, ready: ReadyFirm) => readonly { company: C; ready: ReadyFirm }[],
  strangers: readonly ReadyFirm[],
  frequencies: Frequencies,
  precision: number,
  looked: (row: number) => void = () => {},
): Matching<C> {
  const names: NameFigures = {
    countOf: (word) => frequencies.ofWord(word),
    companies: frequencies.companies,
  };
  const u = randomShares(randomPairs(rows, strangers, names));
  const compared = (r: number) => {
    const row = rows.at(r)!;
    return found(r, row).map(({ company, ready }) => {
      const comparison = compare(row, ready, names);
      const pair = { levels: comparison.levels, chance: byChance(comparison, u, row, frequencies) };
      return { company, ready, by: sureBy(comparison), pair };
    });
  };
  // Spread over the whole file, which may be sorted.
  const every = Math.max(1, Math.ceil(rows.length / LEARNED_ROWS));
  const known = new Map<number, ReturnType<typeof compared>>();
  for (let r = 0; r < rows.length; r += every) {
    looked(known.size);
    known.set(r, compared(r));
  }
  const { model, learning } = learn(
    [...known.values()].map((own) => own.map(({ pair }) => pair)),
    u,
    frequencies.companies,
  );
  const score = scorer(model, frequencies.companies);
  const scored = Array.from({ length: rows.length }, (_, r) => {
    looked(r);
    const own = known.get(r) ?? compared(r);
    const weights = score(own.map(({ pair }) => pair));
    const candidates = own
      .map(({ company, ready, by }, c) => ({ company, ready, chance: honestChance(weights[c]!, by), by }))
      .sort((a, b) => b.chance - a.chance);
    addTwins(candidates, names);
    return shownOf(candidates);
  });
  const limits = limitsFor(
    precision,
    scored.flatMap(([best]) => (best && best.by !== null ? [best.chance] : [])),
  );
  return {
    model,
    limits,
    learning,
    rows: scored.map((candidates) => ({ outcome: outcomeOf(candidates[0] ?? null, limits), candidates })),
  };
}

/** The candidates of a row that are worth a look. */
function shownOf<C>(candidates: readonly Scored<C>[]): Scored<C>[] {
  return candidates
    .filter(({ chance }, nth) => chance >= (nth < ALWAYS_SHOWN ? WORTH_A_GLANCE : WORTH_A_LOOK))
    .slice(0, MOST_SHOWN)
    .map(({ company, chance, by }) => ({ company, chance, by }));
}

type Candidate = Scored<unknown> & { ready: ReadyFirm };

/** A second record of the best has at least this chance, too. */
const TWIN_FROM = 0.05;

/**
 * Where the universe has the same company twice, the two share its chance between them. The best of a row then has the chances of
 * its twins, too: it is right as far as any of them is. Of two that are as likely the one with a number is the better.
 */
function addTwins(candidates: Candidate[], names: NameFigures): void {
  const [best, second] = candidates;
  if (!best || !second || second.chance < TWIN_FROM) return;
  let first = best;
  let all = best.chance;
  for (const other of candidates.slice(1)) {
    if (other.chance < TWIN_FROM) break;
    const comparison = compare(best.ready, other.ready, names);
    if (sureBy(comparison) === null || !sameHouse(best.ready, other.ready, comparison)) continue;
    all += other.chance;
    if (first.ready.number === null && other.ready.number !== null) first = other;
  }
  const by = candidates.find((one) => one.by !== null)?.by ?? null;
  if (all === best.chance) return;
  candidates.splice(candidates.indexOf(first), 1);
  candidates.unshift({ ...first, chance: Math.min(1, all), by: first.by ?? by });
}

function sameHouse(a: ReadyFirm, b: ReadyFirm, comparison: Comparison): boolean {
  const marks = marksOf(a, b, comparison);
  return [marks.name, marks.street, marks.town, marks.phone].every((mark) => mark !== 'different');
}

/** Pairs of rows and strangers, of which hardly any are one company. */
const RANDOM_PAIRS = 20_000;

function randomPairs(rows: Rows, strangers: readonly ReadyFirm[], names: NameFigures): Uint8Array[] {
  const pairs =
    rows.length === 0 || strangers.length === 0 ? 0 : Math.min(RANDOM_PAIRS, rows.length * strangers.length);
  return Array.from({ length: pairs }, (_, i) => {
    // Every row with other strangers: both go round, and the second is shifted at every round of the first.
    const row = rows.at(i % rows.length)!;
    const stranger = strangers[(i + Math.floor(i / rows.length) * 7) % strangers.length]!;
    return compare(row, stranger, names).levels;
  });
}

/** A pair looked at closely, under the model that a match has learned. */
export function lookClosely(
  row: ReadyFirm,
  company: ReadyFirm,
  model: Model,
  frequencies: Frequencies,
): { comparison: Comparison; pair: ComparedPair } {
  const comparison = compare(row, company, {
    countOf: (word) => frequencies.ofWord(word),
    companies: frequencies.companies,
  });
  return {
    comparison,
    pair: { levels: comparison.levels, chance: byChance(comparison, model.u, row, frequencies) },
  };
}
