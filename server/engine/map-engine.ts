import type { CitiesAnswer, TownsAnswer } from '../../contract/responses.ts';
import type { ClustersAnswer, InhabitantsAnswer } from '../../contract/market.ts';
import { clustersIn, mercatorOf, type MapView, type Mercator } from '../../core/geo/clusters.ts';
import { recordsOf } from '../../core/tally/bits.ts';
import type { PlaceColumn } from '../../core/tally/columns.ts';
import type { Engine } from './engine.ts';

/** People from which a town is named on the map. */
const CITY_FROM = 90_000;
/** Up to so many in view, each stands by itself. */
const MOST_SINGLE = 400;

/** What maps show. */
export class MapEngine {
  private readonly engine: Engine;
  private readonly projected = new WeakMap<PlaceColumn, Mercator>();

  constructor(engine: Engine) {
    this.engine = engine;
  }

  /** Points of the kept records for a picker's map: at most `limit`, evenly taken from all; the full number beside. */
  points(input: unknown, at: string | undefined, limit: number): { points: number[]; located: number } {
    const { kept, place } = this.engine.context(input, at);
    if (!place) return { points: [], located: 0 };
    const { lat, lon } = place;
    const located = recordsOf(kept).filter((r) => !Number.isNaN(lat[r]!));
    const step = Math.max(1, located.length / limit);
    const points: number[] = [];
    for (let i = 0; i < located.length; i += step) {
      const r = located[Math.floor(i)]!;
      points.push(lon[r]!, lat[r]!);
    }
    return { points, located: located.length };
  }

  /** The kept records in view: clustered where they are many, each with key and name where they are few. */
  clusters(input: unknown, view: MapView): ClustersAnswer {
    const tape = this.engine.checked(input);
    const own = this.engine.subject(tape.subject);
    const { place } = this.engine.context(tape, undefined);
    if (!place) return { located: 0, inView: 0, clusters: [], singles: [] };
    let mercator = this.projected.get(place);
    if (!mercator) this.projected.set(place, (mercator = mercatorOf(place.lat, place.lon)));
    const found = clustersIn(mercator, this.engine.kept(tape), view, MOST_SINGLE);
    const rows = own.rows(tape, Uint32Array.from(found.singles), ['name']);
    return {
      located: found.located,
      inView: found.inView,
      clusters: found.clusters,
      singles: found.singles.map((r, i) => ({
        key: rows[i]!.key,
        name: typeof rows[i]!.cells.name === 'string' ? rows[i]!.cells.name : rows[i]!.key,
        lat: place.lat[r]!,
        lon: place.lon[r]!,
      })),
    };
  }

  /** People living in the towns of each country and region, as the gazetteer has them. */
  inhabitants(): InhabitantsAnswer {
    const countries: Record<string, number> = {};
    const regions: Record<string, number> = {};
    for (const { country, region, population } of this.engine.lookup.places.towns) {
      countries[country] = (countries[country] ?? 0) + population;
      if (region) regions[region] = (regions[region] ?? 0) + population;
    }
    return { countries, regions };
  }

  /** The large towns, for the labels of a map, the largest first. */
  cities(): CitiesAnswer['cities'] {
    return this.engine.lookup.places.towns
      .filter((town) => town.population >= CITY_FROM)
      .sort((a, b) => b.population - a.population)
      .map(({ name, lat, lon, population }) => ({ name, lat, lon, population }));
  }

  towns(text: string, limit: number): TownsAnswer['towns'] {
    return this.engine.lookup.places.townsBeginning(text, limit).map((town) => ({
      ...town,
      regionName: this.engine.lookup.places.region(town.region)?.english ?? town.country,
    }));
  }
}
