import fc from 'fast-check';
import { SITE_KINDS } from '../fields/sites.ts';
import type { BrandRecord, DealRecord, EventRecord, PersonRecord, SiteRecord } from '../records/related.ts';
import { maybe, PLACES, STEP, WORDS } from './any-record.ts';

/** Random records that hang on random companies, over the same few values as the random tapes. For tests only. */

/** A company by its place among those drawn; null for one that the universe has not. */
type Owner = number | null;

export interface AnyRelated {
  sites: { owner: Owner; record: SiteRecord }[];
  people: { owner: Owner; record: PersonRecord }[];
  events: { owner: Owner; record: EventRecord }[];
  deals: { parties: { owner: Owner; role: string }[]; sources: string[]; record: DealRecord }[];
  brands: { parties: { owner: Owner; role: string }[]; record: BrandRecord }[];
  /** Countries of which all is known, by subject. */
  covered: { subject: string; country: string }[];
}

export const DEPARTMENTS_DRAWN = ['purchasing', 'sales', 'management'];
export const LEVELS_DRAWN = ['owner', 'director', 'manager'];
export const DEAL_KINDS_DRAWN = ['growth-loan', 'acquisition', 'buy-out'];
export const EVENT_KINDS_DRAWN = ['job-opening', 'move'];
export const CATEGORIES_DRAWN = ['coatings', 'boats'];
export const DEAL_SOURCES = ['deal-file', 'our-book'];

const owner: fc.Arbitrary<Owner> = fc.option(fc.nat(1000), { freq: 12 });
const day = maybe(fc.integer({ min: 20_000, max: 20_726 }));
const words = fc
  .array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 3 })
  .map((some) => some.join(' '));
const parties = (roles: readonly string[]) =>
  fc.uniqueArray(fc.record({ owner, role: fc.constantFrom(...roles) }), {
    maxLength: 4,
    selector: (party) => `${party.role} ${party.owner}`,
  });

const site: fc.Arbitrary<SiteRecord> = fc
  .record({
    kind: maybe(fc.constantFrom(...SITE_KINDS)),
    head: maybe(fc.boolean()),
    place: fc.constantFrom(...PLACES),
    postcode: maybe(fc.constantFrom('602 00', '61999', '00-950')),
    headcount: maybe(fc.nat(60)),
    checkedOn: day,
  })
  .map(({ place: [country, region, town, lat, lon], ...rest }) => ({
    ...{ name: null, street: null, phone: null, country, region, town, lat, lon },
    ...rest,
  }));

const person: fc.Arbitrary<PersonRecord> = fc
  .record({
    title: maybe(words),
    department: maybe(fc.constantFrom(...DEPARTMENTS_DRAWN)),
    level: maybe(fc.constantFrom(...LEVELS_DRAWN)),
    sinceOn: day,
    certainty: maybe(fc.nat(60)),
    checkedOn: day,
  })
  .map((rest) => ({ name: 'Somebody', mail: null, phone: null, earlier: null, ...rest }));

const deal: fc.Arbitrary<DealRecord> = fc
  .record({
    kind: maybe(fc.constantFrom(...DEAL_KINDS_DRAWN)),
    date: day,
    amount: maybe(
      fc
        .tuple(fc.nat(60), fc.constantFrom('EUR', 'CZK'), fc.constantFrom(2024, 2025, 1990))
        .map(([value, currency, year]) => ({
          ...{ basis: 'reported' as const, currency, year },
          ...{ low: value * STEP, high: value * STEP, point: value * STEP },
        })),
    ),
    bidders: maybe(fc.nat(60)),
  })
  .map((rest) => ({ name: 'A deal', ...rest }));

const brand: fc.Arbitrary<BrandRecord> = fc
  .record({
    category: maybe(fc.constantFrom(...CATEGORIES_DRAWN)),
    products: maybe(fc.nat(60)),
    productsChange: maybe(fc.integer({ min: -60, max: 60 })),
    share: maybe(fc.nat(60)),
    countries: maybe(fc.uniqueArray(fc.constantFrom('CZ', 'PL', 'AT'), { maxLength: 2 })),
    channels: fc.uniqueArray(
      fc.tuple(
        fc.constantFrom('channel' as const, 'channel-change' as const),
        fc.constantFrom('dealers', 'direct'),
        fc.integer({ min: -30, max: 60 }),
      ),
      { maxLength: 3, selector: ([measure, key]) => `${measure} ${key}` },
    ),
    checkedOn: day,
  })
  .map((rest) => ({ name: 'A brand', productsHistory: null, ...rest }));

const most = (count: number) => ({ maxLength: count });

export const anyRelated: fc.Arbitrary<AnyRelated> = fc.record({
  sites: fc.array(fc.record({ owner, record: site }), most(90)),
  people: fc.array(fc.record({ owner, record: person }), most(160)),
  events: fc.array(
    fc.record({
      owner,
      record: fc.record({ name: words, kind: maybe(fc.constantFrom(...EVENT_KINDS_DRAWN)), date: day }),
    }),
    most(80),
  ),
  deals: fc.array(
    fc.record({
      parties: parties(['target', 'buyer', 'investor', 'sell-adviser', 'buy-adviser']),
      sources: fc.subarray([...DEAL_SOURCES], { minLength: 1 }),
      record: deal,
    }),
    most(60),
  ),
  brands: fc.array(
    fc.record({ parties: parties(['owner', 'consented', 'unconsented']), record: brand }),
    most(60),
  ),
  covered: fc.uniqueArray(
    fc.record({
      subject: fc.constantFrom('sites', 'people', 'events', 'deals', 'brands'),
      country: fc.constantFrom('CZ', 'AT', 'PL'),
    }),
    { maxLength: 8, selector: ({ subject, country }) => `${subject} ${country}` },
  ),
});
