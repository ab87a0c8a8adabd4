import { describe, expect, test } from '@jest/globals';
import { checkCarried, readCarried, spellCarried, wordCarried } from './carried.ts';

const read = (text: string) => readCarried(text.match(/"[^"]*"|[^\s"]+/g)!, 0);

describe('what is asked of the file that put a member on a list', () => {
  test.each([
    ['carried "Hall" "A" or "Hala Č"', { column: 'Hall', any: ['A', 'Hala Č'] }, 'Hall: A or Hala Č'],
    ['carried "Visits" 3-5', { column: 'Visits', from: 3, to: 5 }, 'Visits: 3 to 5'],
    ['carried "Visits" -2 .. 1.5', { column: 'Visits', from: -2, to: 1.5 }, 'Visits: −2 to 1.5'],
    ['carried "Visits" 3+', { column: 'Visits', from: 3 }, 'Visits: 3 or more'],
    ['carried "Visits" up to 5', { column: 'Visits', to: 5 }, 'Visits: up to 5'],
    ['carried "Remark" with "pays late"', { column: 'Remark', words: 'pays late' }, 'Remark: with pays late'],
  ])('%s is spelled, read and worded', (typed, asked, words) => {
    expect(read(typed)?.test).toEqual(asked);
    expect(spellCarried(asked)).toBe(typed);
    expect(wordCarried(asked)).toBe(words);
    expect(checkCarried(asked, 'test.carried')).toEqual(asked);
  });

  test.each([
    'carried',
    'carried Hall',
    'carried "Hall"',
    'carried "Hall" many',
    'carried "Hall" "A" or',
    'carried "Hall" with',
    'carried "Hall" 5-',
  ])('%s is no such clause', (typed) => expect(read(typed)).toBeNull());

  test('a clause ends where the next begins', () => {
    expect(read('carried "Visits" from 3 judged past 7 days')).toEqual({
      test: { column: 'Visits', from: 3 },
      end: 4,
    });
    expect(read('carried "Hall" "A" or "B" added past 7 days')?.end).toBe(5);
  });

  test.each([
    [{ column: 'Hall' }, 'it is one of any, words, or from and to'],
    [{ column: 'Hall', any: ['A'], words: 'late' }, 'it is one of any, words, or from and to'],
    [{ column: 'Hall', any: [] }, 'at least one value'],
    [{ column: 'Hall', any: ['A'], more: 1 }, 'more'],
    [{ column: 'Visits', from: 5, to: 3 }, 'The range is reversed: from 5 is above to 3.'],
    [{ column: 'Visits', from: 'five' }, 'a number'],
    [{ column: 'Say "when"', any: ['now'] }, 'a text without " and without spaces at its ends'],
    [{ column: 'Remark', words: '…' }, 'no letters or figures'],
    [{ any: ['A'] }, 'test.carried.column'],
    ['Hall', 'an object is expected'],
  ])('%j is refused by what is wrong', (asked, why) => {
    expect(() => checkCarried(asked, 'test.carried')).toThrow(why);
  });
});
