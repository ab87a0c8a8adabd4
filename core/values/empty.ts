import { fold } from '../text/fold.ts';

/** Words that files write instead of leaving a cell empty, folded and without points and spaces. */
const EMPTY: ReadonlySet<string> = new Set(
  (
    'na n/a n.a. #n/a #nv #na #null! #ref! #value! #name? #div/0! #num! #wert! #bezug! null nil nan (null) (none) (blank) (empty) (leer) ' +
    'unknown unbekannt not_known not_available not_disclosed undisclosed not_specified none_supplied not_supplied not_provided not_applicable not_reported not_stated unspecified not_found no_data tbd tbc ' +
    'k.a. keine_angabe keine_angaben ohne_angabe o.a. nicht_bekannt nicht_verfugbar n.v. n.b. ' +
    'neznamy neznama nezname neuvedeno nezjisteno neuvedene nezistene neni_k_dispozici neznamo bez_udaje ' +
    'b.d. b/d brak_danych brak nieznany nieznana nieznane nie_podano ' +
    'n.d. n/d nd nc n.c. non_communique non_disponible non_renseigne inconnu inconnue ' +
    'non_disponibile sconosciuto sconosciuta non_noto desconocido desconocida no_disponible sin_datos s/d s.d. ' +
    'ismeretlen nincs_adat onbekend ukendt ukjent okand uoplyst nu_se_stie necunoscut'
  )
    .split(' ')
    .map((word) => bare(word.replace(/_/g, ' '))),
);

/** An error of a spreadsheet in any language: #VALUE!, #HODNOTA!, #ODKAZ!. */
const SPREADSHEET_ERROR = /^#\p{Lu}{2,12}[!?]$/u;

/** Of these, those that people and firms are also called, or that mean a place. */
const NAMES_TOO: ReadonlySet<string> = new Set(
  'na null nil nan none unknown nd nc brak tbd'.split(' ').map(bare),
);

function bare(text: string): string {
  return fold(text).replace(/[.\s_]/g, '');
}

/** Characters that a word for "nothing" may have before its second letter, left out of words as `bare` does. */
const isLeftOut = (code: number) => code === 0x2e || code === 0x5f || code === 0x20;
/** Places of two characters side by side, for characters below 128; 0 is none. */
const pairOf = (first: number, second: number) => first * 128 + second;

/** The first two characters of each of the words, so that nearly every cell is known at once to be none of them. */
const BEGINNINGS = new Uint8Array(128 * 128);
for (const word of EMPTY) BEGINNINGS[pairOf(word.charCodeAt(0), word.charCodeAt(1) || 0)] = 1;

/** Whether a text begins as one of the words does; true where only folding can tell. */
function mayBeEmptyWord(text: string): boolean {
  let first = 0;
  for (let i = 0; i < text.length; i++) {
    let code = text.charCodeAt(i);
    if (code > 127 || code < 0x20) return true;
    if (isLeftOut(code)) continue;
    if (code >= 0x41 && code <= 0x5a) code += 0x20;
    if (first !== 0) return BEGINNINGS[pairOf(first, code)] === 1;
    first = code;
  }
  return true;
}

const isFigureOrLetter = (code: number) =>
  (code >= 0x30 && code <= 0x39) || (code >= 0x41 && code <= 0x5a) || (code >= 0x61 && code <= 0x7a);

/**
 * Whether a cell that is not empty says that nothing is known: n/a, k.A., -, ?, #N/A, unknown, NULL. In a column of
 * `names` words that are names too are kept: somebody may be called Null.
 */
export function saysNothing(cell: string, names = false): boolean {
  if (cell.length > 24) return false;
  if (!isFigureOrLetter(cell.charCodeAt(0)) && /^[-–—?.*/_\s]+$/.test(cell)) return true;
  if (cell.startsWith('#')) return SPREADSHEET_ERROR.test(cell) || EMPTY.has(bare(cell));
  if (!mayBeEmptyWord(cell)) return false;
  const word = bare(cell);
  return EMPTY.has(word) && !(names && NAMES_TOO.has(word));
}
