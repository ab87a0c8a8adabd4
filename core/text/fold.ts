import anyAscii from 'any-ascii';

/**
 * Text as it is compared: accents, case and typographic apostrophes do not matter.
 * "Łódź" → "lodz", "Größe" → "grosse". Indexed text and searched text are folded by this same function.
 */
export function fold(text: string): string {
  return (isAscii(text) ? text : anyAscii(text)).toLowerCase();
}

/** The words of a text, folded: runs of letters and figures. "Builders' carpentry" → ["builders", "carpentry"]. */
export function foldedWords(text: string): string[] {
  return fold(text).match(/[a-z0-9]+/g) ?? [];
}

function isAscii(text: string): boolean {
  for (let i = 0; i < text.length; i++) if (text.charCodeAt(i) > 127) return false;
  return true;
}
