import type { Gazetteer, Town } from './gazetteer.ts';

/** People from which a town has a metropolitan area of its own. */
export const METRO_FROM = 100_000;

/**
 * How far a town's metropolitan area reaches from its centre, in whole kilometres: 15 km at 100,000
 * people, growing with the 0.3th power of them (30 km at one million, 44 at three and a half). This is our
 * own open rule, the same in every country; offices draw their areas by commuting, which is not in the data.
 */
export function metroKm(population: number): number {
  return Math.round(15 * (Math.max(METRO_FROM, population) / METRO_FROM) ** 0.3);
}

/** The towns that have a metropolitan area, the largest first. */
export function metroTowns(places: Gazetteer): Town[] {
  return places.towns
    .filter((town) => town.population >= METRO_FROM && places.town(town.key) === town)
    .sort((a, b) => b.population - a.population);
}
