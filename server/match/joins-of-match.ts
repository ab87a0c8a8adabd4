import { cluster, type ScoredPair } from '../../core/match/clusters.ts';
import { comparedNumber } from '../../core/match/identifiers.ts';
import type { Db } from '../db/open.ts';
import type { Join } from '../tables/company-joins.ts';
import { apartPairs } from '../tables/matches/doubles.ts';
import { rowsOfMatch } from '../tables/matches/rows.ts';
import { firmByKey } from './universe-firms.ts';

/**
 * The joins that the sure and the settled rows of a search for doubles come to: one company of each cluster stays, one with a number
 * where there is any, and the others are joined to it.
 * @param sureOnes where given, only the sure rows count of which it says so by the keys of both
 */
export function joinsOfMatch(
  matches: Db,
  universe: Db,
  id: string,
  person: string,
  sureOnes: ((a: string, b: string) => boolean) | null = null,
): Join[] {
  const states = sureOnes ? (['sure'] as const) : (['sure', 'settled'] as const);
  const rows = rowsOfMatch(matches, id, { states, by: null }, 0, -1);
  const place = new Map<string, number>();
  const keys: string[] = [];
  const placeOf = (key: string) => {
    let at = place.get(key);
    if (at === undefined) {
      place.set(key, (at = keys.length));
      keys.push(key);
    }
    return at;
  };
  const pairs: (ScoredPair & { how: Join['how'] })[] = rows.flatMap(({ cells, key, chance, by, state }) => {
    if (key === null || sureOnes?.(cells[0]!, key) === false) return [];
    const settled = state === 'settled';
    const pair = { a: placeOf(cells[0]!), b: placeOf(key), chance: settled ? 1 : (chance ?? 0) };
    return [{ ...pair, how: settled ? ('hand' as const) : by! }];
  });
  const numbers = keys.map((key) => {
    const firm = firmByKey(universe, key);
    const number = firm && comparedNumber(firm.registration, firm.country);
    return number ? `${firm.country ?? '??'}-${number}` : null;
  });
  const apart = [...apartPairs(matches)].flatMap((text) => {
    const [a, b] = text.split(' ').map((key) => place.get(key));
    return a === undefined || b === undefined ? [] : [[a, b] as const];
  });
  const first = cluster(keys.length, pairs, numbers, 0, apart);
  const members = new Map<number, number[]>();
  first.forEach((root, at) => members.set(root, [...(members.get(root) ?? []), at]));
  return [...members.values()].flatMap((some) => {
    const stays = some.find((at) => numbers[at] !== null) ?? some[0]!;
    return some
      .filter((at) => at !== stays)
      .map((at): Join => {
        const own = pairs.find(({ a, b }) => a === at || b === at)!;
        const chance = own.how === 'hand' ? null : own.chance;
        return { gone: keys[at]!, key: keys[stays]!, how: own.how, chance, person };
      });
  });
}
