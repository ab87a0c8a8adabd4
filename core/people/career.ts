/** A post that somebody held before. */
export interface EarlierPost {
  title: string;
  company: string | null;
  /** Calendar years; null where they are not said. */
  from: number | null;
  to: number | null;
}

/**
 * The posts in a text such as "Buyer, Kostava Okna, 2014-2019; Clerk, Tarn GmbH": the title first, then the company, then the
 * years. What cannot be told apart stays with the title.
 */
export function readCareer(text: string): EarlierPost[] {
  return text
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean)
    .map((one) => {
      const years = /,\s*(\d{4})(?:\s*[-–]\s*(\d{4}))?$/.exec(one);
      const rest = years ? one.slice(0, years.index) : one;
      const comma = rest.indexOf(',');
      return {
        title: (comma < 0 ? rest : rest.slice(0, comma)).trim(),
        company: comma < 0 ? null : rest.slice(comma + 1).trim() || null,
        from: years ? Number(years[1]) : null,
        to: years ? Number(years[2] ?? years[1]) : null,
      };
    });
}
