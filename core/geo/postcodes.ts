/** What a place test names by postcode: one code, all that begin so, or those between two, of one country or of any. */
export interface PostcodePattern {
  country: string | null;
  kind: 'one' | 'prefix' | 'range';
  /** Without spaces and hyphens, in capitals. */
  from: string;
  /** Ranges: the last one, as long as the first. */
  to: string;
}

/** A postcode as it is compared: capitals, without spaces and hyphens. */
export function plainPostcode(text: string): string {
  return text.toUpperCase().replace(/[\s-]/g, '');
}

/** Characters that a pattern has at most. */
const LONGEST = 60;
const CODE = /^\s*[A-Za-z0-9][A-Za-z0-9\s-]*$/;

/** Reads "602 00", "CZ 602*", "GB EN*" or "CZ 60000..61999"; null where it is none of these. Ends of a range have the same length. */
export function parsePostcode(text: string): PostcodePattern | null {
  if (text.length > LONGEST) return null;
  const [, named, code] = /^([A-Z]{2})\s(.*)$/.exec(text.trim()) ?? [null, null, text];
  const country = named ?? null;
  const [first, last, ...others] = code.split('..');
  const begins = last === undefined && first!.trimEnd().endsWith('*');
  const ends = [begins ? first!.replace('*', '') : first!, last ?? ''];
  if (others.length || !CODE.test(ends[0]!) || (last !== undefined && !CODE.test(last))) return null;
  const [from, to] = ends.map(plainPostcode) as [string, string];
  if (from.length > 12) return null;
  if (begins) return { country, kind: 'prefix', from, to: '' };
  // A whole postcode has figures everywhere; how one begins may be letters alone.
  if (!/\d/.test(from + to)) return null;
  if (last === undefined) return { country, kind: 'one', from, to: '' };
  return from.length === to.length && from <= to ? { country, kind: 'range', from, to } : null;
}

/** Whether a plain postcode meets a pattern, its country left aside. */
export function matchesPostcode(plain: string, { kind, from, to }: PostcodePattern): boolean {
  switch (kind) {
    case 'one':
      return plain === from;
    case 'prefix':
      return plain.startsWith(from);
    case 'range':
      return plain.length === from.length && plain >= from && plain <= to;
  }
}

/** Codes of a pasted text: by lines, commas, semicolons or tabs. */
export function splitPostcodes(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[\n,;\t]+/)
        .map((one) => one.trim())
        .filter(Boolean),
    ),
  ];
}
