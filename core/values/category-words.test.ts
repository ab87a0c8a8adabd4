import { describe, expect, test } from '@jest/globals';
import { fieldOf } from '../fields/registry.ts';
import {
  BASIS_WORDS,
  LISTING_WORDS,
  OWNERSHIP_WORDS,
  plainWord,
  relatedValue,
  SITE_WORDS,
  STATUS_WORDS,
} from './category-words.ts';

describe('words of categories', () => {
  test.each([
    [STATUS_WORDS, 'v likvidaci', 'closed'],
    [STATUS_WORDS, 'Erloschen', 'closed'],
    [STATUS_WORDS, 'AKTYWNA', 'active'],
    [STATUS_WORDS, 'en sommeil', 'dormant'],
    [OWNERSHIP_WORDS, 'Tochtergesellschaft', 'subsidiary'],
    [OWNERSHIP_WORDS, 'dceřiná společnost', 'subsidiary'],
    [OWNERSHIP_WORDS, 'Muttergesellschaft', 'top'],
    [LISTING_WORDS, 'börsennotiert', 'listed'],
    [LISTING_WORDS, 'nicht börsennotiert', 'private'],
    [LISTING_WORDS, 'állami', 'public-body'],
    [SITE_WORDS, 'přesměrováno', 'moved'],
    [SITE_WORDS, 'hors ligne', 'dead'],
    [BASIS_WORDS, 'geschätzt', 'estimate'],
    [BASIS_WORDS, 'przedział', 'band'],
  ] as const)('%# “%s” is %s', (meaning, word, value) => {
    expect(meaning(word)).toBe(value);
  });

  test('a word that none of them is, is none', () => {
    expect(STATUS_WORDS('blue')).toBeUndefined();
    expect(STATUS_WORDS('')).toBeUndefined();
    expect(relatedValue('people', 'department', 'blue')).toBeUndefined();
    expect(relatedValue('people', 'shoe size', 'sales')).toBeUndefined();
  });

  test('marks, accents and case between its parts do not matter', () => {
    expect(plainWord(' Bureau d’Études ')).toBe(plainWord('bureau d etudes'));
    expect(STATUS_WORDS('STRUCK-OFF')).toBe('closed');
  });
});

describe('words of people, sites, deals and events', () => {
  test.each([
    ['people', 'department', 'Einkauf', 'purchasing'],
    ['people', 'department', 'výroba', 'production'],
    ['people', 'department', 'comptabilité', 'finance'],
    ['events', 'kind', 'volné místo', 'job-opening'],
    ['events', 'kind', 'Umzug', 'move'],
    ['events', 'kind', 'certyfikat', 'certificate'],
  ])('of %s, %s “%s” is %s', (subject, field, word, value) => {
    expect(relatedValue(subject, field, word)).toBe(value);
  });

  test.each([
    ['people', 'department', ['Einkauf', 'výroba', 'ventes', 'logistyka', 'finanzen']],
    ['events', 'kind', ['Umzug', 'jmenování', 'soud', 'zprava']],
  ])('what a word of %s means is a value that their %s has', (subject, field, words) => {
    const known = new Set(fieldOf(subject, field)!.values!.map(({ key }) => key));
    for (const word of words) expect(known).toContain(relatedValue(subject, field, word));
  });
});
