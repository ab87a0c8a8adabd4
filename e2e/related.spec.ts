import { expect, test, type Page } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import ExcelJS from 'exceljs';
import type { RowsAnswer, WordedTally } from '../contract/responses.ts';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, sheetText, WAYS } from './hand.ts';

/** Jobs that look through to what hangs on companies: deals, people, brands, and who advised whom. */

const tape = (subject: string, lines: object[]) => ({
  format: 'just-tally.tape',
  version: 1,
  subject,
  lines,
});
const tallyOf = async (page: Page, subject: string, lines: object[]) =>
  (await ask<WordedTally>(page, '/api/tally', { tape: tape(subject, lines) })).tally;

/** Types a line into the entry of the tape and waits until it stands there, whatever hangs within it. */
async function enter(hand: Hand, text: string): Promise<void> {
  hand.acts++;
  const entry = hand.page.getByRole('combobox', { name: 'Add a line', exact: true });
  await entry.fill(text);
  await entry.press('Enter');
  await expect(entry).toHaveValue('');
}

async function exported(hand: Hand): Promise<ExcelJS.Worksheet> {
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(file as unknown as ArrayBuffer);
  return book.worksheets[0]!;
}

test('J7: deals by industry, place and money as a workbook', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await hand.click(/Counts companies/);
  await hand.click('All deals', 'menuitem');
  await enter(
    hand,
    'amount 200k+ eur; past 60 months; has company as target (nace 16 25 31; in Czechia, Poland, Germany)',
  );
  await expect(page.locator('[data-line]')).not.toHaveCount(0);
  const left = await hand.tally();
  await hand.click('Export');
  const sheet = await exported(hand);
  expect(hand.acts).toBeLessThanOrEqual(5);
  expect(left).toBeGreaterThan(0);
  expect(sheet.rowCount).toBe(left + 1);
  expect(sheet.name).toBe('Deals');
  const lines = [
    { id: 'a', field: 'amount', test: { from: 200_000, currency: 'EUR' } },
    { id: 'b', field: 'date', test: { from: '2021-09-30', to: '2026-09-30' } },
    {
      id: 'c',
      has: 'company',
      as: 'target',
      lines: [
        { id: 'd', field: 'industry', test: { scheme: 'nace-2.1', any: ['16', '25', '31'] } },
        { id: 'e', field: 'place', test: { countries: ['CZ', 'PL', 'DE'] } },
      ],
    },
  ];
  expect(left).toBe(await tallyOf(page, 'deals', lines));
});

for (const by of WAYS)
  test(`J9, by ${by}: by technology to people, some titles taken out, as name, mail and company`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto('/desk');
    await hand.tally();
    await enter(
      hand,
      'nace 16 25 31 46.62 any rank; uses production-planning or accounting; in central-europe; headcount 5-249',
    );
    const firms = await hand.tally();
    await hand.click(/^Add to list/);
    hand.acts++;
    await page.getByLabel('A new list named').fill(`Users by ${by}`);
    await page.keyboard.press('Enter');
    await expect(page.getByText(/put on Users by/)).toBeVisible();
    await hand.click(/Counts companies/);
    await hand.click('The people of these companies', 'menuitem');
    await expect(page.getByText('all people')).toBeVisible();
    await enter(
      hand,
      'production or purchasing or management; manager+; not title assistant*; certainty 75+',
    );
    await expect(page.locator('ol[aria-label="Lines"] > li')).toHaveCount(5);
    const left = await hand.goesOut();
    await hand.click(/^Export/);
    await hand.click('Outreach', 'radio');
    const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
    expect(hand.acts).toBeLessThanOrEqual(10);
    expect(firms).toBeGreaterThan(0);
    expect(left).toBeGreaterThan(0);
    const [head, ...rows] = parse(file, { bom: true });
    expect(head).toEqual(['Name', 'Mail', 'Company']);
    expect(rows).toHaveLength(left);
    for (const [name, mail, company] of rows) {
      expect(name).not.toBe('');
      expect(mail).toMatch(/\.example$/);
      expect(company).not.toBe('');
    }
  });

test('J12: brands by share of sales through dealers that shrinks, narrowed to owners', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await enter(hand, 'channel dealers 15-70');
  await enter(hand, 'channel change dealers up to -0.1');
  await enter(hand, 'not in Germany');
  await enter(hand, 'revenue 5k-4m eur a month with estimates keep unknown');
  await enter(hand, 'brands owned up to 3; own brands 50+');
  const left = await hand.tally();
  const goes = await hand.goesOut();
  await hand.click(/^Export/);
  await hand.click('For another system', 'radio');
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
  expect(hand.acts).toBeLessThanOrEqual(10);
  expect(left).toBeGreaterThan(0);
  const rows = parse<Record<string, string>>(file, { columns: true });
  expect(rows).toHaveLength(goes);
  expect(rows.every((row) => row.Company !== '' && 'Registration' in row && 'Street' in row)).toBe(true);
  const found = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape('companies', [
      { id: 'a', field: 'channel', test: { key: 'dealers', from: 15, to: 70 } },
      { id: 'b', field: 'channel-change', test: { key: 'dealers', to: -0.1 } },
      { id: 'c', field: 'own-share', test: { from: 50 } },
    ]),
    columns: ['own-share', 'brands-owned', 'channel'],
    limit: 100,
  });
  for (const { cells } of found.rows) {
    expect(cells['own-share'] as number).toBeGreaterThanOrEqual(50);
    const dealers = (cells.channel as string[]).find((one) => one.startsWith('dealers '))!;
    expect(Number(dealers.slice(8))).toBeGreaterThanOrEqual(15);
  }
});

test('J17, people: from a list to its people by level, words in and out of the title, by keys', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await hand.key('/');
  await enter(hand, 'on list our-customers');
  const firms = await hand.tally();
  await hand.click(/Counts companies/);
  await hand.click('The people of these companies', 'menuitem');
  await expect(page.getByText('all people')).toBeVisible();
  await enter(hand, 'head+; title purchas* or procurement or works not assistant');
  await expect(page.locator('ol[aria-label="Lines"] > li')).toHaveCount(3);
  const left = await hand.tally();
  expect(hand.acts).toBeLessThanOrEqual(7);
  expect(firms).toBeGreaterThan(0);
  const rows = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape('people', [
      { id: 'a', has: 'company', lines: [{ id: 'b', field: 'list', test: { any: ['our-customers'] } }] },
      { id: 'c', field: 'level', test: { any: ['owner', 'founder', 'director', 'head'] } },
      { id: 'd', field: 'title', test: { text: 'purchas* or procurement or works' } },
    ]),
    columns: ['name', 'title', 'level'],
    limit: 1000,
  });
  expect(left).toBe(rows.total);
  for (const { cells } of rows.rows) expect(cells.title).toMatch(/purchas|procurement|works/i);
});

for (const by of WAYS)
  test(`J14, by ${by}: premises around a town by the codes of their firms, the largest first, as a workbook`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto('/desk');
    await hand.tally();
    await hand.key('Control+k');
    hand.acts++;
    await page.keyboard.type('round to sites');
    // Enter takes the first of what is offered, which may still change while it comes.
    await expect(page.getByRole('option', { name: /Turn the tape round to sites/ })).toHaveAttribute(
      'aria-selected',
      'true',
    );
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /Counts sites/ })).toBeVisible();
    await hand.type('near Brno 60 km; has company (nace 16.23, 25.61, 31)');
    // The two of the sites, and that of their companies.
    await expect(page.locator('[data-line]')).toHaveCount(3);
    const left = await hand.goesOut();
    expect(left).toBeGreaterThan(3);
    await page.keyboard.press('Escape');
    await hand.click(/^Headcount/, 'columnheader');
    await hand.key('x');
    const start = page.getByRole('button', { name: /^Export [\d,]+$/ });
    await expect(start).toBeFocused();
    const file = await hand.download(() => hand.press(start));
    expect(hand.acts).toBeLessThanOrEqual(7);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(file.buffer as ArrayBuffer);
    const sheet = book.getWorksheet('Sites')!;
    expect(sheet.rowCount).toBe(left + 1);
    const heads = (sheet.getRow(1).values as string[]).slice(1);
    for (const head of ['Street', 'Phone', 'Company']) expect(heads).toContain(head);
    const counts = sheet
      .getColumn(heads.indexOf('Headcount') + 1)
      .values.slice(2)
      .filter((one): one is number => typeof one === 'number');
    expect(counts.length).toBeGreaterThan(2);
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
    const streets = sheet.getColumn(heads.indexOf('Street') + 1).values.slice(2);
    expect(streets.filter(Boolean).length).toBe(left);
  });

test('J19: advisers to sellers ranked by deals closed, and the deals behind a number', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await enter(hand, 'has deal as sell-adviser (past 96 months; has company as target (in central-europe))');
  await page.locator('[data-line]').first().click();
  hand.acts++;
  await hand.click('sort by it, most first');
  await hand.click('Done');
  const left = await hand.tally();
  const counts = page.locator('[data-row] a[title^="See the deals"]');
  await expect(counts.first()).toBeVisible();
  const ranked = (await counts.allTextContents()).map((text) => Number(/^\d+/.exec(text)![0]));
  expect(ranked.length).toBeGreaterThan(2);
  expect(ranked).toEqual([...ranked].sort((a, b) => b - a));
  await hand.click(/^Export/);
  const sheet = await exported(hand);
  // To its file; a click on a number is the seventh act.
  expect(hand.acts).toBeLessThanOrEqual(6);
  expect(sheet.rowCount).toBe(left + 1);
  expect(sheetText(sheet)).toContain('as adviser to the seller');
  await page.getByRole('button', { name: 'Close', exact: true }).last().click();
  await counts.first().click();
  await expect(page.getByText('all deals')).toBeVisible();
  await expect.poll(() => hand.tally()).toBe(ranked[0]);
  // Back is back at the ranking.
  await page.goBack();
  await expect(counts.first()).toBeVisible();
});

test('J20: lately funded, in a window that shows both dates, with what each site offers', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await enter(
    hand,
    'nace 16 25 31 28 any rank; in central-europe; has deal as target (growth loan or buy-out; past 24 months)',
  );
  await expect(page.getByText('(2024-09-30 to 2026-09-30)').first()).toBeVisible();
  const rolling = await hand.tally();
  // The same by calendar year, in the inner line's own picker.
  await page.getByRole('button', { name: /Date in the past 24 months/ }).click();
  hand.acts++;
  await hand.click(/^last year/);
  await expect(page.getByText('(2025-01-01 to 2025-12-31)').first()).toBeVisible();
  await hand.click('Back to the has-line');
  await hand.click('Done');
  await hand.click(/^Columns/);
  await page.getByRole('checkbox', { name: 'Site offers' }).check();
  hand.acts++;
  await hand.key('Escape');
  const left = await hand.tally();
  const goes = await hand.goesOut();
  await hand.click(/^Export/);
  const sheet = await exported(hand);
  expect(hand.acts).toBeLessThanOrEqual(12);
  expect(rolling).toBeGreaterThan(0);
  expect(sheet.rowCount).toBe(goes + 1);
  const lines = [
    { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['16', '25', '31', '28'], rank: 'any' } },
    { id: 'b', field: 'place', test: { countries: ['central-europe'] } },
    {
      id: 'c',
      has: 'deals',
      as: 'target',
      lines: [
        { id: 'd', field: 'kind', test: { any: ['growth-loan', 'buy-out'] } },
        { id: 'e', field: 'date', test: { from: '2025-01-01', to: '2025-12-31' } },
      ],
    },
  ];
  expect(left).toBe(await tallyOf(page, 'companies', lines));
});

test('axe finds nothing on has-lines, other subjects and their pages, by day and by night', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const check = async (what: string) => {
    await expect(page.locator('[data-tally]')).toBeVisible();
    await axeFindsNothing(page, what);
  };
  const hand = new Hand(page);
  await page.goto('/desk');
  await enter(hand, 'has deal as target (growth loan; has company as investor)');
  await page.locator('[data-line]').first().click();
  await expect(page.getByText(/the line keeps/)).toBeVisible();
  await check('a has-line');
  await page
    .getByRole('button', { name: /^Kind growth loan/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { level: 1, name: 'Kind' })).toBeVisible();
  await check('a line within');
  await page.keyboard.press('Escape');
  await hand.click(/Counts companies/);
  await hand.click('All people', 'menuitem');
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await check('people');
  await page.locator('[data-row] a').first().click();
  await expect(page.getByRole('heading', { name: 'What is known' })).toBeVisible();
  await check('a person');
});
