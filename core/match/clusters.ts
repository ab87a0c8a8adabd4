/** Two records with the chance that they are one company. */
export interface ScoredPair {
  a: number;
  b: number;
  chance: number;
}

/**
 * Joins records into companies, pair by pair from the surest on, and never two of which `apart` says that they are two: records
 * that were taken apart by hand, and clusters with different registration numbers of one country.
 *
 *      a ─0.99─ b ─0.97─ c        number 1 ─ none ─ number 2:  {a, b} {c}
 *
 * @param numbers for each record its country with its number; null where it has none
 * @param mustNot pairs that stay apart whatever they score
 * @returns for each record the first record of its cluster
 */
export function cluster(
  records: number,
  pairs: readonly ScoredPair[],
  numbers: readonly (string | null)[],
  least: number,
  mustNot: readonly (readonly [number, number])[] = [],
): Int32Array {
  const first = Int32Array.from({ length: records }, (_, i) => i);
  const members = new Map<number, number[]>();
  const barred = new Map<number, Set<number>>();
  for (const [a, b] of mustNot) {
    (barred.get(a) ?? barred.set(a, new Set()).get(a)!).add(b);
    (barred.get(b) ?? barred.set(b, new Set()).get(b)!).add(a);
  }
  const membersOf = (root: number) => members.get(root) ?? [root];
  const apart = (a: number, b: number): boolean => {
    const [left, right] = [membersOf(a), membersOf(b)];
    for (const x of left) {
      const never = barred.get(x);
      for (const y of right) if (never?.has(y) || differ(numbers[x] ?? null, numbers[y] ?? null)) return true;
    }
    return false;
  };
  // Equal chances in the order of their records, so that the same input gives the same clusters.
  const sorted = pairs
    .filter(({ chance }) => chance >= least)
    .sort((x, y) => y.chance - x.chance || x.a - y.a || x.b - y.b);
  for (const { a, b } of sorted) {
    const [left, right] = [first[a]!, first[b]!];
    if (left === right || apart(left, right)) continue;
    const [root, gone] = left < right ? [left, right] : [right, left];
    const joined = membersOf(root).concat(membersOf(gone));
    for (const record of membersOf(gone)) first[record] = root;
    members.delete(gone);
    members.set(root, joined);
  }
  return first;
}

/** Whether two numbers are of one register and not the same. Numbers are "CZ-25000118". */
function differ(a: string | null, b: string | null): boolean {
  return a !== null && b !== null && a !== b && a.slice(0, 3) === b.slice(0, 3);
}
