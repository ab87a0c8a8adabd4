/** Postal addresses that stand in one text, taken apart. */

/** Characters of a text that are looked at. */
const LONGEST = 300;

/**
 * Postcodes as countries write them: figures (with a blank, a dash or a country before them), or letters and figures of
 * Britain, Ireland, the Netherlands, Malta and Canada. The forms are those of the Universal Postal Union's address guides.
 */
const POSTCODE =
  /(?:\b[A-Z]{1,2}[- ])?(?:\b\d{5}-\d{3}\b|\b\d{3} \d{2}\b|\b\d{2}-\d{3}\b|\b\d{4} [A-Z]{2}\b|\b\d{4}-\d{3}\b|\b\d{4,6}\b)|\b[A-Z]{1,2}\d[A-Z\d]? \d[A-Z]{2}\b|\b[A-Z]\d[A-Z] \d[A-Z]\d\b|\b[A-Z]\d{2} [A-Z\d]{4}\b|\b[A-Z]{3} \d{4}\b/;
/** A house's number behind the street's name, or before it. */
const HOUSE_BEHIND = /\p{L}\p{L}.{0,60} \d{1,4} ?[a-z]?(?:[/-]\d{1,4}[a-z]?){0,3}\.?$/iu;
const HOUSE_BEFORE = /^\d{1,4}[a-z]?(?:[/-]\d{1,4})?,? \p{L}{2,}/iu;

/** An address taken apart; what is not there is null. */
export interface AddressParts {
  street: string | null;
  postcode: string | null;
  town: string | null;
}

/** What may stand before a postcode, and between an address and what is not of it. */
const SEPARATORS = /[,;|·•\n]| [–—-] /;

/** The parts of a text that stand apart by commas, dots in the middle, dashes or lines, without blanks around them. */
export const apartIn = (text: string): string[] =>
  text
    .slice(0, LONGEST)
    .replace(/[^\S\n]+/g, ' ')
    .split(SEPARATORS)
    .map((part) => part.trim())
    .filter(Boolean);

/** Takes apart an address on one line or several. What stands before the street (such as a name) is left out. */
export function addressParts(text: string): AddressParts {
  const parts = apartIn(text);
  // From the end, since a street may begin with figures that look like a postcode.
  for (let i = parts.length - 1; i >= 0; i--) {
    const found = postcodeOf(parts[i]!);
    if (!found) continue;
    const { before, postcode, after } = found;
    const next = parts[i + 1];
    const beside = [before, ...parts.slice(0, i).reverse(), after === '' ? '' : (next ?? '')];
    const street = beside.find(isStreet) ?? null;
    const wordsBefore = before !== '' && !isStreet(before) ? before : null;
    const town =
      after !== ''
        ? after
        : (wordsBefore ??
          (next !== undefined && isWords(next)
            ? next
            : i > 0 && isWords(parts[i - 1]!)
              ? parts[i - 1]!
              : null));
    return { street: withRoad(street, parts, town), postcode, town };
  }
  const at = parts.findIndex(isStreet);
  const next = at < 0 ? undefined : parts[at + 1];
  return {
    street: at < 0 ? null : parts[at]!,
    postcode: null,
    town: next !== undefined && isWords(next) ? next : null,
  };
}

/** What within a house has a number too. */
const WITHIN_HOUSE = /^(?:unit|suite|floor|level|building|block|office|flat|room|shop|plot|hall|halle) /i;

/** The number of a unit with the road behind it: Unit 4, Forge Lane. */
function withRoad(street: string | null, parts: readonly string[], town: string | null): string | null {
  const road = street !== null && WITHIN_HOUSE.test(street) ? parts[parts.indexOf(street) + 1] : undefined;
  return road === undefined || road === town || POSTCODE.test(road) ? street : `${street}, ${road}`;
}

/** What an address has besides its postcode and its town, where no part of it is plainly the street: The Old Mill, Canal Road. */
export function besideTown(text: string, { postcode, town }: AddressParts): string | null {
  const rest = apartIn(text).filter(
    (part) => part !== town && !(postcode !== null && part.includes(postcode)),
  );
  return rest.join(', ') || null;
}

function postcodeOf(part: string): { before: string; postcode: string; after: string } | null {
  // Short figures at the end of words are a house's number, unless nothing but words follows them.
  const found = POSTCODE.exec(part);
  if (!found) return null;
  const before = part.slice(0, found.index).trim();
  const after = part.slice(found.index + found[0].length).trim();
  // But for the number of a district: 110 00 Praha 1.
  if (/\d/.test(after.replace(/(?<=\p{L}) \d{1,2}$/u, ''))) return null;
  return { before, postcode: found[0], after };
}

export const isStreet = (text: string) =>
  text.length <= 120 && (HOUSE_BEHIND.test(text) || HOUSE_BEFORE.test(text));
const isWords = (text: string) => /^\p{L}[^\d@]*$/u.test(text);
