import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { learnAddresses, makeAddress, type KnownAddress } from './address-model.ts';
import { isGeneral, localPartsOf, PATTERNS } from './local-parts.ts';
import { namePartsOf } from './name-parts.ts';

const known = (
  name: string,
  local: string,
  domain: string,
  more: Partial<KnownAddress> = {},
): KnownAddress => ({
  name: namePartsOf(name)!,
  ...{ local, domain, country: 'CZ', headcount: 40, web: domain },
  ...more,
});
const asked = (name: string, domain: string, more: Partial<KnownAddress> = {}) => {
  const { local: _, ...rest } = known(name, '', domain, more);
  return rest;
};

describe('names are taken apart', () => {
  test.each([
    ['Monika Planik', ['Monika'], ['Planik']],
    ['Dr. Monika Planik', ['Monika'], ['Planik']],
    ['Planik, Monika', ['Monika'], ['Planik']],
    ['Monika Planik, MBA', ['Monika'], ['Planik']],
    ['Jan Karel van der Brugg', ['Jan', 'Karel'], ['vanderBrugg']],
    ['Eva Planik-Dorova', ['Eva'], ['Planik', 'Dorova']],
  ])('%s', (name, given, family) => {
    expect(namePartsOf(name)).toEqual({ given, family });
  });
  test.each(['Planik', '', '–', 'Dr. Planik'])('"%s" does not say which is which', (name) => {
    expect(namePartsOf(name)).toBeNull();
  });
});

describe('ways to write a name', () => {
  const locals = (name: string) => localPartsOf(namePartsOf(name)!).map(({ local }) => local);
  test('follow each pattern once where the name is plain', () => {
    expect(locals('Monika Planik')).toEqual([
      'monika.planik',
      'm.planik',
      'mplanik',
      'planik',
      'monika',
      'planik.monika',
      'monikaplanik',
      'monika_planik',
      'monika-planik',
      'monikap',
      'planikm',
      'planik.m',
      'monika.p',
      'planikmonika',
    ]);
    expect(locals('Monika Planik')).toHaveLength(PATTERNS.length);
  });
  test('drop accents or spell them out, and take a double surname whole, joined or by its first part', () => {
    expect(locals('Jürgen Größ')).toEqual(expect.arrayContaining(['jurgen.gross', 'juergen.groess']));
    expect(locals('Eva Planik-Dorova')).toEqual(
      expect.arrayContaining(['eva.planik-dorova', 'eva.planikdorova', 'eva.planik']),
    );
    expect(locals('Łukasz Żak')).toContain('lukasz.zak');
  });
  test('are letters, figures of none, and the signs of the pattern, whatever the name', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ unit: 'grapheme' }), (first, last) => {
        const parts = namePartsOf(`${first} ${last}`);
        if (parts)
          for (const { local } of localPartsOf(parts)) expect(local).toMatch(/^[a-z]+(?:[._-][a-z]+)*$/);
      }),
    );
  });
  test('a department’s address is none of a person', () => {
    expect(['info@a.example', 'Kontakt@b.example', 'hr@c.example'].every(isGeneral)).toBe(true);
    expect(isGeneral('infante@a.example')).toBe(false);
  });
});

describe('addresses are made', () => {
  test('by the pattern of the house, the surer the more follow it', () => {
    const people = ['Anna First', 'Bruno Second', 'Cecile Third', 'Dora Fourth', 'Emil Fifth'];
    const write = (name: string) => name.toLowerCase().replace(/^(.).* /, '$1.');
    const certainties = [0, 1, 3, 5].map((count) => {
      const model = learnAddresses(
        people.slice(0, count).map((name) => known(name, write(name), 'house.example')),
      );
      const made = makeAddress(model, asked('Monika Planik', 'house.example'))!;
      if (count > 0)
        expect(made).toMatchObject({ local: 'm.planik', pattern: 'f.last', follow: count, known: count });
      return made.certainty;
    });
    expect(certainties).toEqual([...certainties].sort((a, b) => a - b));
    expect(certainties.at(-1)).toBeGreaterThan(0.8);
  });
  test('by what like houses do, where none is known there', () => {
    const others = Array.from({ length: 60 }, (_, i) => known('Anna First', 'firsta', `other-${i}.example`));
    const made = makeAddress(learnAddresses(others), asked('Monika Planik', 'new.example'))!;
    expect(made).toMatchObject({ local: 'planikm', pattern: 'lastf', known: 0 });
  });
  test('never one that is another’s, or came back', () => {
    const model = learnAddresses(
      ['Anna First', 'Bruno Second'].map((name) =>
        known(name, name.toLowerCase().replace(' ', '.'), 'house.example'),
      ),
    );
    const first = makeAddress(model, asked('Monika Planik', 'house.example'))!;
    const second = makeAddress(model, asked('Monika Planik', 'house.example'), new Set([first.local]))!;
    expect(first.local).toBe('monika.planik');
    expect(second.local).not.toBe(first.local);
    expect(second.certainty).toBeLessThan(first.certainty);
  });
  test('with accents as the country writes them', () => {
    const of = (country: string, ue: boolean) =>
      Array.from({ length: 30 }, (_, i) =>
        known('Jürgen Kühn', ue ? 'juergen.kuehn' : 'jurgen.kuhn', `${country}-${i}.example`, { country }),
      );
    const model = learnAddresses([...of('DE', true), ...of('CZ', false)]);
    const local = (country: string) =>
      makeAddress(model, asked('Günter Mühl', 'new.example', { country }))!.local;
    expect([local('DE'), local('CZ')]).toEqual(['guenter.muehl', 'gunter.muhl']);
  });
  test('from nothing known at all, without more certainty than that', () => {
    const made = makeAddress(learnAddresses([]), asked('Monika Planik', 'new.example'))!;
    expect(made.local).toBe('monika.planik');
    expect(made.certainty).toBeGreaterThan(0);
    expect(made.certainty).toBeLessThan(0.6);
  });
});
