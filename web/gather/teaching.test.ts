import { describe, expect, it } from '@jest/globals';
import { around, look, lookRow } from '../testing/gather.ts';
import {
  learnedWords,
  marksOf,
  newSpec,
  rowAt,
  withAdvert,
  withField,
  withNode,
  withoutExample,
  withoutField,
  withRow,
} from './teaching.ts';
import { clock } from './words.ts';

const spec = newSpec();

describe('what is pointed at', () => {
  it('becomes an example with what it seems to hold, and one like it that holds more', () => {
    const another = { node: 30, fields: [{ field: 'phone', node: 33 }] };
    const one = withRow(spec, 7, around({ another }));
    expect(one.examples).toEqual([
      { page: 7, node: 10, as: 'row', fields: [{ field: 'name', node: 11 }] },
      { page: 7, as: 'row', ...another },
    ]);
    // Once is enough.
    expect(withRow(one, 7, around({ another }))).toBe(one);
    expect(withoutExample(one, 0).examples).toHaveLength(1);
    expect(withNode(one, 0, 4).examples[0]).toMatchObject({ node: 4, fields: [{ field: 'name' }] });
  });

  it('may be set aside, also where it was a row before', () => {
    const one = withRow(spec, 7, around());
    expect(withAdvert(one, 7, around()).examples).toEqual([{ page: 7, node: 10, as: 'advert', fields: [] }]);
    expect(withAdvert(spec, 7, around({ choices: [] }))).toBe(spec);
  });

  it('makes a row that was found by itself an example, with what was found in it', () => {
    const found = lookRow(40, { name: 'Mirovec', town: 'Brno' });
    const next = withField(spec, 7, found, { field: 'phone', node: 45, part: '+420 1' });
    expect(next.examples[0]!.fields).toEqual([
      { field: 'name', node: 41 },
      { field: 'town', node: 42 },
      { field: 'phone', node: 45, part: '+420 1' },
    ]);
    const again = withField(next, 7, { ...found, example: 0 }, { field: 'town', node: 46 });
    expect(again.examples).toHaveLength(1);
    expect(again.examples[0]!.fields.find(({ field }) => field === 'town')!.node).toBe(46);
    expect(withoutField(again, 0, 'town').examples[0]!.fields.map(({ field }) => field)).toEqual([
      'name',
      'phone',
    ]);
  });

  it('lies in the row whose element is around it', () => {
    const rows = look([lookRow(10, {}), lookRow(40, {})]);
    expect(rowAt(rows, around().choices)!.node).toBe(10);
    expect(rowAt(rows, [{ node: 99 }])).toBeNull();
  });
});

describe('what is drawn over a page', () => {
  it('numbers examples, names the values of the first of each look, and says how many adverts went', () => {
    const one = withRow(spec, 7, around());
    const marks = marksOf(
      { ...one, next: { how: 'pointed', page: 7, node: 90 } },
      7,
      look(
        [lookRow(10, { name: 'Drevanko', town: 'Brno' }, { example: 0 }), lookRow(40, { name: 'Mirovec' })],
        {
          adverts: [60, 61, 62],
          perhaps: [70, 71],
        },
      ),
    );
    expect(marks.map(({ kind, label }) => [kind, label])).toEqual([
      ['example', '1'],
      ['row', ''],
      ['field', 'company'],
      ['field', 'town'],
      ['field', ''],
      ['advert', 'advert, set aside with 2 like it'],
      ['advert', 'advert, set aside'],
      ['advert', 'advert, set aside'],
      ['perhaps', 'a row, too? point at it'],
      ['perhaps', ''],
      ['next', 'the way on'],
    ]);
  });

  it('is said in words', () => {
    expect(learnedWords(undefined)).toBe('');
    expect(learnedWords(look([]))).toBe('nothing learned yet: point at a row');
    expect(learnedWords(look([lookRow(1, {})]))).toBe('one look, 1 rows like it, 97 % sure');
    expect(learnedWords(look([lookRow(1, {})], { looks: [11, 2] }))).toBe(
      '2 looks, 11 like 1, 2 like 2, 97 % sure',
    );
  });

  it('has its time left as a clock', () => {
    expect(clock(140)).toBe('2:20');
    expect(clock(3725)).toBe('1:02:05');
  });
});
