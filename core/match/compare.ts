import { jaroWinkler } from '@skyra/jaro-winkler';
import { distance } from 'fastest-levenshtein';
import { distanceKm } from '../geo/distance.ts';
import { domainLabel } from './identifiers.ts';
import { nameLikeness, type NameLikeness, type WordCount } from './names.ts';
import type { ReadyFirm } from './firm.ts';

/** How what two records say of one thing stands to each other; missing where one of them says nothing. */
export type Mark = 'equal' | 'alike' | 'different' | 'missing';

/** What is compared, and the levels that each comparison can come to; the first of each is that nothing can be said. */
export const FEATURES = {
  number: ['missing', 'equal', 'one figure off', 'different'],
  domain: ['missing', 'equal', 'alike', 'different'],
  phone: ['missing', 'equal', 'extension', 'different'],
  name: ['missing', 'equal', 'very alike', 'part', 'alike', 'shares a word', 'different'],
  form: ['missing', 'same', 'different'],
  place: [
    'missing',
    'house',
    'street and town',
    'postcode',
    'town',
    'within 25 km',
    'same country',
    'other country',
  ],
  headcount: ['missing', 'alike', 'different'],
} as const;

export type Feature = keyof typeof FEATURES;
export const FEATURE_NAMES = Object.keys(FEATURES) as Feature[];

/** What comparing two records comes to. */
export interface Comparison {
  /** For each feature, in their order, the place of its level. */
  levels: Uint8Array;
  /** The rarest name words that both have, rarest first. */
  shared: readonly string[];
  /** 0 to 1. */
  nameLikeness: number;
  /** Kilometres between their places; null where one of them is not known. */
  km: number | null;
  /** Their common domain, where there is one. */
  domain: string | null;
}

export const COMPARED = [
  'name',
  'number',
  'domain',
  'street',
  'town',
  'postcode',
  'country',
  'phone',
  'headcount',
] as const;
export type ComparedField = (typeof COMPARED)[number];

/** What is known of names in the universe. */
export interface NameFigures {
  countOf: WordCount;
  companies: number;
}

const NEAR_KM = 25;
/** Phones may be those of one switchboard where they differ in no more than so many of their last figures. */
export const EXTENSION_FIGURES = 3;
const VERY_ALIKE = 0.88;
const LITTLE_ALIKE = 0.4;

/** Compares two records. It is the same whichever is first. */
export function compare(a: ReadyFirm, b: ReadyFirm, names: NameFigures): Comparison {
  const { likeness, beyond, shared } = nameLikeness(a.words, b.words, names.countOf, names.companies);
  const number = numberLevel(a, b);
  const domain = domainLevel(a.domains, b.domains);
  const phone = phoneLevel(a.phone, b.phone);
  const name = nameLevel(a, b, likeness, beyond);
  const place = placeLevel(a, b);
  const form = a.form === null || b.form === null ? 0 : a.form === b.form ? 1 : 2;
  const headcount = headcountLevel(a.headcount, b.headcount);
  return {
    levels: Uint8Array.of(number, domain.level, phone, name, form, place.level, headcount),
    shared,
    nameLikeness: likeness,
    km: place.km,
    domain: domain.common,
  };
}

const FOUR = ['missing', 'equal', 'alike', 'different'] as const;

/** How two records that were compared stand to each other in each thing that is shown of them. */
export function marksOf(
  a: ReadyFirm,
  b: ReadyFirm,
  { levels }: Pick<Comparison, 'levels'>,
): Record<ComparedField, Mark> {
  const level = (feature: Feature) => levels[FEATURE_NAMES.indexOf(feature)]!;
  return {
    name: (['missing', 'equal', 'alike', 'alike', 'alike', 'different', 'different'] as const)[
      level('name')
    ]!,
    number: FOUR[level('number')]!,
    domain: FOUR[level('domain')]!,
    street: markOf(a.street, b.street, sameStreet),
    town: markOf(a.town, b.town, (x, y) => jaroWinkler(x, y) >= 0.9),
    postcode: markOf(a.postcode, b.postcode, (x, y) => x.slice(0, 3) === y.slice(0, 3)),
    country: markOf(a.country, b.country),
    phone: FOUR[level('phone')]!,
    headcount: (['missing', 'alike', 'different'] as const)[level('headcount')]!,
  };
}

function markOf(a: string | null, b: string | null, alike?: (a: string, b: string) => boolean): Mark {
  if (a === null || b === null) return 'missing';
  return a === b ? 'equal' : alike?.(a, b) ? 'alike' : 'different';
}

function numberLevel(a: ReadyFirm, b: ReadyFirm): number {
  if (a.number === null || b.number === null) return 0;
  const [here, there] = [a.country, b.country];
  // A number means nothing in another country's register.
  if (here && there && here !== there) return a.number === b.number ? 2 : 0;
  if (a.number === b.number) return 1;
  return a.number.length === b.number.length && distance(a.number, b.number) === 1 ? 2 : 3;
}

function domainLevel(a: readonly string[], b: readonly string[]): { level: number; common: string | null } {
  if (a.length === 0 || b.length === 0) return { level: 0, common: null };
  const common = a.find((domain) => b.includes(domain));
  if (common !== undefined) return { level: 1, common };
  const alike = a.some((x) => b.some((y) => labelsAlike(domainLabel(x), domainLabel(y))));
  return { level: alike ? 2 : 3, common: null };
}

function labelsAlike(a: string, b: string): boolean {
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  return (short.length >= 5 && long.startsWith(short)) || (short.length >= 5 && jaroWinkler(a, b) >= 0.93);
}

function phoneLevel(a: string | null, b: string | null): number {
  if (a === null || b === null) return 0;
  if (a === b) return 1;
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  // One of them without its country.
  if (!short.startsWith('+') && long.endsWith(short.replace(/^0/, ''))) return 1;
  const stem = Math.min(a.length, b.length) - EXTENSION_FIGURES;
  return stem >= 7 && a.slice(0, stem) === b.slice(0, stem) ? 2 : 3;
}

function nameLevel(a: ReadyFirm, b: ReadyFirm, likeness: number, beyond: NameLikeness['beyond']): number {
  if (a.words.length === 0 || b.words.length === 0) return 0;
  if (sameWords(a.words, b.words)) return 1;
  if (likeness < LITTLE_ALIKE) return beyond === 'one' ? 5 : 6;
  if (beyond === 'both') return 5;
  if (likeness >= VERY_ALIKE) return 2;
  return beyond === 'one' ? 3 : 4;
}

function sameWords(a: readonly string[], b: readonly string[]): boolean {
  if (a.join('') === b.join('')) return true;
  return a.length === b.length && [...a].sort().join(' ') === [...b].sort().join(' ');
}

const sameStreet = (a: string, b: string): boolean => jaroWinkler(a, b) >= 0.9;

function placeLevel(a: ReadyFirm, b: ReadyFirm): { level: number; km: number | null } {
  const km = distanceOf(a, b);
  const level = () => {
    const [here, there] = [a.country, b.country];
    if (here && there && here !== there) return 7;
    const town =
      a.town !== null && b.town !== null && (a.town === b.town || jaroWinkler(a.town, b.town) >= 0.93);
    const postcode = a.postcode !== null && a.postcode === b.postcode;
    const street = a.street !== null && b.street !== null && sameStreet(a.street, b.street);
    const house = a.house !== null && a.house === b.house;
    if (street && house && (town || postcode)) return 1;
    if (street && (town || postcode)) return 2;
    if (postcode) return 3;
    if (town) return 4;
    if (km !== null && km <= NEAR_KM) return 5;
    const said = (firm: ReadyFirm) => firm.town !== null || firm.postcode !== null;
    if (said(a) && said(b)) return 6;
    return 0;
  };
  return { level: level(), km };
}

function distanceOf(a: ReadyFirm, b: ReadyFirm): number | null {
  if (a.lat === null || a.lon === null || b.lat === null || b.lon === null) return null;
  return distanceKm(a.lat, a.lon, b.lat, b.lon);
}

/** Headcounts differ by more than this where they cannot be of one company a few years apart. */
const MANY_TIMES = 4;

function headcountLevel(a: number | null, b: number | null): number {
  if (a === null || b === null) return 0;
  const [less, more] = a < b ? [a, b] : [b, a];
  return more <= MANY_TIMES * Math.max(1, less) ? 1 : 2;
}
