import { describe, expect, test } from '@jest/globals';
import { looksLikeHeader } from './headings.ts';
import { lyingTable, notData, standInGroups } from './table-shape.ts';

/** Where the headings of a table are, and which of its rows are no records. */

const rows = (text: string) => text.split('\n').map((line) => line.split(';'));

describe('rows that stand in groups', () => {
  const grouped = (text: string) => standInGroups(rows(text), 3);
  test('are seen by a heading alone at the top and again, and these are no records', () => {
    const text = 'Bavaria;;\nA;Brno;3\nB;Zlín;4\nHesse;;\nC;Ulm;5';
    expect(grouped(text)).toBe(true);
    expect(notData(['Bavaria', '', ''], ['Name', 'Town', 'Staff'], true)).toBe('headings');
    expect(notData(['Bavaria', '', ''], ['Name', 'Town', 'Staff'])).toBeNull();
    expect(notData(['A', 'Brno', ''], ['Name', 'Town', 'Staff'], true)).toBeNull();
  });
  test.each([
    ['a name alone does not come first', 'A;Brno;3\nB;;\nC;Ulm;5\nD;;\nE;Aue;1'],
    ['it comes but once', 'A;;\nB;Zlín;4\nC;Ulm;5'],
    ['two stand together', 'A;;\nB;;\nC;Ulm;5\nD;;\nE;Aue;1'],
    ['they are firms', 'A GmbH;;\nB;Zlín;4\nC KG;;\nD;Ulm;5'],
    ['the others have gaps', 'A;;\nB;Zlín;\nC;;\nD;;5'],
  ])('are none where %s', (_, text) => expect(grouped(text)).toBe(false));
});

describe('a table on its side', () => {
  const lying = (text: string) => lyingTable(rows(text))?.map((cells) => cells[0]) ?? null;
  test('has known headings below each other, and none beside each other; a title above it is left out', () => {
    const firms = ';A;B\nCountry;CZ;AT\nEmployees;3;4\nWebsite;a.example;b.example';
    expect(lying(firms)).toEqual(['', 'Country', 'Employees', 'Website']);
    expect(lying(`Comparison;;\n;;\n${firms}`)).toEqual(['', 'Country', 'Employees', 'Website']);
    expect(lying('Name;Country;Employees\nA;CZ;3\nB;AT;4\nC;SE;5')).toBeNull();
    expect(lying('What;A;B\nColour;red;blue\nShape;round;flat\nSize;3;4')).toBeNull();
    expect(lying(';A;B\nCountry;CZ;AT')).toBeNull();
  });
});

test.each([
  [['Award', 'Supplier', 'Value'], ['12/03/2026', 'A', '£420,000'], true],
  [['Team', 'Growth'], ['11–50', '+12%'], true],
  [['Page', 'Note'], ['www.a.example', 'x'], true],
  [['11–50', 'Acorn'], ['51–200', 'Birch'], false],
  [['Acorn', ''], ['Birch', '+12%'], false],
])('%j over %j are headings: %s', (first, next, are) => {
  expect(looksLikeHeader(first, next)).toBe(are);
});
