import { describe, expect, test } from '@jest/globals';
import { SMALL_LOOKUP } from '../testing/small-lookup.ts';
import { Problem } from './problem.ts';
import { validateTape } from './validate.ts';

/** What each kind of test may ask, and what is said of one that it may not: code, where, and what a right one looks like. */

const tape = (field: string, test: unknown, more: object = {}) => ({
  ...{ format: 'just-tally.tape', version: 1, subject: 'companies' },
  lines: [{ id: 'a', field, test, ...more }],
});

function said(input: unknown): string {
  try {
    validateTape(input, SMALL_LOOKUP);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return `${error.code} at ${error.field}: ${error.rule}`;
  }
  return 'nothing';
}

const near = (more: object) => ({ near: { lat: 49.2, lon: 16.6, ...more } });
const within = (...points: unknown[]) => ({ within: { points } });

describe('a right test comes back as it was', () => {
  test.each([
    ['industry', { scheme: 'nace-2.1', any: ['25'] }],
    ['industry', { scheme: 'nace-2.1', any: ['25'], except: ['25'], rank: 'any', kin: 'possible' }],
    ['industry', { scheme: 'nace-2.1', any: ['25'], rank: 'main', kin: 'sure' }],
    ['headcount', { from: 5 }],
    ['headcount', { to: 5 }],
    ['headcount', { from: 5, to: 5 }],
    ['revenue', { from: 1, to: 2, currency: 'CZK', per: 'year' }],
    ['revenue', { to: 2, currency: 'EUR', per: 'month' }],
    ['status', { any: ['active'] }],
    ['technology', { any: ['rutavel'] }],
    ['technology', { all: ['rutavel'], seen: '24 months' }],
    ['technology', { any: ['rutavel'], seen: '2025-01-31' }],
    ['dwelling', { is: false }],
    ['departments', { key: 'sales', from: 0.1 }],
    ['growth', { of: 'headcount', over: '1y', from: 5 }],
    ['growth', { of: 'sales', over: '3y', to: -5 }],
    ['rank', { by: 'revenue', among: 'country', to: 10 }],
    ['rank', { by: 'headcount', among: 'all', from: 1, to: 10 }],
    ['list', { any: ['customers'] }],
    [
      'list',
      {
        any: ['customers'],
        verdict: ['in'],
        reason: ['old'],
        tag: ['a'],
        assigned: ['me'],
        step: 'origin-3',
      },
    ],
    ['list', { any: ['customers'], added: '3 months' }],
    ['company', { any: ['CZ-1'] }],
    ['peers', { like: ['CZ-1'], from: 0 }],
    ['peers', { list: 'customers', from: 1, weights: { codes: 0, words: 1 } }],
    ['checked', { from: '2026-01-31' }],
    ['checked', { from: '2026-01-31', to: '2026-01-31' }],
    ['checked', { to: '2026-01-31' }],
    ['checked', { past: '12 months' }],
    ['checked', { year: 'this' }],
    ['checked', { year: 'last' }],
    ['checked', { year: 1900 }],
    ['checked', { year: 2200 }],
    ['words', { text: 'oak or ash' }],
    ['words', { text: 'oak', in: 'name' }],
    ['words', { text: 'oak', in: 'description' }],
    ['words', { text: 'oak', in: 'both' }],
    ['place', { countries: ['CZ'], site: 'head' }],
    [
      'place',
      {
        countries: ['eu'],
        regions: ['CZ-64'],
        towns: ['Brno, CZ'],
        metro: ['Brno, CZ-64'],
        postcodes: ['CZ 602*'],
        site: 'any',
      },
    ],
    ['place', near({ km: 0 })],
    ['place', near({ miles: 12_500, label: 'Brno' })],
    ['place', { near: { lat: -90, lon: 180, km: 20_020 } }],
    ['place', within([90, 180], [-90, -180], [0, 0])],
    [
      'place',
      {
        within: {
          points: [
            [0, 0],
            [0, 1],
            [1, 1],
          ],
          label: 'drawn',
        },
      },
    ],
  ])('%s %j', (field, asked) => {
    const input = tape(field, asked);
    expect(said(input)).toBe('nothing');
    expect(validateTape(input, SMALL_LOOKUP)).toEqual(input);
  });
});

describe('a wrong test is named with where and what is right', () => {
  const at = 'lines[0].test';
  test.each([
    [
      'industry',
      { scheme: 'x', any: ['25'] },
      `wrong-value at ${at}.scheme: one of nace-2.1, nace-2, isic-4, naics-2022, sic-1987`,
    ],
    ['industry', { scheme: 'nace-2.1', any: ['99'] }, `unknown-code at ${at}.any[0]: a code of NACE 2.1`],
    [
      'industry',
      { scheme: 'nace-2.1', any: ['25'], except: ['99'] },
      `unknown-code at ${at}.except[0]: a code of NACE 2.1`,
    ],
    [
      'industry',
      { scheme: 'nace-2.1', any: ['25'], rank: 'first' },
      `wrong-value at ${at}.rank: "main" or "any"`,
    ],
    [
      'industry',
      { scheme: 'nace-2.1', any: ['25'], kin: 'maybe' },
      `wrong-value at ${at}.kin: "sure" or "possible"`,
    ],
    [
      'revenue',
      { from: 1, currency: 'XXX' },
      expect.stringContaining(`wrong-value at ${at}.currency: a currency with rates: EUR, GBP`),
    ],
    ['revenue', { from: 1 }, expect.stringContaining(`wrong-value at ${at}.currency: a currency with rates`)],
    ['revenue', { from: 1, currency: 'EUR', per: 'day' }, `wrong-value at ${at}.per: "year" or "month"`],
    ['status', {}, `wrong-value at ${at}: any`],
    ['status', { any: ['x'] }, `unknown-value at ${at}.any[0]: a known value of status`],
    [
      'technology',
      { any: ['rutavel'], all: ['rutavel'] },
      `wrong-value at ${at}: exactly one of any and all`,
    ],
    ['technology', {}, `wrong-value at ${at}: exactly one of any and all`],
    [
      'technology',
      { any: ['rutavel'], seen: 'lately' },
      `wrong-value at ${at}.seen: a span such as "24 months", or a day such as 2026-09-30`,
    ],
    [
      'technology',
      { any: ['rutavel'], seen: 5 },
      `wrong-value at ${at}.seen: a span such as "24 months", or a day such as 2026-09-30`,
    ],
    ['dwelling', { is: 'yes' }, `wrong-value at ${at}.is: true or false`],
    ['departments', { key: 'x', from: 1 }, expect.stringContaining(`wrong-value at ${at}.key:`)],
    ['growth', { of: 'x', over: '1y', from: 1 }, expect.stringContaining(`wrong-value at ${at}.of:`)],
    [
      'growth',
      { of: 'headcount', over: '2y', from: 1 },
      expect.stringContaining(`wrong-value at ${at}.over:`),
    ],
    ['rank', { by: 'age', among: 'all', to: 1 }, expect.stringContaining(`wrong-value at ${at}.by:`)],
    ['rank', { by: 'revenue', among: 'town', to: 1 }, expect.stringContaining(`wrong-value at ${at}.among:`)],
    ['list', { any: ['x'] }, `unknown-list at ${at}.any[0]: the key of a list of companies`],
    [
      'list',
      { any: ['customers'], verdict: ['perhaps'] },
      expect.stringContaining(`wrong-value at ${at}.verdict[0]:`),
    ],
    [
      'list',
      { any: ['customers'], step: '3' },
      `wrong-value at ${at}.step: a step of a roll such as "origin-3"`,
    ],
    ['company', { any: ['CZ-2'] }, `unknown-company at ${at}.any[0]: the key of a company`],
    ['peers', { from: 0.5 }, `wrong-value at ${at}: exactly one of like and list`],
    [
      'peers',
      { like: ['CZ-1'], list: 'customers', from: 0.5 },
      `wrong-value at ${at}: exactly one of like and list`,
    ],
    ['peers', { like: ['CZ-1'], from: 1.1 }, `wrong-value at ${at}.from: a number from 0 to 1`],
    ['peers', { like: ['CZ-1'], from: -0.1 }, `wrong-value at ${at}.from: a number from 0 to 1`],
    ['peers', { like: ['CZ-1'], from: '1' }, `wrong-value at ${at}.from: a number from 0 to 1`],
    ['peers', { like: ['CZ-2'], from: 0.5 }, `unknown-company at ${at}.like[0]: the key of a company`],
    ['peers', { list: 'x', from: 0.5 }, `unknown-list at ${at}.list: the key of a list`],
    [
      'peers',
      { like: ['CZ-1'], from: 0.5, weights: { codes: 2 } },
      `wrong-value at ${at}.weights.codes: a number from 0 to 1`,
    ],
    [
      'peers',
      { like: ['CZ-1'], from: 0.5, weights: { colour: 1 } },
      expect.stringContaining(`unknown-key at ${at}.weights`),
    ],
    ['checked', {}, `wrong-value at ${at}: from and to, or past, or year`],
    [
      'checked',
      { from: '2026-01-01', past: '1 month' },
      `wrong-value at ${at}: from and to, or past, or year`,
    ],
    ['checked', { past: '1 month', year: 2026 }, `wrong-value at ${at}: from and to, or past, or year`],
    ['checked', { past: 'long' }, `wrong-value at ${at}.past: a span such as "12 months"`],
    ['checked', { past: 12 }, `wrong-value at ${at}.past: a span such as "12 months"`],
    ['checked', { year: 1899 }, `wrong-value at ${at}.year: a year, "this" or "last"`],
    ['checked', { year: 2201 }, `wrong-value at ${at}.year: a year, "this" or "last"`],
    ['checked', { year: 2026.5 }, `wrong-value at ${at}.year: a year, "this" or "last"`],
    ['checked', { year: 'next' }, `wrong-value at ${at}.year: a year, "this" or "last"`],
    ['checked', { from: '2026-02-30' }, `wrong-value at ${at}.from: a date such as 2026-09-30`],
    ['checked', { to: 20260930 }, `wrong-value at ${at}.to: a date such as 2026-09-30`],
    [
      'checked',
      { from: '2026-02-02', to: '2026-02-01' },
      `reversed-range at ${at}: from must not be after to`,
    ],
    ['words', { text: 'oak', in: 'title' }, `wrong-value at ${at}.in: "name", "description" or "both"`],
    [
      'place',
      { site: 'any' },
      `wrong-value at ${at}: at least one of countries, regions, towns, metro, postcodes, near, within`,
    ],
    ['place', { countries: ['CZ'], site: 'all' }, `wrong-value at ${at}.site: "head" or "any"`],
    [
      'place',
      { countries: ['XX'] },
      `unknown-country at ${at}.countries[0]: ISO code of two letters, or the key of a group of countries`,
    ],
    [
      'place',
      { countries: ['nowhere'] },
      `unknown-country at ${at}.countries[0]: ISO code of two letters, or the key of a group of countries`,
    ],
    ['place', { regions: ['CZ-99'] }, `unknown-region at ${at}.regions[0]: a region key such as CZ-64`],
    [
      'place',
      { towns: ['Brno'] },
      `wrong-value at ${at}.towns[0]: name, comma, region key or country code, as in "Brno, CZ-64"`,
    ],
    [
      'place',
      { towns: [', CZ'] },
      `wrong-value at ${at}.towns[0]: name, comma, region key or country code, as in "Brno, CZ-64"`,
    ],
    [
      'place',
      { towns: ['Brno, CZ-64 x'] },
      `wrong-value at ${at}.towns[0]: name, comma, region key or country code, as in "Brno, CZ-64"`,
    ],
    [
      'place',
      { metro: ['Plzeň, CZ-32'] },
      `unknown-town at ${at}.metro[0]: a known town with its region key, as in "Brno, CZ-64"`,
    ],
    [
      'place',
      { postcodes: ['CZ'] },
      `wrong-value at ${at}.postcodes[0]: a postcode, a prefix such as "CZ 602*" or a range such as "60000..61999"`,
    ],
    ['place', near({}), `wrong-value at ${at}.near: exactly one of km and miles`],
    ['place', near({ km: 5, miles: 5 }), `wrong-value at ${at}.near: exactly one of km and miles`],
    ['place', near({ km: -1 }), `wrong-value at ${at}.near.km: a number from 0 to 20020`],
    ['place', near({ km: 20_021 }), `wrong-value at ${at}.near.km: a number from 0 to 20020`],
    ['place', near({ miles: 12_501 }), `wrong-value at ${at}.near.miles: a number from 0 to 12500`],
    ['place', near({ lat: 90.1, km: 5 }), `wrong-value at ${at}.near.lat: a number from -90 to 90`],
    ['place', near({ lon: -180.1, km: 5 }), `wrong-value at ${at}.near.lon: a number from -180 to 180`],
    ['place', near({ lat: '49', km: 5 }), `wrong-value at ${at}.near.lat: a number from -90 to 90`],
    ['place', within([0, 0], [1, 1]), `wrong-value at ${at}.within.points: at least three corners`],
    [
      'place',
      within([0, 0], [1, 1], [91, 0]),
      `wrong-value at ${at}.within.points[2]: latitude and longitude in degrees, as in [49.2, 16.6]`,
    ],
    [
      'place',
      within([0, 181], [1, 1], [9, 0]),
      `wrong-value at ${at}.within.points[0]: latitude and longitude in degrees, as in [49.2, 16.6]`,
    ],
    [
      'place',
      within([0, 0], [1, 1, 1], [9, 0]),
      `wrong-value at ${at}.within.points[1]: latitude and longitude in degrees, as in [49.2, 16.6]`,
    ],
    [
      'place',
      within([0, 0], ['1', 1], [9, 0]),
      `wrong-value at ${at}.within.points[1]: latitude and longitude in degrees, as in [49.2, 16.6]`,
    ],
  ])('%s %j', (field, asked, expected) => {
    expect(said(tape(field, asked))).toEqual(expected);
  });

  test.each([
    ['industry', { scheme: 'nace-2.1', any: ['25'] }],
    ['headcount', { from: 5 }],
    ['revenue', { from: 1, currency: 'EUR' }],
    ['status', { any: ['active'] }],
    ['dwelling', { is: true }],
    ['departments', { key: 'sales', from: 0.1 }],
    ['growth', { of: 'headcount', over: '1y', from: 5 }],
    ['rank', { by: 'revenue', among: 'all', to: 10 }],
    ['list', { any: ['customers'] }],
    ['company', { any: ['CZ-1'] }],
    ['peers', { like: ['CZ-1'], from: 0 }],
    ['checked', { past: '12 months' }],
    ['words', { text: 'oak' }],
    ['place', { countries: ['CZ'] }],
  ])('nothing more is asked of %s', (field, asked) => {
    expect(said(tape(field, { ...asked, colour: 'red' }))).toContain(`unknown-key at ${at}.colour`);
  });
});
