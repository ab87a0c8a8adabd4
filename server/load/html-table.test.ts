import { describe, expect, test } from '@jest/globals';
import { tableOfHtml } from './html-table.ts';

describe('the table of a page', () => {
  test('is the largest, without those that lie in its cells', () => {
    const page = `<table><tr><td>Menu</td></tr></table>
      <table><thead><tr><th>Firma</th><th>Ort</th></tr></thead>
      <tbody><tr><td>Stahl &amp; Söhne</td><td>Graz<table><tr><td>8010</td></tr></table></td></tr></tbody></table>`;
    expect(tableOfHtml(page)).toBe('Firma,Ort\nStahl & Söhne,Graz8010\n');
  });

  test('has blank cells where one reaches over several, and lines where a cell has them', () => {
    const page =
      '<table><tr><th colspan=2>Size</th><th>Address</th></tr><tr><td>1</td><td>2</td><td>Ring 4<br>8010  Graz</td></tr></table>';
    expect(tableOfHtml(page)).toBe('Size,,Address\n1,2,"Ring 4\n8010 Graz"\n');
  });

  test('reaches no further than a page can mean', () => {
    const cells = tableOfHtml('<table><tr><td colspan=1000000>x</td></tr></table>')!;
    expect(cells.split(',')).toHaveLength(200);
  });

  test('is none of a page without one', () => {
    expect(tableOfHtml('<p>Nothing here</p>')).toBeNull();
  });

  test('may lie as deep as a page nests', () => {
    const depth = 20_000;
    const page = `${'<div>'.repeat(depth)}<table><tr><td>deep</td></tr></table>`;
    expect(tableOfHtml(page)).toBe('deep\n');
  });
});
