import type { NumberTest } from '../nodes.ts';

const FIGURE = String.raw`-?\d[\d,]*(?:\.\d+)?(?:e[+-]?\d+)?(?:k|m|bn)?`;
const SIZES: Record<string, number> = { k: 1e3, m: 1e6, bn: 1e9 };

/** A figure as it is typed: 20, 1,500, 2.5m, 500k, 1bn. Null where it is none. */
export function readFigure(text: string): number | null {
  const parts = /^(-?\d[\d,]*(?:\.\d+)?(?:e[+-]?\d+)?)(k|m|bn)?$/i.exec(text);
  if (!parts) return null;
  const value = Number(parts[1]!.replaceAll(',', '')) * (parts[2] ? SIZES[parts[2].toLowerCase()]! : 1);
  // 2.3m is 2300000, not 2299999.9999999995
  return Number.isFinite(value) ? (parts[2] ? Number(value.toPrecision(15)) : value) : null;
}

/** A figure in its shortest typed form that reads back as the same number. */
export function spellFigure(value: number): string {
  for (const [unit, size] of [
    ['bn', 1e9],
    ['m', 1e6],
    ['k', 1e3],
  ] as const) {
    const short = `${value / size}${unit}`;
    if (Math.abs(value) >= size && short.length < String(value).length && readFigure(short) === value)
      return short;
  }
  return String(value);
}

const RANGE = new RegExp(String.raw`^(${FIGURE})\s*(?:\.\.|-|–|to)\s*(${FIGURE})`, 'i');
const FROM = new RegExp(
  String.raw`^(?:(?:from|at least|over|min)\s+(${FIGURE})|(${FIGURE})\s*(?:\+|or more|\.\.))`,
  'i',
);
const TO = new RegExp(String.raw`^(?:(?:up to|at most|to|max)\s+(${FIGURE})|\.\.\s*(${FIGURE}))`, 'i');
const EXACT = new RegExp(String.raw`^(${FIGURE})(?![\d.])`, 'i');

/** A range at the start of a text and what follows it, or null: 20-249, 2m..40m, 50+, up to 9, 12. */
export function readRange(text: string): { test: NumberTest; rest: string } | null {
  const found = RANGE.exec(text) ?? FROM.exec(text) ?? TO.exec(text) ?? EXACT.exec(text);
  if (!found) return null;
  const rest = text.slice(found[0].length).trim();
  const figures = found
    .slice(1)
    .filter((part) => part !== undefined)
    .map(readFigure);
  if (figures.some((figure) => figure === null)) return null;
  const [one, other] = figures as [number, number | undefined];
  if (RANGE.test(text)) return { test: { from: one, to: other! }, rest };
  if (FROM.test(text)) return { test: { from: one }, rest };
  if (TO.test(text)) return { test: { to: one }, rest };
  return { test: { from: one, to: one }, rest };
}

export function spellRange(test: NumberTest): string {
  const { from, to } = test;
  if (from === undefined) return `up to ${spellFigure(to!)}`;
  if (to === undefined) return `${spellFigure(from)}+`;
  const ends = [spellFigure(from), spellFigure(to)] as const;
  return ends.some((end) => /[-e]/.test(end)) ? ends.join(' .. ') : ends.join('-');
}
