import type { Traits } from './traits.ts';

/**
 * How alike records are to those judged in rather than to those judged out: naive Bayes over what fields say of them.
 *
 * Of each field the mean, over a record's values v, of
 *
 *     ln P(v | in) - ln P(v | out),   P(v | in) = (n_in(v) + m p(v)) / (N_in + m)
 *
 * where n_in(v) of the N_in judged in whose value is known have v, and p(v) is the share of v among all judged: with few
 * judgements the estimate stays near p (m-estimate: B. Cestnik, Estimating probabilities, ECAI 1990). What is unknown says
 * nothing. The sum over the fields that spoke is divided by the root of their number, since fields go together.
 */

/** The weight of what all judged share, in judgements (m above). */
const PRIOR = 2;

/**
 * Log-odds by member, in the order of `members`; above 0 is more like those in. NaN where no field says anything.
 * All are NaN where nobody is judged in, or nobody out.
 */
export function likenessToJudged(
  fields: readonly Traits[],
  judged: { in: ArrayLike<number>; out: ArrayLike<number> },
  members: Uint32Array,
): Float64Array {
  const sums = new Float64Array(members.length);
  const spoke = new Uint16Array(members.length);
  if (judged.in.length > 0 && judged.out.length > 0)
    for (const traits of fields) {
      const evidence = evidenceOf(traits, judged);
      for (let i = 0; i < members.length; i++) {
        let sum = 0;
        let count = 0;
        traits(members[i]!, (trait) => {
          sum += evidence.get(trait) ?? 0;
          count++;
        });
        if (count === 0) continue;
        sums[i]! += sum / count;
        spoke[i]!++;
      }
    }
  return sums.map((sum, i) => (spoke[i] === 0 ? NaN : sum / Math.sqrt(spoke[i]!)));
}

/** By value, how much more it speaks for those in. A value that no judged record has says nothing. */
function evidenceOf(
  traits: Traits,
  judged: { in: ArrayLike<number>; out: ArrayLike<number> },
): ReadonlyMap<number, number> {
  const count = (records: ArrayLike<number>) => {
    const counts = new Map<number, number>();
    let known = 0;
    for (let i = 0; i < records.length; i++) {
      let any = 0;
      traits(records[i]!, (trait) => {
        counts.set(trait, (counts.get(trait) ?? 0) + 1);
        any = 1;
      });
      known += any;
    }
    return { counts, known };
  };
  const ins = count(judged.in);
  const outs = count(judged.out);
  const evidence = new Map<number, number>();
  for (const trait of new Set([...ins.counts.keys(), ...outs.counts.keys()])) {
    const [a, b] = [ins.counts.get(trait) ?? 0, outs.counts.get(trait) ?? 0];
    const prior = (PRIOR * (a + b)) / (ins.known + outs.known);
    const share = (n: number, known: number) => (n + prior) / (known + PRIOR);
    evidence.set(trait, Math.log(share(a, ins.known) / share(b, outs.known)));
  }
  return evidence;
}

/** Log-odds as a figure from 0, like those out, over 50, to 100, like those in. */
export function likenessShown(odds: number): number {
  return Math.round(100 / (1 + Math.exp(-odds)));
}
