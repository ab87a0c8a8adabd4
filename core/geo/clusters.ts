import { recordsOf, type Bits } from '../tally/bits.ts';

/** Places on the plane of the web's maps: x and y from 0 to 1, y downwards; NaN where unknown. */
export interface Mercator {
  x: Float32Array;
  y: Float32Array;
}

/** A stretch of the plane: its corners in degrees, and how many cells wide it is shown. */
export interface MapView {
  west: number;
  south: number;
  east: number;
  north: number;
  cells: number;
}

export interface Clusters {
  /** Records of the context with a place, and those of them in view. */
  located: number;
  inView: number;
  /** Longitude and latitude of the middle of those in a cell, and how many they are, in turn. Empty where all stand by themselves. */
  clusters: number[];
  /** Records that stand by themselves. */
  singles: number[];
}

const MOST_LAT = 85;

export function mercatorX(lon: number): number {
  return (lon + 180) / 360;
}

/** Spherical Mercator (EPSG:3857), from 0 in the north to 1. */
export function mercatorY(lat: number): number {
  const sin = Math.sin((Math.max(-MOST_LAT, Math.min(MOST_LAT, lat)) * Math.PI) / 180);
  return 0.5 - Math.log((1 + sin) / (1 - sin)) / (4 * Math.PI);
}

/** The latitude of a place on the plane, in degrees. */
export function latitudeOf(y: number): number {
  return (360 / Math.PI) * Math.atan(Math.exp((0.5 - y) * 2 * Math.PI)) - 90;
}

export function mercatorOf(lat: Float64Array, lon: Float64Array): Mercator {
  const x = new Float32Array(lat.length);
  const y = new Float32Array(lat.length);
  for (let r = 0; r < lat.length; r++) {
    x[r] = mercatorX(lon[r]!);
    y[r] = mercatorY(lat[r]!);
    if (Number.isNaN(lat[r]!)) x[r] = y[r] = NaN;
  }
  return { x, y };
}

/** How many records of a context lie in a stretch. */
export function countIn({ x, y }: Mercator, context: Bits, view: Omit<MapView, 'cells'>): number {
  const [left, right] = [mercatorX(view.west), mercatorX(view.east)];
  const [top, bottom] = [mercatorY(view.north), mercatorY(view.south)];
  let count = 0;
  for (const r of recordsOf(context))
    if (x[r]! >= left && x[r]! <= right && y[r]! >= top && y[r]! <= bottom) count++;
  return count;
}

/** The records of a context in view, by the cells of a square grid; by themselves where there are at most `mostSingle`. */
export function clustersIn({ x, y }: Mercator, context: Bits, view: MapView, mostSingle: number): Clusters {
  const left = mercatorX(view.west);
  const right = mercatorX(view.east);
  const top = mercatorY(view.north);
  const bottom = mercatorY(view.south);
  const cell = (right - left) / view.cells;
  const rows = Math.max(1, Math.ceil((bottom - top) / cell));
  const counts = new Uint32Array(view.cells * rows);
  const sumX = new Float64Array(counts.length);
  const sumY = new Float64Array(counts.length);
  const singles: number[] = [];
  let located = 0;
  let inView = 0;
  for (let w = 0; w < context.length; w++) {
    let word = context[w]!;
    while (word !== 0) {
      const low = word & -word;
      word ^= low;
      const r = (w << 5) + 31 - Math.clz32(low);
      const px = x[r]!;
      if (px !== px) continue;
      located++;
      const py = y[r]!;
      if (px < left || px >= right || py < top || py >= bottom) continue;
      if (inView++ < mostSingle) singles.push(r);
      const at = Math.floor((py - top) / cell) * view.cells + Math.floor((px - left) / cell);
      counts[at]!++;
      sumX[at]! += px;
      sumY[at]! += py;
    }
  }
  if (inView <= mostSingle) return { located, inView, clusters: [], singles };
  const clusters: number[] = [];
  for (let at = 0; at < counts.length; at++) {
    const count = counts[at]!;
    if (count > 0) clusters.push((sumX[at]! / count) * 360 - 180, latitudeOf(sumY[at]! / count), count);
  }
  return { located, inView, clusters, singles: [] };
}
