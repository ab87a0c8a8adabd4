import { describe, expect, test } from '@jest/globals';
import { readCodeTable, type Scheme } from '../codes/tree.ts';
import { guessMapping } from './mapping.ts';
import { guessShape, headingsOf, notData } from './table-shape.ts';

/** How columns are recognised and in what ways they are written, by heading, cells and neighbours. */

const tree = (scheme: Scheme, codes: string[]) =>
  [scheme, readCodeTable(scheme, ['h', ...codes.map((code) => `${code}\t4\t\tTitle`)].join('\n'))] as const;
const trees = new Map([
  tree('nace-2.1', ['16.23', '25.51', '25.53', '62.10']),
  tree('nace-2', ['16.23', '25.61', '25.62', '62.01']),
  tree('sic-1987', ['2431', '3479']),
]);
const recognised = (text: string, delimiter = ';', subject = 'companies') => {
  const [header, ...rows] = text.split('\n').map((line) => line.split(delimiter));
  const hints = { delimiter, sameCode: (code: string) => code === '16.23' };
  return guessMapping(header!, rows, trees, { currency: 'EUR', year: 2025 }, subject, hints);
};
const columns = (heading: string, subject?: string) => recognised(`${heading}\n`, ';', subject).columns;

describe('cells say what a column is where its heading does not', () => {
  test.each([
    ['a column of firms is the name', 'Wer;Wo\nAmsel Holz GmbH;x\nBrandner & Co KG;y', ['name', null]],
    ['postcodes', 'Name;Kod\nOkna;00-950\nDrzwi;31-001', ['name', 'postcode']],
    [
      'the number of a house behind its street',
      'Naam;Straat;Nr\nDe Eik;Kerkstraat;12a',
      ['name', 'street', 'street-number'],
    ],
    [
      'a number that is not behind a street',
      'Naam;Nr;Straat\nDe Eik;12a;Kerkstraat',
      ['name', null, 'street'],
    ],
    ['a trade in words is no code', 'Firma;Branche;WZ\nAmsel;Zimmerei;16.23', ['name', null, 'main-code']],
    ['a postcode with its town is a town', 'Navn;Postnr. og by\nHolm;8000 Aarhus C', ['name', 'town']],
  ])('%s', (_, text, found) => {
    expect(recognised(text).columns).toEqual(found);
  });

  test('the year of money is the one of its heading; codes of fewer figures lost a zero only where more are codes then', () => {
    expect(recognised('Firma;Umsatz 2023 (Tsd. €)\nAmsel;7.200').year).toBe(2023);
    expect(recognised('Firma;Umsatz\nAmsel;7.200').year).toBe(2025);
    const figures = (...codes: string[]) =>
      recognised(['Firma;WZ 2008', ...codes.map((code) => `A;${code}`)].join('\n')).styles![1]!.figures;
    expect(figures('1623', '25610')).toBeUndefined();
    expect(figures('1623', '2561')).toBeUndefined();
  });

  test('crowns are those of the country, else it is asked whose', () => {
    const [, swedish] = recognised('Företag;Omsättning (tkr);Org nr\nA;1;2').styles!;
    expect(swedish).toMatchObject({ unit: 1000, currency: 'SEK' });
    const open = recognised('Firma;Umsatz (tkr)\nA;1');
    expect(open.undecided).toEqual([{ column: 1, what: 'currency' }]);
  });
});

test('a row of nothing but units belongs to the headings above it, and how many there are is no record', () => {
  const rows = (text: string) => text.split('\n').map((line) => line.split(';'));
  const units = rows('Name;Land;Umsatz\n;;(in Mio. EUR)\nAmsel;DE;7,2');
  expect(guessShape(units)).toEqual({ skip: 0, headerRows: 2 });
  expect(headingsOf(units.slice(0, 2), 3)).toEqual(['Name', 'Land', 'Umsatz (in Mio. EUR)']);
  expect(guessShape(rows('Name;Land;Umsatz\nAmsel;DE;7,2\nEich;AT;3'))).toEqual({ skip: 0, headerRows: 1 });
  const header = ['Name', 'Land', 'Umsatz'];
  expect(notData(['Anzahl: 3', '', '9,2'], header)).toBe('total');
  expect(notData(['Number of companies: 1 200', '', ''], header)).toBe('total');
  expect(notData(['Anzahl GmbH', 'DE', '9,2'], header)).toBeNull();
});

describe('headings', () => {
  test.each([
    ['Company registration number;Company name;Company size', ['registration', 'name', 'headcount']],
    ['Name;Name of contact;Contact person', ['name', null, null]],
    ['Název;Ulice;Č.p.;č. o.;PSČ', ['name', 'street', 'street-number', null, 'postcode']],
    ['Nom;CP;Web;Domain', ['name', 'postcode', 'web', null]],
    // Of several years the newest; a class of revenue, or where a site stands, only where nothing better does.
    ['Firma;Umsatz 2023;Umsatz 2025;Umsatz 2024', ['name', null, 'revenue', null]],
    ['Firma;Umsatzklasse;Umsatz in T€ (ca.)', ['name', null, 'revenue']],
    ['Firma;Umsatzklasse', ['name', 'revenue']],
    ['Firma;Standort;Ort', ['name', null, 'town']],
    ['Firma;Standort', ['name', 'town']],
    ['Firma;Telefon;Mobil', ['name', 'phone', null]],
    ['Firma;Mobil', ['name', 'phone']],
    ['Yritys;Liikevaihto;Henkilöstö;Kunta', ['name', 'revenue', 'headcount', 'town']],
    ['Firma Adı;Şehir;Çalışan Sayısı;Ciro', ['name', 'town', 'headcount', 'revenue']],
    ['companyName;numberOfEmployees;annualRevenue', ['name', 'headcount', 'revenue']],
    [
      'Firmenname;Mitarbeiterzahl;Umsatz 2024 (Tsd. €);WZ 2008;Gründung',
      ['name', 'headcount', 'revenue', 'main-code', 'founded'],
    ],
    [
      'Obchodní jméno;IČO;Sídlo - obec;Počet zaměstnanců;CZ-NACE',
      ['name', 'registration', 'town', 'headcount', 'main-code'],
    ],
    ['Názov spoločnosti;IČO;Mesto;Počet zamestnancov', ['name', 'registration', 'town', 'headcount']],
    [
      'Nazwa firmy;NIP;Miejscowość;Liczba pracowników;Kod PKD',
      ['name', null, 'town', 'headcount', 'main-code'],
    ],
    [
      'Raison sociale;N° SIREN;Ville;Code postal;Effectif;Code NAF',
      ['name', 'registration', 'town', 'postcode', 'headcount', 'main-code'],
    ],
    [
      'Ragione sociale;Comune;CAP;Dipendenti;Fatturato;ATECO',
      ['name', 'town', 'postcode', 'headcount', 'revenue', 'main-code'],
    ],
    [
      'Razón social;Localidad;Código postal;Nº empleados;Facturación',
      ['name', 'town', 'postcode', 'headcount', 'revenue'],
    ],
    [
      'Cégnév;Cégjegyzékszám;Irányítószám;Város;Létszám;Árbevétel',
      ['name', 'registration', 'postcode', 'town', 'headcount', 'revenue'],
    ],
    ['Bedrijfsnaam;KvK-nummer;Plaats;Aantal werknemers', ['name', 'registration', 'town', 'headcount']],
    [
      'Företagsnamn;Organisationsnummer;Postnummer;Antal anställda',
      ['name', 'registration', 'postcode', 'headcount'],
    ],
    ['Virksomhed;CVR-nr;Postnr;Antal ansatte', ['name', 'registration', 'postcode', 'headcount']],
    [
      'Employees min;Employees max;Revenue from;Revenue to',
      ['headcount-from', 'headcount-to', 'revenue-from', 'revenue-to'],
    ],
    [
      'Headcount basis;Revenue basis;Revenue per head;Revenue growth',
      ['headcount-basis', 'revenue-basis', null, null],
    ],
    ['Primary NAICS;Secondary NAICS', ['main-code', 'other-codes']],
  ])('%s', (heading, ids) => {
    expect(columns(heading)).toEqual(ids);
  });
  test('of people have first and last names', () => {
    expect(columns('Vorname;Nachname;Firma;Funktion;E-Mail', 'people')).toEqual([
      ...['first-name', 'last-name', 'company-name', 'title', 'mail'],
    ]);
  });
});

describe('the decimal mark', () => {
  const decimals = (text: string, delimiter?: string) => {
    const { styles, undecided = [] } = recognised(text, delimiter);
    return [styles!.map(({ decimal }) => decimal), undecided.map(({ column, what }) => [column, what])];
  };
  test('is that of the column', () => {
    expect(decimals('Company;Revenue\nA;1.250\nB;12,5')).toEqual([[undefined, ','], []]);
    expect(decimals('Company;Revenue;Profit\nA;12.5;1.250,00\nB;1.5;3')).toEqual([[undefined, '.', ','], []]);
  });
  test('or of its neighbours, of which whole figures have no decimals', () => {
    expect(decimals('Company;Employees;Revenue\nA;1.250;12.500')).toEqual([[undefined, ',', ','], []]);
    expect(decimals('Company,Employees,Revenue\nA,20,12.500\nB,3,1.25', ',')).toEqual([
      [undefined, '.', '.'],
      [],
    ]);
  });
  test('or of the language of its headings', () => {
    expect(decimals('Firmenname;Umsatz\nA;12.500')).toEqual([[undefined, ','], []]);
  });
  test('or it has to be said', () => {
    expect(decimals('Company;Revenue\nA;12.500')).toEqual([[undefined, undefined], [[1, 'decimal']]]);
    expect(decimals('Company;Revenue\nA;12500')).toEqual([[undefined, undefined], []]);
  });
});

test('each column of money has its own unit and currency', () => {
  expect(recognised('Firma;Umsatz (Mio. €);Gewinn (Tsd. CHF);Bilanzsumme\nA;1,5;2;3').styles).toEqual([
    {},
    { decimal: ',', unit: 1e6, currency: 'EUR' },
    { decimal: ',', unit: 1e3, currency: 'CHF' },
    { decimal: ',', unit: 1 },
  ]);
});

describe('the scheme of codes', () => {
  const scheme = (heading: string, ...codes: string[]) => {
    const { styles, undecided } = recognised(
      [`Company;${heading}`, ...codes.map((code) => `A;${code}`)].join('\n'),
    );
    return undecided ? undecided[0]!.what : styles![1]!.scheme;
  };
  test('is that of the heading', () => {
    expect(
      ['NACE Rev. 2', 'NACE Rev. 2.1', 'WZ 2008', 'PKD 2025', 'Primary NAICS', 'US SIC', 'UK SIC 2007'].map(
        (heading) => scheme(heading, '16.23'),
      ),
    ).toEqual([...['nace-2', 'nace-2.1', 'nace-2', 'nace-2.1', 'naics-2022', 'sic-1987', 'nace-2']]);
  });
  test('or the one in which they are codes', () => {
    expect([
      scheme('NACE', '25.61'),
      scheme('NACE', '25.51'),
      scheme('SIC', '3479'),
      scheme('Industry code', '25.62'),
    ]).toEqual([...['nace-2', 'nace-2.1', 'sic-1987', 'nace-2']]);
  });
  test('of two in which they mean the same it does not matter; else it has to be said', () => {
    expect(scheme('NACE', '16.23')).toBe('nace-2.1');
    expect(scheme('NACE', '16.23', '25.61', '25.51')).toBe('scheme');
  });
});

test('dates that fit both orders are those of other columns, or have to be said', () => {
  const order = (text: string) => {
    const { styles, undecided } = recognised(text);
    return [styles!.map(({ dates }) => dates), undecided];
  };
  expect(order('Company;Checked\nA;13/1/2026')).toEqual([[undefined, 'dmy'], undefined]);
  expect(order('Company;Checked;Website tried\nA;1/13/2026;2/3/2026')).toEqual([
    [undefined, 'mdy', 'mdy'],
    undefined,
  ]);
  expect(order('Company;Checked\nA;2/3/2026')).toEqual([
    [undefined, undefined],
    [{ column: 1, what: 'dates' }],
  ]);
});

describe('the table in a file', () => {
  const rows = (text: string) => text.split('\n').map((line) => line.split(';'));
  const head = 'Company;Town;Employees;Revenue';
  test('begins below its titles', () => {
    expect(guessShape(rows(`Suppliers 2026;;;\n;;;\n${head}\nA;Brno;1;2\nB;Zlín;3;4`))).toEqual({
      skip: 2,
      headerRows: 1,
    });
    expect(guessShape(rows(`${head}\nA;Brno;1;2`))).toEqual({ skip: 0, headerRows: 1 });
    expect(guessShape(rows('A;Brno;1;2\nB;Zlín;3;4'))).toEqual({ skip: 0, headerRows: 0 });
  });
  test('can have two rows of headings', () => {
    const two = rows('Company;;Employees;;Revenue\n;Town;2024;2025;EUR m\nA;Brno;1;2;3');
    expect(guessShape(two)).toEqual({ skip: 0, headerRows: 2 });
    expect(headingsOf(two.slice(0, 2), 5)).toEqual([
      'Company',
      'Company Town',
      'Employees 2024',
      'Employees 2025',
      'Revenue EUR m',
    ]);
  });
  test('has rows that are no data', () => {
    const header = head.split(';');
    const why = (line: string) => notData(line.split(';'), header);
    expect(
      ['Total;;4;6', 'Summe:;;4.000;6', 'Celkem;;4;6', 'Source: register;;;', '* made up;;;', head].map(why),
    ).toEqual([...['total', 'total', 'total', 'note', 'note', 'headings']]);
    expect(
      [
        'Total Glass Ltd;Brno;4;6',
        'Total;Brno;4;6',
        'Alone;;;',
        'Standard Works;;;',
        'Source Ltd;;;',
        ';;;',
      ].map(why),
    ).toEqual([...[null, null, null, null, null, null]]);
  });
});

test('in a file of people read for their companies, names of people are no companies and the employer is', () => {
  expect(columns('First name;Last name;Nachname;Employer;Website')).toEqual([
    null,
    null,
    null,
    'name',
    'web',
  ]);
});
