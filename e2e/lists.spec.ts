import { expect, test, type Page } from '@playwright/test';
import ExcelJS from 'exceljs';
import type { ListsAnswer, ListView } from '../contract/lists.ts';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, WAYS } from './hand.ts';

/** Lists as a user makes, judges, checks, combines and keeps them off. */

const listNamed = async (page: Page, name: string): Promise<ListView> => {
  const { lists } = (await (await page.request.get('/api/lists')).json()) as ListsAnswer;
  return lists.find((list) => list.name === name)!;
};

/** Puts all of a tape on a new list by keys; waits until it is there. */
async function toNewList(hand: Hand, name: string): Promise<void> {
  await hand.key('s');
  await expect(hand.page.getByLabel('A new list named')).toBeFocused();
  await hand.page.keyboard.type(name);
  await hand.key('Enter');
  await expect(hand.page.getByRole('dialog')).toHaveCount(0);
}

async function openList(page: Page, name: string): Promise<void> {
  await page.goto('/lists');
  await page.getByRole('button', { name, exact: true }).first().click();
  await expect(page.locator('[data-row] a').first()).toBeVisible();
}

for (const by of WAYS)
  test(`J2, by ${by}: overlapping searches poured into one list, each member once with all of its origins`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    const name = `Poured by ${by}`;
    await page.goto('/desk');
    await hand.line('nace 16.23; in Czechia');
    const first = await hand.tally();
    await page.keyboard.press('Escape');
    await toNewList(hand, name);
    await page.goto('/desk');
    await hand.line('in Czechia; nace 16; headcount 5+');
    const second = await hand.tally();
    await page.keyboard.press('Escape');
    await hand.key('s');
    const row = page.getByRole('dialog').getByRole('row', { name: new RegExp(`^${name}`) });
    await expect(row.getByRole('cell').nth(2)).not.toHaveText('…');
    const there = Number((await row.getByRole('cell').nth(2).textContent())!.replace(/\D/g, ''));
    expect(there).toBeGreaterThan(0);
    await hand.press(row.getByRole('button'));
    await expect(page.getByRole('dialog')).toHaveCount(0);
    const list = await listNamed(page, name);
    expect(list.members).toBe(first + second - there);
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await listNamed(page, name)).members).toBe(first);
    await page.keyboard.press('Control+Shift+z');
    await expect.poll(async () => (await listNamed(page, name)).members).toBe(first + second - there);
    await page.goto('/lists');
    await page
      .getByRole('row', { name: new RegExp(name) })
      .getByText('companies')
      .click();
    const roll = page.getByRole('complementary', { name });
    await expect(roll.getByText('of these already there')).toBeVisible();
    await roll.getByRole('button', { name: new RegExp(`^−${there}$`) }).click();
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(there));
  });

for (const by of WAYS)
  test(`J2 in its acts, by ${by}: three searches poured into one list, where each member knows its own`, async ({
    page,
  }, { retry }) => {
    const hand = new Hand(page, by);
    const name = `Three by ${by} ${retry}`;
    const searches = ['nace 16.23; in Czechia', 'nace 16; in Czechia; headcount 5+', 'nace 31; in Czechia'];
    const found: number[] = [];
    for (const [i, search] of searches.entries()) {
      // As from a bookmark of an empty tape.
      await page.goto('/desk');
      await hand.line(search);
      found.push(await hand.tally());
      await page.keyboard.press('Escape');
      if (i === 0) await toNewList(hand, name);
      else {
        await hand.key('Shift+S');
        await expect(page.getByText(new RegExp(`put on ${name}`)).last()).toBeVisible();
      }
    }
    // A line and a key for each search, and the name of the list once.
    expect(hand.acts).toBeLessThanOrEqual(7);
    const list = await listNamed(page, name);
    expect(list.members).toBeGreaterThan(Math.max(...found));
    expect(list.members).toBeLessThan(found.reduce((sum, one) => sum + one, 0));
    const rows = await ask<{ rows: { key: string; cells: Record<string, string> }[] }>(page, '/api/rows', {
      tape: {
        ...{ format: 'just-tally.tape', version: 1, subject: 'companies' },
        lines: [{ id: 'l1', field: 'list', test: { any: [list.key] } }],
      },
      columns: ['member:origins:l1'],
      sort: [],
      offset: 0,
      limit: 500,
    });
    expect(new Set(rows.rows.map(({ key }) => key)).size).toBe(Math.min(500, list.members));
    const origins = rows.rows.map(({ cells }) => cells['member:origins:l1']!.split('; ').length);
    expect(Math.max(...origins)).toBeGreaterThan(1);
  });

for (const by of WAYS)
  test(`J13, by ${by}: customers apart, whom we know as a column, a firm opened and the list where it was, its file`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto('/desk');
    await hand.line('in Germany; headcount 20-249; not on list our-customers');
    const left = await hand.goesOut();
    await page.keyboard.press('Escape');
    if (by === 'keys') for (let i = 0; i < 4; i++) await page.keyboard.press('PageDown');
    else await page.getByRole('grid').evaluate((grid) => grid.scrollTo({ top: 38 * 40 }));
    const row = by === 'keys' ? page.locator('[aria-rowindex="50"]') : page.locator('[aria-rowindex="46"]');
    await expect(row).toHaveAttribute('data-row', /./);
    const key = (await row.getAttribute('data-row'))!;
    const top = await page.getByRole('grid').evaluate((grid) => grid.scrollTop);
    if (by === 'keys') await hand.key('Enter');
    else await hand.press(row.locator('a').first());
    await expect(page.getByRole('heading', { name: 'What each source says' })).toBeVisible();
    await hand.key('Escape');
    await expect(page.locator(`[data-row="${key}"]`)).toBeInViewport();
    expect(await page.getByRole('grid').evaluate((grid) => grid.scrollTop)).toBe(top);
    // The same field is a column of the sheet, and of the file that is made of it.
    await hand.click(/^Columns/);
    await hand.press(page.getByRole('checkbox', { name: 'Whom we know' }), 'Tab', 'Space');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('columnheader', { name: /Whom we know/ })).toBeVisible();
    await page.keyboard.press('x');
    const start = page.getByRole('button', { name: /^Export [\d,]+$/ });
    await expect(start).toBeFocused();
    const file = await hand.download(() => hand.press(start));
    expect(hand.acts).toBeLessThanOrEqual(6);
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(file.buffer as ArrayBuffer);
    const sheet = book.getWorksheet('Companies')!;
    expect(sheet.rowCount).toBe(left + 1);
    const heads = (sheet.getRow(1).values as string[]).slice(1);
    expect(heads).toContain('Whom we know');
    const known = sheet.getColumn(heads.indexOf('Whom we know') + 1).values.slice(2);
    expect(new Set(known)).toEqual(new Set(['yes', 'no']));
  });

test('a list is gone through by keys, a verdict taken back, narrowed to those in, and exported without customers', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 25.51 16.25; in Czechia; headcount 20+');
  await page.keyboard.press('Escape');
  await toNewList(hand, 'Gone through');
  await openList(page, 'Gone through');
  await page.keyboard.press('Enter');
  const heading = page.getByRole('heading', { level: 1 });
  const bar = page.getByRole('region', { name: 'Verdict on Gone through' });
  await expect(bar).toBeVisible();
  const judge = async (key: string) => {
    const before = await heading.textContent();
    await page.keyboard.press(key);
    await expect(heading).not.toHaveText(before!);
    await expect(bar).toBeVisible();
    return before!;
  };
  await judge('+');
  const small = await judge('-');
  await page.keyboard.press('2');
  await expect(bar.getByRole('button', { pressed: true })).toHaveCount(1);
  await judge('+');
  const unsure = await judge('0');
  await page.keyboard.press('Control+z');
  await expect(heading).toHaveText(unsure);
  await expect.poll(async () => (await listNamed(page, 'Gone through')).judgedIn).toBe(2);
  const list = await listNamed(page, 'Gone through');
  expect([list.judgedIn, list.judgedOut, list.unsure]).toEqual([2, 1, 0]);
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-row]').filter({ hasText: small })).toContainText('out');
  await page
    .getByRole('region', { name: 'Reviewing' })
    .getByRole('button', { name: '2', exact: true })
    .first()
    .click();
  await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', '2');
  await page.goto('/desk');
  await hand.line('nace 25.51 16.25; in Czechia; headcount 20+');
  const left = await hand.tally();
  const kept = page.getByText(/of these (?:is|are) kept off exports/);
  await expect(kept).toBeVisible();
  const off = Number((await kept.textContent())!.replace(/\D/g, ''));
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByRole('radio', { name: 'CSV' }).click();
  await expect(page.getByRole('complementary', { name: 'What goes out' })).toContainText('Our customers');
  const file = await hand.download(() =>
    page.getByRole('button', { name: new RegExp(`^Export ${left - off}$`) }).click(),
  );
  const rows = file.toString('utf8').trim().split('\r\n');
  expect(rows).toHaveLength(1 + left - off);
});

test('two windows judging one list: the later is told of the earlier, and both stay in the history', async ({
  page,
  context,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 31; in Austria; headcount 50+');
  await page.keyboard.press('Escape');
  await toNewList(hand, 'Judged twice');
  await openList(page, 'Judged twice');
  await page.keyboard.press('Enter');
  const other = await context.newPage();
  await expect(page.getByRole('region', { name: 'Verdict on Judged twice' })).toBeVisible();
  await other.goto(page.url());
  await expect(other.getByRole('region', { name: 'Verdict on Judged twice' })).toBeVisible();
  const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
  await page.keyboard.press('+');
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(name);
  await other.keyboard.press('-');
  await expect(other.getByText(`had judged ${name} in meanwhile`)).toBeVisible();
  const list = await listNamed(page, 'Judged twice');
  expect([list.judgedIn, list.judgedOut]).toEqual([0, 1]);
});

test('lists are combined, counted before; removed and had back', async ({ page }) => {
  await page.goto('/lists');
  await page.getByLabel('Pick Targets, autumn').check();
  await page.getByLabel('Pick Open-day visitors').check();
  await page.keyboard.press('c');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'in both' }).click();
  const make = dialog.getByRole('button', { name: /^Make it of \d/ });
  const count = Number((await make.textContent())!.replace(/\D/g, ''));
  await dialog.getByLabel('A new list named').fill('On both');
  await make.click();
  await expect(dialog).toHaveCount(0);
  expect((await listNamed(page, 'On both')).members).toBe(count);
  await page.getByRole('button', { name: 'More for On both' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await expect(page.getByRole('row', { name: /On both/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /On both/ })).toBeVisible();
});

test('a spot check is drawn, judged by keys, taken back, and there again after a reload', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 31; in Poland, Germany');
  await hand.tally();
  await page.keyboard.press('Escape');
  await page.keyboard.press('4');
  await page.getByLabel('Seed').fill('7');
  await page.getByRole('button', { name: 'Draw 60' }).click();
  for (let i = 1; i <= 12; i++) {
    await expect(page.getByText(new RegExp(`^number ${i} of 60`))).toBeVisible();
    await page.keyboard.press(i % 4 === 0 ? '-' : '+');
  }
  await expect(page.getByLabel('75 % fit')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('82 % fit')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/^number 12 of 60/)).toBeVisible();
  await page.getByRole('button', { name: 'Draw 20 more' }).click();
  await expect(page.getByText(/^number 12 of 80/)).toBeVisible();
});

test('about a number: lines are turned to come near it, counted exactly', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('must nace 25; in Germany; headcount 20-249');
  const target = Math.round((await hand.tally()) / 2);
  await page.getByRole('button', { name: 'about how many, please?' }).click();
  await page.getByLabel('About how many companies').fill(String(target));
  const way = page.getByRole('list', { name: 'Ways' }).getByRole('button').first();
  await expect(way).toBeVisible();
  const count = Number((await way.locator('.figure').first().textContent())!.replace(/\D/g, ''));
  expect(Math.abs(count - target)).toBeLessThan(0.4 * target);
  await way.click();
  await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(count));
});

test('axe finds nothing on lists, a review and a spot check, by day and by night', async ({ page }) => {
  await page.goto('/lists');
  await page
    .getByRole('row', { name: /Targets, autumn/ })
    .getByText('Ilona')
    .click();
  await expect(page.getByText('already there')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Lists that share its members' })).toBeVisible();
  await axeFindsNothing(page, 'the lists');
  await openList(page, 'Targets, autumn');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: /^Verdict on/ })).toBeVisible();
  await page.keyboard.press('-');
  await expect(page.getByText('out because')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Taken back: /)).toBeVisible();
  await axeFindsNothing(page, 'a review');
  await page.goto('/desk');
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await page.keyboard.press('4');
  await page.getByRole('button', { name: /^Draw \d/ }).click();
  await expect(page.getByRole('heading', { name: 'Does it fit?' })).toBeVisible();
  await page.keyboard.press('+');
  await expect(page.getByText(/^number 2 of/)).toBeVisible();
  await axeFindsNothing(page, 'a spot check');
});

test('the people of a list are put on another in one act', async ({ page }) => {
  const people = await ask<{ list: ListView }>(page, '/api/lists', {
    name: 'Their people',
    subject: 'people',
  });
  const list = await listNamed(page, 'Our customers');
  const tape = {
    format: 'just-tally.tape',
    version: 1,
    subject: 'companies',
    lines: [{ id: 'l', field: 'list', test: { any: [list.key] } }],
  };
  await openList(page, 'Our customers');
  await page.keyboard.press('s');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'their people' }).click();
  await dialog.getByRole('button', { name: /^Their people/ }).click();
  await expect(dialog).toHaveCount(0);
  const had = await listNamed(page, 'Their people');
  const before = await ask<{ count: number }>(page, `/api/lists/before?subject=people`, { tape });
  expect([people.list.subject, had.members]).toEqual(['people', before.count]);
  expect(had.members).toBeGreaterThan(0);
});
