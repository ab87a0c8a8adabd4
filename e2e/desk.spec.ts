import { expect, test, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { axeFindsNothing } from './axe.ts';
import { Hand, tallyOf } from './hand.ts';
import { folderOf } from './ports.ts';

const LINES =
  'must nace 16.23 16.25 25.51; in Czechia, Poland, Austria, Germany; headcount 20-249; keep unknown revenue 2m-40m eur with estimates';

async function desk(page: Page, lines = LINES): Promise<Hand> {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line(lines);
  await hand.tally();
  await page.keyboard.press('Escape');
  return hand;
}

test('every state has an address: back, reload and a second tab find it again', async ({ page, context }) => {
  const hand = await desk(page);
  const left = await hand.tally();
  await page
    .getByRole('columnheader', { name: /Revenue/ })
    .getByRole('button')
    .click();
  await page.locator('[data-row]').nth(2).getByRole('link').click();
  const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
  await expect(page).toHaveURL(/company=/);
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByRole('heading', { level: 1 })).toHaveText(name);
  await expect(second.locator('[data-line]')).toHaveCount(4);
  await page.goBack();
  await expect(page.locator('[data-row]').nth(2)).toContainText(name);
  expect(await hand.tally()).toBe(left);
  await expect(page.getByRole('columnheader', { name: /Revenue/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
});

test('a tape too long for an address is stored, and found again by its id', async ({ page, context }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  const towns = Array.from({ length: 160 }, (_, i) => `"Town number ${i}, CZ-64"`).join(', ');
  await hand.line(`in ${towns}, Czechia; headcount 20+`);
  const left = await hand.tally();
  await expect(page).toHaveURL(/t=%7E|t=~/);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.locator('[data-line]')).toHaveCount(2);
  await expect(second.locator('[data-tally]')).toHaveAttribute('data-tally', String(left));
});

test('lines are parked, turned, moved, taken off and brought back by keys', async ({ page }) => {
  const hand = await desk(page);
  const left = await hand.tally();
  const figures = () => page.locator('[data-tally]');
  await page.keyboard.press(']');
  await page.keyboard.press(']');
  await page.keyboard.press('p');
  await expect(page.locator('[data-line]').nth(1)).toContainText('parked');
  await expect(figures()).not.toHaveAttribute('data-tally', String(left));
  await page.keyboard.press('p');
  await expect(figures()).toHaveAttribute('data-tally', String(left));
  await page.keyboard.press('n');
  await expect(page.locator('[data-line]').nth(1)).toContainText('not Place');
  await page.keyboard.press('Control+z');
  await expect(figures()).toHaveAttribute('data-tally', String(left));
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.locator('[data-line]').first()).toContainText('Place');
  await expect(figures()).toHaveAttribute('data-tally', String(left));
  await page.keyboard.press('Delete');
  await expect(page.locator('[data-line]')).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('[data-line]').first()).toContainText('Place');
  await page.keyboard.press('o');
  await expect(page.getByRole('heading', { name: 'Place' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid')).toBeVisible();
});

test('rows are picked one by one, in a range and all at once, whatever their number', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  const all = await hand.tally();
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await page
    .locator('[data-row]')
    .nth(6)
    .getByRole('checkbox')
    .click({ modifiers: ['Shift'] });
  await expect(page.getByText('6 picked')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Control+a');
  await expect(page.getByText(`${all.toLocaleString('en-GB')} picked`)).toBeVisible();
  await page.locator('[data-row]').nth(3).getByRole('checkbox').click();
  await expect(page.getByText(`${(all - 1).toLocaleString('en-GB')} picked`)).toBeVisible();
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('End');
  await expect(page.getByText(`of ${all.toLocaleString('en-GB')}`)).toContainText(
    `to ${all.toLocaleString('en-GB')}`,
  );
});

test('pickers change the line and the count follows the hand', async ({ page }) => {
  const hand = await desk(page, 'headcount 20-249');
  const before = await hand.tally();
  await page.locator('[data-line]').click();
  await page.getByRole('button', { name: 'micro 0–9' }).click();
  await expect(page.locator('[data-line]')).toContainText('0 to 9');
  const micro = await tallyOf(page, [{ id: 'a', field: 'headcount', test: { from: 0, to: 9 } }]);
  expect(micro).not.toBe(before);
  expect(await hand.tally()).toBe(micro);
  await page.getByLabel('from').fill('50');
  await expect(page.getByRole('alert')).toContainText('reversed');
  await expect(page.locator('[data-line]')).toContainText('0 to 9');
  await page.getByLabel('to', { exact: true }).fill('99');
  await expect(page.locator('[data-line]')).toContainText('50 to 99');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Pick a condition' }).click();
  await page.getByRole('menuitem', { name: /Industry/ }).click();
  await page.getByLabel('Search codes').fill('joineries');
  await page.getByRole('checkbox', { name: /^16\.23 / }).click();
  await expect(page.locator('[data-line]').nth(1)).toContainText('16.23');
  await page.getByLabel('Search codes').fill('');
  await page.getByRole('checkbox', { name: /^16\.2 / }).click();
  await page.getByRole('checkbox', { name: /^16\.25 / }).click();
  await expect(page.locator('[data-line]').nth(1)).toContainText(
    '16.2 products of wood, cork, straw and plaiting materials except 16.25',
  );
  await page.getByRole('button', { name: /Done/ }).click();

  await hand.line('near Brno 60 km');
  await page.locator('[data-line]').nth(2).click();
  await page.getByLabel('Radius in km').fill('200');
  await expect(page.locator('[data-line]').nth(2)).toContainText('within 200 km of Brno');
});

test('a tape is saved as a file and opened again; a broken one is refused by name', async ({ page }) => {
  const hand = await desk(page);
  const left = await hand.tally();
  await page.getByRole('button', { name: 'More for the tape' }).click();
  const file = await hand.download(() => page.getByRole('menuitem', { name: 'Save as a tape file' }).click());
  expect(JSON.parse(file.toString())).toMatchObject({
    format: 'just-tally.tape',
    version: 1,
    subject: 'companies',
    lines: [{ must: true }, {}, {}, { unknown: 'keep', estimates: true }],
  });
  await page.getByRole('button', { name: 'More for the tape' }).click();
  await page.getByRole('menuitem', { name: 'New tape' }).click();
  await expect(page.locator('[data-line]')).toHaveCount(0);
  await page
    .getByLabel('Tape file')
    .setInputFiles({ name: 'mine.tape.json', mimeType: 'application/json', buffer: file });
  await expect(page.locator('[data-line]')).toHaveCount(4);
  expect(await hand.tally()).toBe(left);
  const broken = file.toString().replace('"headcount"', '"mood"');
  await page
    .getByLabel('Tape file')
    .setInputFiles({ name: 'broken.tape.json', mimeType: 'application/json', buffer: Buffer.from(broken) });
  await expect(page.getByText('There is no condition on "mood".')).toBeVisible();
  await expect(page.locator('[data-line]')).toHaveCount(4);
});

test('the count is shown as SQL for three databases; that for SQLite, copied, gives the tally', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const hand = await desk(page);
  const left = await hand.tally();
  await hand.click('More for the tape');
  await hand.click('This count as SQL', 'menuitem');
  for (const [database, sign] of [
    ['PostgreSQL', 'c.headcount_low'],
    ['DuckDB', 'c.revenue_point'],
    ['SQLite', 'company_code'],
  ] as const) {
    await hand.click(database, 'radio');
    await expect(page.getByLabel('Statement')).toContainText(sign);
  }
  await hand.click('Copy');
  const statement = await page.evaluate(() => navigator.clipboard.readText());
  const db = new Database(`${folderOf('demo')}/universe.sqlite`, { readonly: true });
  expect(db.prepare(statement).all()).toHaveLength(left);
  db.close();
});

test('an export is listed with its tape and had again', async ({ page }, { retry }) => {
  const name = `Coaters ${retry}`;
  const hand = await desk(page, 'in Czechia; nace 25.51');
  const left = await hand.goesOut();
  await page.keyboard.press('x');
  await page.getByLabel('Name of the export').fill(name);
  await hand.download(() => page.getByRole('button', { name: /^Export \d/ }).click());
  await page.getByRole('button', { name: 'Close' }).first().click();
  await page.getByRole('link', { name: 'Exports' }).click();
  const row = page.getByRole('row', { name });
  await expect(row).toContainText('Place in Czechia');
  await expect(row).toContainText(String(left));
  const again = await hand.download(() => row.getByRole('link', { name: /XLSX/ }).click());
  expect(again.subarray(0, 2).toString()).toBe('PK');
  await row.getByRole('button', { name }).click();
  const roll = page.getByRole('complementary', { name });
  await roll.getByRole('link', { name: 'Open the tape' }).click();
  await expect(page.locator('[data-line]')).toHaveCount(2);
  await page.goto('/exports');
  await row.getByRole('button', { name }).click();
  await roll.getByRole('button', { name: 'Remove' }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(row).toHaveCount(1);
});

test('zero results say what to do; a narrow window folds the tape to its tally', async ({ page }) => {
  await desk(page, 'founded 2020+; founded up to 1900');
  await expect(page.getByText('Nobody is left')).toBeVisible();
  await page.setViewportSize({ width: 900, height: 800 });
  await expect(page.getByRole('button', { name: 'Open the tape' })).toBeVisible();
  await page.getByRole('button', { name: 'Open the tape' }).click();
  await expect(page.locator('[data-line]')).toHaveCount(2);
});

test('the typed entry says what it understood and what it expected', async ({ page }) => {
  await page.goto('/desk');
  await page.locator('[data-entry]').fill('headcount fifty');
  await page.locator('[data-entry]').press('Enter');
  await expect(page.getByRole('alert')).toHaveText(
    'Understood “headcount”; then came “fifty”. Expected a range such as 20-249, 50+ or up to 9.',
  );
  await expect(page.locator('[data-entry]')).toHaveValue('headcount fifty');
});

test('axe finds nothing on any view, by day and by night', async ({ page }) => {
  test.setTimeout(240_000);
  await desk(page);
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await axeFindsNothing(page, 'sheet');
  for (const line of [0, 1, 2, 3]) {
    await page.locator('[data-line]').nth(line).click();
    await expect(page.getByRole('button', { name: /Done/ })).toBeVisible();
    await axeFindsNothing(page, `picker ${line}`);
  }
  await page.keyboard.press('Escape');
  await page.locator('[data-row] a').first().click();
  await expect(page.getByRole('heading', { name: 'What each source says' })).toBeVisible();
  await axeFindsNothing(page, 'profile');
  await page.keyboard.press('x');
  await expect(page.getByRole('dialog')).toBeVisible();
  await axeFindsNothing(page, 'export');
  for (const place of ['exports', 'sources', 'settings', 'sources?load']) {
    await page.goto(`/${place}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await axeFindsNothing(page, place);
  }
});
