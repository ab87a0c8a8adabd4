import { describe, expect, test } from '@jest/globals';
import { countryOfFile } from './file-country.ts';

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
