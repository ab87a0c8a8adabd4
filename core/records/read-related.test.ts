import { describe, expect, test } from '@jest/globals';
import { dayOf } from '../dates.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { PLAIN_MAPPING } from '../testing/plain-mapping.ts';
import type { Mapping } from './mapping.ts';
import { relatedReader, type ReadSubject } from './read-related.ts';
import type { RelatedRecord } from './related.ts';

const places = new Gazetteer({
  countries: [
    'iso2',
    'CZ\tCZE\t203\tCzechia\tČesko\tCZK\tEurope\tEastern\t+420',
    'AT\tAUT\t040\tAustria\tÖsterreich\tEUR\tEurope\tWestern\t+43',
  ].join('\n'),
  regions: 'key\nCZ-64\tCZ\tJihomoravský kraj\tSouth Moravia\nAT-3\tAT\tNiederösterreich\tLower Austria',
  towns: [
    'id',
    '1\tBrno\tBrno\t\t\tCZ\tCZ-64\t49.195\t16.608\t380000',
    '2\tRetz\tRetz\t\t\tAT\tAT-3\t48.757\t15.956\t4200',
    '3\tRetz\tRetz\t\t\tCZ\tCZ-64\t49.1\t16.1\t90',
  ].join('\n'),
});

function read(subject: ReadSubject, row: Record<string, string>, mapping: Partial<Mapping> = {}) {
  const columns = Object.keys(row);
  return relatedReader(subject, columns, { ...PLAIN_MAPPING, columns, ...mapping }, places).read(
    Object.values(row),
  );
}
function related<S extends ReadSubject>(
  subject: S,
  row: Record<string, string>,
  mapping?: Partial<Mapping>,
): Extract<RelatedRecord, { subject: S }> {
  const answer = read(subject, row, mapping);
  if ('problems' in answer) throw new Error(JSON.stringify(answer.problems));
  return answer.related as Extract<RelatedRecord, { subject: S }>;
}
function problems(subject: ReadSubject, row: Record<string, string>, mapping?: Partial<Mapping>) {
  const answer = read(subject, row, mapping);
  return 'problems' in answer ? answer.problems.map(({ column, rule }) => [column, rule]) : [];
}

test('several investors stand apart by semicolons, and by commas where each has a name of several words', () => {
  const investors = (cell: string) =>
    related('deals', { 'party-target': 'Alder', 'party-investor': cell })
      .parties.filter(({ role }) => role === 'investor')
      .map(({ reference }) => reference.name);
  expect(investors('North Ventures; Fjord Fund, Polar Angels')).toEqual([
    'North Ventures',
    'Fjord Fund',
    'Polar Angels',
  ]);
  expect(investors('Birch, Inc.')).toEqual(['Birch, Inc.']);
  expect(investors('Birch Works, s.r.o.')).toEqual(['Birch Works, s.r.o.']);
  const buyers = related('deals', { 'party-buyer': 'Birch Works, Cedar Works' }).parties;
  expect(buyers).toHaveLength(1);
});

describe('the company of a row', () => {
  test('is named by number, domain and name, in the country of the row or of all rows', () => {
    const row = {
      'company-number': '27 074 358',
      'company-domain': 'https://www.Alder.example/team?x=1',
      'company-name': 'Alder',
      'company-country': 'Česko',
      name: 'Anna',
    };
    expect(related('people', row).company).toEqual({
      number: '27 074 358',
      domain: 'alder.example',
      name: 'Alder',
      country: 'CZ',
    });
    expect(related('people', { 'company-name': 'Alder', name: 'A' }, { country: 'AT' }).company.country).toBe(
      'AT',
    );
  });
  test('is told by the domain of a person’s mail address where nothing else says it, unless anybody has mail there', () => {
    const isFree = (domain: string) => domain === 'freemail.example';
    const row = (cells: Record<string, string>) => {
      const columns = Object.keys(cells);
      const mapping = { ...PLAIN_MAPPING, columns };
      const answer = relatedReader('people', columns, mapping, places, null, isFree).read(
        Object.values(cells),
      );
      return 'related' in answer && 'company' in answer.related ? answer.related.company : null;
    };
    expect(row({ name: 'Anna', mail: 'anna@post.alder.example' })).toMatchObject({
      domain: 'alder.example',
      name: null,
      number: null,
    });
    expect(row({ name: 'Anna', mail: 'anna@freemail.example' })).toBeNull();
    expect(row({ name: 'Anna', mail: 'a@alder.example', 'company-name': 'Birch' })).toMatchObject({
      domain: null,
      name: 'Birch',
    });
    expect(problems('people', { name: 'Anna', mail: 'anna@alder.example' })).toHaveLength(1);
  });
  test('must be named somehow; a country or domain that is none is said', () => {
    expect(problems('people', { name: 'Anna', 'company-name': ' ' })).toEqual([
      ['the row', 'a registration number, domain or name of its company'],
    ]);
    expect(problems('people', { name: 'Anna', 'company-name': 'A', 'company-country': 'Atlantis' })).toEqual([
      ['company-country', 'a country, as a name or an ISO code'],
    ]);
    expect(problems('people', { name: 'Anna', 'company-name': 'A', 'company-domain': 'none' })).toEqual([
      ['company-domain', 'a domain or web address such as foo.example'],
    ]);
  });
});

describe('a person', () => {
  const of = (more: Record<string, string>) => ({ name: 'Anna', 'company-name': 'Alder', ...more });
  test('of whom only the name is known has nothing else', () => {
    const { name, ...rest } = related('people', of({})).record;
    expect(name).toBe('Anna');
    expect(new Set(Object.values(rest))).toEqual(new Set([null]));
  });
  test('has department and level by key or label, whatever case and hyphens', () => {
    expect(related('people', of({ department: 'PURCHASING', level: 'Head' })).record).toMatchObject({
      department: 'purchasing',
      level: 'head',
    });
    const [[column, rule]] = problems('people', of({ level: 'emperor' })) as [[string, string]];
    expect(column).toBe('level');
    expect(rule).toMatch(/^one of .*head/i);
  });
  test('has a certainty from 0 to 100 %, whole', () => {
    expect(related('people', of({ certainty: '93.6 %' })).record.certainty).toBe(94);
    expect(related('people', of({ certainty: '0' })).record.certainty).toBe(0);
    for (const wrong of ['101', '-1', 'high'])
      expect([wrong, problems('people', of({ certainty: wrong }))]).not.toEqual([wrong, []]);
  });
  test('has days in the order that the file writes them', () => {
    const since = (dates: 'dmy' | 'mdy', text: string) =>
      related('people', of({ since: text }), { dates }).record.sinceOn;
    expect(since('dmy', '3/4/2024')).toBe(dayOf('2024-04-03'));
    expect(since('mdy', '3/4/2024')).toBe(dayOf('2024-03-04'));
    expect(since('mdy', '2024-04-03')).toBe(dayOf('2024-04-03'));
    expect(problems('people', of({ since: '31/2/2024' }))).toHaveLength(1);
  });
  test('without a name is refused', () => {
    expect(problems('people', of({ name: ' ' })).at(-1)![1]).toBe('a name');
  });
});

describe('a site', () => {
  const of = (more: Record<string, string>) => ({ 'company-name': 'Alder', ...more });
  test('needs no name of its own, and has the place of its town in its company’s country', () => {
    expect(related('sites', of({ town: 'retz', 'company-country': 'CZ' })).record).toMatchObject({
      name: null,
      country: 'CZ',
      region: 'CZ-64',
      town: 'Retz',
      lat: 49.1,
    });
    // Its own country goes before that of its company; without either the largest town of the name is meant.
    expect(
      related('sites', of({ town: 'Retz', country: 'Austria', 'company-country': 'CZ' })).record,
    ).toMatchObject({
      country: 'AT',
      region: 'AT-3',
    });
    expect(related('sites', of({ town: 'Retz' })).record).toMatchObject({ country: 'AT', region: 'AT-3' });
  });
  test('keeps a town that no table has as it is written, and its own coordinates before those of the town', () => {
    expect(related('sites', of({ town: 'Nowhere', country: 'CZ' })).record).toMatchObject({
      town: 'Nowhere',
      region: null,
      lat: null,
    });
    expect(related('sites', of({ town: 'Brno', latitude: '49,2', longitude: '16.6' })).record).toMatchObject({
      lat: 49.2,
      lon: 16.6,
    });
    expect(problems('sites', of({ latitude: '91', longitude: '-181' }))).toEqual([
      ['latitude', 'degrees from -90 to 90'],
      ['longitude', 'degrees from -180 to 180'],
    ]);
  });
  test('says whether it is the head office, and how many work there', () => {
    expect(related('sites', of({ head: 'yes', headcount: '1,250' })).record).toMatchObject({
      head: true,
      headcount: 1250,
    });
    expect(problems('sites', of({ head: 'perhaps' }))).toHaveLength(1);
    expect(problems('sites', of({ headcount: '-3' }))).toHaveLength(1);
  });
});

describe('a deal', () => {
  const of = (more: Record<string, string>) => ({ 'party-target': 'Alder Works', ...more });
  test('has parties by role: names, domains and registration numbers, several by semicolons', () => {
    expect(
      related(
        'deals',
        of({ 'party-investor': 'cedar.example; Birch Ltd ;;', 'party-buyer': 'CZ 27 074 358' }),
        {
          country: 'AT',
        },
      ).parties,
    ).toEqual(
      expect.arrayContaining([
        { role: 'target', reference: { number: null, domain: null, name: 'Alder Works', country: 'AT' } },
        { role: 'investor', reference: { number: null, domain: 'cedar.example', name: null, country: 'AT' } },
        { role: 'investor', reference: { number: null, domain: null, name: 'Birch Ltd', country: 'AT' } },
        { role: 'buyer', reference: { number: '27 074 358', domain: null, name: null, country: 'CZ' } },
      ]),
    );
  });
  test('is called by its target where it has no name, and refused without any party', () => {
    expect(related('deals', of({})).record.name).toBe('Alder Works');
    expect(related('deals', { 'party-investor': 'cedar.example' }).record.name).toBe('cedar.example');
    expect(related('deals', of({ name: 'The sale' })).record.name).toBe('The sale');
    expect(problems('deals', { name: 'The sale', 'party-target': '' })).toEqual([
      ['the row', 'a target, buyer, investor or adviser'],
    ]);
  });
  test('has its amount in the unit of the file, in the currency of the row, at the year of its day', () => {
    expect(
      related('deals', of({ amount: '1.5', date: '2023-05-06' }), { revenueUnit: 1e6 }).record,
    ).toMatchObject({
      date: dayOf('2023-05-06'),
      amount: { basis: 'reported', point: 1_500_000, currency: 'EUR', year: 2023 },
    });
    expect(related('deals', of({ amount: '900', 'amount-currency': 'czk' })).record.amount).toMatchObject({
      point: 900,
      currency: 'CZK',
      year: 2025,
    });
    expect(related('deals', of({})).record.amount).toBeNull();
    expect(problems('deals', of({ amount: '900', 'amount-currency': 'XYZ' }))[0]![1]).toMatch(
      /^a currency code/,
    );
  });
});

test('an event has a kind, a day and its company; each wrong cell of a row is said', () => {
  expect(
    related('events', {
      name: 'Opens a works',
      kind: 'job opening',
      date: '2026-01-05',
      'company-name': 'A',
    }),
  ).toMatchObject({
    company: { name: 'A' },
    record: { name: 'Opens a works', date: dayOf('2026-01-05') },
  });
  expect(
    problems('events', { name: '', kind: 'no such', date: 'lately', 'company-name': '' }).map(
      ([column]) => column,
    ),
  ).toEqual(['kind', 'date', 'the row', 'Event']);
});

describe('a brand', () => {
  const row = {
    name: 'Quelbek',
    'party-owner': 'lakovna.example',
    'party-consented': 'CZ 27074358; Torvik s.r.o.',
    'party-resold': 'Veldin',
    category: 'Coatings',
    channel: 'dealers 62; own shop 8',
    'channel-dealers': '70',
    'channel-direct': '30 %',
    'channel-change-dealers': '-2.5',
    products: '1 200',
    'products-change': '-15',
    share: '4.5',
    'sold-in': 'Česko; Austria',
    checked: '2026-09-01',
  };
  test('has its companies by role, and shares from one column of all or one for each, told once', () => {
    expect(related('brands', row)).toEqual({
      subject: 'brands',
      parties: [
        { role: 'owner', reference: { number: null, domain: 'lakovna.example', name: null, country: null } },
        { role: 'consented', reference: { number: '27074358', domain: null, name: null, country: 'CZ' } },
        {
          role: 'consented',
          reference: { number: null, domain: null, name: 'Torvik s.r.o.', country: null },
        },
        { role: 'resold', reference: { number: null, domain: null, name: 'Veldin', country: null } },
      ],
      record: {
        name: 'Quelbek',
        category: 'coatings',
        products: 1200,
        productsChange: -15,
        productsHistory: null,
        share: 4.5,
        countries: ['CZ', 'AT'],
        channels: [
          ['channel', 'dealers', 62],
          ['channel', 'own-shop', 8],
          ['channel', 'direct', 30],
          ['channel-change', 'dealers', -2.5],
        ],
        checkedOn: dayOf('2026-09-01'),
      },
    });
  });
  test('sold nowhere is not the same as nobody knows where', () => {
    const bare = { name: 'Quelbek', 'party-owner': 'Lakovna' };
    expect(related('brands', bare).record).toMatchObject({ countries: null, channels: [], products: null });
    expect(related('brands', { ...bare, 'sold-in': 'none' }).record.countries).toEqual([]);
  });
  test('without any company, or with shares that are none, is refused, and says why', () => {
    expect(problems('brands', { name: 'Quelbek' })).toEqual([['the row', 'an owner or a reseller']]);
    const wrong = (more: Record<string, string>) =>
      problems('brands', { name: 'Q', 'party-owner': 'L', ...more }, { unreadable: 'refuse' })[0]![1];
    expect(wrong({ 'channel-dealers': '130' })).toBe('a share from 0 to 100 %');
    expect(wrong({ 'channel-dealers': '-1' })).toBe('a share from 0 to 100 %');
    expect(wrong({ channel: 'moon 12' })).toMatch(/^one of direct, own shop/);
    expect(wrong({ category: 'astrology' })).toMatch(/^one of machines/);
    expect(wrong({ 'products-change': '1.5' })).toBe('a whole number');
  });
});
