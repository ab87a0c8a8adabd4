import { expect, test } from '@playwright/test';
import { axeFindsNothing } from './axe.ts';
import { Hand } from './hand.ts';
import { baseOf } from './ports.ts';

/** A file of somebody else's, read, mended by keys and loaded. */

test('a messy file is mended on the screen by keys alone, and lands as it was mended', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto(`${baseOf('empty')}/sources?load`);
  const lines = [
    'Lieferantenliste Herbst;;;;',
    '',
    'Firma;Land;Mitarbeiter;Umsatz (Tsd. €);Geprüft am',
    'Kolmberg Lacke GmbH;Deutschland;1.250;12.500;30.9.2026',
    'Ettlin Möbel KG;Dland;viele;2-10 Mio. €;1.9.2026',
    'Rosenlaui Holz AG;Schweiz;k.A.;unter 500;1.9.2026',
    'Summe;;1.250;12.500;',
  ];
  await page.getByLabel('File of companies').setInputFiles({
    name: 'lieferanten.csv',
    mimeType: 'text/csv',
    // Windows-1252, in which the euro is no letter of Latin-1.
    buffer: Buffer.from([...lines.join('\r\n')].map((char) => (char === '€' ? 0x80 : char.charCodeAt(0)))),
  });
  await expect(page.getByLabel('companies: 3')).toBeVisible();
  await expect(page.getByText('2 cells not understood')).toBeVisible();
  await expect(page.getByLabel('Rows to skip above')).toHaveValue('2');
  await expect(page.getByRole('row', { name: /^Umsatz/ })).toContainText('12.500 → 12,500,000');
  const open = async (name: string) => {
    await page.getByRole('button', { name: `1 not understood in ${name}` }).focus();
    await hand.key('Enter');
  };
  await open('Land');
  await page.getByLabel('Read “Dland” as').focus();
  await page.keyboard.type('Deutschland');
  await hand.key('Enter');
  await expect(page.getByText('1 cell not understood')).toBeVisible();
  await open('Mitarbeiter');
  await page.getByLabel('Read “viele” as').focus();
  await page.keyboard.type('250+');
  await hand.key('Enter');
  await expect(page.getByText(/cells? not understood/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Load it' }).focus();
  await hand.key('Enter');
  await expect(page.getByRole('row', { name: /^lieferanten/ })).toContainText('DE');
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
  const { rows } = (await (
    await page.request.post(`${baseOf('empty')}/api/rows`, {
      data: { tape, columns: ['name', 'headcount', 'revenue', 'place'], limit: 500 },
    })
  ).json()) as { rows: { cells: Record<string, unknown> }[] };
  const ettlin = rows.find(({ cells }) => cells.name === 'Ettlin Möbel KG')!.cells;
  expect(ettlin).toMatchObject({
    headcount: { low: 250, high: null },
    revenue: { low: 2_000_000, high: 10_000_000, currency: 'EUR' },
    place: { country: 'DE' },
  });
});

test('an address in one cell, a street in two and a country in none are made columns, and the file is read by them', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: 'adresy.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Firma;Ulice;Č.p.;Místo\nLakovna Orlín;Hutní;7;Vsetín, 755 01\nLakovna Borek;Luční;12;Brno, 602 00\n',
    ),
  });
  const make = async (name: string, way: string, fill: () => Promise<void>) => {
    await hand.click('Make a column …');
    const dialog = page.getByRole('dialog', { name: 'Make a column' });
    await dialog.getByRole('radio', { name: way }).click();
    await dialog.getByLabel(/^Its name/).fill(name);
    await fill();
    await hand.click('Make it');
    await expect(page.getByRole('row', { name: new RegExp(`^${name}`) })).toBeVisible();
  };
  const join = page.getByLabel('One more column to join');
  await make('Street', 'Columns joined', async () => {
    await join.selectOption('Ulice');
    await join.selectOption('Č.p.');
    await expect(page.getByRole('group', { name: 'How it comes out' })).toContainText('Hutní 7');
  });
  await make('Town', 'A part of one', () =>
    page
      .getByLabel('A part of')
      .selectOption('Místo')
      .then(() => {}),
  );
  await make('Postcode', 'A part of one', async () => {
    await page.getByLabel('A part of').selectOption('Místo');
    await page.getByLabel('What stands').selectOption('after the first');
  });
  await make('Country', 'The same in every row', () => page.getByLabel('Text in every row').fill('CZ'));
  await page.getByLabel('Column Ulice is read as').selectOption('');
  await page.getByLabel('Column Místo is read as').selectOption('');
  for (const [name, id] of [
    ['Street', 'street'],
    ['Town', 'town'],
    ['Postcode', 'postcode'],
    ['Country', 'country'],
  ])
    await page.getByLabel(`Column ${name} is read as`).selectOption(id!);
  await expect(page.getByRole('row', { name: /^Street/ })).toContainText('Luční 12');
  // While the file is read anew its roll is faint.
  await expect(page.getByLabel('companies: 2')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0);
  await axeFindsNothing(page, 'made columns');
  await hand.click('Load it');
  await expect(page.getByRole('row', { name: /^adresy/ })).toContainText('CZ');
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
  const { rows } = (await (
    await page.request.post(`${baseOf('empty')}/api/rows`, {
      data: { tape, columns: ['name', 'street', 'postcode', 'place'], limit: 500 },
    })
  ).json()) as { rows: { cells: Record<string, unknown> }[] };
  expect(rows.find(({ cells }) => cells.name === 'Lakovna Orlín')!.cells).toMatchObject({
    street: 'Hutní 7',
    postcode: '755 01',
    place: { town: 'Vsetín', country: 'CZ' },
  });
});
