import { expect, test } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import ExcelJS from 'exceljs';
import type { RowsAnswer } from '../contract/responses.ts';
import type { PlaceCell } from '../core/cells.ts';
import { distanceKm } from '../core/geo/distance.ts';
import { ask, Hand, sheetText, WAYS } from './hand.ts';
import { baseOf } from './ports.ts';

const tape = (lines: object[]) => ({ format: 'just-tally.tape', version: 1, subject: 'companies', lines });

test('J1: very small joineries within 40 km, checked lately, as a mail-merge file', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  const all = await hand.tally();
  // The trade is looked up in words; the code is chosen from what they mean.
  hand.acts++;
  await page.locator('[data-entry]').fill('joinery');
  await hand.click(/^Industry 16\.23 other/, 'option');
  await expect(page.locator('[data-line]')).toHaveCount(1);
  await hand.line('near Brno 40 km');
  await hand.line('checked past 24 months');
  await hand.line('headcount 0-9 keep unknown');
  const left = await hand.tally();
  expect(left).toBeGreaterThan(0);
  expect(left).toBeLessThan(all);
  await hand.key('Escape');
  await hand.key('x');
  await hand.click('Names and addresses', 'radio');
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
  expect(hand.acts).toBeLessThanOrEqual(11);

  const [head, ...rows] = parse(file, { bom: true });
  expect(head!.slice(0, 7)).toEqual([
    ...['Company', 'Street', 'Postcode', 'Town', 'Region', 'Country', 'Address line 1'],
  ]);
  const lines = [
    { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['16.23'] } },
    { id: 'b', field: 'place', test: { near: { lat: 49.19522, lon: 16.60796, km: 40 } } },
    { id: 'c', field: 'checked', test: { from: '2024-09-30', to: '2026-09-30' } },
    { id: 'd', field: 'headcount', test: { from: 0, to: 9 }, unknown: 'keep' },
  ];
  const wanted = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape(lines),
    columns: ['name', 'street', 'postcode', 'place'],
    limit: 1000,
    offset: 0,
  });
  expect(wanted.total).toBe(left);
  // Those that no letter would reach stay off.
  const reached = wanted.rows.filter(
    ({ cells }) => (cells.place as PlaceCell | null)?.town && (cells.street ?? cells.postcode),
  );
  expect(rows).toHaveLength(reached.length);
  expect(rows.map((row) => row[6])).toEqual(rows.map((row) => row[0]));
  const cell = (value: unknown) => (typeof value === 'string' ? value : '');
  expect(rows.map((row) => row.slice(0, 6))).toEqual(
    reached.map(({ cells }) => {
      const place = cells.place as PlaceCell;
      return [
        cell(cells.name),
        cell(cells.street),
        cell(cells.postcode),
        cell(place.town),
        cell(place.region),
        cell(place.countryName),
      ];
    }),
  );
  for (const { cells } of wanted.rows) {
    const { lat, lon } = cells.place as PlaceCell;
    expect(distanceKm(49.19522, 16.60796, lat!, lon!)).toBeLessThanOrEqual(40);
  }
});

for (const by of WAYS)
  test(`J21, by ${by}: the quick one: a word and a town, a profile, an export`, async ({ page }) => {
    const hand = new Hand(page, by);
    await page.goto('/desk');
    await hand.tally();
    await hand.line('words house or building; in Czechia');
    const left = await hand.goesOut();
    await expect(page.getByRole('row').nth(1)).toContainText(/\w/);
    await hand.key('Escape');
    if (by === 'keys') await hand.key('Enter');
    else await hand.press(page.locator('[data-row] a').first());
    const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
    await expect(page.getByRole('heading', { name: 'What each source says' })).toBeVisible();
    // On a profile an export is of that record; the list is exported from the sheet.
    await hand.key('Escape');
    if (by === 'keys') await hand.key('x');
    else await hand.click(/^Export/);
    const start = page.getByRole('button', { name: /^Export [\d,]+$/ });
    await expect(start).toBeFocused();
    const file = await hand.download(() => hand.press(start));
    expect(hand.acts).toBeLessThanOrEqual(6);

    const book = new ExcelJS.Workbook();
    await book.xlsx.load(file.buffer as ArrayBuffer);
    const sheet = book.getWorksheet('Companies')!;
    expect(sheet.rowCount).toBe(left + 1);
    expect((sheet.getRow(1).values as unknown[]).slice(1)).toEqual([
      'Company',
      'Main industry code',
      'Main industry',
      'Industry scheme',
      'All industry codes',
      'Headcount',
      'Headcount year',
      'Headcount basis',
      'Revenue, EUR',
      'Revenue year',
      'Revenue basis',
      'Last checked',
      'Web',
    ]);
    const first = sheet.getRow(2);
    expect(first.getCell(1).value).toBe(name);
    for (let r = 2; r <= sheet.rowCount; r++) {
      const row = sheet.getRow(r);
      if (row.getCell(8).value === 'reported') expect(typeof row.getCell(6).value).toBe('number');
      if (row.getCell(11).value === 'reported') expect(typeof row.getCell(9).value).toBe('number');
      expect(row.getCell(12).value).toBeInstanceOf(Date);
    }
    const made = sheetText(book.getWorksheet('How this list was made')!);
    for (const text of ['Words house or building', 'Place in Czechia', 'Register extract', 'Web survey'])
      expect(made).toContain(text);
  });

test('a messy file is loaded, counted and exported with the same values', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto(`${baseOf('empty')}/`);
  await expect(page.getByRole('heading', { name: 'The universe is empty' })).toBeVisible();
  await page.getByRole('link', { name: 'Choose a file' }).click();
  const good = Array.from({ length: 40 }, (_, i) => [
    `Žárovka ${i} s.r.o.`,
    'CZ',
    i % 2 ? 'Brno' : 'Zlín',
    `${i + 1}`,
    `${i + 1}.250,50`,
    i % 2 ? '16.23' : '25.51',
    `${(i % 28) + 1}.9.2026`,
    i % 3 ? 'Dřevo; řezy' : '"Dvě řádky\r\ntextu"',
  ]);
  const bad = [
    ['', 'CZ', 'Brno', '1', '1', '16.23', '1.9.2026', ''],
    ['A', 'Atlantis', 'Brno', '1', '1', '16.23', '1.9.2026', ''],
    ['B', 'CZ', 'Brno', 'many', '1', '16.23', '1.9.2026', ''],
    ['C', 'CZ', 'Brno', '9-2', '1', '16.23', '1.9.2026', ''],
    ['D', 'CZ', 'Brno', '-4', '1', '16.23', '1.9.2026', ''],
    ['E', 'CZ', 'Brno', '1', '1.2.3', '16.23', '1.9.2026', ''],
    ['F', 'CZ', 'Brno', '1', 'one', '16.23', '1.9.2026', ''],
    ['G', 'CZ', 'Brno', '1', '1', '99.99', '1.9.2026', ''],
    ['H', 'CZ', 'Brno', '1', '1', 'wood', '1.9.2026', ''],
    ['I', 'CZ', 'Brno', '1', '1', '16.23', '31.2.2026', ''],
    ['J', 'CZ', 'Brno', '1', '1', '16.23', 'soon', ''],
    ['K', 'CZ', 'Brno', '1', '1', '16.23', '1.9.2026', '', 'more', 'cells'],
  ];
  const quoted = (cell: string) => (cell.startsWith('"') || !cell.includes(';') ? cell : `"${cell}"`);
  const text = [
    ['Firma', 'Země', 'Město', 'Počet zaměstnanců', 'Obrat v tis. Kč', 'NACE', 'Ověřeno', 'Popis'],
    ...good.slice(0, 20),
    ...bad,
    ...good.slice(20),
  ]
    .map((row) => row.map(quoted).join(';'))
    .join('\r\n');
  // Windows-1250, written by hand so that the test does not lean on the library that reads it.
  const TABLE: Record<string, number> = {
    Ž: 0x8e,
    ž: 0x9e,
    á: 0xe1,
    í: 0xed,
    ě: 0xec,
    ř: 0xf8,
    č: 0xe8,
    é: 0xe9,
    ů: 0xf9,
    ý: 0xfd,
    š: 0x9a,
  };
  const buffer = Buffer.from([...text].map((char) => TABLE[char] ?? char.charCodeAt(0)));
  await page
    .getByLabel('File of companies')
    .setInputFiles({ name: 'firmy.csv', mimeType: 'text/csv', buffer });
  await expect(page.getByLabel('Encoding')).toHaveValue('windows-1250');
  await expect(page.getByLabel('Delimiter')).toHaveValue(';');
  await expect(page.getByLabel('Obrat v tis. Kč: decimals')).toHaveValue(',');
  await expect(page.getByLabel('Obrat v tis. Kč is in')).toHaveValue('1000');
  await expect(page.getByLabel('Column Popis is read as')).toHaveValue('description');
  await expect(page.getByLabel('companies: 50')).toBeVisible();
  await expect(page.getByText('10 cells not understood')).toBeVisible();
  await page.getByLabel('A cell that is not understood').selectOption('refuses its row');
  await expect(page.getByLabel('companies: 40')).toBeVisible();
  await page.getByRole('button', { name: 'Load it' }).click();
  await page.getByRole('button', { name: 'refused rows' }).click();
  await expect(page.getByText('40 rows landed, 12 were refused.')).toBeVisible();
  const refused = await hand.download(() => page.getByRole('link', { name: /^All refused rows/ }).click());
  const list = parse(refused, { bom: true, delimiter: ';', relax_column_count: true });
  expect(list[0]!.slice(-2)).toEqual(['row', 'why']);
  expect(list.slice(1).map((cells) => cells.slice(-2).join(' ').split(', expected')[0])).toEqual([
    '22 Firma: empty',
    '23 Země: “Atlantis”',
    '24 Počet zaměstnanců: “many”',
    '25 Počet zaměstnanců: “9-2”',
    '26 Počet zaměstnanců: “-4”',
    '27 Obrat v tis. Kč: “1.2.3”',
    '28 Obrat v tis. Kč: “one”',
    '29 NACE: “99.99”',
    '30 NACE: “wood”',
    '31 Ověřeno: “31.2.2026”',
    '32 Ověřeno: “soon”',
    '33 row: “10 cells”',
  ]);

  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await hand.line('headcount 11-20; nace 25.51');
  expect(await hand.tally()).toBe(5);
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByRole('radio', { name: 'chosen here' }).click();
  for (const column of ['Main industry', 'Web'])
    await page.getByRole('dialog').getByLabel(column, { exact: true }).uncheck();
  await page.getByRole('dialog').getByLabel('Description', { exact: true }).check();
  await page.getByRole('radio', { name: 'CSV' }).click();
  const file = await hand.download(() => page.getByRole('button', { name: 'Export 5' }).click());
  const exported = parse<Record<string, string>>(file, { bom: true, columns: true });
  const wanted = good.filter((_, i) => i + 1 >= 11 && i + 1 <= 20 && i % 2 === 0);
  expect(exported.map((row) => [row.Company, row.Headcount, row['Last checked'], row.Description])).toEqual(
    wanted.map((row) => [
      row[0],
      row[3],
      `2026-09-${row[6]!.split('.')[0]!.padStart(2, '0')}`,
      row[7]!.replaceAll('"', ''),
    ]),
  );
  // 11.250,50 thousand crowns of 2025, at 24.7 to the euro.
  for (const [i, row] of exported.entries())
    expect(Number(row['Revenue, EUR'])).toBeCloseTo((Number(wanted[i]![3]) * 1_000_000 + 250_500) / 24.7, 1);
});
