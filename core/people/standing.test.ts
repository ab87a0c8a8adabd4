import { describe, expect, test } from '@jest/globals';
import { CONFIRMED_CERTAINTY, LIKELY_FROM, ofMade, ofRecorded, RECORDED_CERTAINTY } from './standing.ts';

describe('how far an address is to be trusted', () => {
  test.each([
    ['hana.vlkova@alder.example', null, undefined, 'recorded', RECORDED_CERTAINTY],
    ['hana.vlkova@alder.example', 60, undefined, 'recorded', 60],
    ['info@alder.example', null, undefined, 'general', RECORDED_CERTAINTY],
    ['hana.vlkova@alder.example', 60, 'confirmed', 'confirmed', CONFIRMED_CERTAINTY],
    ['hana.vlkova@alder.example', 99, 'refuted', 'refuted', 0],
  ] as const)('one that a source records: %s, %s said, %s', (mail, stated, outcome, address, certainty) => {
    expect(ofRecorded(mail, stated, outcome)).toEqual({ address, certainty });
  });

  test('one made by a pattern is likely or a guess, and never written surer than it is', () => {
    expect(ofMade(0.8, undefined)).toEqual({ address: 'likely', certainty: LIKELY_FROM });
    expect(ofMade(0.7999, undefined)).toEqual({ address: 'guess', certainty: 79 });
    expect(ofMade(0.9999, undefined).certainty).toBe(99);
    expect(ofMade(0.1, 'confirmed')).toEqual({ address: 'confirmed', certainty: CONFIRMED_CERTAINTY });
  });
});
