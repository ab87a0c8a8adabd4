/** Which records of a newer file are those of the older. */

/** A record of one of the two, by what tells it apart: a key for each way, the surest first; null where it cannot be told so. */
export interface Keyed {
  id: number;
  keys: readonly (string | null)[];
}

/**
 * Pairs records of two versions of a source. By each way in turn, those that are left over and have the
 * same key are paired in their order; by the ways from `sole` on only where the key is that of one
 * alone on either side, since such a key says less.
 * @returns ids: of the older, and of the newer
 */
export function pairRecords(
  before: readonly Keyed[],
  now: readonly Keyed[],
  ways: number,
  sole: number,
): [number, number][] {
  const pairs: [number, number][] = [];
  let [old, fresh] = [before, now];
  for (let way = 0; way < ways && old.length > 0 && fresh.length > 0; way++) {
    const [here, there] = [byKey(old, way), byKey(fresh, way)];
    const paired = new Set<Keyed>();
    for (const [key, some] of here) {
      const others = there.get(key) ?? [];
      if (way >= sole && (some.length > 1 || others.length > 1)) continue;
      for (let i = 0; i < Math.min(some.length, others.length); i++) {
        pairs.push([some[i]!.id, others[i]!.id]);
        paired.add(some[i]!).add(others[i]!);
      }
    }
    old = old.filter((one) => !paired.has(one));
    fresh = fresh.filter((one) => !paired.has(one));
  }
  return pairs;
}

function byKey(records: readonly Keyed[], way: number): Map<string, Keyed[]> {
  const found = new Map<string, Keyed[]>();
  for (const one of records) {
    const key = one.keys[way];
    if (key == null) continue;
    const some = found.get(key);
    if (some) some.push(one);
    else found.set(key, [one]);
  }
  return found;
}
