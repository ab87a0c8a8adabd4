/** A place by its coordinates, in degrees. */
interface Spot {
  readonly lat: number;
  readonly lon: number;
}

export interface SketchPoint {
  x: number;
  y: number;
}

/**
 * A plan of some places to scale, north up, in a square: tells where any place stands on it, x from the left and y from the top.
 * The places themselves stand from `edge` to `size` less `edge`. So near together a degree of longitude is just shorter by the cosine
 * of the latitude.
 */
export function sketchOf(spots: readonly Spot[], size: number, edge: number): (spot: Spot) => SketchPoint {
  const middle = spots.reduce((sum, { lat }) => sum + lat, 0) / spots.length;
  const shorter = Math.cos((middle * Math.PI) / 180);
  const xs = spots.map(({ lon }) => lon * shorter);
  const ys = spots.map(({ lat }) => -lat);
  const [west, north] = [Math.min(...xs), Math.min(...ys)];
  const [wide, high] = [Math.max(...xs) - west, Math.max(...ys) - north];
  const span = Math.max(wide, high, 1e-6);
  const scale = (size - 2 * edge) / span;
  // What is narrow or flat stands in the middle of the square.
  const [left, top] = [edge + ((span - wide) * scale) / 2, edge + ((span - high) * scale) / 2];
  return ({ lat, lon }) => ({ x: left + (lon * shorter - west) * scale, y: top + (-lat - north) * scale });
}

/** How near two names may stand, and a name to a stop. */
const APART = 0.16;
const MOST_NAMED = 6;

/** Where the name of a town begins, right of it: behind a stop that stands there. */
const BESIDE = 0.02;
const BEHIND_STOP = 0.055;

/**
 * The towns to be named on a plan so that one finds one's way: the first of some that stand on it, apart from each other and with room
 * for their names, which begin at `at`.
 */
export function townsOnSketch<T extends Spot>(
  towns: readonly T[],
  stops: readonly SketchPoint[],
  place: (spot: Spot) => SketchPoint,
  size: number,
): (T & SketchPoint & { at: number })[] {
  const named: (T & SketchPoint & { at: number })[] = [];
  for (const town of towns) {
    const { x, y } = place(town);
    if (x < 4 || x > size * 0.78 || y < 10 || y > size - 6) continue;
    if (
      named.some((other) => Math.abs(other.y - y) < size * 0.06 && Math.abs(other.x - x) < size * 2 * APART)
    )
      continue;
    if (named.some((other) => Math.hypot(other.x - x, other.y - y) < size * APART)) continue;
    const behind = stops.some((stop) => Math.hypot(stop.x - x, stop.y - y) < size * BEHIND_STOP);
    named.push({ ...town, x, y, at: x + size * (behind ? BEHIND_STOP : BESIDE) });
    if (named.length === MOST_NAMED) break;
  }
  return named;
}
