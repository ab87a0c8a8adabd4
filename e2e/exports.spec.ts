import { expect, test } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import { writeFile } from 'node:fs/promises';
import { axeFindsNothing } from './axe.ts';
import { ask, Hand, WAYS } from './hand.ts';

/** Handing over: to whom, in which file, and nobody twice. */

const left = (text: string | null) => Number(text!.replace(/\D/g, ''));

for (const by of WAYS)
  test(`what a receiver has had stays off the next time, by ${by}`, async ({ page }, { retry }) => {
    const receiver = `Print shop ${by} ${retry}`;
    const hand = new Hand(page, by);
    await page.goto('/desk');
    await hand.line('nace 16.23; in Czechia');
    const few = await hand.goesOut();
    await hand.key('Escape');
    await hand.key('x');
    await hand.click('CSV', 'radio');
    await page.getByLabel('Whom it is for').fill(receiver);
    const first = await hand.download(() => hand.click(/^Export [\d,]+$/));
    expect(parse(first, { bom: true })).toHaveLength(few + 1);
    await page.keyboard.press('Escape');

    await page.goto('/desk');
    await hand.line('nace 16.23');
    const more = await hand.goesOut();
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await page.getByLabel('Whom it is for').fill(receiver.toLowerCase());
    await page.getByLabel('Whose earlier records stay off').selectOption('receiver');
    const roll = page.getByRole('complementary', { name: 'What goes out' });
    await expect(roll).toContainText(`${receiver} has them`);
    const start = page.getByRole('button', { name: /^Export [\d,]+$/ });
    await expect(start).toHaveText(new RegExp(`^Export ${(more - few).toLocaleString('en-GB')}$`));
    // Any figure of the roll opens just those records.
    await roll.getByRole('button', { name: `−${few.toLocaleString('en-GB')}` }).click();
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(few));
    await page.goto(`/desk`);
    await hand.type(`handed to "${receiver}" past 90 days`);
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(few));
  });

test('an export is made again with what changed, and its file opened on the Desk is its tape', async ({
  page,
}, { retry }) => {
  const name = `Again ${retry}`;
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 25.51; in Poland; headcount 50+');
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByLabel('Name of the export').fill(name);
  const book = await hand.download(() => page.getByRole('button', { name: /^Export [\d,]+$/ }).click());
  await page.getByRole('button', { name: 'Close' }).first().click();
  await page.getByRole('link', { name: 'Exports' }).click();
  await page.getByRole('row', { name }).getByRole('button', { name }).click();
  await page.getByRole('button', { name: 'Make again' }).click();
  const again = await hand.download(() => page.getByRole('button', { name: 'Make it again' }).click());
  expect(again.subarray(0, 2).toString()).toBe('PK');
  await page.getByRole('button', { name: 'Close' }).first().click();
  await expect(page.getByRole('row', { name })).toHaveCount(2);

  const path = test.info().outputPath('again.xlsx');
  await writeFile(path, book);
  await page.goto('/desk');
  await hand.tally();
  await page.getByLabel('Tape file').setInputFiles(path);
  await expect(page.locator('[data-line]')).toHaveCount(3);
});

test('choices are kept as a template and used for the next export', async ({ page }, { retry }) => {
  const name = `To the accountants ${retry}, ${Date.now()}`;
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 25.51; in Austria');
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByRole('radio', { name: 'Finance' }).click();
  await page.getByRole('radio', { name: 'CSV' }).click();
  await page.getByLabel('Language of headings').selectOption('German');
  await page.getByRole('checkbox', { name: /in a ZIP/ }).uncheck();
  await page.getByRole('button', { name: 'Save as a template' }).click();
  await page.getByLabel('Name of the template').fill(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name })).toHaveAttribute('aria-checked', 'true');
  await axeFindsNothing(page, 'export dialog');
  const file = await hand.download(() => page.getByRole('button', { name: /^Export [\d,]+$/ }).click());
  const [head] = parse(file, { bom: true });
  expect(head!.slice(0, 3)).toEqual(['Firma', 'Registernummer', 'Ort']);
  expect(head).toContain('Profit margin, %');
  await page.goto('/exports?tab=templates');
  await expect(page.getByRole('cell', { name, exact: true })).toBeVisible();
  await axeFindsNothing(page, 'templates');
});

test('a webhook to the stand-in is posted every row, some requests after failing', async ({ page }, {
  retry,
}) => {
  const name = `Stand-in ${retry}`;
  const hand = new Hand(page);
  await page.goto('/exports?tab=programs');
  await page.getByLabel('Name of the webhook').fill(name);
  await page.getByLabel('Address of the webhook').fill('stand-in');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Webhooks', exact: true })).toContainText(name);
  await page.goto('/desk');
  await hand.line('nace 25.51; in Austria');
  const rows = await hand.goesOut();
  await page.keyboard.press('Escape');
  await page.keyboard.press('x');
  await page.getByRole('radio', { name: 'JSON Lines' }).click();
  await page.getByRole('checkbox', { name: /in a ZIP/ }).uncheck();
  await page.getByRole('checkbox', { name }).check();
  const file = await hand.download(() => page.getByRole('button', { name: /^Export [\d,]+$/ }).click());
  expect(file.toString('utf8').trim().split('\n')).toHaveLength(rows);
  await page.goto('/exports?tab=programs');
  await expect
    .poll(
      async () =>
        left(
          await page
            .getByRole('list', { name: 'Webhooks', exact: true })
            .getByText(/delivered/)
            .last()
            .textContent(),
        ),
      { timeout: 60_000 },
    )
    .toBeGreaterThan(0);
  await axeFindsNothing(page, 'other programs');
});

test('an address is read by a spreadsheet, and its table is what the API says', async ({ page, request }) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  await hand.line('nace 25.51; in Austria');
  const rows = await hand.tally();
  await page.getByRole('link', { name: 'Exports' }).click();
  await page.getByRole('button', { name: 'Other programs' }).click();
  await page.getByLabel('Name of the address').fill('Notebook');
  await page.keyboard.press('Enter');
  const address = await page.getByLabel('The address', { exact: true }).inputValue();
  const read = await request.get(address);
  expect(read.headers().etag).toBeTruthy();
  const found = parse<Record<string, string>>(await read.text(), { columns: true, bom: true });
  const { tally, suppressed } = await ask<{ tally: number; suppressed: number }>(page, '/api/tally', {
    tape: {
      ...{ format: 'just-tally.tape', version: 1, subject: 'companies' },
      lines: [
        { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['25.51'] } },
        { id: 'b', field: 'place', test: { countries: ['AT'] } },
      ],
    },
  });
  expect([tally, found.length]).toEqual([rows, rows - suppressed]);
});
