import { describe, expect, test } from '@jest/globals';
import { areInseeBands, inseeBand } from './coded-bands.ts';

describe('codes of staff of the French register', () => {
  test.each([
    ['12', '20-49'],
    ['01', '1-2'],
    ['1', '1-2'],
    ['00', '0'],
    ['53', '10000+'],
    [' 41.0 ', '500-999'],
  ])('%s is %s', (code, band) => {
    expect(inseeBand(code)).toBe(band);
  });

  test('say of some that they are not known to employ anybody, and nothing of what is no code', () => {
    expect(inseeBand('NN')).toBeNull();
    expect(inseeBand('13')).toBeUndefined();
    expect(inseeBand('120')).toBeUndefined();
  });

  test('are all that a column has', () => {
    expect(areInseeBands(['NN', '12', '00'])).toBe(true);
    expect(areInseeBands(['12', '20'])).toBe(false);
    expect(areInseeBands([])).toBe(false);
  });
});
