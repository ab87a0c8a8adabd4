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

/** Reads "602 00", "CZ 602*", "GB EN*" or "CZ 60000..61999"; null where it is none of these. Ends of a range have the same length. */
export function parsePostcode(text: string): PostcodePattern | null {
  const parts =
    /^\s*(?:([A-Z]{2})\s+(?=\S))?([A-Za-z0-9][A-Za-z0-9 -]*?)\s*(?:(\*)|\.\.\s*([A-Za-z0-9][A-Za-z0-9 -]*))?\s*$/.exec(
      text,
    );
  if (!parts) return null;
  const from = plainPostcode(parts[2]!);
  const to = plainPostcode(parts[4] ?? '');
  if (from === '' || from.length > 12) return null;
  const country = parts[1] ?? null;
  if (parts[3]) return { country, kind: 'prefix', from, to: '' };
  // A whole postcode has figures everywhere; how one begins may be letters alone.
  if (!/\d/.test(from + to)) return null;
  if (parts[4] === undefined) return { country, kind: 'one', from, to: '' };
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
