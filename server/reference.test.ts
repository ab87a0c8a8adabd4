import { expect, test } from '@jest/globals';
import { spellingsOf } from '../core/geo/towns.ts';
import {
  loadCodeSearches,
  loadCodeTrees,
  loadGazetteer,
  loadReferenceData,
  readReference,
} from './reference.ts';

test('a trade looked up in words finds its code, plurals and endings forgiven', () => {
  const search = loadCodeSearches(loadCodeTrees()).of('nace-2.1');
  const codes = (text: string) => search.find(text, 6).map((hit) => hit.code);
  expect(codes('joinery')).toEqual(expect.arrayContaining(['16.23', '43.32']));
  expect(codes('joineries')).toContain('16.23');
  expect(codes('painters')[0]).toBe('43.34');
  expect(codes('coating of metal')).toContain('25.51');
  expect(codes('25.5').slice(0, 2)).toEqual(['25.5', '25.51']);
  expect(codes('joinrey')).toContain('43.32');
});

test('codes are found by their notes too, which is said, after those that name the words', () => {
  const found = loadReferenceData().searches.of('naics-2022').find('lacquering', 8);
  expect(found).toContainEqual(expect.objectContaining({ code: '332812', by: 'in its note' }));
});

test('towns are found by any spelling, the largest first', () => {
  const places = loadGazetteer();
  expect(places.townNamed('brno')?.key).toBe('Brno, CZ-64');
  expect(places.townNamed('Lodz')?.name).toBe('Łódź');
  expect(places.townsBeginning('vien', 1)[0]?.name).toBe('Wien');
  for (const name of ['Česko', 'czechia', 'Tschechien', 'CZ', 'Чехия'])
    expect([name, places.countryNamed(name)?.code]).toEqual([name, 'CZ']);
  expect(places.countryNamed('Bohemia')).toBeUndefined();
  expect(places.regionNamed('Saxony', 'DE')?.key).toBe('DE-SN');
});

test('the ready-made spellings are those of the towns', () => {
  expect(readReference('geo/spellings.tsv.gz') === spellingsOf(readReference('geo/towns.tsv.gz'))).toBe(true);
});

test('every province lies in a region that the gazetteer has, and its own regions come first', () => {
  const places = loadGazetteer();
  for (const [country, codes] of [
    [
      'FR',
      Array.from({ length: 95 }, (_, i) => String(i + 1).padStart(2, '0')).filter((code) => code !== '20'),
    ],
    ['ES', Array.from({ length: 52 }, (_, i) => String(i + 1).padStart(2, '0'))],
    [
      'IT',
      [
        'TO',
        'AO',
        'MI',
        'TN',
        'VR',
        'UD',
        'GE',
        'BO',
        'FI',
        'PG',
        'AN',
        'RM',
        'AQ',
        'CB',
        'SA',
        'BA',
        'PZ',
        'RC',
        'PA',
        'CA',
      ],
    ],
  ] as const)
    for (const code of codes) expect(places.regionsNamed(code, country)).toHaveLength(1);
  expect(places.regionsNamed('Lombardia', 'IT')[0]!.key).toBe('IT-25');
  expect(places.regionsNamed('Rhône')).toEqual([]);
});
