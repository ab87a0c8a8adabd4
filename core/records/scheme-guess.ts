import { isScheme, schemeNamed, SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { foldedWords } from '../text/fold.ts';
import { readCodes, withoutSchemed } from '../values/codes.ts';

/** Which scheme a column of industry codes is in. */

/** Classifications of countries by their name, which extend one of ours; with a year where they changed. */
const BY_NAME: readonly (readonly [RegExp, Scheme | readonly Scheme[]])[] = [
  [/naics/, 'naics-2022'],
  [/isic/, 'isic-4'],
  [/nacerev21|nace21|nace2025|caenrev3|caerev4/, 'nace-2.1'],
  [/nacerev2|nace2008|^nace2$|caenrev2/, 'nace-2'],
  [
    /(wz|onace|noga|ateco|naf|cnae|pkd|teaor|sbi|sknace|cznace|caen|nacebel|nkd|skd|emtak|sic)(20)?(25)/,
    'nace-2.1',
  ],
  [
    /(wz|onace|noga|ateco|naf|cnae|pkd|teaor|sbi|sni|caen|nacebel|nkd|skd|emtak|cznace|sknace)(20)?(03|07|08|09)|nafrev2|caerev3|uksic|sic2007|sic03/,
    'nace-2',
  ],
  [/ussic|sic1987|sic87/, 'sic-1987'],
  [/sic/, ['sic-1987', 'nace-2']],
  [/nace|wz|onace|noga|ateco|naf|ape|cnae|pkd|teaor|sbi|sni|caen|cae/, ['nace-2.1', 'nace-2']],
];

/** The scheme that a text names, by our name for it or by that of a national classification of one year; undefined where it names none. */
export function schemeSaid(text: string): Scheme | undefined {
  const words = foldedWords(text).join('');
  const named = schemeNamed(text) ?? BY_NAME.find(([pattern]) => pattern.test(words))?.[1];
  return typeof named === 'string' ? named : undefined;
}

/** Codes that are looked at. */
const MOST_CODES = 2000;

/**
 * The scheme of some codes by the heading of their column and by the codes themselves: that in which most of them are
 * codes. Where two fit equally, the one in which `same` says that all of them mean what they mean in the other; null
 * where they do not, so that somebody has to say it.
 */
export function guessScheme(
  heading: string,
  cells: readonly string[],
  trees: ReadonlyMap<Scheme, CodeTree>,
  same: (code: string) => boolean,
): Scheme | null {
  const words = foldedWords(heading).join('');
  for (const [scheme, name] of Object.entries(SCHEMES))
    if (isScheme(scheme) && words.includes(foldedWords(name).join('')) && scheme !== 'nace-2') return scheme;
  const named = BY_NAME.find(([pattern]) => pattern.test(words))?.[1];
  if (typeof named === 'string') return named;
  const fits = (named ?? [...trees.keys()]).map((scheme) => {
    const tree = trees.get(scheme);
    return {
      scheme,
      codes: tree
        ? cells.slice(0, MOST_CODES).filter((cell) => isCodes(withoutSchemed(cell), tree)).length
        : 0,
    };
  });
  const most = Math.max(0, ...fits.map(({ codes }) => codes));
  const best = fits.filter(({ codes }) => codes === most).map(({ scheme }) => scheme);
  if (most === 0) return named?.[0] ?? 'nace-2.1';
  if (best.length === 1) return best[0]!;
  // Figures without points are codes in several schemes; with points only in these two.
  const nace = best.includes('nace-2.1') && best.includes('nace-2');
  if (nace && (named !== undefined || cells.some((cell) => cell.includes('.'))))
    return cells.every((cell) => same(cell)) ? 'nace-2.1' : null;
  return null;
}

/** Whether a cell has codes of a scheme and nothing else; `figures` is as in `readCodes`. */
export function isCodes(cell: string, tree: CodeTree, figures = 0): boolean {
  try {
    return readCodes(cell, tree, figures).length > 0;
  } catch {
    return false;
  }
}
