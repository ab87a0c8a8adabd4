import type { CitiesAnswer, TownsAnswer } from '../../../contract/responses.ts';
import type { ClustersAnswer, InhabitantsAnswer } from '../../../contract/market.ts';
import type { VisitsAnswer } from '../../../contract/visits.ts';
import { clustersIn, countIn, mercatorOf, type MapView, type Mercator } from '../../../core/geo/clusters.ts';
import { extentOf } from '../../../core/geo/extent.ts';
import { recordsOf } from '../../../core/tally/bits.ts';
import type { PlaceColumn, Universe } from '../../../core/tally/columns.ts';
import { NOBODY } from '../../../core/tally/links.ts';
import type { Engine } from '../engine.ts';

/** People from which a town is named on the map. */
const CITY_FROM = 90_000;
/** Towns to find one's way by. */
const MOST_AROUND = 40;
/** Up to so many in view, each stands by itself. */
const MOST_SINGLE = 400;

/** The company that records of a subject with several are drawn at. */
const MAP_ROLES: Readonly<Record<string, string>> = { deals: 'target', brands: 'owner' };

/** Where records are, in degrees and on the plane. */
interface Points {
  lat: Float64Array;
  lon: Float64Array;
  mercator: Mercator;
}

type NamedTown = VisitsAnswer['towns'][number];

/** What maps show. */
export class MapEngine {
  private readonly engine: Engine;
  private readonly projected = new WeakMap<Universe, Points>();

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
  clusters(input: unknown, view: MapView, seen: Omit<MapView, 'cells'> = view): ClustersAnswer {
    const tape = this.engine.checked(input);
    const own = this.engine.subject(tape.subject);
    const { points, places } = this.pointsOf(tape.subject);
    const kept = this.engine.kept(tape);
    const found = clustersIn(points.mercator, kept, view, MOST_SINGLE);
    const rows = own.rows(tape, Uint32Array.from(found.singles), ['name']);
    return {
      extent: extentOf(points.mercator, kept),
      seen: countIn(points.mercator, kept, seen),
      places,
      located: found.located,
      inView: found.inView,
      clusters: found.clusters,
      singles: found.singles.map((r, i) => ({
        key: rows[i]!.key,
        name: typeof rows[i]!.cells.name === 'string' ? rows[i]!.cells.name : rows[i]!.key,
        lat: points.lat[r]!,
        lon: points.lon[r]!,
      })),
    };
  }

  /** Where the records of a subject are drawn: in their own place, else where the company they hang on is. */
  private pointsOf(subject: string): { points: Points; places: ClustersAnswer['places'] } {
    const universe = this.engine.universeOf(subject);
    const place = universe.columns.get('place') as PlaceColumn | undefined;
    const role = MAP_ROLES[subject] ?? '';
    let points = this.projected.get(universe);
    if (!points) {
      const { lat, lon } = place ?? this.companyPoints(subject, universe.size, role);
      this.projected.set(universe, (points = { lat, lon, mercator: mercatorOf(lat, lon) }));
    }
    return { points, places: place ? 'own' : { of: 'company', role } };
  }

  private companyPoints(subject: string, size: number, role: string): Pick<Points, 'lat' | 'lon'> {
    const companies = this.engine.universeOf('companies');
    const place = companies.columns.get('place') as PlaceColumn;
    const links = companies.relations?.get(subject)?.links.get(role);
    const lat = new Float64Array(size).fill(NaN);
    const lon = new Float64Array(size).fill(NaN);
    for (let r = 0; links && r < size; r++) {
      const end = links.starts ? links.starts[r + 1]! : r + 1;
      for (let i = links.starts ? links.starts[r]! : r; i < end && Number.isNaN(lat[r]!); i++) {
        const company = links.companies[i]!;
        if (company === NOBODY) continue;
        lat[r] = place.lat[company]!;
        lon[r] = place.lon[company]!;
      }
    }
    return { lat, lon };
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

  /** The largest towns between some latitudes and longitudes. */
  townsWithin(
    [south, north]: readonly [number, number],
    [west, east]: readonly [number, number],
  ): NamedTown[] {
    return this.engine.lookup.places.towns
      .filter(({ lat, lon }) => lat >= south && lat <= north && lon >= west && lon <= east)
      .sort((a, b) => b.population - a.population)
      .slice(0, MOST_AROUND)
      .map(({ name, lat, lon }) => ({ name, lat, lon }));
  }

  towns(text: string, limit: number): TownsAnswer['towns'] {
    return this.engine.lookup.places.townsBeginning(text, limit).map((town) => ({
      ...town,
      regionName: this.engine.lookup.places.region(town.region)?.english ?? town.country,
    }));
  }
}
