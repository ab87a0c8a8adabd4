import { expect, test } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import { ask, Hand } from './hand.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import { baseOf } from './ports.ts';

test('J1 again, by keys alone', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await hand.key('/');
  hand.acts++;
  await page.keyboard.type('nace 16.23; near Brno 40 km; checked past 24 months; headcount 0-9 keep unknown');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-line]')).toHaveCount(4);
  const left = await hand.tally();
  await hand.key('Escape');
  await hand.key('x');
  await expect(page.getByRole('button', { name: /^Export [\d,]+$/ })).toBeFocused();
  await page.getByRole('radio', { name: 'Names and addresses' }).focus();
  await hand.key('Space');
  const start = page.getByRole('button', { name: /^Export [\d,]+$/ });
  await start.focus();
  await expect(start).toBeFocused();
  const file = await hand.download(() => hand.key('Enter'));
  expect(hand.acts).toBeLessThanOrEqual(11);
  const [head, ...rows] = parse(file, { bom: true });
  expect(head!.slice(-2)).toEqual(['Address line 6', 'Address line 7']);
  expect(rows.length).toBeGreaterThan(left / 2);
  expect(rows.length).toBeLessThanOrEqual(left);
});

test('columns are added, taken out, moved, widened and sorted, and kept for the next time', async ({
  page,
}) => {
  await page.goto('/desk');
  const heads = () => page.getByRole('columnheader').allInnerTexts();
  const named = async () =>
    (await heads()).map((text) => text.trim()).filter((text) => text !== 'Picked' && text !== '');
  await expect
    .poll(named)
    .toEqual(['Company', 'Main industry', 'Headcount', 'Revenue, €k', 'Last checked', 'Web']);
  await page.getByRole('button', { name: /^Columns/ }).click();
  await page.getByRole('checkbox', { name: 'Web', exact: true }).uncheck();
  await page.getByRole('checkbox', { name: 'Founded' }).check();
  await page.getByRole('button', { name: 'Founded further left' }).click();
  await page.keyboard.press('Escape');
  await expect
    .poll(named)
    .toEqual(['Company', 'Main industry', 'Headcount', 'Revenue, €k', 'Founded', 'Last checked']);
  const founded = page.getByRole('columnheader', { name: /Founded/ });
  const headcount = page.getByRole('columnheader', { name: /Headcount/ });
  const from = (await founded.boundingBox())!;
  const to = (await headcount.boundingBox())!;
  await page.mouse.move(from.x + 30, from.y + 15);
  await page.mouse.down();
  await page.mouse.move(to.x + 50, to.y + 15, { steps: 12 });
  await page.mouse.move(to.x + 30, to.y + 15, { steps: 4 });
  await page.mouse.up();
  await expect
    .poll(named)
    .toEqual(['Company', 'Main industry', 'Founded', 'Headcount', 'Revenue, €k', 'Last checked']);
  const edge = (await founded.boundingBox())!;
  await page.mouse.move(edge.x + edge.width - 3, edge.y + 15);
  await page.mouse.down();
  await page.mouse.move(edge.x + edge.width + 97, edge.y + 15, { steps: 8 });
  await page.mouse.up();
  expect((await founded.boundingBox())!.width).toBeGreaterThan(edge.width + 50);

  await headcount.getByRole('button').click();
  await expect(headcount).toHaveAttribute('aria-sort', 'descending');
  await founded.getByRole('button').click({ modifiers: ['Shift'] });
  await expect(page).toHaveURL(/sort=headcount-%2Cfounded-/);
  const wanted = await ask<RowsAnswer>(page, '/api/rows', {
    tape: { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] },
    columns: ['name'],
    sort: [
      { by: 'headcount', descending: true },
      { by: 'founded', descending: true },
    ],
    limit: 5,
    offset: 0,
  });
  for (const [i, row] of wanted.rows.entries())
    await expect(page.locator('[data-row]').nth(i)).toHaveAttribute('data-row', row.key);
  await page.reload();
  await expect
    .poll(named)
    .toEqual(
      ['Company', 'Main industry', 'Founded 2', 'Headcount 1', 'Revenue, €k', 'Last checked'].map(
        (text) => expect.stringContaining(text.split(' ')[0]!) as unknown as string,
      ),
    );
});

test('settings change what is shown, and the as-of date what is counted', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('checked past 12 months');
  const before = await hand.tally();
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByLabel('Currency').selectOption('CZK');
  await page.getByLabel('Numbers').selectOption('space');
  await page.getByLabel('Dates').selectOption('dotted');
  await page.getByLabel('Theme').selectOption('night');
  await page.getByLabel('As-of date').fill('2025-09-30');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved')).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await expect(page.getByText('as of 30.9.2025')).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Revenue, CZKk' })).toBeVisible();
  await expect(page.locator('[data-line]')).toContainText('2024-09-30 to 2025-09-30');
  await expect(page.locator('[data-tally]')).not.toHaveAttribute('data-tally', String(before));
  await page.request.put('/api/settings', {
    data: {
      currency: 'EUR',
      distance: 'km',
      numbers: 'comma',
      dates: 'words',
      theme: 'system',
      keys: true,
      asOf: '2026-09-30',
    },
  });
});

test('single keys can be turned off', async ({ page }) => {
  await page.goto('/settings');
  await page.getByLabel('on', { exact: true }).uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved')).toBeVisible();
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await expect(page.locator('[data-tally]')).toBeVisible();
  await page.keyboard.press('x');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await expect(
    page.getByPlaceholder('A company, a trade, a code, a place, a tape, a list, a command'),
  ).toBeVisible();
  await page.request.put('/api/settings', {
    data: {
      currency: 'EUR',
      distance: 'km',
      numbers: 'comma',
      dates: 'words',
      theme: 'system',
      keys: true,
      asOf: '2026-09-30',
    },
  });
});

test('the jump box finds a company by the beginning of its words, and a trade as a line', async ({
  page,
}) => {
  await page.goto('/desk');
  await page.locator('[data-row] a strong').first().waitFor();
  const name = (await page.locator('[data-row] a strong').first().textContent())!;
  await page.keyboard.press('Control+k');
  await page.keyboard.type(name.split(' ')[0]!.slice(0, 5).toLowerCase());
  await page
    .getByRole('option', { name: new RegExp(name.split(' ')[0]!) })
    .first()
    .click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(name.split(' ')[0]!);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('coating of metals');
  await page.getByRole('option', { name: /25\.51/ }).click();
  await expect(page.locator('[data-line]')).toContainText('25.51 coating of metals');
});

test('an export of all but some has all but those, by the shown columns', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('not on list our-customers; in Austria; nace 16.23');
  const left = await hand.tally();
  // Groups of customers are kept off too.
  const off = left - (await hand.goesOut());
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await page.keyboard.press('Control+a');
  const gone = (await page.locator('[data-row] a strong').nth(1).textContent())!;
  await page.locator('[data-row]').nth(1).getByRole('checkbox').click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Export/ }).click();
  await expect(page.getByRole('radio', { name: `the ${left - 1} picked` })).toHaveAttribute(
    'aria-checked',
    'true',
  );
  await page.getByRole('radio', { name: 'CSV' }).click();
  await page.getByLabel('Delimiter').selectOption(';');
  await page.getByLabel('byte order mark').uncheck();
  const start = page.getByRole('button', { name: /^Export \d/ });
  const out = Number((await start.textContent())!.replace(/\D/g, ''));
  expect([left - 1 - off, left - off]).toContain(out);
  const file = await hand.download(() => start.click());
  expect(file[0]).not.toBe(0xef);
  const rows = parse<Record<string, string>>(file, { delimiter: ';', columns: true });
  expect(rows).toHaveLength(out);
  expect(rows.filter((row) => row.Company === gone)).toHaveLength(0);
  expect(rows.every((row) => row['All industry codes']!.split('; ').includes('16.23'))).toBe(true);
});

test('lines are dragged, and their unknowns kept by a click', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('in Germany; headcount 20-249; nace 25.51');
  const before = await hand.tally();
  const grip = (name: string) => page.getByRole('button', { name: `Move ${name}` });
  const from = (await grip('Industry').boundingBox())!;
  const to = (await grip('Place').boundingBox())!;
  await page.mouse.move(from.x + 8, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(to.x + 8, to.y + 30, { steps: 10 });
  await page.mouse.move(to.x + 8, to.y, { steps: 5 });
  await page.mouse.up();
  await expect(page.locator('[data-line]').first()).toContainText('Industry');
  expect(await hand.tally()).toBe(before);
  await page
    .getByRole('button', { name: /unknown, left out/ })
    .last()
    .click();
  await expect(page.getByRole('button', { name: /unknown, kept/ })).toBeVisible();
  await expect(page.locator('[data-tally]')).not.toHaveAttribute('data-tally', String(before));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(before));
});

test('a source is removed and what only it had leaves', async ({ page }, { retry }) => {
  const name = `Two firms ${retry}`;
  const universe = async () =>
    ((await (await page.request.get(`${baseOf('empty')}/api/health`)).json()) as { universe: number })
      .universe;
  const before = await universe();
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: 'two.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,country,town\nOne,CZ,Brno\nTwo,PL,Kalisz\n'),
  });
  await page.getByLabel('Name of the source').fill(name);
  await page.getByRole('button', { name: 'Load it' }).click();
  const row = page.getByRole('row', { name });
  await expect(row).toContainText('CZ');
  await expect.poll(universe).toBe(before + 2);
  await row.getByRole('button', { name: `Remove ${name}` }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(row).toHaveCount(0);
  await expect.poll(universe).toBe(before);
});

test('a wrong file and a missing page say what to do', async ({ page }) => {
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: 'photo.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2]),
  });
  await expect(page.getByRole('alert')).toContainText('This is no table but a PNG picture');
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await page.goto('/desk?t=cut');
  await expect(page.getByRole('alert')).toContainText('it may have been cut');
  await page.goto('/desk?company=XX-1');
  await expect(page.getByRole('alert')).toContainText('There is no company "XX-1"');
});
