import { describe, expect, test } from '@jest/globals';
import { regionOfProvince } from './provinces.ts';

describe('provinces by their region', () => {
  test.each([
    ['69', 'FR', 'FR-ARA'],
    ['69 - Rhône', 'FR', 'FR-ARA'],
    ['1', 'FR', 'FR-ARA'],
    ['2A', 'FR', 'FR-20R'],
    ['Seine-Saint-Denis', 'FR', 'FR-IDF'],
    ['département du Nord', 'FR', 'FR-HDF'],
    ['MI', 'IT', 'IT-25'],
    ['Milano (MI)', 'IT', 'IT-25'],
    ['provincia di Verona', 'IT', 'IT-34'],
    ['Forlì-Cesena', 'IT', 'IT-45'],
    ['Vizcaya', 'ES', 'ES-PV'],
    ['Coruña, A', 'ES', 'ES-GA'],
    ['41', 'ES', 'ES-AN'],
  ])('%s in %s', (text, country, region) => {
    expect(regionOfProvince(text, country)).toBe(region);
  });

  test.each([
    ['99', 'FR'],
    ['MI', 'FR'],
    ['', 'IT'],
    ['Brno', 'CZ'],
  ])('none: “%s” in %s', (text, country) => {
    expect(regionOfProvince(text, country)).toBeNull();
  });
});
