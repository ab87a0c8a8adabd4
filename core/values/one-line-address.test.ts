import { describe, expect, test } from '@jest/globals';
import { addressParts, besideTown } from './one-line-address.ts';

describe('an address in one text', () => {
  test.each([
    ['Lipová 18, 602 00 Brno', 'Lipová 18', '602 00', 'Brno'],
    ['1051 Budapest, Arany J. u. 5.', 'Arany J. u. 5.', '1051', 'Budapest'],
    ['Hauptstr. 5 73033 Göppingen', 'Hauptstr. 5', '73033', 'Göppingen'],
    ['12 Mill Lane, Leeds LS1 4AB', '12 Mill Lane', 'LS1 4AB', 'Leeds'],
    ['Rynek Główny 1, 31-001 Kraków, Polska', 'Rynek Główny 1', '31-001', 'Kraków'],
    ['Old Dockside', null, null, null],
    ['Lange Straat 7, Gent', 'Lange Straat 7', null, 'Gent'],
  ])('%s', (text, street, postcode, town) => {
    expect(addressParts(text)).toEqual({ street, postcode, town });
  });

  test('keeps the road with the number of a unit in it, and the name of a building where no part is plainly the street', () => {
    expect(addressParts('Unit 4, Forge Lane, Sheffield, S9 2AB').street).toBe('Unit 4, Forge Lane');
    expect(addressParts('Unit 4, Sheffield, S9 2AB').street).toBe('Unit 4');
    const mill = 'The Old Mill, Canal Road, Leeds, LS12 2QQ';
    expect(besideTown(mill, addressParts(mill))).toBe('The Old Mill, Canal Road');
    expect(besideTown('602 00 Brno', addressParts('602 00 Brno'))).toBeNull();
  });
});
