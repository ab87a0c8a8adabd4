/**
 * Where classes of a shaded map begin: at most `most` round numbers (1, 2 or 5 times a power of ten, or 0) that part the
 * different figures into classes of about the same number. Ascending; the first is at or below the least figure. Empty without
 * figures. Where no figure is below nothing, nothing is a class of its own that is not among these.
 */
export function roundClasses(figures: readonly number[], most: number): number[] {
  const signed = figures.some((figure) => figure < 0);
  const sorted = [...new Set(figures)].filter((figure) => signed || figure > 0).sort((a, b) => a - b);
  if (sorted.length === 0) return [];
  const begins = [roundDown(sorted[0]!)];
  for (let i = 1; i < most; i++) {
    const begin = roundNear(sorted[Math.min(sorted.length - 1, Math.floor((i * sorted.length) / most))]!);
    if (begin > begins.at(-1)! && begin <= sorted.at(-1)!) begins.push(begin);
  }
  return begins;
}

/** The class of a figure: how many classes begin at or below it, less one; -1 below the first. */
export function classOf(begins: readonly number[], figure: number): number {
  let at = -1;
  while (at + 1 < begins.length && begins[at + 1]! <= figure) at++;
  return at;
}

const STEPS = [1, 2, 5, 10];

function roundDown(figure: number): number {
  if (figure < 0) return -roundUp(-figure);
  const decade = 10 ** Math.floor(Math.log10(figure));
  return tidy((STEPS.findLast((step) => step * decade <= figure) ?? 0.5) * decade);
}

function roundUp(figure: number): number {
  const decade = 10 ** Math.floor(Math.log10(figure));
  return tidy((STEPS.find((step) => step * decade >= figure) ?? 20) * decade);
}

function roundNear(figure: number): number {
  if (figure === 0) return 0;
  if (figure < 0) return -roundNear(-figure);
  const decade = 10 ** Math.floor(Math.log10(figure));
  let best = decade;
  for (const step of STEPS)
    if (Math.abs(Math.log(figure / (step * decade))) < Math.abs(Math.log(figure / best)))
      best = step * decade;
  return tidy(best);
}

function tidy(figure: number): number {
  return Number(figure.toPrecision(3));
}
