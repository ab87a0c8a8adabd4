import { expect, test, type Page } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import type { ListsAnswer } from '../contract/lists.ts';
import type { TitlesAnswer } from '../contract/people.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, tallyOf, WAYS } from './hand.ts';

/** From companies to the right person there: on a list, as a line and as columns; called, and with titles put right. */

const peopleOn = (page: Page, list: string, columns: string[]) =>
  ask<RowsAnswer>(page, '/api/rows', {
    tape: {
      format: 'just-tally.tape',
      version: 1,
      subject: 'people',
      lines: [{ id: 'a', field: 'list', test: { any: [list] } }],
    },
    columns,
    limit: 1000,
  });
const keyOf = async (page: Page, name: string) => {
  const { lists } = (await (await page.request.get('/api/lists')).json()) as ListsAnswer;
  return lists.find((list) => list.name === name)!.key;
};

for (const by of WAYS)
  test(`J18, by ${by}: any of several technologies, saved at once, checked by sample, then who owns or founded them`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    const name = `Stack by ${by}`;
    await page.goto('/desk');
    await hand.tally();
    // Each way its own tape: what was drawn of one is there again.
    const country = by === 'mouse' ? 'Germany' : 'Germany, Austria';
    await hand.line(`uses production-planning or paint-line-control; headcount 50-249; in ${country}`);
    const left = await hand.tally();
    await page.keyboard.press('Escape');
    await hand.key('s');
    await page.keyboard.type(name);
    await hand.key('Enter');
    await expect(page.getByText(`put on ${name}`)).toBeVisible();
    await hand.key('4');
    const size = page.getByLabel('How many', { exact: true });
    await size.fill('');
    await hand.enter(size, '4', 'Enter');
    for (let i = 1; i <= 4; i++) {
      await expect(page.getByText(new RegExp(`^number ${i} of 4`))).toBeVisible();
      await hand.key('+');
    }
    await expect(page.getByLabel('100 % fit')).toBeVisible();
    await hand.key('s');
    await hand.click('their people', 'radio');
    await hand.click(/^one a company/, 'radio');
    const whom = page.getByLabel('The right person');
    hand.acts++;
    if (by === 'mouse') await whom.selectOption({ label: 'Whoever runs the firm' });
    else {
      await hand.reach(whom);
      await page.keyboard.type('Whoever runs the firm');
    }
    await expect(whom).toHaveValue('runs-the-firm');
    await hand.enter(page.getByLabel('A new list named'), `Owners by ${by}`, 'Enter');
    await expect(page.getByText(`put on Owners by ${by}`)).toBeVisible();
    expect(hand.acts).toBeLessThanOrEqual(15);

    const { rows } = await peopleOn(page, await keyOf(page, `Owners by ${by}`), [
      'company',
      'level',
      'department',
    ]);
    const firms = rows.map(({ company }) => company);
    expect(new Set(firms).size).toBe(firms.length);
    for (const { cells } of rows)
      expect(
        ['owner', 'founder', 'director'].includes(cells.level as string),
        `${cells.department as string} ${cells.level as string}`,
      ).toBe(true);
    // Those on the list, and the companies where nobody is, are the companies saved before.
    const saved = await keyOf(page, name);
    const on = { id: 'a', field: 'list', test: { any: [saved] } };
    expect(await tallyOf(page, [on])).toBe(left);
    const held = ['owner', 'founder', 'director'].map((level, i) => ({
      ...{ id: `b${i}`, has: 'people' },
      lines: [{ id: `c${i}`, field: 'level', test: { any: [level] } }],
    }));
    expect(await tallyOf(page, [on, { id: 'b', either: held }])).toBe(firms.length);
  });

test('the right person is typed as a line, and goes out as columns', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.tally();
  await hand.line('nace 31; in Czechia; headcount 20+');
  const firms = await hand.tally();
  await hand.line('right person whoever runs production');
  const goes = await hand.goesOut();
  expect(await hand.tally()).toBeLessThanOrEqual(firms);
  await hand.click(/^Columns:/);
  const columns = page.getByRole('group', { name: 'The right person' });
  for (const part of ['Name', 'Mail', 'Mail certainty', 'Function'])
    await columns.getByLabel(part, { exact: true }).check();
  await page.keyboard.press('Escape');
  // In the order of a column whose name has commas, which a reload keeps.
  await page
    .getByRole('columnheader', { name: /^Mail certainty, production head/ })
    .getByRole('button')
    .first()
    .click();
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /^Mail certainty, production head/ })).toHaveAttribute(
    'aria-sort',
    /ending/,
  );
  await hand.click(/^Export/);
  await hand.click('CSV', 'radio');
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
  const rows = parse<Record<string, string>>(file, { columns: true, bom: true });
  expect(rows).toHaveLength(goes);
  const of = (part: string) => `${part} of production head, else production director, else owner`;
  for (const row of rows) {
    expect(row[of('Name')]).not.toBe('');
    expect(['production head', 'production director', 'owner']).toContain(row[of('Function')]);
  }
  const sure = rows
    .map((row) => row[of('Mail certainty')]!)
    .filter((one) => one !== '')
    .map(Number);
  expect(sure.length).toBeGreaterThan(0);
  expect(sure).toEqual([...sure].sort((a, b) => b - a));
});

test('a list is called by keys, and what came of it is a tag that a line asks for', async ({ page }) => {
  const key = await keyOf(page, 'Open-day visitors');
  await page.goto(`/lists/${key}/calls`);
  const rows = page.getByRole('table', { name: 'Calls' }).locator('tbody tr');
  await expect(rows.first()).toBeVisible();
  await page.keyboard.press('1');
  await expect(rows.first()).toContainText('reached');
  await page.keyboard.press('2');
  await expect(rows.nth(1)).toContainText('no answer');
  await page.keyboard.press('e');
  await page.keyboard.type('asks for a sample');
  await page.keyboard.press('Enter');
  await expect(rows.nth(2)).toContainText('asks for a sample');
  const tagged = (tag: string) =>
    tallyOf(page, [{ id: 'a', field: 'list', test: { any: [key], tag: [tag] } }]);
  await expect.poll(() => tagged('reached')).toBe(1);
  // A second thought takes the place of the first, and is taken back.
  await page.keyboard.press('k');
  await page.keyboard.press('6');
  await expect(rows.nth(1)).toContainText('meeting agreed');
  await page.keyboard.press('Control+z');
  await expect(rows.nth(1)).toContainText('no answer');
  const [paper] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Print' }).click(),
  ]);
  expect(paper.suggestedFilename()).toBe('Calls Open-day visitors.pdf');
  await axeFindsNothing(page, 'the call sheet');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => tagged('reached')).toBe(0);
});

test('a title is read otherwise for everybody who has it, and as before again', async ({ page }) => {
  await page.goto('/titles');
  await page.getByLabel('Find a title').fill('key account');
  const row = page.getByRole('row', { name: /^Key account manager/ });
  const level = row.getByLabel('Level of “Key account manager”');
  await expect(level).toHaveValue('manager');
  const { titles } = (await (
    await page.request.get('/api/people/titles?text=key%20account')
  ).json()) as TitlesAnswer;
  const people = titles[0]!.people;
  await level.selectOption('director');
  await expect(page.getByText('is read so from now on')).toBeVisible();
  const directors = () =>
    ask<{ tally: number }>(page, '/api/tally', {
      tape: {
        ...{ format: 'just-tally.tape', version: 1, subject: 'people' },
        lines: [
          { id: 'a', field: 'title', test: { text: '"key account manager"' } },
          { id: 'b', field: 'level', test: { any: ['director'] } },
        ],
      },
    });
  expect((await directors()).tally).toBe(people);
  await axeFindsNothing(page, 'titles');
  await row.getByRole('button', { name: 'As before' }).click();
  await expect(page.getByText('is read as before')).toBeVisible();
  expect((await directors()).tally).toBe(0);
});
