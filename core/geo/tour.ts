import { distanceKm } from './distance.ts';

/** A point to be visited. */
export interface Stop {
  lat: number;
  lon: number;
}

export interface Tour {
  /** Indices of the stops, in the order of the day. */
  order: number[];
  /** Kilometres from each stop's predecessor in the order, the first from the start, and last back to the start. */
  legs: number[];
  /** All legs together. */
  km: number;
}

/** How much longer roads are taken to be than the crow flies: an assumption for a driving estimate, and said to be one where it is shown. */
export const ROAD_FACTOR = 1.4;

/**
 * A sensible order in which to visit some stops from a start and back: the nearest that is left each time, then turned round
 * wherever that makes it shorter (2-opt, Croes 1958, Oper. Res. 6:791) until no turn does. Not always the shortest of all, but
 * without a crossing. Distances are great circles.
 */
export function tourOf(start: Stop, stops: readonly Stop[]): Tour {
  const points = [start, ...stops];
  const n = points.length;
  const far = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++)
      far[i * n + j] = far[j * n + i] = distanceKm(
        points[i]!.lat,
        points[i]!.lon,
        points[j]!.lat,
        points[j]!.lon,
      );
  const path = nearestFirst(far, n);
  while (turn(path, far, n));
  const at = (i: number) => path[i % n]!;
  const legs = path.map((_, i) => far[at(i) * n + at(i + 1)]!);
  return {
    order: path.slice(1).map((point) => point - 1),
    legs,
    km: legs.reduce((sum, leg) => sum + leg, 0),
  };
}

/** Points in the order in which each is the nearest left to the one before; the start first. */
function nearestFirst(far: Float64Array, n: number): number[] {
  const path = [0];
  const left = new Set(Array.from({ length: n - 1 }, (_, i) => i + 1));
  while (left.size) {
    const here = path.at(-1)!;
    let best = -1;
    for (const point of left) if (best < 0 || far[here * n + point]! < far[here * n + best]!) best = point;
    path.push(best);
    left.delete(best);
  }
  return path;
}

/** What a turn must save at least, in km, so that rounding never turns for ever. */
const LEAST_SAVED = 1e-9;

/** Turns one part of the path round where that shortens it. False where none does. */
function turn(path: number[], far: Float64Array, n: number): boolean {
  let turned = false;
  for (let i = 0; i < n - 1; i++)
    for (let j = i + 1; j < n; j++) {
      const [a, b, c, d] = [path[i]!, path[i + 1]!, path[j]!, path[(j + 1) % n]!];
      const saved = far[a * n + b]! + far[c * n + d]! - far[a * n + c]! - far[b * n + d]!;
      if (saved <= LEAST_SAVED) continue;
      for (let from = i + 1, to = j; from < to; from++, to--)
        [path[from], path[to]] = [path[to]!, path[from]!];
      turned = true;
    }
  return turned;
}
