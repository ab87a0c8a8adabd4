import { expect, test } from '@jest/globals';
import { CodeSearch, CodeSearches } from './search.ts';
import { CodeTree, type Scheme } from './tree.ts';

/** Codes found by words: titles before keywords before notes, spelling forgiven only where nothing is as written. */

const rows = (list: readonly (readonly [string, string, string])[]) =>
  list.map(([code, parent, title]) => ({ code, parent, title, level: parent === '' ? 1 : 2 }));
const tree = new CodeTree(
  'nace-2.1',
  rows([
    ['16', '', 'Manufacture of wood'],
    ['16.23', '16', 'Manufacture of other builders’ carpentry and joinery'],
    ['25', '', 'Manufacture of metal products'],
    ['25.51', '25', 'Coating of metals'],
    ['25.53', '25', 'Machining of metals'],
    ['18.12', '', 'Other printing'],
    ['18.13', '', 'Pre-press services'],
  ]),
);
const KEYWORDS = [
  { scheme: 'nace-2.1', code: '16.23', term: 'staircases' },
  { scheme: 'nace-2.1', code: '25.51', term: 'powder coating works' },
  { scheme: 'nace-2.1', code: '18.12', term: 'label printers' },
  { scheme: 'nace-2.1', code: '18.13', term: 'plate making' },
  { scheme: 'nace-2.1', code: '18.13', term: 'wooden type' },
  { scheme: 'sic-1987', code: '25.53', term: 'staircases' },
];
const note = (_: Scheme, code: string) => (code === '25.53' ? 'Includes laser cutting of sheets.' : '');
const search = new CodeSearch(tree, KEYWORDS, note);
const codes = (text: string, limit = 10) => search.find(text, limit).map(({ code }) => code);

test('the beginning of a code finds those that begin so, in their order', () => {
  expect(codes('25')).toEqual(['25', '25.51', '25.53']);
  expect(codes('25.5', 1)).toEqual(['25.51']);
  expect(codes('99')).toEqual([]);
});

test('a title before a keyword, and what matched is said where the title does not', () => {
  expect(search.find('coating', 5)[0]).toEqual({ code: '25.51', title: 'Coating of metals', level: 2 });
  expect(search.find('staircase', 5)).toEqual([
    expect.objectContaining({ code: '16.23', by: 'staircases', exact: true }),
  ]);
  expect(search.find('powder', 5)[0]).toMatchObject({ code: '25.51', by: 'powder coating works' });
});

test('plurals, endings and accents are forgiven', () => {
  for (const text of ['joineries', 'Joinery', 'jóinery']) expect(codes(text)).toContain('16.23');
  expect(codes('printer')).toEqual(expect.arrayContaining(['18.12']));
  expect(search.find('other printing', 5)[0]!.exact).toBe(true);
});

test('a note is the last to be asked, and says so', () => {
  expect(search.find('laser', 5)).toEqual([
    expect.objectContaining({ code: '25.53', by: 'in its note', inNote: true }),
  ]);
});

test('words of terms that have nothing to do with each other are only alike', () => {
  expect(search.find('plate type', 5)).toEqual([expect.objectContaining({ code: '18.13', alike: true })]);
});

test('spelling is forgiven where nothing is as written, and only of long words', () => {
  expect(search.find('carpantry', 5)[0]).toMatchObject({ code: '16.23', alike: true });
  expect(codes('wod')).toEqual([]);
  expect(search.find('carpentry', 5)[0]!.alike).toBeUndefined();
});

test('no trade has more than a dozen words, and none is found by none', () => {
  expect(codes('one two three four five six seven eight nine ten eleven twelve thirteen')).toEqual([]);
  expect(codes('')).toEqual([]);
});

test('searches of schemes are made when they are asked for, the keywords read once', () => {
  let reads = 0;
  const searches = new CodeSearches(new Map([['nace-2.1', tree]]), () => {
    reads++;
    return KEYWORDS;
  });
  expect(reads).toBe(0);
  expect(searches.of('nace-2.1')).toBe(searches.of('nace-2.1'));
  expect(reads).toBe(1);
});
