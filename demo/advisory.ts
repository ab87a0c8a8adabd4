import { sector, type Sector } from './sector.ts';

/** Firms that stand on both sides of deals: advisers and investors, in fixed places among the first companies. */

export const ADVISERS: Sector = sector({
  id: 'deal-advice',
  nace: '70.20',
  also: '66.19 69.20',
  naics: '523940',
  weight: 0,
  gathers: 'city',
  size: [2.2, 0.9],
  perHead: 190,
  trade:
    'Poradenství, Poradna, Doradztwo | Beratung, Transaktion | Rådgivning, Konsult | Conseil, Consulenza, Asesores | Advisers, Corporate Advice | Tanácsadó, Nõustamine',
  does: 'Advice on the sale and purchase of companies, Succession and sale of family firms, Raising loans and equity, Valuation and mergers | workshops and makers, industrial services, trade and building | owners, families, managers, funds',
  uses: { accounting: 0.5, 'customer-records': 0.5 },
});

export const INVESTORS: Sector = sector({
  id: 'investment',
  nace: '64.99',
  also: '64.31 70.10',
  naics: '523910',
  weight: 0,
  gathers: 'city',
  size: [2, 0.8],
  perHead: 420,
  trade:
    'Fond, Kapitál, Fundusz | Beteiligung, Kapital | Kapital, Invest | Capital, Fondo, Participations | Capital, Growth Partners | Tőke, Kapital',
  does: 'Growth loans to mid-sized makers, Equity for succession and expansion, Buy-outs with the managers | workshops and makers, industrial services, trade and building | owners, families, managers',
  uses: { accounting: 0.5, 'customer-records': 0.4 },
});

const FIRST = 3;
const STEP = 7;
const MOST = 360;
/** One in so many companies of a small universe is such a firm. */
const SHARE = 130;
/** One in so many of them invests, the others advise. */
const INVESTS = 6;

/** How many firms on either side of deals a universe has. */
export function advisoryCount(companies: number): number {
  return Math.min(MOST, Math.floor(companies / SHARE));
}

/** The sector of a company that is such a firm; null for all others. */
export function advisorySector(index: number, companies: number): Sector | null {
  const nth = (index - FIRST) / STEP;
  if (!Number.isInteger(nth) || nth < 0 || nth >= advisoryCount(companies)) return null;
  return nth % INVESTS === INVESTS - 1 ? INVESTORS : ADVISERS;
}

/** The index of the nth firm that invests or advises. */
export function advisoryIndex(nth: number): number {
  return FIRST + STEP * nth;
}

export function invests(nth: number): boolean {
  return nth % INVESTS === INVESTS - 1;
}
