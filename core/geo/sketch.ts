/** A place by its coordinates, in degrees. */
interface Spot {
  readonly lat: number;
  readonly lon: number;
}

/**
 * Places drawn to scale in a square, north up: x from the left and y from the top, from `edge` to `size` less `edge`. So near together
 * a degree of longitude is just shorter by the cosine of the latitude.
 */
export function sketchPoints(spots: readonly Spot[], size: number, edge: number): { x: number; y: number }[] {
  const middle = spots.reduce((sum, { lat }) => sum + lat, 0) / spots.length;
  const flat = spots.map(({ lat, lon }) => ({ x: lon * Math.cos((middle * Math.PI) / 180), y: -lat }));
  const [west, north] = [Math.min(...flat.map(({ x }) => x)), Math.min(...flat.map(({ y }) => y))];
  const span = Math.max(...flat.map(({ x }) => x - west), ...flat.map(({ y }) => y - north), 1e-6);
  const scale = (size - 2 * edge) / span;
  return flat.map(({ x, y }) => ({ x: edge + (x - west) * scale, y: edge + (y - north) * scale }));
}
