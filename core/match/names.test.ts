import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formKind, withoutForm } from './legal-forms.ts';
import { nameLikeness, nameParts, wordLikeness } from './names.ts';

describe('legal forms', () => {
  test.each([
    ['Zarmysko Stolařství, spol. s r. o.', ['zarmysko', 'stolarstvi'], 'limited'],
    ['Zarmysko Schody a.s.', ['zarmysko', 'schody'], 'stock'],
    ['Lesna Sp. z o.o.', ['lesna'], 'limited'],
    ['Quelbeck GmbH & Co. KG', ['quelbeck'], 'partnership'],
    ['Havgaard ApS', ['havgaard'], 'limited'],
    ['Vikstad AB (publ)', ['vikstad'], 'stock'],
    ['SIA Dzirnavu Koks', ['dzirnavu', 'koks'], 'limited'],
    ['Tenford Ltd.', ['tenford'], 'limited'],
    ['Menta S.r.l.', ['menta'], 'limited'],
    ['Solneuil S.à r.l.', ['solneuil'], 'limited'],
    ['Thornwick', ['thornwick'], null],
    // A name is never all form.
    ['GmbH', ['gmbh'], null],
    ['S.A.', ['s', 'a'], null],
  ])('%s', (name, words, form) => {
    expect(withoutForm(name)).toEqual({ words, form });
  });

  test('in a column of their own are known as well', () => {
    expect(['s. r. o.', 'GmbH', 'A/S', 'no such form'].map(formKind)).toEqual([
      'limited',
      'limited',
      'stock',
      null,
    ]);
    expect(formKind(null)).toBeNull();
  });

  test('leave a word of every name that has one', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'š', 'x', '.', ' ', '&', 'o', 's', 'g', '4') }),
        (name) => {
          const { words } = withoutForm(name);
          expect(words.length > 0).toBe(/[a-zš0-9]/.test(name));
        },
      ),
    );
  });
});

describe('names', () => {
  const rare = () => 1;
  const like = (a: string, b: string) => nameLikeness(nameParts(a).words, nameParts(b).words, rare, 1000);

  test('are taken apart without joining words, and written long', () => {
    expect(nameParts('Bros. Ash and Tenford Ltd')).toEqual({
      words: ['brothers', 'ash', 'tenford'],
      form: 'limited',
    });
    expect(nameParts('Gebr. Haswald')).toEqual({ words: ['gebruder', 'haswald'], form: null });
    expect(nameParts('& Und')).toEqual({ words: ['und'], form: null });
  });

  test('are alike whatever the order, accents and gaps', () => {
    expect(like('Vandle Tischlerei', 'Tischlerei Vändle')).toMatchObject({ likeness: 1, beyond: 'neither' });
    expect(like('Holz Bau Steindorn', 'Holzbau Steindorn').likeness).toBeGreaterThan(0.85);
    expect(like('Zermysko Stolarstvi', 'Zarmysko Stolařství').likeness).toBeGreaterThan(0.85);
    expect(like('Milivec Hostinec', 'Milivec Dřevo')).toMatchObject({ beyond: 'both', shared: ['milivec'] });
    expect(like('Milivec', 'Milivec Dřevo').beyond).toBe('one');
    expect(like('Ashcombe', 'Pernelohn').likeness).toBe(0);
    expect(like('', 'Pernelohn')).toEqual({ likeness: 0, beyond: 'both', shared: [] });
  });

  test('share a rare word more than a common one', () => {
    const countOf = (word: string) => (word === 'stavby' ? 900 : 1);
    const parts = (name: string) => nameParts(name).words;
    const common = nameLikeness(parts('Hrusko Stavby'), parts('Velvice Stavby'), countOf, 1000);
    const own = nameLikeness(parts('Hrusko Stavby'), parts('Hrusko Nábytek'), countOf, 1000);
    expect(own.likeness).toBeGreaterThan(common.likeness);
    expect(nameLikeness(parts('Hrusko Stavby'), parts('Stavby Hrusko'), countOf, 1000).shared).toEqual([
      'hrusko',
      'stavby',
    ]);
  });

  test('words: mistyped, shortened, and short ones only as they are', () => {
    expect(wordLikeness('steindorn', 'stiendorn')).toBeGreaterThan(0.9);
    expect(wordLikeness('stol', 'stolarstvi')).toBe(0.9);
    expect(wordLikeness('j', 'josef')).toBe(0.5);
    expect(wordLikeness('abc', 'abd')).toBe(0);
    expect(wordLikeness('hall4', 'hall5')).toBe(0);
  });

  test('are as alike one way as the other', () => {
    const name = fc.array(
      fc.constantFrom('ash', 'tenford', 'tenfrod', 'mill', 'miller', 'joinery', 'works'),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(name, name, (a, b) => {
        const [one, other] = [nameLikeness(a, b, rare, 50), nameLikeness(b, a, rare, 50)];
        expect(one.likeness).toBeGreaterThanOrEqual(0);
        expect(one.likeness).toBeLessThanOrEqual(1 + 1e-9);
        if (new Set(a).size === a.length && a.join() === b.join() && a.length)
          expect(one.likeness).toBeCloseTo(1, 9);
        expect(other.shared.length > 0).toBe(one.shared.length > 0);
      }),
    );
  });
});
