import type { Field } from '../fields/field.ts';

/** Where the bars of a number field begin; the last is open. `now` is the calendar year of the as-of date. */
export function edgesOf(field: Field, now: number): number[] {
  if (field.bars) return [...field.bars];
  if (field.kind === 'growth') return [...GROWTH_EDGES];
  if (field.yearsSince) return [...AGES];
  if (field.id === 'founded') return yearEdges(now);
  if (field.id === 'profit') return signedEdges(4, 8);
  if (field.id === 'revenue-per-head') return logEdges(3, 7);
  if (field.kind === 'keyed') return logEdges(0, 3);
  if (field.kind === 'money') return logEdges(4, 9);
  return logEdges(0, 5);
}

/** Percents at which bars of growth begin; the first is open downwards. */
export const GROWTH_EDGES: readonly number[] = [-100, -50, -30, -20, -10, -5, 0, 5, 10, 20, 30, 50, 100, 200];

/** Years passed at which bars begin. */
export const AGES: readonly number[] = [0, 2, 5, 10, 15, 20, 30, 40, 50, 75, 100];

/** Fewer bars for what spans many decades: those edges alone that begin with 1, 2 or 5. */
export function coarse(edges: readonly number[]): number[] {
  return edges.filter((edge) => edge === 0 || /^-?[125]/.test(String(edge)));
}

/** Amounts below zero, 0, and above it, a few steps a decade. */
function signedEdges(first: number, last: number): number[] {
  const above: number[] = [];
  for (let decade = first; decade <= last; decade++)
    for (const step of [1, 3]) above.push(step * 10 ** decade);
  return [...above.map((edge) => -edge).reverse(), 0, ...above];
}

/** 0, then 1, 2, 3, 5, 7 in each decade from 10^first to 10^last. */
export function logEdges(first: number, last: number): number[] {
  const edges = [0];
  for (let decade = first; decade <= last; decade++)
    for (const step of [1, 2, 3, 5, 7]) edges.push(step * 10 ** decade);
  return edges;
}

/** Decades up to 1950, then every five years. */
function yearEdges(now: number): number[] {
  const edges = [0];
  for (let year = 1900; year < now; year += year < 1950 ? 10 : 5) edges.push(year);
  return edges;
}
