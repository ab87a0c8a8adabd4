import { describe, expect, test } from '@jest/globals';
import { readCodeTable, type CodeTree, type Scheme } from '../codes/tree.ts';
import { isoOf } from '../dates.ts';
import { CURRENCIES } from '../money/rates.ts';
import { CellError } from './cell.ts';
import { figuresWithZero, readCodes } from './codes.ts';
import { dateOrder, readDate, readYear } from './date.ts';
import { decimalEvidence, decimalOf, needsDecimal } from './decimal.ts';
import { saysNothing } from './empty.ts';
import {
  plainRegistration,
  readMail,
  readPhone,
  readPostcode,
  readRegistration,
  readWeb,
} from './identifiers.ts';
import { moneyHeading } from './money-heading.ts';

const refused = (read: () => unknown) => {
  expect(read).toThrow(CellError);
};

describe('cells that say that nothing is known', () => {
  test('in several languages, however they are written', () => {
    for (const text of [
      'n/a',
      'N/A',
      'k.A.',
      'k. A.',
      '-',
      '--',
      '?',
      '#N/A',
      '#NV',
      'unknown',
      'NULL',
      'nan',
      'b/d',
    ])
      expect([text, saysNothing(text)]).toEqual([text, true]);
    for (const text of ['0', 'none', 'no', 'Nada', 'NATO', 'A', 'keine'])
      expect([text, saysNothing(text)]).toEqual([text, false]);
  });
  test('are not the names that people have', () => {
    expect(['Null', 'NA', 'n/a', '-'].map((text) => saysNothing(text, true))).toEqual([
      false,
      false,
      true,
      true,
    ]);
  });
});

describe('dates', () => {
  const iso = (text: string, dates: 'dmy' | 'mdy' = 'dmy') => isoOf(readDate(text, { dates }));
  test.each([
    ['2026-09-30', '2026-09-30'],
    ['20260930', '2026-09-30'],
    ['2026-09-30T10:00:00Z', '2026-09-30'],
    ['30.9.2026', '2026-09-30'],
    ['30. 9. 2026', '2026-09-30'],
    ['30.9.26', '2026-09-30'],
    ['30.9.94', '1994-09-30'],
    ['3/4/2026', '2026-04-03'],
    ['30/09/2026 12:15', '2026-09-30'],
    ['30-09-2026', '2026-09-30'],
    ['30 Sep 2026', '2026-09-30'],
    ['30. září 2026', '2026-09-30'],
    ['30. September 2026', '2026-09-30'],
    ['30 września 2026', '2026-09-30'],
    ['September 30th, 2026', '2026-09-30'],
    ['30-Sep-26', '2026-09-30'],
    ['46295', '2026-09-30'],
    ['46295.5', '2026-09-30'],
  ])('“%s”', (text, date) => {
    expect(iso(text)).toBe(date);
  });
  test('with slashes are in the order of the column, which its cells show', () => {
    expect(iso('3/4/2026', 'mdy')).toBe('2026-03-04');
    expect(iso('12/31/94', 'mdy')).toBe('1994-12-31');
    expect(
      [['13/1/2026'], ['1/13/2026'], ['1/2/2026'], ['13/1/26', '1/13/26'], ['1.2.2026']].map(dateOrder),
    ).toEqual(['dmy', 'mdy', 'either', 'both', null]);
    refused(() => iso('12/31/2026'));
  });
  test('that there are not are refused', () => {
    for (const text of ['31/2/2026', '2026-13-01', 'lately', '30 Foo 2026', '123', '1'.repeat(5000)])
      refused(() => iso(text));
  });
  test('give their year, and years are read however they were saved', () => {
    for (const text of [
      '1994',
      '1994.0',
      '12.3.1994',
      '3/12/1994',
      '12/31/1994',
      '1994-05',
      'since 1994',
      '34400',
    ])
      expect([text, readYear(text)]).toEqual([text, 1994]);
    for (const text of ['94', '99999', 'x', '0999', '1994 or 1995', '94.5']) refused(() => readYear(text));
  });
});

const tree = (scheme: Scheme, codes: string[]): CodeTree =>
  readCodeTable(
    scheme,
    ['code\tlevel\tparent\ttitle', ...codes.map((code) => `${code}\t4\t\tTitle of ${code}`)].join('\n'),
  );

describe('industry codes', () => {
  const nace = tree('nace-2.1', [
    '01',
    '01.1',
    '01.11',
    '16',
    '16.23',
    '23',
    '25',
    '25.5',
    '25.51',
    '25.53',
    '62.10',
  ]);
  test.each([
    ['25.51', ['25.51']],
    ['2551', ['25.51']],
    ['C25.51', ['25.51']],
    ['C 25.51', ['25.51']],
    ['25.51B', ['25.51']],
    ['25510', ['25.51']],
    ['25.51.0', ['25.51']],
    ['25.51-0', ['25.51']],
    ['25.51 Coating of metals', ['25.51']],
    ['25.51 - Coating', ['25.51']],
    ['25,51', ['25.51']],
    ['1.11', ['01.11']],
    ['25.0', ['25']],
    ['25.51, 25.53', ['25.51', '25.53']],
    ['25.51;16.23', ['25.51', '16.23']],
    ['25.51 25.53', ['25.51', '25.53']],
    ['16, 23', ['16', '23']],
  ])('“%s”', (text, codes) => {
    expect(readCodes(text, nace)).toEqual(codes);
  });
  test('of other schemes keep their figures, and those that are none are refused', () => {
    const naics = tree('naics-2022', ['321918', '3219']);
    expect(readCodes('321918.0', naics)).toEqual(['321918']);
    for (const text of ['99.99', 'Coating', '25.51, coating and more', '321919']) {
      refused(() => readCodes(text, naics));
      refused(() => readCodes(text.replace('25.51', '99.51'), nace));
    }
  });
  test('that lost their leading zero are seen by the others of their column', () => {
    expect(figuresWithZero(['2551', '111', '1623'])).toBe(4);
    expect(figuresWithZero(['25510', '1110'])).toBe(5);
    for (const cells of [['255', '111'], ['25.51', '111'], ['2551', '11'], []])
      expect(figuresWithZero(cells)).toBe(0);
    expect(readCodes('111', nace, 4)).toEqual(['01.11']);
    expect(readCodes('111', tree('sic-1987', ['0111', '111']), 4)).toEqual(['0111']);
  });
});

describe('the decimal mark of a column', () => {
  const mark = (cells: string[], whole = false) => decimalOf(decimalEvidence(cells), whole);
  test('is what its figures can only have', () => {
    expect(mark(['1.250', '12,5'])).toBe(',');
    expect(mark(['1.250,00'])).toBe(',');
    expect(mark(['1,250.00'])).toBe('.');
    expect(mark(['1.250.000'])).toBe(',');
    expect(mark(['0.125'])).toBe('.');
    expect(mark(['12.5', '13.5', '1,5'])).toBe('.');
  });
  test('of whole figures is not the one before three', () => {
    expect([mark(['1.250']), mark(['1.250'], true), mark(['1,250'], true)]).toEqual([null, ',', '.']);
  });
  test('is wanted only where it makes a difference', () => {
    expect([['1250'], ['12.5'], ['12.500']].map((cells) => needsDecimal(decimalEvidence(cells)))).toEqual([
      false,
      false,
      true,
    ]);
  });
});

test('a "mil" is a thousand in Spanish and Portuguese, and a million elsewhere', () => {
  const unit = (heading: string) => moneyHeading(heading, CURRENCIES).unit;
  expect([unit('Facturación (mil EUR)'), unit('Vendas (mil €)'), unit('Lucro em mil €')]).toEqual([
    1e3, 1e3, 1e3,
  ]);
  const millions = ['Tržby (mil. Kč)', 'Revenue (mil USD)', 'Cifra de afaceri (mil. lei)'];
  expect(millions.map(unit)).toEqual([1e6, 1e6, 1e6]);
  expect(moneyHeading('Ventas (mil. €)', CURRENCIES)).toMatchObject({ unit: null, strange: true });
});

test('a word that stands where the unit does and is not known is told', () => {
  const strange = (heading: string) => moneyHeading(heading, CURRENCIES).strange;
  expect([strange('Revenue in zzz EUR'), strange('Revenue (zzz EUR)')]).toEqual([true, true]);
  const plain = [
    'Revenue (EUR)',
    'Annual revenue EUR',
    'Revenue (net EUR)',
    'Umsatz in Tsd. EUR',
    'Revenue in zzz',
  ];
  expect(plain.filter(strange)).toEqual([]);
});

test('headings of money say unit and currency', () => {
  const said = (heading: string) => {
    const { unit, currency } = moneyHeading(heading, CURRENCIES);
    return [unit, currency];
  };
  expect(said('Umsatz (Tsd. €)')).toEqual([1e3, 'EUR']);
  expect(said('Umsatz in TEUR')).toEqual([1e3, 'EUR']);
  expect(said('Deal value (EURm)')).toEqual([1e6, 'EUR']);
  expect(said('Turnover (Rs. Crore)')).toEqual([1e7, 'INR']);
  expect(said('Revenue (亿元)')).toEqual([1e8, 'CNY']);
  // Of a currency without rates its code is told, so that somebody is asked.
  expect(said('Revenue (RUB m)')).toEqual([1e6, 'RUB']);
  expect(said('Revenue (ALL)')).toEqual([null, null]);
  expect(said('Выручка, тыс. руб.')).toEqual([1e3, 'RUB']);
  expect(said('Дохід, млн грн')).toEqual([1e6, 'UAH']);
  expect(said('Receita líquida (R$ mil)')).toEqual([1e3, 'BRL']);
  expect(said('매출액 (백만원)')).toEqual([1e6, 'KRW']);
  expect(said('Omsättning, tkr')).toEqual([1e3, 'kr']);
  expect(said('Omsetning (MNOK)')).toEqual([1e6, 'NOK']);
  expect(said('Omsætning i mio. kr.')).toEqual([1e6, 'kr']);
  expect(said('Nettó árbevétel (eFt)')).toEqual([1e3, 'HUF']);
  expect(said('Ciro (milyon TL)')).toEqual([1e6, 'TRY']);
  expect(said('Umsatz T€')).toEqual([1e3, 'EUR']);
  expect(said('Revenue, EUR m')).toEqual([1e6, 'EUR']);
  expect(said('Revenue ($M)')).toEqual([1e6, 'USD']);
  expect(said('Revenue in k€')).toEqual([1e3, 'EUR']);
  expect(said('Obrat v tis. Kč')).toEqual([1e3, 'CZK']);
  expect(said('Obrat (mil. Kč)')).toEqual([1e6, 'CZK']);
  expect(said('Turnover £000')).toEqual([1e3, 'GBP']);
  expect(said("Turnover (£'000)")).toEqual([1e3, 'GBP']);
  expect(said('Przychody (tys. zł)')).toEqual([1e3, 'PLN']);
  expect(said('Revenue thousands')).toEqual([1e3, null]);
  expect(said('Revenue CZK')).toEqual([null, 'CZK']);
  expect(said('M & A revenue')).toEqual([null, null]);
});

describe('numbers that are names', () => {
  test('of registration are one however they were written', () => {
    for (const text of ['CZ 012 34 567', '1234567.0', '1234567', '01234567'])
      expect([text, plainRegistration(text, 'CZ')]).toEqual([text, '01234567']);
    expect(plainRegistration('FN 123456a', 'AT')).toBe('FN123456A');
    expect(plainRegistration('SC123456', 'GB')).toBe('SC123456');
    expect(plainRegistration('123', 'CZ')).toBe('123');
    expect([readRegistration('1234567', 'CZ'), readRegistration('HRB 12 / 3', 'DE')]).toEqual([
      '01234567',
      'HRB 12 / 3',
    ]);
    refused(() => readRegistration('1.23457E+09', 'CZ'));
  });
  test('of phones get back their plus, but no lost figures', () => {
    expect(readPhone('420777123456.0', '+420')).toBe('+420777123456');
    expect(readPhone("'+420 541 123 456", '+420')).toBe('+420 541 123 456');
    expect(readPhone('Tel.: +420 541 123 456\nFax: +420 541 123 457', '+420')).toBe('+420 541 123 456');
    expect(readPhone('0732/123456; Telefax 0732/123457', null)).toBe('0732/123456');
    expect(readPhone('T +43 1 234 56 78', null)).toBe('+43 1 234 56 78');
    expect(readPhone('4.20777123456E+11', '+420')).toBe('+420777123456');
    expect(readPhone('+420 777 123 456', '+420')).toBe('+420 777 123 456');
    refused(() => readPhone('4.20777E+11', '+420'));
    refused(() => readPhone('by mail', null));
  });
  test('of post offices get back the nought that was eaten, where all have as many figures', () => {
    expect([
      readPostcode('1067', 'DE'),
      readPostcode('1067.0', 'DE'),
      readPostcode('1067', 'AT'),
      readPostcode('1067', null),
    ]).toEqual([...['01067', '01067', '1067', '1067']]);
  });
  test('are the first of several that one cell has', () => {
    expect(readWeb('foo.example / www.bar.example')).toBe('foo.example');
    expect(readWeb('https://foo.example/a, bar.example')).toBe('foo.example/a');
    expect(readMail('a@foo.example; b@foo.example')).toBe('a@foo.example');
    expect(readMail('info [at] foo [dot] example')).toBe('info@foo.example');
    expect(readMail('info(at)foo.example')).toBe('info@foo.example');
    expect(readMail('<mailto:a@foo.example>')).toBe('a@foo.example');
    expect(readWeb('foo.example.')).toBe('foo.example');
    for (const text of ['[foo.example](https://foo.example)', 'foo.example and more', 'http:/foo.example'])
      refused(() => readWeb(text));
  });
  test('of a register go without what they are called', () => {
    for (const text of [
      'IČO: 12345678',
      'ICO 12345678',
      'IČ 123 45 678',
      'DIČ CZ12345678',
      'Reg. No. 12345678',
    ])
      expect(plainRegistration(text, 'CZ')).toBe('12345678');
    expect(plainRegistration('KRS 0000123456', 'PL')).toBe('0000123456');
    // Which of several registers it is in stays.
    expect(plainRegistration('HRB 12345', 'DE')).toBe('HRB12345');
    expect(plainRegistration('FN 123456 a', 'AT')).toBe('FN123456A');
  });
  test('of the web have no trackers', () => {
    expect(readWeb('https://www.Foo.example/?utm_source=x&gclid=1')).toBe('www.foo.example');
    expect(readWeb('http://foo.example/a/B/?id=3&utm_medium=y#top')).toBe('foo.example/a/B?id=3');
    for (const text of ['foo', 'no website', 'a@foo.example']) refused(() => readWeb(text));
    expect(readMail('mailto:a@foo.example')).toBe('a@foo.example');
    expect(readMail('Foo <a@foo.example>')).toBe('a@foo.example');
    for (const text of ['foo', 'a@b', 'a@foo.example; b']) refused(() => readMail(text));
  });
});
