import { expect, test, type Page } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import ExcelJS from 'exceljs';
import type { BreakdownAnswer, ChartAnswer } from '../contract/market.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, textOf } from './hand.ts';
import { baseOf } from './ports.ts';

/** The other half of the move: who is left, as sheet, page, market, map and paper. */

const tape = (lines: object[]) => ({ format: 'just-tally.tape', version: 1, subject: 'companies', lines });
const COATERS = 'nace 25.51; 20-249 staff';
const COATER_LINES = [
  { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['25.51'] } },
  { id: 'b', field: 'headcount', test: { from: 20, to: 249 } },
];

async function fresh(page: Page): Promise<Hand> {
  await page.goto('/desk');
  const hand = new Hand(page);
  await hand.tally();
  return hand;
}

test('J3: from a known company to listed ones with its codes, with the head of purchasing, as a workbook', async ({
  page,
}) => {
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape([{ id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['16.23'] } }]),
    columns: ['name', 'industry'],
    limit: 1,
  });
  await page.goto(`/desk?company=${rows[0]!.key}`);
  const hand = new Hand(page);
  await hand.click('Companies with these NACE 2.1 codes');
  await hand.line('listing listed');
  const left = await hand.goesOut();
  await hand.click(/^Columns: \d+/);
  await hand.click('Rivals');
  await page.keyboard.press('Escape');
  await hand.key('x');
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
  expect(hand.acts).toBeLessThanOrEqual(6);
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(file as unknown as ArrayBuffer);
  const sheet = book.worksheets[0]!;
  expect(left).toBeGreaterThan(0);
  expect(sheet.rowCount).toBe(left + 1);
  const heads = (sheet.getRow(1).values as string[]).slice(1);
  expect(heads).toContain('Head of purchasing');
  const [at, listing] = [heads.indexOf('Head of purchasing') + 1, heads.indexOf('Listing') + 1];
  const named: unknown[] = [];
  for (let r = 2; r <= sheet.rowCount; r++) {
    expect(sheet.getRow(r).getCell(listing).value).toBe('listed');
    named.push(sheet.getRow(r).getCell(at).value);
  }
  expect(named.some((name) => typeof name === 'string' && name.includes(' '))).toBe(true);
});

test('J4 and J7: a sector sorted by whole groups, saved, printed, broken down and mapped; a bar becomes a line', async ({
  page,
}) => {
  const hand = await fresh(page);
  await hand.line(COATERS);
  const left = await hand.tally();
  await hand.key('Escape');
  await hand.key('2');
  const where = page.locator('[data-chart=where]');
  await expect(where).toBeVisible();
  const found = await ask<BreakdownAnswer>(page, '/api/breakdown', { tape: tape(COATER_LINES) });
  expect(found.total).toBe(left);
  await page.getByLabel('Compare with').selectOption('universe');
  hand.acts++;
  await expect(where).toContainText(/times its share of the universe/);
  // The numbers of a chart are its table, and a group of it becomes a line.
  await hand.click('Numbers of Where they are');
  const first = found.charts[0]!.slots[0]!;
  await expect(where.getByRole('row').nth(1)).toContainText(first.label!);
  await expect(where.getByRole('row').nth(1)).toContainText(String(first.count));
  await hand.click(first.label!);
  await hand.click('Keep only these');
  expect(await hand.tally()).toBe(first.count);
  await hand.key('Control+z');
  await hand.key('3');
  const map = page.getByRole('application', { name: /^Map of/ });
  const placed = await page
    .getByText(/with a place/)
    .locator('strong')
    .first()
    .textContent();
  await expect(map).toHaveAccessibleName(new RegExp(`^Map of ${placed} companies`));
  await hand.click('Countries', 'radio');
  await expect(page.getByRole('table', { name: 'how many' })).toBeAttached();
  await hand.key('1');
  expect(hand.acts).toBeLessThanOrEqual(13);
  const pdf = await hand.download(() => page.getByRole('button', { name: 'Print' }).click());
  const text = textOf(pdf, 'test-results/sheet.pdf');
  expect(text).toContain(`${left.toLocaleString('en-GB')} companies`);
  expect(text).toContain('Industry 25.51 coating of metals');
  expect(text).toMatch(/page 1 of \d+/);
});

test('J5: profit where revenue is withheld, columns moved, a currency and a column set once for the whole desk', async ({
  page,
}) => {
  const hand = await fresh(page);
  await hand.line('in Switzerland; nace 25');
  await hand.click(/^Columns: \d+/);
  await hand.click('Finance');
  await page.keyboard.press('Escape');
  const summary = page.getByRole('row', { name: 'Summary' });
  await expect(summary).toContainText(/median €/);
  await hand.click(/^Profit/, 'columnheader');
  await expect(page.getByRole('columnheader', { name: /^Profit/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  await expect(page.getByText('withheld').first()).toBeVisible();
  await page.getByRole('button', { name: /^Columns: \d+/ }).click();
  await page.getByLabel('Name of a column set').fill('Where revenue is withheld');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'Open the workspace with Where revenue is withheld' }).click();
  await expect(page.getByText('the workspace opens with it')).toBeVisible();
  // Another browser of the same workspace opens with it.
  const other = await (
    await page
      .context()
      .browser()!
      .newContext({ baseURL: baseOf('demo') })
  ).newPage();
  await other.goto('/desk');
  await expect(other.getByRole('columnheader', { name: /^Total assets/ })).toBeVisible();
  await other.context().close();
  await page.getByRole('button', { name: 'Remove Where revenue is withheld' }).click();
  await expect(page.getByText('the workspace opens with it')).toHaveCount(0);
});

test('J10: one company read and noted, its peers with reasons, and the next one with its place kept', async ({
  page,
}) => {
  const hand = await fresh(page);
  await hand.line(COATERS);
  const left = await hand.tally();
  await hand.key('Escape');
  await hand.key('Enter');
  await expect(page.getByText(`1 of ${left.toLocaleString('en-GB')}`)).toBeVisible();
  const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
  for (const part of ['Size', 'Codes', 'Technology', 'Reach', 'People', 'Events'])
    await expect(page.getByRole('heading', { name: new RegExp(`^${part}`) }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Against its industry/ })).toBeVisible();
  await hand.click('Note');
  await page.getByRole('textbox', { name: 'Note' }).fill('Rings back in May.');
  await hand.key('Control+Enter');
  await expect(page.getByRole('button', { name: /Rings back in May/ })).toBeVisible();
  await hand.key('j');
  await expect(page.getByText(`2 of ${left.toLocaleString('en-GB')}`)).toBeVisible();
  await hand.key('k');
  await expect(page.getByRole('button', { name: /Rings back in May/ })).toBeVisible();
  const pdf = await hand.download(() => hand.click('Print'));
  const text = textOf(pdf, 'test-results/profile.pdf');
  for (const part of [name, 'Rings back in May.', 'Codes', 'Where it is from']) expect(text).toContain(part);
  await hand.click('Its peers');
  await expect(page.getByRole('columnheader', { name: 'Alike', exact: true })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  await expect(page.locator('[data-line]')).toContainText(`of ${name}, alike 0.5 or more`);
  await expect(page.getByRole('row').nth(1)).toContainText(/same code/);
  expect(hand.acts).toBeLessThanOrEqual(13);
  // What counts how much is the user's to say, and the counts follow.
  const before = await hand.tally();
  await page.locator('[data-line]').first().click();
  await page.getByRole('slider', { name: 'codes' }).fill('0');
  await expect(page.locator('[data-tally]')).not.toHaveAttribute('data-tally', String(before));
});

test('J12: one company qualified by its revenue by month, and J14: premises in town on the map', async ({
  page,
}) => {
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape([]),
    columns: ['name'],
    limit: 200,
  });
  let shown = false;
  for (const { key } of rows) {
    const { records, from } = (await (await page.request.get(`/api/companies/${key}`)).json()) as {
      records: { id: number; record: { revenueMonths: { start: string; values: number[] } | null } }[];
      from: { revenueMonths?: number };
    };
    const months = records.find(({ id }) => id === from.revenueMonths)?.record.revenueMonths;
    if (!months) continue;
    await page.goto(`/desk?company=${key}`);
    await expect(page.getByText(/Revenue by month.*strongest in \w+/)).toBeVisible();
    await expect(
      page.getByRole('img', { name: new RegExp(`^Revenue by month from ${months.start}`) }),
    ).toBeVisible();
    shown = true;
    break;
  }
  expect(shown).toBe(true);

  // Its brands: products over time, and who resells them with consent and who without.
  const owners = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape([{ id: 'b', field: 'brands-owned', test: { from: 1 } }]),
    columns: ['name'],
    limit: 1,
  });
  const owned = await ask<RowsAnswer>(page, '/api/rows', {
    tape: {
      ...tape([
        {
          id: 'c',
          has: 'company',
          as: 'owner',
          lines: [{ id: 'k', field: 'company', test: { any: [owners.rows[0]!.key] } }],
        },
      ]),
      subject: 'brands',
    },
    sort: [{ by: 'products', descending: true }],
    columns: ['name'],
    limit: 1,
  });
  const brand = owned.rows[0]!;
  const record = (await (await page.request.get(`/api/records/brands/${brand.key}`)).json()) as {
    products: { year: number; value: number }[];
    parties: { role: string; name: string }[];
  };
  await page.goto(`/desk?company=${owners.rows[0]!.key}`);
  const detail = page
    .locator('section section')
    .filter({ has: page.getByRole('heading', { level: 3, name: brand.cells.name as string }) });
  const { year, value } = record.products[0]!;
  await expect(detail.getByRole('img', { name: `Products by year: ${year} ${value}` })).toBeVisible();
  for (const [role, label] of [
    ['consented', 'Resold with consent by'],
    ['unconsented', 'without consent by'],
  ] as const) {
    const count = record.parties.filter((party) => party.role === role).length;
    await expect(detail).toContainText(new RegExp(`${label} ${count || 'nobody recorded'}`));
  }

  const hand = await fresh(page);
  await hand.click(/Counts companies/);
  await hand.click('All sites', 'menuitem');
  await hand.line('in Wien');
  const left = await hand.tally();
  await hand.key('Escape');
  await hand.key('3');
  await expect(page.getByText(`${left.toLocaleString('en-GB')} with a place`)).toBeVisible();
  await hand.click('Keep the view');
  await expect(page.locator('[data-line]')).toHaveCount(2);
  expect(hand.acts).toBeLessThanOrEqual(7);
  expect(await hand.tally()).toBe(left);
});

test('a company’s people by department and level: a number is the way to just those', async ({ page }) => {
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape([{ id: 'p', has: 'people', count: { from: 8 }, lines: [] }]),
    columns: ['name'],
    limit: 1,
  });
  await page.goto(`/desk?company=${rows[0]!.key}`);
  const cell = page
    .getByRole('table', { name: 'People by department and level' })
    .getByRole('button')
    .first();
  const count = Number(await cell.textContent());
  await cell.click();
  await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(count));
  await expect(page.locator('[data-row]')).toHaveCount(count);
});

test('a chart of one’s own is kept on the tape, and saved as SVG and as numbers', async ({ page }) => {
  const hand = await fresh(page);
  await hand.line('nace 25');
  await hand.key('Escape');
  await hand.key('2');
  await expect(page.locator('[data-chart=where]')).toBeVisible();
  await hand.key('c');
  const dialog = page.getByRole('dialog', { name: 'New chart' });
  await dialog.getByLabel('Drawn as').selectOption('stacked');
  await dialog.getByLabel('By', { exact: true }).selectOption('place');
  await dialog.getByLabel('Split by').selectOption('ownership');
  await dialog.getByRole('button', { name: 'Keep it on the tape' }).click();
  const name = 'Companies by region, by ownership';
  const panel = page.getByRole('region', { name });
  await expect(panel).toBeVisible();
  await panel.getByRole('button', { name: `Download ${name}` }).click();
  const svg = (
    await hand.download(() => page.getByRole('button', { name: 'Drawing (SVG)' }).click())
  ).toString();
  const parsed = await page.evaluate((text) => {
    const root = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
    return {
      name: root.nodeName,
      wrong: root.querySelector('parsererror') !== null,
      texts: [...root.querySelectorAll('text')].map((one) => one.textContent),
    };
  }, svg);
  expect([parsed.name, parsed.wrong]).toEqual(['svg', false]);
  expect(parsed.texts).toContain('Bavaria');
  // The menu closes with a choice made in it or not; it is opened anew for the next file.
  if (!(await page.getByRole('button', { name: 'Numbers (CSV)' }).isVisible()))
    await panel.getByRole('button', { name: `Download ${name}` }).click();
  const csv = parse<Record<string, string>>(
    await hand.download(() => page.getByRole('button', { name: 'Numbers (CSV)' }).click()),
    { columns: true },
  );
  const lines = [{ id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['25'] } }];
  const chart = {
    id: 'c',
    shape: 'stacked',
    by: { field: 'place', level: 'region' },
    split: { field: 'ownership' },
    measure: { of: 'count' },
  };
  const { charts } = await ask<{ charts: ChartAnswer[] }>(page, '/api/charts', {
    tape: tape(lines),
    charts: [chart],
  });
  const counted = charts[0]!.slots.filter(({ count }) => count > 0);
  expect(csv.map((row) => Number(row.companies))).toEqual(counted.map(({ count }) => count));
  await page.reload();
  await expect(panel).toBeVisible();
  await page.keyboard.press('Control+z');
});

test('the sheet finds within itself, makes values lines, and copies rows as a table', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const hand = await fresh(page);
  await hand.line(COATERS);
  const left = await hand.tally();
  await hand.key('Escape');
  await hand.key('f');
  await page.getByRole('textbox', { name: 'Find a name among these companies' }).fill('lackwerk');
  await expect(page.getByRole('status').filter({ hasText: /^1 of \d+$/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Home');
  await page.keyboard.press('Space');
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await page.keyboard.press('Control+c');
  await expect(page.getByText('2 rows copied as a table')).toBeVisible();
  const copied = (await page.evaluate(() => navigator.clipboard.readText()))
    .split('\r\n')
    .map((line) => line.split('\t'));
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape(COATER_LINES),
    columns: ['name'],
    limit: 2,
  });
  expect(copied[0]![0]).toBe('Company');
  expect(copied.slice(1).map(([name]) => name)).toEqual(rows.map(({ cells }) => cells.name));
  await page
    .getByRole('gridcell')
    .filter({ hasText: /^25\.51/ })
    .first()
    .getByRole('button')
    .click();
  await page.getByRole('button', { name: 'keep', exact: true }).first().click();
  await expect(page.locator('[data-line]')).toHaveCount(3);
  await expect(page.locator('[data-line]').nth(2)).toContainText('main only');
  expect(await hand.tally()).toBeLessThanOrEqual(left);
});

test('axe finds nothing on Breakdown, a chart, the map, a page and peers, by day and by night', async ({
  page,
}) => {
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', {
    tape: tape(COATER_LINES),
    columns: ['name'],
    limit: 1,
  });
  test.setTimeout(360_000);
  await page.goto('/desk?view=breakdown');
  await expect(page.locator('[data-chart=where]')).toBeVisible();
  await axeFindsNothing(page, 'Breakdown');
  await page.keyboard.press('c');
  await page.getByRole('dialog', { name: 'New chart' }).waitFor();
  await axeFindsNothing(page, 'a chart of one’s own');
  await page.goto('/desk?view=map');
  await expect(page.getByText(/with a place/)).toBeVisible();
  await axeFindsNothing(page, 'map');
  await page.goto(`/desk?company=${rows[0]!.key}`);
  await page.getByRole('heading', { name: /^Against its industry/ }).waitFor();
  await axeFindsNothing(page, 'page of a company');
  await page.getByRole('button', { name: 'Its peers' }).click();
  await expect(page.locator('[data-line]')).toHaveCount(1);
  await page.locator('[data-line]').first().click();
  await expect(page.getByRole('heading', { name: 'The most alike' })).toBeVisible();
  await axeFindsNothing(page, 'peers');
});
