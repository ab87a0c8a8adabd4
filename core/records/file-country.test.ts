import { describe, expect, test } from '@jest/globals';
import { countryOfFile, countryOfNumbers, countryOfStates, countryOfTowns } from './file-country.ts';

const TOWNS: Readonly<Record<string, string[]>> = {
  IT: ['Verona', 'Milano'],
  ES: ['Sevilla'],
  CZ: ['Brno', 'Praha'],
  SK: ['Nitra'],
  SE: ['Luleå'],
};
const isTown = (town: string, country: string) => TOWNS[country]?.includes(town) ?? false;
const of = (header: string, ...towns: string[]) => countryOfFile(header.split(';'), towns, isTown);

describe('the country of a file that names none', () => {
  test.each([
    ['Ragione sociale;Partita IVA;Comune', ['Verona', 'Milano'], 'IT'],
    ['Nome;Codice ATECO 2007', [], 'IT'],
    ['Företag;Org.nr;Postort', ['Luleå'], 'SE'],
    ['Company;EIN;State', [], 'US'],
    ['Name;HRB-Nr.;WZ 2008', [], 'DE'],
    // Shared by two countries: what they are parted into, or another name, says which.
    ['Razón social;CIF;Provincia', ['Sevilla'], 'ES'],
    ['Denumire;CUI;Cod CAEN', [], 'RO'],
  ])('%s', (header, towns, country) => {
    expect(of(header, ...towns)).toBe(country);
  });

  test.each([
    ['nothing says it', 'Company;Registration number;Town', ['Verona']],
    ['parts of a country alone are no register', 'Name;Comune', ['Verona']],
    ['two countries share the name', 'Název;IČO;Obec', ['Brno']],
    ['registers of two countries stand in it', 'Name;Partita IVA;SIREN', []],
    ['most towns are elsewhere', 'Name;Partita IVA;Town', ['Verona', 'Brno', 'Praha']],
    ['a word of a name is none', 'Nipper;Cifra', []],
  ])('is not guessed where %s', (_, header, towns) => {
    expect(of(header, ...towns)).toBeNull();
  });
});

describe('the country of the towns of a file', () => {
  const countriesOf = (town: string) => Object.keys(TOWNS).filter((country) => isTown(town, country));
  const towns: Readonly<Record<string, string[]>> = {
    CZ: ['Brno', 'Praha', 'Plzeň', 'Ostrava', 'Linz'],
    AT: ['Wien', 'Graz', 'Linz', 'Wels'],
    DE: ['Linz', 'Wels', 'Graz', 'Wien'],
  };
  const among = (town: string) => Object.keys(towns).filter((country) => towns[country]!.includes(town));

  test('is the one in which they lie, though one has a namesake elsewhere', () => {
    expect(countryOfTowns(['Brno', 'Praha', 'Plzeň', 'Ostrava', 'Linz', 'Brno'], among)).toBe('CZ');
  });

  test.each([
    ['there are few', ['Brno', 'Praha', 'Brno', 'Praha']],
    ['another country has them too', ['Wien', 'Graz', 'Linz', 'Wels']],
    ['they lie in several', ['Brno', 'Praha', 'Wien', 'Graz']],
    ['most are not known', ['Brno', 'Praha', 'Plzeň', 'Ostrava', 'A', 'B', 'C', 'D']],
  ])('is not guessed where %s', (_, said) => {
    expect(countryOfTowns(said, among)).toBeNull();
  });

  test('is none of no towns', () => {
    expect(countryOfTowns(['', ' '], countriesOf)).toBeNull();
  });
});

describe('the country of registration numbers', () => {
  test.each([
    [['CHE-123.456.789', 'CHE987654321'], 'CH'],
    [['PL1234567890', '', 'PL 9876543210'], 'PL'],
    [['EL094123456'], 'GR'],
    [['PL1234567890', '12345678'], null],
    [['12345678'], null],
    [['HRB 12345', 'HRB 4711'], null],
    [[], null],
  ])('%j', (numbers, country) => {
    expect(countryOfNumbers(numbers)).toBe(country);
  });
});

describe('a column of states', () => {
  const isState = (text: string) => ['ME', 'OH', 'TX'].includes(text);
  const isThere = (town: string, country: string) => country === 'US' && ['Austin', 'Dayton'].includes(town);
  const of = (heading: string, states: string[], towns: string[] = []) =>
    countryOfStates(heading, states, towns, isState, isThere);

  test.each([
    ['State', ['ME', 'OH'], []],
    ['ST', ['TX', ''], ['Austin']],
    ['BorrowerState', ['OH', 'OH', 'TX', 'ME', 'XX'], ['Dayton', 'Austin', 'Brno']],
  ])('%s with %j is American', (heading, states, towns) => {
    expect(of(heading, states, towns)).toBe('US');
  });

  test.each([
    ['another heading', 'Province', ['ME'], []],
    ['other letters', 'State', ['XX', 'YY', 'ME'], []],
    ['names', 'State', ['Maine', 'Ohio'], []],
    ['towns elsewhere', 'State', ['ME'], ['Brno', 'Praha', 'Austin']],
    ['nothing', 'State', ['', ''], []],
  ])('is not with %s', (_, heading, states, towns) => {
    expect(of(heading, states, towns)).toBeNull();
  });
});
