import { isoOf } from '../core/dates.ts';
import { checkedDay } from './days.ts';
import type { Chance } from './random.ts';
import type { Sector } from './sector.ts';

/** What the standing of a company rests on. */
interface Rests {
  index: number;
  name: string;
  sector: Sector;
  founded: number;
  headcount: number;
  revenue: number;
}

/** How a company grew, what it earns, whose it is and how it stands, as it truly is. */
export interface Standing {
  /** Staff and revenue of the years 2021 to 2025; fewer where it is younger. */
  headcounts: number[];
  revenues: number[];
  /** Revenue of the 24 months up to September 2026. */
  months: number[];
  profit: number;
  assets: number;
  departments: { key: string; now: number; before1: number; before3: number }[];
  ownership: 'independent' | 'subsidiary' | 'top';
  listing: 'listed' | 'private' | 'public body';
  ticker: string | null;
  certificates: string[];
  dwelling: boolean;
  followers: number;
  /** Day of the survey of the site. */
  surveyedOn: number;
  siteAnswers: boolean;
  offers: string[];
}

export const LAST_YEAR = 2025;
const YEARS = 5;
export const FIRST_MONTH = '2024-10';
const MONTHS = 24;

/** Companies come in blocks of so many; the seventh of each is the top of a group, a few others are its subsidiaries. */
const BLOCK = 40;
const TOP_AT = 7;

/** The index of the company at the top of the group that a company may belong to. */
export function topIndex(index: number): number {
  return index - (index % BLOCK) + TOP_AT;
}

/** Shares of staff by department in works and in offices and shops. */
const SPLIT: Record<'works' | 'other', readonly (readonly [key: string, share: number])[]> = {
  works: [
    ['production', 0.56],
    ['engineering', 0.08],
    ['sales', 0.09],
    ['purchasing', 0.04],
    ['logistics', 0.08],
    ['finance', 0.04],
    ['administration', 0.06],
    ['management', 0.05],
  ],
  other: [
    ['production', 0.12],
    ['engineering', 0.06],
    ['sales', 0.36],
    ['purchasing', 0.08],
    ['logistics', 0.16],
    ['finance', 0.06],
    ['administration', 0.1],
    ['management', 0.06],
  ],
};

const CERTIFICATES: readonly [name: string, share: number][] = [
  ['quality management', 0.34],
  ['environmental management', 0.14],
  ['safety at work', 0.1],
  ['welding works', 0.09],
  ['timber of known origin', 0.07],
  ['low-solvent coating', 0.05],
];

const OFFER_SHARES: readonly [offer: string, share: number][] = [
  ['quote form', 0.34],
  ['sample request', 0.11],
  ['visit booking', 0.16],
  ['shop', 0.14],
  ['price list', 0.2],
];

/** The standing of a company; draws from `chance` alone, so the same company stands the same in every source. */
export function standingOf(truth: Rests, chance: Chance): Standing {
  const age = Math.max(0, LAST_YEAR - truth.founded);
  const pace = 0.015 + 0.3 / (age + 3) + 0.08 * chance.normal();
  const years = Math.min(YEARS, age + 1);
  const headcounts = backwards(chance, truth.headcount, years, pace, 0.04).map(Math.round);
  const revenues = backwards(chance, truth.revenue, years, 0.02 + 0.8 * pace, 0.05).map((value) =>
    Number(value.toPrecision(3)),
  );
  const works = truth.sector.uses['production-planning'] !== undefined;
  const top = truth.index % BLOCK === TOP_AT;
  const ownership = top ? 'top' : chance.in(0.085) ? 'subsidiary' : 'independent';
  const isListed = (top && chance.in(0.3)) || (truth.headcount > 250 && chance.in(0.1));
  const followers = Math.round(Math.exp(2.6 + 0.75 * Math.log(1 + truth.headcount) + 0.9 * chance.normal()));
  return {
    headcounts,
    revenues,
    months: season(chance, truth.revenue / 12, truth.sector.gathers === 'coast' ? 0.35 : works ? 0.14 : 0.22),
    profit: Number((truth.revenue * (0.055 + 0.065 * chance.normal())).toPrecision(3)),
    assets: Number((truth.revenue * Math.exp(-0.25 + 0.45 * chance.normal())).toPrecision(3)),
    departments: departments(chance, truth.headcount, works ? 'works' : 'other', pace),
    ownership,
    listing: isListed ? 'listed' : chance.in(0.008) ? 'public body' : 'private',
    ticker: isListed ? tickerOf(truth.name, truth.index) : null,
    certificates: CERTIFICATES.flatMap(([name, share]) =>
      chance.in(share * Math.min(1.8, 0.4 + Math.log10(1 + truth.headcount))) ? [name] : [],
    ),
    dwelling: chance.in(truth.headcount <= 4 ? 0.34 : 0.008),
    followers,
    surveyedOn: checkedDay(chance, 200),
    siteAnswers: chance.in(0.93),
    offers: OFFER_SHARES.flatMap(([offer, share]) => (chance.in(share) ? [offer] : [])),
  };
}

/** A figure of the latest year and of those before it, ascending, at a pace that wavers. */
function backwards(chance: Chance, last: number, years: number, pace: number, waver: number): number[] {
  const figures = [last];
  while (figures.length < years)
    figures.unshift(figures[0]! / Math.max(0.6, 1 + pace + waver * chance.normal()));
  return figures;
}

/** Months around a mean, highest in June where the season is strong. */
function season(chance: Chance, mean: number, strength: number): number[] {
  return Array.from({ length: MONTHS }, (_, i) => {
    const month = (9 + i) % 12;
    const wave = 1 + strength * Math.cos(((month - 5) / 6) * Math.PI);
    return Math.max(0, Math.round((mean * wave * (1 + 0.06 * chance.normal())) / 100) * 100);
  });
}

function departments(
  chance: Chance,
  headcount: number,
  kind: keyof typeof SPLIT,
  pace: number,
): Standing['departments'] {
  return SPLIT[kind].flatMap(([key, share]) => {
    const now = Math.round(headcount * share * Math.exp(0.3 * chance.normal()));
    if (now === 0) return [];
    const before = (years: number) =>
      Math.max(0, Math.round(now / Math.max(0.5, 1 + pace + 0.1 * chance.normal()) ** years));
    return [{ key, now, before1: before(1), before3: before(3) }];
  });
}

/** Letters of the name and a figure, so that no two companies share one. */
function tickerOf(name: string, index: number): string {
  const letters = name
    .normalize('NFD')
    .toUpperCase()
    .replace(/[^A-Z]/g, '');
  return `${letters.slice(0, 3)}${index.toString(36).toUpperCase()}`;
}

/** "Rutavel [2024-03-01..2026-02-11]": a product with the days it was first and last seen. */
export function seenProduct(chance: Chance, product: string, surveyedOn: number): string {
  const first = surveyedOn - Math.floor(-600 * Math.log(1 - chance.next()));
  return `${product} [${isoOf(first)}..${isoOf(surveyedOn)}]`;
}
