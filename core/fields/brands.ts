import { CHANGE_BARS, SHARE_BARS, SMALL_SHARE_BARS } from './companies/making.ts';
import type { Subject } from './field.ts';
import { CHANNELS, PRODUCT_CATEGORIES } from './companies/market.ts';
import { choices, fieldsOf } from './related/making.ts';

const { label, category, number, source, checked, parties } = fieldsOf('brands', 'checked');

const keyed = (
  id: string,
  heading: string,
  meaning: string,
  opener: string,
  absent: 0 | null,
  width = 190,
) => ({
  id,
  subject: 'brands',
  section: 'market' as const,
  kind: 'keyed' as const,
  label: heading,
  meaning,
  store: { at: 'keyed' as const, measure: id, absent },
  openers: [opener],
  column: { heading, width, sortable: false },
  files: [],
  dated: 'checked',
  values: choices(CHANNELS.join(', ')),
  unit: '%',
  bars: id === 'channel' ? SHARE_BARS : CHANGE_BARS,
});

const PRODUCT_BARS = [-1000, -50, -20, -10, -5, 0, 5, 10, 20, 50, 100];

/** Brands of goods: who owns them, who sells them, and through which channels. */
export const brands: Subject = {
  id: 'brands',
  one: 'brand',
  many: 'brands',
  table: 'brand',
  relation: {
    table: 'brand_party',
    record: 'brand_id',
    preposition: 'with',
    known: 'brands_known',
    roles: [
      { key: 'owner', label: 'owner', stored: ['owner'] },
      { key: 'reseller', label: 'reseller', stored: ['consented', 'unconsented'] },
      { key: 'consented', label: 'reseller with consent', stored: ['consented'] },
      { key: 'unconsented', label: 'reseller without consent', stored: ['unconsented'] },
    ],
  },
  fields: [
    label('name', 'Brand', 'What the goods are sold as.', { width: 170 }),
    parties('owner', 'Owner', 'The company that owns the brand.', {
      width: 200,
      store: { at: 'parties', role: 'owner' },
    }),
    category('category', 'Category', 'The category of goods.', {
      openers: 'category',
      values: choices(PRODUCT_CATEGORIES.join(', ')),
    }),
    keyed(
      'channel',
      'Share by channel',
      'Share of sales by channel, in percent; a channel not named has none.',
      'channel',
      0,
    ),
    keyed(
      'channel-change',
      'Change by channel',
      'Change of that share over the past month, in points.',
      'channel change',
      0,
    ),
    number('products', 'Products', 'Products on sale now.', { section: 'market', openers: 'products' }),
    number('products-change', 'Products, change', 'Change of the number of products over a year.', {
      section: 'market',
      openers: 'products change',
      bars: PRODUCT_BARS,
    }),
    number('share', 'Share of its category', 'Share of the sales of its category, in percent.', {
      section: 'market',
      openers: 'category share, share',
      unit: '%',
      bars: SMALL_SHARE_BARS,
    }),
    category('sold-in', 'Sold in', 'Countries where it is on sale.', {
      section: 'where',
      openers: 'sold in',
      store: { at: 'many', table: 'brand_country', value: 'country', known: 'countries_known' },
    }),
    parties('resellers', 'Resellers', 'Companies that sell it without owning it.', {
      width: 220,
      store: { at: 'parties', role: 'reseller' },
    }),
    checked,
    source,
  ],
};
