import { describe, expect, test } from '@jest/globals';
import { linkTargets, saidBy } from './links.ts';
import type { Zip } from './zip.ts';

/** Where the cells of a sheet lead to. */

describe('a cell with a link', () => {
  test('that says nothing else is what it leads to; any other text stays', () => {
    const target = 'https://alder.example/';
    expect(['Link', ' Zur Website ', 'E-Mail', ''].map((text) => saidBy(text, target))).toEqual([
      target,
      target,
      target,
      target,
    ]);
    expect(['Alder Works', 'alder', '45'].map((text) => saidBy(text, target))).toEqual([
      'Alder Works',
      'alder',
      '45',
    ]);
    expect(saidBy('Link', undefined)).toBe('Link');
  });
});

describe('the links of a sheet', () => {
  const relations = (more: string) => `<Relationships>${more}</Relationships>`;
  const zip = (texts: Record<string, string>) =>
    ({ text: (name: string) => Promise.resolve(texts[name] ?? null) }) as unknown as Zip;

  test('are addresses of the web and of mail, and none of other parts of the workbook', async () => {
    const text = relations(
      '<Relationship Id="a" Target="https://alder.example/x?id=1"/>' +
        '<Relationship Id="b" Target="mailto:office@alder.example?subject=Hello"/>' +
        '<Relationship Id="c" Target="../drawings/drawing1.xml"/>' +
        '<Relationship Id="d" Target="javascript:alert(1)"/>',
    );
    const targets = await linkTargets(
      zip({ 'xl/worksheets/_rels/sheet1.xml.rels': text }),
      'xl/worksheets/sheet1.xml',
    );
    expect([...targets]).toEqual([
      ['a', 'https://alder.example/x?id=1'],
      ['b', 'office@alder.example'],
    ]);
  });

  test('are none where the sheet names none', async () => {
    expect((await linkTargets(zip({}), 'xl/worksheets/sheet1.xml')).size).toBe(0);
  });
});
