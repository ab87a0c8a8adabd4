import type { HistoryPoint } from './record.ts';

/** The key of growth among measures: what grew, and over which span. */
export function growthKey(of: string, over: '1y' | '3y'): string {
  return `${of} ${over}`;
}

/**
 * Growth in percent from an earlier figure to a later one, not rounded; below zero is shrinking. Null
 * where the earlier one is zero, below zero or not known.
 */
export function growthOf(before: number | null | undefined, now: number | null | undefined): number | null {
  if (before === null || before === undefined || now === null || now === undefined || before <= 0)
    return null;
  return (100 * (now - before)) / before;
}

/** Growth of a history to its latest year from so many years before; null too where one end is an estimate and the other is not. */
export function growthOver(history: readonly HistoryPoint[], years: number): number | null {
  const now = history.at(-1);
  const before = now && history.find((point) => point.year === now.year - years);
  if (!now || !before || before.estimate !== now.estimate) return null;
  return growthOf(before.value, now.value);
}
