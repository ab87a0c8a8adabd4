import { CHANGE_BARS, SHARE_BARS, SMALL_SHARE_BARS, words } from './companies/making.ts';
import type { FileColumn, Subject } from './field.ts';
import { CHANNELS, PRODUCT_CATEGORIES } from './companies/market.ts';
import { allParties, choices, fieldsOf } from './related/making.ts';

const { label, category, number, source, checked, parties } = fieldsOf('brands', 'checked');

/** Columns of a file that name companies of a brand in a role: by registration number or domain or else by name, several separated by semicolons. */
export const BRAND_PARTIES: readonly (FileColumn & { role: string })[] = [
  [
    'owner',
    'Owner',
    'owner, brand owner, owned by, maker, manufacturer, hersteller, inhaber, vlastnik, vyrobce, wlasciciel, producent, proprietaire, fabricant, titolare, produttore, titular',
  ],
  [
    'consented',
    'Resellers with consent',
    'resellers with consent, authorised resellers, authorized resellers, authorised dealers, authorized dealers, vertragshandler, autorizovani prodejci, autoryzowani sprzedawcy, revendeurs agrees',
  ],
  [
    'unconsented',
    'Resellers without consent',
    'resellers without consent, unauthorised resellers, unauthorized resellers, grey resellers',
  ],
  [
    'resold',
    'Resellers',
    'resellers, distributors, dealers, retailers, distribution partners, sold by, sellers, dealers of it, handler der marke, wiederverkaufer, prodejci, sprzedawcy, revendeurs, rivenditori, revendedores',
  ],
].map(([role, label, headings]) => ({
  id: `party-${role!}`,
  role: role!,
  label: label!,
  headings: words(headings!),
}));

/** What each channel is called at the head of a column of shares. */
const CHANNEL_HEADINGS: Readonly<Record<(typeof CHANNELS)[number], string>> = {
  direct: 'direct, direct sales, direkt, primy prodej, sprzedaz bezposrednia, vente directe',
  'own-shop':
    'own shop, web shop, own web shop, eigener shop, vlastni e-shop, sklep wlasny, boutique en ligne',
  dealers: 'dealers, through dealers, handler, prodejci podil, dealerzy, revendeurs part',
  marketplaces: 'marketplaces, marketplace, marktplatze, trziste, platformy, places de marche',
  agents: 'agents, agenten, zastupci, agenci, representants',
};

/** One column with all channels, as "dealers 62; direct 38", and one for each. */
const channelColumns = (id: string, label: string, ahead: string): FileColumn[] => [
  { id, label, headings: [label.toLowerCase()] },
  ...CHANNELS.map((channel) => ({
    id: `${id}-${channel}`,
    label: `${label}: ${channel.replaceAll('-', ' ')}`,
    headings: [
      `${label.toLowerCase()} ${channel.replaceAll('-', ' ')}`,
      ...words(CHANNEL_HEADINGS[channel]).map((one) => `${ahead}${one}`),
    ],
  })),
];

const keyed = (
  id: 'channel' | 'channel-change',
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
  files: channelColumns(id, heading, id === 'channel' ? '' : 'change '),
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
      { key: 'reseller', label: 'reseller', stored: ['consented', 'unconsented', 'resold'] },
      { key: 'consented', label: 'reseller with consent', stored: ['consented'] },
      { key: 'unconsented', label: 'reseller without consent', stored: ['unconsented'] },
    ],
  },
  fields: [
    {
      ...label('name', 'Brand', 'What the goods are sold as.', { width: 170 }),
      files: [
        {
          id: 'name',
          label: 'Brand',
          headings: words('brand, brand name, marke, markenname, znacka, marka, marque, marchio, marca'),
        },
        ...BRAND_PARTIES,
      ],
    },
    parties('owner', 'Owner', 'The company that owns the brand.', {
      width: 200,
      store: { at: 'parties', role: 'owner' },
    }),
    category('category', 'Category', 'The category of goods.', {
      openers: 'category',
      headings: 'category, product category, warengruppe, kategorie, kategoria, categorie, categoria',
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
    number('products', 'Products', 'Products on sale now.', {
      section: 'market',
      openers: 'products',
      headings: 'products, number of products, product count, artikel, produkty, pocet produktu, produits',
    }),
    number('products-change', 'Products, change', 'Change of the number of products over a year.', {
      section: 'market',
      openers: 'products change',
      headings: 'products change, change of products, new products',
      bars: PRODUCT_BARS,
    }),
    number('share', 'Share of its category', 'Share of the sales of its category, in percent.', {
      section: 'market',
      openers: 'category share, share',
      headings:
        'share of its category, category share, market share, share, marktanteil, podil na trhu, udzial w rynku, part de marche',
      unit: '%',
      bars: SMALL_SHARE_BARS,
    }),
    category('sold-in', 'Sold in', 'Countries where it is on sale.', {
      section: 'where',
      openers: 'sold in',
      headings: 'sold in, countries, countries sold in, markets, verkauft in, prodava se v, kraje, pays',
      store: { at: 'many', table: 'brand_country', value: 'country', known: 'countries_known' },
    }),
    parties('resellers', 'Resellers', 'Companies that sell it without owning it.', {
      width: 220,
      store: { at: 'parties', role: 'reseller' },
    }),
    allParties('brands'),
    checked,
    source,
  ],
};
