import fc from 'fast-check';
import type { CompanyRecord, Money, Quantity } from '../records/record.ts';
import { SITE_STATES } from '../records/record.ts';
import { OFFERS } from '../fields/companies/making.ts';
import { REASONS } from '../tally/columns.ts';

/** Random records over the same few values as the random tapes, so that they meet. For tests only. */

export const CODES = [
  'C',
  '16',
  '16.2',
  '16.23',
  '16.25',
  '25',
  '25.5',
  '25.51',
  '25.53',
  '28.25',
  '43.32',
  'G',
  '46.62',
];
export const NAICS = ['321911', '321918', '32191', '332812', '332', '238350'];
export const TECHNOLOGIES = ['rutavel', 'planodor', 'dipzaal', 'kontovar'];
export const SOURCES = ['register', 'directory', 'survey'];
export const LISTS = ['our-customers', 'to-call'];
/** Whom exports went to. */
export const RECEIVERS = ['print-shop', 'finance'];
/** Saved tapes that ran. */
export const TAPES = ['targets', 'rivals'];
/** What lists say of members. */
export const OUT_REASONS = ['too small', 'closed'];
export const TAGS = ['stairs', 'spray room'];
/** What a file says of a member under Hall. */
export const HALLS = ['A', 'Hala Č', 'C 3'];
export const CERTIFICATES = ['clean-air', 'welding'];
export const WORDS = ['oak', 'stair', 'staircase', 'paint', 'powder', 'joinery', 'kitchen', 'lodz'];
export const PLACES: [string | null, string | null, string | null, number | null, number | null][] = [
  ['CZ', 'CZ-64', 'Brno', 49.195, 16.608],
  ['CZ', 'CZ-64', 'Vyškov', 49.277, 16.999],
  ['CZ', null, null, null, null],
  ['PL', 'PL-10', 'Łódź', 51.75, 19.467],
  ['AT', 'AT-9', 'Wien', 48.208, 16.372],
  ['AT', null, 'Hinterdorf', null, null],
  [null, null, null, null, null],
  [null, null, null, 49.2, 16.6],
];

export const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { freq: 3 });

const quantity = (most: number): fc.Arbitrary<Quantity> =>
  fc
    .tuple(
      fc.constantFrom('reported', 'band', 'estimate' as const),
      fc.nat(most),
      fc.nat(most),
      fc.nat(most),
      fc.boolean(),
    )
    .map(([basis, a, b, c, open]) => {
      const [low, point, high] = [a, b, c].sort((x, y) => x - y) as [number, number, number];
      if (basis === 'reported') return { basis, low: point, high: point, point };
      return basis === 'band'
        ? { basis, low, high: open ? Infinity : high, point: null }
        : { basis: 'estimate', low, high, point };
    });

/** Revenues and their limits come in steps of this, to fill the bars of a histogram. */
export const STEP = 10_000;

const money: fc.Arbitrary<Money> = fc
  .tuple(quantity(60), fc.constantFrom('EUR', 'CZK', 'PLN'), fc.constantFrom(2024, 2025, 1990))
  .map(([value, currency, year]) => ({
    ...value,
    low: value.low * STEP,
    high: value.high * STEP,
    point: value.point === null ? null : value.point * STEP,
    currency,
    year,
  }));

const signedMoney: fc.Arbitrary<Money> = fc
  .tuple(money, fc.boolean())
  .map(([value, loss]) =>
    loss && value.basis === 'reported'
      ? { ...value, low: -value.low, high: -value.high, point: -value.point! }
      : value,
  );

/** Names of groups of companies. */
export const GROUPS = ['Morvalt', 'Ostra'] as const;

const anyDay = fc.integer({ min: 20_000, max: 20_726 });

const history = fc
  .uniqueArray(
    fc.record({
      year: fc.constantFrom(2022, 2024, 2025),
      value: fc.nat(60),
      estimate: fc.boolean(),
    }),
    { maxLength: 3, selector: ({ year }) => year },
  )
  .map((points) => points.sort((a, b) => a.year - b.year));

const text = fc
  .array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 5 })
  .map((words) => words.join(' '));

export const anyRecord: fc.Arbitrary<CompanyRecord> = fc
  .record({
    name: text,
    description: maybe(text),
    status: maybe(fc.constantFrom('active', 'dormant', 'closed' as const)),
    place: fc.constantFrom(...PLACES),
    codes: fc.uniqueArray(fc.constantFrom(...CODES), { maxLength: 3 }),
    naics: fc.uniqueArray(fc.constantFrom(...NAICS), { maxLength: 2 }),
    main: fc.boolean(),
    headcount: maybe(quantity(60)),
    headcountWhy: maybe(fc.constantFrom(...REASONS)),
    revenue: maybe(money),
    founded: maybe(fc.integer({ min: 1990, max: 2020 })),
    profit: maybe(signedMoney),
    assets: maybe(money),
    technologies: fc.uniqueArray(
      fc.record({ label: fc.constantFrom(...TECHNOLOGIES), first: maybe(anyDay), last: maybe(anyDay) }),
      { maxLength: 3, selector: ({ label }) => label },
    ),
    offers: fc.uniqueArray(fc.constantFrom(...OFFERS), { maxLength: 2 }),
    surveyed: fc.boolean(),
    checkedOn: maybe(anyDay),
    siteCheckedOn: maybe(anyDay),
    siteState: maybe(fc.constantFrom(...SITE_STATES)),
    dwelling: maybe(fc.boolean()),
    followers: maybe(fc.nat(60)),
    ownership: maybe(fc.constantFrom('independent', 'subsidiary', 'top' as const)),
    group: maybe(fc.constantFrom(...GROUPS)),
    listing: maybe(fc.constantFrom('listed', 'private', 'public-body' as const)),
    certificates: maybe(fc.uniqueArray(fc.constantFrom(...CERTIFICATES), { maxLength: 2 })),
    departments: maybe(
      fc.uniqueArray(
        fc.record({
          key: fc.constantFrom('sales', 'purchasing', 'production'),
          now: fc.nat(60),
          before1: maybe(fc.nat(60)),
          before3: maybe(fc.nat(60)),
        }),
        { minLength: 1, maxLength: 3, selector: ({ key }) => key },
      ),
    ),
    headcountHistory: history,
    revenueHistory: history,
    postcode: maybe(fc.constantFrom('602 00', '60300', '61999', '00-950', 'A1 1AA')),
    headcountYear: maybe(fc.constantFrom(2023, 2025)),
  })
  .map(
    ({
      place: [country, region, town, lat, lon],
      codes,
      naics,
      main,
      surveyed,
      technologies,
      offers,
      ...rest
    }) => ({
      legalForm: null,
      registration: null,
      street: null,
      phone: null,
      mail: null,
      web: null,
      checkedHow: null,
      revenueWhy: null,
      profitWhy: null,
      assetsWhy: null,
      revenueMonths: null,
      ticker: null,
      siteMovedTo: null,
      siteAnswers: rest.siteState && rest.siteState !== 'dead',
      ...rest,
      headcountYear: rest.headcount && rest.headcountYear,
      country,
      region,
      town,
      lat,
      lon,
      codes: [
        ...codes.map((code, i) => ({ scheme: 'nace-2.1' as const, code, main: main && i === 0 })),
        ...naics.map((code, i) => ({ scheme: 'naics-2022' as const, code, main: i === 0 })),
      ],
      technologies: surveyed ? technologies : [],
      offers: surveyed ? offers : [],
      surveyedOn: surveyed ? 20_500 : null,
    }),
  );
