/** What a company does. Codes are of NACE 2.1 and NAICS 2022; everything else is made up. */
export interface Sector {
  id: string;
  nace: string;
  /** Further NACE codes that companies of the sector often have. */
  also: string[];
  naics: string;
  weight: number;
  /** Where its companies gather. */
  gathers: 'wood' | 'coast' | 'works' | 'city' | 'any';
  /** Headcount is log-normal: mean and spread of its natural logarithm. */
  size: [number, number];
  /** Revenue a head in thousands of euros. */
  perHead: number;
  /** Trade words in names by family of languages: Slavic, German, Nordic, Romance, English, other. */
  trade: string[][];
  /** Parts of a description: what, in what, for whom. */
  does: string[][];
  /** How likely a surveyed site shows each technology category. */
  uses: Record<string, number>;
}

export const OFFICE = { accounting: 0.5, 'customer-records': 0.2, 'web-shop': 0.08 };
export const WORKS = {
  ...OFFICE,
  'production-planning': 0.28,
  'computer-aided-design': 0.35,
  'access-control': 0.15,
};

type Written = Omit<Sector, 'also' | 'trade' | 'does'> & Record<'also' | 'trade' | 'does', string>;

/** A sector as it is written down: lists by commas, parts by bars. */
export function sector(written: Written): Sector {
  const parts = (text: string) => text.split(' | ').map((part) => part.split(', '));
  return {
    ...written,
    also: written.also.split(' ').filter(Boolean),
    trade: parts(written.trade),
    does: parts(written.does),
  };
}
