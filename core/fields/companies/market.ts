import type { Field } from '../field.ts';
import { CHANGE_BARS, column, SHARE_BARS, SMALL_SHARE_BARS, words } from './making.ts';

/** Ways in which goods are sold. */
export const CHANNELS = ['direct', 'own-shop', 'dealers', 'marketplaces', 'agents'] as const;

/** Categories of the goods that brands stand for. */
export const PRODUCT_CATEGORIES = [
  'machines',
  'hand-tools',
  'coatings',
  'fittings',
  'furniture',
  'boats',
  'panels-and-doors',
  'air-cleaning',
  'workshop-supplies',
  'print-materials',
] as const;

type Shape = Omit<Field, 'subject' | 'section' | 'files'>;

const of = (shape: Shape): Field => ({ subject: 'companies', section: 'market', files: [], ...shape });

const named = (keys: readonly string[]) => keys.map((key) => ({ key, label: key.replaceAll('-', ' ') }));

const keyed = (
  id: string,
  label: string,
  meaning: string,
  opener: string,
  keys: readonly string[],
  bars: readonly number[],
): Field =>
  of({
    id,
    kind: 'keyed',
    label,
    meaning,
    store: { at: 'keyed', measure: id, absent: 0, table: 'company_market' },
    openers: [opener],
    column: { heading: label, width: 190, sortable: false },
    values: named(keys),
    bars,
    unit: '%',
  });

const number = (id: string, label: string, meaning: string, openers: string, unit?: string): Field =>
  of({
    id,
    kind: 'number',
    label,
    meaning,
    store: column(id.replaceAll('-', '_')),
    openers: words(openers),
    column: { heading: label, width: 92, numeric: true },
    ...(unit ? { unit, bars: SHARE_BARS } : {}),
  });

/** What is known of a company through its sites, brands and deals. Made of those, never read from a file of companies. */
export const market: readonly Field[] = [
  number('site-count', 'Sites', 'How many sites are recorded.', 'number of sites, site count'),
  keyed(
    'channel',
    'Share by channel',
    'Share of sales by channel in percent: the mean over the brands it owns; a channel not named has none.',
    'channel',
    CHANNELS,
    SHARE_BARS,
  ),
  keyed(
    'channel-change',
    'Change by channel',
    'Change of that share over the past month, in points.',
    'channel change',
    CHANNELS,
    CHANGE_BARS,
  ),
  keyed(
    'category-share',
    'Share by category',
    'Share of the sales of each category of goods, in percent, its brands together.',
    'category share',
    PRODUCT_CATEGORIES,
    SMALL_SHARE_BARS,
  ),
  number('brands-owned', 'Brands owned', 'How many of its own brands are recorded.', 'brands owned'),
  number(
    'brands-resold',
    'Brands resold',
    'How many brands of others it sells.',
    'brands resold, brands sold for others',
  ),
  number(
    'own-share',
    'Own brands',
    'Share of the brands it sells that are its own, in percent; from which share on it counts as an owner is for the line to say.',
    'own brands, owner share',
    '%',
  ),
  of({
    id: 'sold-in',
    kind: 'category',
    label: 'Sells into',
    meaning: 'Countries where its brands are on sale.',
    store: { at: 'many', table: 'company_country', value: 'country', known: 'countries_known' },
    openers: ['sells into', 'sold in'],
    column: { heading: 'Sells into', width: 150, sortable: false },
  }),
  of({
    id: 'raised',
    kind: 'money',
    label: 'Raised',
    meaning:
      'All that was lent to it or put in, as far as amounts are disclosed, in euros of the last round.',
    store: { at: 'range', stem: 'raised' },
    dated: 'year',
    openers: ['raised', 'total raised'],
    column: { heading: 'Raised', width: 112, numeric: true },
  }),
  of({
    id: 'last-round',
    kind: 'date',
    label: 'Last round',
    meaning: 'The day of the last loan, round or buy-out of which it was the target.',
    store: column('last_round_on'),
    openers: ['last round', 'last deal'],
    column: { heading: 'Last round', width: 108 },
  }),
  of({
    id: 'whom-we-know',
    kind: 'flag',
    label: 'Whom we know',
    meaning: 'Whether someone in the address book of the workspace works there.',
    store: { at: 'contacts' },
    openers: ['whom we know', 'known to us'],
    column: { heading: 'Whom we know', width: 108, sortable: false },
  }),
];
