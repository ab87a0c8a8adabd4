import { expect, test } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import { readFile } from 'node:fs/promises';
import type { ListsAnswer } from '../contract/lists.ts';
import type { RowsAnswer, WordedTally } from '../contract/responses.ts';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, WAYS } from './hand.ts';

/** What we ourselves say of companies: websites tried, values corrected, and which source wins. */

const onList = (key: string, state?: string) => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines: [
    { id: 'l1', field: 'list', test: { any: [key] } },
    ...(state ? [{ id: 'l2', field: 'site-state', test: { any: [state] } }] : []),
  ],
});

for (const by of WAYS)
  test(`J15, by ${by}: firms put on a list, their websites tried, those that answer handed to another system by domain`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    const name = `Tried by ${by}`;
    await page.goto('/desk');
    await hand.line(
      `words in description: family or certified not kitchen; headcount ${by === 'keys' ? '12-20' : '21-40'}`,
    );
    const firms = await hand.tally();
    expect(firms).toBeGreaterThan(40);
    await page.keyboard.press('Escape');
    await hand.key('s');
    await page.getByLabel('A new list named').fill(name);
    await hand.key('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await hand.click('Lists', 'link');
    const roll = page.getByRole('complementary', { name });
    const row = page.getByRole('row').filter({ hasText: name });
    await expect(row).toBeVisible();
    // The list changed last stands first.
    if (by === 'mouse') await hand.press(row.getByText('companies'));
    else while (!(await roll.isVisible())) await hand.key('j');
    await expect(roll).toBeVisible();
    await hand.press(roll.getByRole('button', { name: 'Try them' }));
    await expect(roll.getByText('Done.')).toBeVisible({ timeout: 100_000 });
    const websites = roll.getByRole('list', { name: 'Websites' });
    const key = ((await (await page.request.get('/api/lists')).json()) as ListsAnswer).lists.find(
      (list) => list.name === name,
    )!.key;
    const counts: Record<string, number> = {};
    for (const state of ['works', 'moved', 'parked', 'dead'])
      counts[state] = (await ask<WordedTally>(page, '/api/tally', { tape: onList(key, state) })).tally;
    expect(counts.works).toBeGreaterThan(0);
    expect(counts.dead).toBeGreaterThan(0);
    await expect(websites.getByRole('listitem').filter({ hasText: 'do not answer' })).toContainText(
      `${counts.dead}`,
    );
    await hand.press(
      websites
        .getByRole('listitem')
        .filter({ hasText: /^answer/ })
        .getByRole('button'),
    );
    expect(await hand.tally()).toBe(counts.works);
    await expect(page.getByRole('columnheader', { name: /^Domain/ })).toBeVisible();
    const goesOut = await hand.goesOut();
    await hand.key('x');
    await hand.click('CSV', 'radio');
    const file = await hand.download(() => hand.click(/^Export [\d,]+$/));
    expect(hand.acts).toBeLessThanOrEqual(12);

    const rows = parse<Record<string, string>>(file, { bom: true, columns: true });
    expect(rows).toHaveLength(goesOut);
    const today = new Date().toISOString().slice(0, 10);
    for (const row of rows) {
      expect(row.Domain).toMatch(/^[^/\s]+\.example$/);
      expect([row['Website state'], row['Website tried']]).toEqual(['works', today]);
    }
  });

test('a value is corrected on a company’s page, counted, shown beside what the sources say, and taken back', async ({
  page,
}) => {
  const tape = {
    ...onList(''),
    lines: [{ id: 'l1', field: 'disputed', test: { any: ['headcount'] } }],
  };
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', { tape, columns: ['name'], limit: 1 });
  const { key } = rows[0]!;
  const heads = async () =>
    (
      await ask<WordedTally>(page, '/api/tally', {
        tape: {
          ...tape,
          lines: [
            { id: 'l1', field: 'company', test: { any: [key] } },
            { id: 'l2', field: 'headcount', test: { from: 77_777, to: 77_777 } },
          ],
        },
      })
    ).tally;
  expect(await heads()).toBe(0);
  await page.goto(`/desk?company=${encodeURIComponent(key)}`);
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  await page.getByLabel('Headcount', { exact: true }).fill('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('“lots” is no headcount');
  await axeFindsNothing(page, 'correcting');
  await page.getByLabel('Headcount', { exact: true }).fill('77777');
  await page.getByLabel('Why, or who said so').fill('told on the phone');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByText('told on the phone')).toBeVisible();
  expect(await heads()).toBe(1);
  await expect(page.getByRole('row', { name: /^Headcount.*they disagree/ })).toContainText('77777');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('told on the phone')).toHaveCount(0);
  await expect.poll(heads).toBe(0);
});

test('which source wins is counted before it is changed; what each knows stands beside', async ({ page }) => {
  await page.goto('/sources');
  await page.getByRole('button', { name: 'Which wins' }).click();
  const group = page.getByRole('region', { name: 'Headcount, departments, followers' });
  await group.getByRole('radio', { name: 'in my order' }).click();
  await group.getByRole('button', { name: 'Trade directory up' }).click();
  await page.getByRole('button', { name: 'Count what changes' }).click();
  await expect(page.getByRole('list', { name: 'Values that change' })).toContainText('Headcount', {
    timeout: 100_000,
  });
  await axeFindsNothing(page, 'which source wins');
  await page.getByRole('button', { name: 'Leave as it is' }).click();
  await page.getByRole('button', { name: 'Sources', exact: true }).click();
  await page.getByRole('button', { name: 'What each knows' }).click();
  await expect(page.getByRole('table', { name: 'Coverage' })).toBeVisible({ timeout: 100_000 });
  await page.getByRole('radio', { name: 'Register extract' }).click();
  await expect(page.getByRole('columnheader', { name: /^CZ/ })).toBeVisible();
  await axeFindsNothing(page, 'coverage');
});

test('pasted addresses are cleaned, saved, and matched with the universe', async ({ page }) => {
  const tape = { ...onList(''), lines: [{ id: 'l1', field: 'site-state', test: { any: ['works'] } }] };
  const { rows } = await ask<RowsAnswer>(page, '/api/rows', { tape, columns: ['domain'], limit: 3 });
  const domains = rows.map(({ cells }) => cells.domain as string);
  await page.goto('/sources');
  await page.getByRole('button', { name: 'Clean addresses' }).click();
  await page
    .getByLabel('As they came')
    .fill(
      [
        ...domains.map((domain) => `https://www.${domain}/about?utm_source=letter`),
        domains[0],
        'nothing',
      ].join('\n'),
    );
  await expect(page.getByLabel(/^Clean: 3/)).toHaveValue(domains.join('\n'));
  await axeFindsNothing(page, 'cleaning');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  expect(await readFile(await download.path(), 'utf8')).toBe(`Website\n${domains.join('\n')}\n`);
  await page.getByRole('button', { name: 'Match these' }).click();
  await expect(page.getByText('addresses.csv').first()).toBeVisible();
});
