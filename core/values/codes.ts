import { schemeNamed, SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { fold } from '../text/fold.ts';
import { CellError } from './cell.ts';

/** A code of a cell with its scheme. */
export interface ReadCode {
  scheme: Scheme;
  code: string;
  /** Whether the cell says that it is the main one of its scheme. */
  main: boolean;
}

/** A code that names its scheme: NAICS 2022 332812, at times with "main" behind it. */
const SCHEMED = /^((?:NACE|ISIC|NAICS|SIC) [\d.]{1,4})[ :]\s?(\S.*?)( main)?$/i;

/**
 * The codes of a cell in which those of another scheme than the usual one name it. `figures` is as in `readCodes`, for the usual one.
 * @throws CellError
 */
export function readSchemedCodes(
  cell: string,
  usual: Scheme,
  trees: ReadonlyMap<Scheme, CodeTree>,
  figures = 0,
): ReadCode[] {
  return partsOf(cell).flatMap((part) => {
    const found = SCHEMED.exec(part);
    const scheme = found ? schemeNamed(found[1]!) : undefined;
    const codes =
      found && scheme
        ? readCodes(found[2]!, trees.get(scheme)!)
        : readCodes(part, trees.get(usual)!, figures);
    return codes.map((code) => ({ scheme: scheme ?? usual, code, main: found?.[3] !== undefined }));
  });
}

/** What of a cell is written without its scheme. */
export function withoutSchemed(cell: string): string {
  return partsOf(cell)
    .filter((part) => !SCHEMED.test(part))
    .join('; ');
}

/** Codes in one cell, which name their scheme where it is another than that of the main code. */
export function codesText(codes: readonly ReadCode[]): string {
  const usual = usualScheme(codes);
  return codes
    .map(({ scheme, code, main }) =>
      scheme === usual ? code : `${SCHEMES[scheme]} ${code}${main ? ' main' : ''}`,
    )
    .join('; ');
}

/** The scheme in which the codes of a record are written: that of its main code, else of its first; null where it has none. */
export function usualScheme(codes: readonly ReadCode[]): Scheme | null {
  return (codes.find(({ main }) => main) ?? codes[0])?.scheme ?? null;
}

const partsOf = (cell: string): string[] =>
  cell
    .split(/[;|\n]/)
    .map((part) => part.trim().replace(/\s+/g, ' '))
    .filter(Boolean);

/**
 * The industry codes in one cell, as the scheme writes them. Understood are missing points (2551) and zeros (1.11 for
 * 01.11), a letter before (C25.51), ".0" behind (321918.0), national extensions, which are cut to the code of the
 * scheme that they extend (25.62B, 25510), and a title behind ("25.51 Coating"). A comma makes a list only where both
 * sides are codes; 25,51 is one code.
 * @param figures how many figures a code of the column has that lost its leading zero; 0 where none has
 * @throws CellError
 */
export function readCodes(cell: string, tree: CodeTree, figures = 0): string[] {
  return partsOf(cell).flatMap((part) => codesOf(part, tree, figures));
}

function codesOf(written: string, tree: CodeTree, figures: number): string[] {
  const part = written.replace(SCHEME_BEFORE, '');
  const one = codeOf(part.replace(/^(\d{1,2}),(\d{1,2})$/, '$1.$2'), tree, figures);
  if (one !== null) return [one];
  for (const separator of [/[,/]/, ' ']) {
    const several = part.split(separator).map((text) => codeOf(text, tree, figures));
    if (several.length > 1 && several.every((code) => code !== null)) return several;
  }
  const titled = /^([A-Z]?\s?\d[\w.-]*)[\s:–—-]+\D/iu.exec(part);
  const code = titled && codeOf(titled[1]!.replace(/[.-]$/, ''), tree, figures);
  if (code) return [code];
  const section = /^(?:section |abschnitt |sekce |sekcja )?([A-U])(?: ?[:–—]| -) \D/iu.exec(part);
  const named = (section && codeOf(section[1]!, tree, 0)) ?? codeByTitle(part, tree);
  if (named) return [named];
  throw new CellError(`a code of ${SCHEMES[tree.scheme]}; “${part.slice(0, 40)}” is none`);
}

/** What codes are called, before them: "NACE 25.11", "SIC code 2431", "Code: 25.11". */
const SCHEME_BEFORE =
  /^(?:(?:nace|naics|sic|isic|wz|pkd|naf|ateco)(?: rev\.? ?\d(?:\.\d)?)?|code|kod|kód)(?: code)?[ :]+(?=[A-Z]?\d)/i;

/** The code that a text is the title of, the deepest where one of several levels has no more than one below it; null where it is none, or of several codes. */
function codeByTitle(text: string, tree: CodeTree): string | null {
  let byTitle = titlesOf.get(tree);
  if (!byTitle) {
    byTitle = new Map();
    for (let node = 0; node < tree.codes.length; node++) {
      const title = fold(tree.titles[node]!);
      const before = byTitle.get(title);
      const isBelow = before === undefined || isWithin(tree, node, before);
      byTitle.set(title, isBelow ? node : SEVERAL);
    }
    titlesOf.set(tree, byTitle);
  }
  const node = byTitle.get(fold(text.trim()));
  return node === undefined || node === SEVERAL ? null : tree.codes[node]!;
}

const SEVERAL = -1;
const titlesOf = new WeakMap<CodeTree, Map<string, number>>();

/** Whether a node lies below another. */
function isWithin(tree: CodeTree, node: number, above: number): boolean {
  for (let at = node; at >= 0; at = tree.parents[at]!) if (at === above) return true;
  return false;
}

/** Figures of the longest national extensions. */
const MOST_FIGURES = 7;

function codeOf(text: string, tree: CodeTree, figures: number): string | null {
  const tight = text
    .trim()
    .toUpperCase()
    .replace(/^([A-Z]) /, '$1');
  const exact = tree.nodeOf(tight);
  if (exact >= 0 && !(figures && /^\d+$/.test(tight) && tight.length < figures)) return tree.codes[exact]!;
  const parts = /^[A-Z]?(\d+(?:[.-]\d+)*)\.?[A-Z]{0,2}$/.exec(tight);
  if (!parts) return null;
  let digits = parts[1]!.replace(/[.-]/g, '');
  if (digits.length > MOST_FIGURES) return null;
  if (tree.scheme.startsWith('nace')) {
    // One figure before the point has lost its zero.
    if (/^\d[.-]/.test(parts[1]!)) digits = `0${digits}`;
    else if (/^\d+$/.test(parts[1]!) && digits.length < figures) digits = digits.padStart(figures, '0');
    return longest(digits, 4, tree);
  }
  if (/^\d+\.0+$/.test(parts[1]!)) digits = parts[1]!.replace(/\.0+$/, '');
  if (digits.length < figures) digits = digits.padStart(figures, '0');
  if (tree.scheme === 'isic-4') return longest(digits, 4, tree);
  const node = tree.nodeOf(digits);
  return node < 0 ? null : tree.codes[node]!;
}

/** The code that a national one extends: that of its first four figures; of shorter ones just the code itself. */
function longest(digits: string, most: number, tree: CodeTree): string | null {
  // 25.0 is the division 25 that became a number on its way.
  const whole =
    digits.length === 3 && digits.endsWith('0') ? [digits, digits.slice(0, 2)] : [digits.slice(0, most)];
  for (const one of whole) {
    const dotted = tree.scheme === 'isic-4' || one.length < 3 ? one : `${one.slice(0, 2)}.${one.slice(2)}`;
    const node = tree.nodeOf(dotted);
    if (node >= 0) return tree.codes[node]!;
    // A group that has one class is written with a nought too: 84.20 for 84.2.
    const group = one.length === 4 && one.endsWith('0') ? tree.nodeOf(dotted.slice(0, -1)) : -1;
    if (group >= 0) return tree.codes[group]!;
  }
  return null;
}

/** How many figures codes of a column have that lost a leading zero there: those of the others, where some have one less and all only figures. 0 where that is not seen. */
export function figuresWithZero(cells: readonly string[]): number {
  const lengths = new Set<number>();
  for (const cell of cells) {
    const text = cell.trim().replace(/\.0$/, '');
    if (!/^\d{1,6}$/.test(text)) return 0;
    lengths.add(text.length);
  }
  const most = Math.max(0, ...lengths);
  return (most === 4 || most === 5) && lengths.size === 2 && lengths.has(most - 1) ? most : 0;
}
