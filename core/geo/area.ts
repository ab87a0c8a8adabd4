type Corner = readonly [lat: number, lon: number];

/** One side of an area: a point at latitude y crosses it eastwards if `(y1 > y) ≠ (y2 > y)` and `x < slope part + x1`. */
export interface Side {
  y1: number;
  y2: number;
  x1: number;
  /** x2 - x1 and y2 - y1. */
  dx: number;
  dy: number;
}

/** The sides of an area with these corners, the last joined to the first. */
export function sidesOf(points: readonly Corner[]): Side[] {
  return points.map(([y1, x1], i) => {
    const [y2, x2] = points[(i + 1) % points.length]!;
    return { y1, y2, x1, dx: x2 - x1, dy: y2 - y1 };
  });
}

/**
 * Whether a point lies in an area: a ray to the east crosses its sides an odd number of times.
 * Degrees are taken as a plane; sides are straight lines on a map of latitude and longitude.
 */
export function isInArea(lat: number, lon: number, sides: readonly Side[]): boolean {
  let inside = false;
  for (let i = 0; i < sides.length; i++) {
    const { y1, y2, x1, dx, dy } = sides[i]!;
    if (y1 > lat !== y2 > lat && lon < (dx * (lat - y1)) / dy + x1) inside = !inside;
  }
  return inside;
}
