/** Bands of staff that a register gives by a code, which no figure of its own tells. */

/**
 * Sizes of the French register of companies: first and last head of each code; null where there is no last.
 * Source: INSEE, Sirene, variable "tranche d'effectifs salariés". NN is a firm that is not known to employ anybody.
 */
const INSEE: ReadonlyMap<string, readonly [number, number | null] | null> = new Map([
  ['NN', null],
  ['00', [0, 0]],
  ['01', [1, 2]],
  ['02', [3, 5]],
  ['03', [6, 9]],
  ['11', [10, 19]],
  ['12', [20, 49]],
  ['21', [50, 99]],
  ['22', [100, 199]],
  ['31', [200, 249]],
  ['32', [250, 499]],
  ['41', [500, 999]],
  ['42', [1000, 1999]],
  ['51', [2000, 4999]],
  ['52', [5000, 9999]],
  ['53', [10_000, null]],
]);

/** A code of the French register with the zero back that a spreadsheet may have eaten. */
const inseeCode = (cell: string) => {
  const code = cell.trim().toUpperCase().replace(/\.0$/, '');
  return /^\d$/.test(code) ? `0${code}` : code;
};

/** Whether all of some cells are codes of the French register. */
export const areInseeBands = (cells: readonly string[]): boolean =>
  cells.length > 0 && cells.every((cell) => INSEE.has(inseeCode(cell)));

/** The band that a code of the French register stands for, as people write it; null for none, undefined where it is no such code. */
export function inseeBand(cell: string): string | null | undefined {
  const band = INSEE.get(inseeCode(cell));
  if (!band) return band;
  const [first, last] = band;
  return last === null ? `${first}+` : first === last ? `${first}` : `${first}-${last}`;
}
