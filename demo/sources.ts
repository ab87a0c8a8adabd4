import { hashOf } from '../core/text/hash.ts';
import { isoOf } from '../core/dates.ts';
import type { Mapping } from '../core/records/mapping.ts';
import type { Truth } from './company.ts';
import { checkedDay, DEMO_AS_OF } from './days.ts';
import { Chance } from './random.ts';
import { FIRST_MONTH, LAST_YEAR, seenProduct } from './standing.ts';

/** A made-up source: its columns, how they are read, and what it says of a company. */
export interface DemoSource {
  key: string;
  name: string;
  licence: string;
  header: string[];
  mapping: Mapping;
  has(truth: Truth): boolean;
  cells(truth: Truth, chance: Chance): string[];
}

const reading = (columns: string[], scheme: Mapping['scheme']): Mapping => ({
  columns,
  scheme,
  decimal: '.',
  dates: 'dmy',
  country: null,
  currency: 'EUR',
  year: 2025,
  revenueUnit: 1,
});

const REGISTER = [
  'name',
  'legal-form',
  'registration',
  'status',
  'country',
  'region',
  'town',
  'postcode',
  'street',
  'latitude',
  'longitude',
  'main-code',
  'other-codes',
  'founded',
  'headcount',
  'headcount-year',
  'headcount-unknown',
  'revenue',
  'revenue-currency',
  'revenue-year',
  'revenue-unknown',
  'profit',
  'profit-currency',
  'profit-year',
  'assets',
  'assets-currency',
  'assets-year',
  'headcount-history',
  'revenue-history',
  'ownership',
  'group',
  'listing',
  'ticker',
  'dwelling',
  'checked',
  'checked-how',
];
const DIRECTORY = [
  'name',
  'registration',
  'country',
  'region',
  'town',
  'postcode',
  'street',
  'phone',
  'mail',
  'web',
  'main-code',
  'other-codes',
  'description',
  'headcount',
  'headcount-year',
  'revenue',
  'revenue-currency',
  'revenue-year',
  'departments',
  'certificates',
  'followers',
  'checked',
  'checked-how',
];
const SURVEY = [
  'name',
  'registration',
  'country',
  'region',
  'town',
  'web',
  'mail',
  'main-code',
  'description',
  'headcount',
  'headcount-year',
  'technologies',
  'surveyed',
  'offers',
  'site-answers',
  'site-checked',
  'revenue-currency',
  'revenue-months',
  'checked',
  'checked-how',
];

const BANDS: [number, number][] = [
  [0, 1],
  [2, 4],
  [5, 9],
  [10, 19],
  [20, 49],
  [50, 99],
  [100, 249],
  [250, 499],
  [500, 999],
];

function band(headcount: number): string {
  const found = BANDS.find(([from, to]) => headcount >= from && headcount <= to);
  return found ? `${found[0]}-${found[1]}` : '1000+';
}

/** One entry of the directory in so many is of years ago; only where the register knows better, so that all else counts as ever. */
const STALE_ENTRIES = 47;

function listedHeads({ headcount, headcountKnown, inRegister, registration }: Truth): number {
  const drawn = hashOf(`stale ${registration}`);
  if (!headcountKnown || !inRegister || drawn % STALE_ENTRIES !== 0) return headcount;
  return Math.max(1, drawn % 2 ? headcount * 4 : headcount / 4);
}

/** A modelled figure with its range, off by some. */
function estimate(chance: Chance, value: number, spread: number, figures: number): string {
  const point = value * Math.exp(spread * chance.normal() * 0.5);
  // Heads are whole; revenue is in thousands or more.
  const shown = (one: number) =>
    String(Math.round(Number(Math.max(figures > 2 ? 1000 : 1, one).toPrecision(figures))));
  return `≈${shown(point)} (${shown(point * Math.exp(-spread))}-${shown(point * Math.exp(spread))})`;
}

/** "2024:120; 2025:131", at times with the first year modelled. */
function history(figures: readonly number[], chance: Chance): string {
  const modelled = chance.in(0.05);
  return figures
    .map((figure, i) => `${LAST_YEAR - figures.length + 1 + i}:${modelled && i === 0 ? '≈' : ''}${figure}`)
    .join('; ');
}

const full = (truth: Truth) => (truth.form ? `${truth.name} ${truth.form}` : truth.name);

export const DEMO_SOURCES: readonly DemoSource[] = [
  {
    key: 'register-extract',
    name: 'Register extract',
    licence: 'made up for the demo',
    header: REGISTER,
    mapping: reading(REGISTER, 'nace-2.1'),
    has: (truth) => truth.inRegister,
    cells(truth, chance) {
      const why = truth.withheld ? 'withheld' : 'not collected';
      const { standing } = truth;
      const balance = chance.in(truth.withheld ? 0.7 : 0.3);
      const owned = chance.in(0.85);
      return [
        full(truth),
        truth.form,
        truth.registration,
        truth.status,
        truth.country,
        truth.town.region,
        truth.town.name,
        truth.postcode,
        truth.street,
        String(truth.lat),
        String(truth.lon),
        truth.nace[0]!,
        truth.nace.slice(1).join(' '),
        String(truth.founded),
        truth.headcountKnown ? String(truth.headcount) : '',
        truth.headcountKnown ? '2025' : '',
        truth.headcountKnown ? '' : chance.in(0.3) ? 'too old' : 'not collected',
        truth.revenueKnown ? String(truth.revenue) : '',
        truth.revenueKnown ? truth.currency : '',
        truth.revenueKnown ? (chance.in(0.85) ? '2025' : '2024') : '',
        truth.revenueKnown ? '' : why,
        balance ? String(standing.profit) : '',
        balance ? truth.currency : '',
        balance ? '2025' : '',
        balance ? String(standing.assets) : '',
        balance ? truth.currency : '',
        balance ? '2025' : '',
        truth.headcountKnown && chance.in(0.8) ? history(standing.headcounts, chance) : '',
        truth.revenueKnown && chance.in(0.8) ? history(standing.revenues, chance) : '',
        owned ? standing.ownership : '',
        owned ? (truth.group ?? '') : '',
        owned ? standing.listing : '',
        owned ? (standing.ticker ?? '') : '',
        chance.in(0.8) ? (standing.dwelling ? 'yes' : 'no') : '',
        isoOf(checkedDay(chance, 420)),
        'register',
      ];
    },
  },
  {
    key: 'trade-directory',
    name: 'Trade directory',
    licence: 'made up for the demo',
    header: DIRECTORY,
    mapping: reading(DIRECTORY, 'nace-2.1'),
    has: (truth) => truth.inDirectory,
    cells(truth, chance) {
      const { standing } = truth;
      const modelled = !truth.revenueKnown && !truth.withheld && chance.in(0.35);
      return [
        full(truth),
        truth.registration,
        truth.country,
        truth.town.region,
        truth.town.name,
        truth.postcode,
        truth.street,
        chance.in(0.9) ? truth.phone : '',
        truth.mail ?? '',
        truth.web ?? '',
        truth.nace[0]!,
        truth.nace.slice(1, 3).join(' '),
        chance.in(0.85) ? truth.description : '',
        truth.headcountKnown || chance.in(0.2)
          ? band(Math.round(listedHeads(truth) * Math.exp(0.08 * chance.normal())))
          : '',
        '2026',
        modelled ? estimate(chance, truth.revenue, 0.35, 3) : '',
        modelled ? truth.currency : '',
        modelled ? '2025' : '',
        truth.headcountKnown && truth.headcount >= 5 && chance.in(0.25)
          ? standing.departments
              .map(({ key, now, before1, before3 }) => `${key} ${now}/${before1}/${before3}`)
              .join('; ')
          : '',
        chance.in(0.45) ? standing.certificates.join('; ') || 'none' : '',
        chance.in(0.6) ? String(standing.followers) : '',
        isoOf(checkedDay(chance, 300)),
        chance.in(0.7) ? 'phone' : 'web',
      ];
    },
  },
  {
    key: 'web-survey',
    name: 'Web survey',
    licence: 'made up for the demo',
    header: SURVEY,
    mapping: reading(SURVEY, 'naics-2022'),
    has: (truth) => truth.inSurvey,
    cells(truth, chance) {
      const modelled = chance.in(0.4) && (truth.headcountKnown || chance.in(0.25));
      const { surveyedOn, siteAnswers, offers, months } = truth.standing;
      const day = isoOf(surveyedOn);
      const byMonth = chance.in(0.2);
      return [
        full(truth),
        truth.registration,
        truth.country,
        truth.town.region,
        truth.town.name,
        truth.web!,
        truth.mail ?? '',
        truth.naics[0]!,
        truth.description,
        modelled ? estimate(chance, Math.max(1, truth.headcount), 0.3, 2) : '',
        modelled ? '2026' : '',
        truth.technologies.map((product) => seenProduct(chance, product, surveyedOn)).join('; '),
        truth.surveyed ? day : '',
        truth.surveyed ? offers.join('; ') || 'none' : '',
        siteAnswers ? 'yes' : 'no',
        day,
        byMonth ? truth.currency : '',
        byMonth ? `${FIRST_MONTH}: ${months.join(' ')}` : '',
        day,
        'web',
      ];
    },
  },
];

export { DEMO_AS_OF };
