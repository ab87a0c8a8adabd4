/** Facts about one's own work that a message may name, and which of them fit a company. */

export interface Proof {
  id: string;
  /** The fact in one sentence, as it stands in a message. */
  text: string;
  /** Beginnings of NACE codes of those it fits; none for all. */
  industries: readonly string[];
  /** Technologies by key, any of which makes it fit better; none for all. */
  technologies: readonly string[];
  /** People working at those it fits. */
  from: number | null;
  to: number | null;
  source: string;
  /** ISO day since when it is so, or null. */
  since: string | null;
}

/** What decides whether a proof fits. */
export interface Proved {
  /** NACE codes, the main one first. */
  codes: readonly string[];
  technologies: readonly string[];
  headcount: number | null;
}

/** How well a proof fits: whether nothing about it is wrong, and how much of it is right. */
export interface Fit {
  fits: boolean;
  /** What speaks for it, in words. */
  by: string[];
}

/** Judges one proof for a company. What is not known of the company speaks neither for nor against. */
export function fitOf({ industries, technologies, from, to }: Proof, company: Proved): Fit {
  const by: string[] = [];
  let fits = true;
  if (industries.length && company.codes.length) {
    const code = company.codes.find((one) => industries.some((start) => one.startsWith(start)));
    if (code === undefined) fits = false;
    else by.push(code === company.codes[0] ? 'its industry' : 'one of its industries');
  }
  if (technologies.length && company.technologies.length) {
    if (technologies.some((one) => company.technologies.includes(one))) by.push('its technology');
    else fits = false;
  }
  if ((from !== null || to !== null) && company.headcount !== null) {
    if (company.headcount >= (from ?? 0) && company.headcount <= (to ?? Infinity)) by.push('its size');
    else fits = false;
  }
  return { fits, by };
}

/** Proofs with their fit, the best first: those that fit, by how much speaks for them, then as they stand in the library. */
export function rankProofs<P extends Proof>(proofs: readonly P[], company: Proved): (P & Fit)[] {
  return proofs
    .map((proof) => ({ ...proof, ...fitOf(proof, company) }))
    .sort((a, b) => Number(b.fits) - Number(a.fits) || b.by.length - a.by.length);
}
