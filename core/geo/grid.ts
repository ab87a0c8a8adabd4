import { distanceKm, EARTH_KM, latitudeReach } from './distance.ts';

/** Width and height of a cell in degrees. */
const CELL = 0.5;
const COLUMNS = 360 / CELL;
const ROWS = 180 / CELL;

/** Points in cells of half a degree: those of cell c are `records[starts[c] … starts[c + 1]]`. Points without a place are in none. */
export interface PointGrid {
  starts: Uint32Array;
  records: Uint32Array;
  /** The same records as points x, y, z of a globe of radius 1. */
  points: Float32Array;
}

/** A kilometre figure by which rounding could tip a comparison; far above the error of the formula, far below anything asked for. */
const HAIR_KM = 1e-6;

export function pointGrid(
  lat: Float64Array,
  lon: Float64Array,
  make: { uint32(length: number): Uint32Array; float32(length: number): Float32Array },
): PointGrid {
  const starts = make.uint32(ROWS * COLUMNS + 1);
  let located = 0;
  for (let r = 0; r < lat.length; r++)
    if (isPlaced(lat[r]!, lon[r]!)) {
      starts[cellOf(lat[r]!, lon[r]!) + 1]!++;
      located++;
    }
  for (let c = 0; c < ROWS * COLUMNS; c++) starts[c + 1]! += starts[c]!;
  const next = starts.slice();
  const records = make.uint32(located);
  for (let r = 0; r < lat.length; r++)
    if (isPlaced(lat[r]!, lon[r]!)) records[next[cellOf(lat[r]!, lon[r]!)]!++] = r;
  const points = make.float32(3 * located);
  for (let i = 0; i < located; i++) points.set(pointOf(lat[records[i]!]!, lon[records[i]!]!), 3 * i);
  return { starts, records, points };
}

/** A place as a point of a globe of radius 1. */
export function pointOf(lat: number, lon: number): [x: number, y: number, z: number] {
  const [phi, lambda] = [(lat * Math.PI) / 180, (lon * Math.PI) / 180];
  return [Math.cos(phi) * Math.cos(lambda), Math.cos(phi) * Math.sin(lambda), Math.sin(phi)];
}

/** How far the straight line between two rounded points may be off, in radii of the globe: some 13 m. */
const CHORD_HAIR = 2e-6;

/**
 * Squares of straight lines through a globe of radius 1 that tell most points within `km` at a
 * glance: at most `surely` is within, above `atMost` is not, and what lies between is to be measured.
 */
export function chordsOf(km: number): { surely: number; atMost: number } {
  const chord = 2 * Math.sin(Math.min(Math.PI, km / EARTH_KM) / 2);
  const surely = chord - CHORD_HAIR;
  return { surely: surely < 0 ? -1 : surely * surely, atMost: (chord + CHORD_HAIR) ** 2 };
}

/** False where either coordinate is unknown (NaN). */
export function isPlaced(lat: number, lon: number): boolean {
  return !Number.isNaN(lat) && !Number.isNaN(lon);
}

function cellOf(lat: number, lon: number): number {
  return rowOf(lat) * COLUMNS + Math.min(COLUMNS - 1, Math.max(0, Math.floor((lon + 180) / CELL)));
}

function rowOf(lat: number): number {
  return Math.min(ROWS - 1, Math.max(0, Math.floor((lat + 90) / CELL)));
}

/**
 * Calls `visit` with runs of records that may lie within `km` of a point, as positions in
 * `grid.records`. `sure` runs lie within whole; of the others each record is to be measured.
 *
 * A cell lies within whole if its four corners do: the distance from a point to the edge of a cell
 * has its largest value at a corner as long as it stays under a quarter of the globe.
 */
export function eachNear(
  grid: PointGrid,
  lat: number,
  lon: number,
  km: number,
  visit: (start: number, end: number, sure: boolean) => void,
): void {
  const reach = latitudeReach(km);
  const top = Math.min(90, lat + reach);
  const bottom = Math.max(-90, lat - reach);
  const aroundPole = top >= 90 || bottom <= -90;
  const sine = Math.sin((reach * Math.PI) / 180) / Math.cos((lat * Math.PI) / 180);
  const lonReach = aroundPole || reach >= 90 || sine >= 1 ? 180 : (Math.asin(sine) * 180) / Math.PI + 1e-6;
  const within = (cornerLat: number, cornerLon: number) =>
    distanceKm(lat, lon, cornerLat, cornerLon) <= km - HAIR_KM;
  const firstColumn = Math.floor((lon - lonReach + 180) / CELL);
  const columns = Math.min(COLUMNS, Math.floor((lon + lonReach + 180) / CELL) - firstColumn + 1);
  for (let row = rowOf(bottom); row <= rowOf(top); row++) {
    const south = row * CELL - 90;
    for (let i = 0; i < columns; i++) {
      const column = (((firstColumn + i) % COLUMNS) + COLUMNS) % COLUMNS;
      const cell = row * COLUMNS + column;
      const start = grid.starts[cell]!;
      const end = grid.starts[cell + 1]!;
      if (start === end) continue;
      const west = column * CELL - 180;
      const sure =
        km < 9000 &&
        within(south, west) &&
        within(south, west + CELL) &&
        within(south + CELL, west) &&
        within(south + CELL, west + CELL);
      visit(start, end, sure);
    }
  }
}
