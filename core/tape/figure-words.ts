import type { NumberTest } from './nodes.ts';

/** A range in words. One that ends a step short of a whole figure, as that of a bar does, is said to end under it. */
export function wordRange(test: NumberTest, word: (n: number) => string, step = 1): string {
  const { from, to } = test;
  if (to === undefined) return `${word(from!)} or more`;
  const next = Number((to + step).toFixed(3));
  const under = Number.isInteger(next) && !Number.isInteger(to);
  if (from === undefined) return under ? `under ${word(next)}` : `up to ${word(to)}`;
  if (from === to) return `exactly ${word(from)}`;
  return under ? `${word(from)} to under ${word(next)}` : `${word(from)} to ${word(to)}`;
}

/** A figure as it is read: 1234.5 → "1,234.5". */
export function plain(n: number): string {
  return n.toLocaleString('en-GB', { maximumFractionDigits: 6 }).replace('-', '−');
}
