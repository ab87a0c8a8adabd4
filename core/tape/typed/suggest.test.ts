import { describe, expect, test } from '@jest/globals';
import { Crosswalk } from '../../codes/crosswalk.ts';
import { CodeSearches } from '../../codes/search.ts';
import { READY_GROUPS } from '../../geo/country-groups.ts';
import { Gazetteer } from '../../geo/gazetteer.ts';
import { READY_RIGHT_PEOPLE } from '../../people/functions.ts';
import { smallTree } from '../../testing/small-tree.ts';
import type { Choice, Lookup } from '../lookup.ts';
import { suggestions } from './suggest.ts';

const CHOICES: Readonly<Record<string, readonly Choice[]>> = {
  technology: [
    { key: 'rutavel-erp', label: 'Rutavel ERP', group: 'erp' },
    { key: 'relativo-desk', label: 'Relativo Desk' },
    { key: 'own erp', label: 'Own ERP' },
  ],
  list: [
    { key: 'rivals', label: 'Rivals' },
    { key: 'rivals-abroad', label: 'Rivals abroad' },
  ],
  status: [
    { key: 'active', label: 'active' },
    { key: 'dormant', label: 'dormant' },
    { key: 'closed', label: 'closed' },
  ],
  listing: [
    { key: 'listed', label: 'listed', also: ['quoted'] },
    { key: 'private', label: 'private' },
  ],
};
const searches = new CodeSearches(new Map([['nace-2.1', smallTree()]]) as never, () => []);
const lookup: Lookup = {
  codes: () => smallTree(),
  findCodes: (scheme, text, limit) =>
    scheme === 'nace-2.1' ? searches.of('nace-2.1').find(text, limit) : [],
  places: new Gazetteer({
    countries: 'h\nCZ\tCZE\t203\tCzechia\tČesko\tCZK\t\t\t+420',
    regions: 'h\nCZ-64\tCZ\tJihomoravský kraj\tSouth Moravia',
    towns: [
      'h',
      '1\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.195\t16.608\t380000',
      '2\tBrumov\tBrumov\t\t\tCZ\tCZ-64\t49.09\t18.02\t5500',
    ].join('\n'),
  }),
  choices: ({ id }) => CHOICES[id] ?? [],
  crosswalk: () => new Crosswalk(new Map(), []),
  countryGroups: READY_GROUPS,
  rightPeople: READY_RIGHT_PEOPLE,
  companyName: () => undefined,
  currencies: ['EUR', 'CZK'],
  currency: 'EUR',
  peers: () => ({ yes: new Uint32Array(1), unknown: new Uint32Array(1), ids: new Uint32Array() }),
  asOf: 20_000,
};
const typed = (body: string, subject = 'companies') =>
  suggestions(body, subject, lookup).map((one) => one.typed);

describe('a line that is opened goes on with', () => {
  test.each([
    ['status ', ['status active', 'status dormant', 'status closed']],
    ['status d', ['status dormant']],
    ['status active or d', ['status active or dormant']],
    ['headcount ', ['headcount 0-9', 'headcount 10-49', 'headcount 50-249', 'headcount 250+']],
    ['headcount 20', ['headcount 20+', 'headcount up to 20']],
    ['revenue 5m', ['revenue 5m+ eur', 'revenue up to 5m eur']],
    ['founded ', ['founded 2010+', 'founded 1990-2009', 'founded up to 1989']],
    ['near Br', expect.arrayContaining([expect.stringMatching(/^near "?Brno/)])],
    ['metro Brn', [expect.stringMatching(/^metro "Brno/)]],
    ['in Czech', expect.arrayContaining([expect.stringMatching(/^in (CZ|Czechia)/)])],
  ])('%j', (body, expected) => {
    expect(typed(body)).toEqual(expected);
  });

  test('a value whose key is several words in quotation marks', () => {
    expect(typed('technology own')).toContain('technology "own erp"');
  });

  test('values by any word of their names, those called just so first', () => {
    expect(typed('technology desk')[0]).toBe('technology relativo-desk');
    expect(typed('listing quoted')[0]).toBe('listing listed');
  });

  test('codes of its scheme by their titles', () => {
    expect(typed('nace coat')).toEqual(['nace 25.51']);
  });
});

describe('a text that opens no line means', () => {
  test('a value called just so before what merely begins so, and says that it is exact', () => {
    const [first] = suggestions('dormant', 'companies', lookup);
    expect(first).toEqual({ typed: 'status dormant', exact: true });
    expect(typed('quoted')[0]).toBe('listing listed');
  });

  test('a figure of several fields', () => {
    expect(typed('50-249')).toEqual(
      expect.arrayContaining(['headcount 50-249', 'revenue 50-249 eur', 'founded 50-249']),
    );
    expect(typed('25.51')).toContain('nace 25.51');
  });

  test('words, with a mark for more letters where it is one', () => {
    expect(typed('oak')).toContain('words oak*');
    expect(typed('oak doors')).toContain('words oak doors');
  });
});

describe('a has-line that is begun goes on with', () => {
  test('the subjects that begin so', () => {
    expect(typed('has p')).toContain('has person');
    expect(typed('has a sit')).toEqual(['has site']);
  });

  test('the last line in its brackets, those before it kept and the brackets closed', () => {
    const lines = typed('has site (in CZ; headcount 2');
    expect(lines[0]).toBe('has site (in CZ; headcount 2)');
    expect(lines).toContain('has site (in CZ; headcount 2+)');
  });

  test('nothing where no such subject is', () => {
    expect(typed('has spoon (x')).toEqual([]);
  });
});

test('below companies a text means values, conditions and words of that subject alone', () => {
  const lines = typed('Halvek', 'people');
  expect(lines.at(-1)).toMatch(/Halvek\*$/);
  expect(lines.every((line) => !line.startsWith('status'))).toBe(true);
});
