import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outreachRoll, STEPS, stepsOf, wordingOf, type Addressee, type Rules } from './steps.ts';

const rules: Rules = {
  ...{ certainty: 80, words: 40, askProof: false, sameText: 3, leftToday: 100 },
  companiesToday: new Set<string>(),
};
let nth = 0;
const somebody = (more: Partial<Addressee> = {}): Addressee => ({
  ...{ person: `person-${++nth}`, company: `company-${nth}`, leftOut: false, goneOut: false },
  ...{ mail: `p${nth}@a.example`, certainty: 95, refuted: false, optedOut: false, suppressed: false },
  ...{ writtenBy: null, unfilled: [], words: 30, proof: null, sameText: `text ${nth}` },
  ...more,
});

describe('each is taken off by the first step that holds', () => {
  test.each([
    [{}, null],
    [{ leftOut: true, mail: null }, 'left-out'],
    [{ goneOut: true, mail: null }, 'gone-out'],
    [{ mail: null, certainty: null, optedOut: true }, 'no-address'],
    [{ refuted: true, certainty: 0 }, 'refuted'],
    [{ certainty: 79, optedOut: true }, 'uncertain'],
    [{ certainty: 80 }, null],
    [{ optedOut: true, suppressed: true }, 'opted-out'],
    [{ suppressed: true, writtenBy: 'Hana' }, 'suppressed'],
    [{ writtenBy: 'Hana', words: 90 }, 'written-lately'],
    [{ unfilled: ['town'], words: 90 }, 'unfilled'],
    [{ words: 41 }, 'too-long'],
    [{ words: 40 }, null],
  ] as const)('%j', (more, step) => {
    expect(stepsOf([somebody(more as Partial<Addressee>)], rules)).toEqual([step]);
  });
  test('a proof is asked only where it is', () => {
    expect(stepsOf([somebody(), somebody({ proof: 'p' })], { ...rules, askProof: true })).toEqual([
      'no-proof',
      null,
    ]);
  });
});

describe('in their order', () => {
  test('one of a company goes out on a day', () => {
    const people = ['a', 'a', 'b', 'c'].map((company) => somebody({ company }));
    expect(stepsOf(people, { ...rules, companiesToday: new Set(['c']) })).toEqual([
      null,
      'same-company',
      null,
      'same-company',
    ]);
    // Who is taken off anyway keeps nobody of the company back.
    expect(stepsOf([somebody({ company: 'a', words: 99 }), somebody({ company: 'a' })], rules)).toEqual([
      'too-long',
      null,
    ]);
  });
  test('so many of one wording go out, and so many altogether', () => {
    const same = Array.from({ length: 5 }, () => somebody({ sameText: 'same' }));
    expect(stepsOf(same, rules)).toEqual([null, null, null, 'same-text', 'same-text']);
    expect(stepsOf([somebody(), somebody(), somebody()], { ...rules, leftToday: 2 })).toEqual([
      null,
      null,
      'over-limit',
    ]);
  });
});

describe('the roll', () => {
  const person = fc.record({
    ...{ person: fc.uuid(), company: fc.option(fc.constantFrom('a', 'b', 'c', 'd')), leftOut: fc.boolean() },
    ...{
      goneOut: fc.boolean(),
      mail: fc.option(fc.constant('x@y.example')),
      certainty: fc.option(fc.nat(100)),
    },
    ...{ refuted: fc.boolean(), optedOut: fc.boolean(), suppressed: fc.boolean() },
    ...{ writtenBy: fc.option(fc.constant('Hana')), unfilled: fc.constantFrom<string[]>([], ['town']) },
    ...{ words: fc.nat(80), proof: fc.option(fc.constant('p')), sameText: fc.constantFrom('one', 'two') },
  });
  test('sums to its foot, each step takes off as many as it says, and who is left goes out', () => {
    fc.assert(
      fc.property(
        fc.array(person, { maxLength: 60 }),
        fc.nat(20),
        fc.boolean(),
        (people, leftToday, askProof) => {
          const steps = stepsOf(people, { ...rules, leftToday, askProof });
          const words = { certainty: 80, words: 40, quietDays: 90, sameText: 3, daily: leftToday };
          const roll = outreachRoll(steps, words, {});
          expect(roll.steps.reduce((sum, { delta }) => sum + delta, 0)).toBe(roll.foot);
          expect(roll.foot).toBe(steps.filter((step) => step === null).length);
          expect(roll.foot).toBeLessThanOrEqual(leftToday);
          for (const step of STEPS) {
            const row = roll.steps.find((one) => one.step === step);
            expect(-(row?.delta ?? 0) || 0).toBe(steps.filter((one) => one === step).length);
          }
        },
      ),
    );
  });
  test('wordings are compared without names', () => {
    expect(wordingOf('Dear  Monika Planik,\nfor Alder', ['Monika Planik', 'Alder', null])).toBe('dear , for');
  });
});
