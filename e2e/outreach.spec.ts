import { expect, test, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { parse } from 'csv-parse/sync';
import { readFile } from 'node:fs/promises';
import type { OutreachAnswer } from '../contract/outreach-views.ts';
import { axeFindsNothing } from './axe.ts';
import { Hand, WAYS } from './hand.ts';
import { folderOf } from './ports.ts';

/** From companies to the right person, a short note and what comes back, by mouse and by keys alone. */

const outreach = async (page: Page) =>
  (await (await page.request.get('/api/outreach')).json()) as OutreachAnswer;

/** What went to whom of a campaign, as the server keeps it. */
function messagesOf(campaign: string) {
  const db = new Database(`${folderOf('demo')}/outreach.sqlite`, { readonly: true });
  const found = db
    .prepare<[string], { state: string; mail: string; body: string; proof_text: string; company: string }>(
      `SELECT m.state, m.mail, m.body, m.proof_text, m.company FROM message m JOIN campaign c ON c.id = m.campaign
       WHERE c.name = ? AND m.state <> 'draft' ORDER BY m.id`,
    )
    .all(campaign);
  db.close();
  return found;
}

/** Types a name into the dialog that is open and presses Enter. */
async function name(hand: Hand, label: string, text: string): Promise<void> {
  hand.acts++;
  await hand.page.getByLabel(label).fill(text);
  await hand.page.keyboard.press('Enter');
}

for (const by of WAYS)
  test(`J20, by ${by}: lately funded firms, whoever runs production, a note that names a proof and not what set it off`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    const campaign = `Funded ${by} ${Date.now()}`;
    await page.goto('/desk');
    await hand.tally();
    // Each way has its own countries, so that nobody of the other's is in the way.
    const where = by === 'mouse' ? 'in Germany, Austria' : 'in France, Italy, Spain';
    await hand.type(`${where}; has deal as target (growth loan or buy-out; past 24 months)`);
    await expect(page.locator('ol[aria-label="Lines"] > li')).toHaveCount(2);
    const firms = await hand.tally();
    await hand.key('Escape');
    await hand.key('l');
    await name(hand, 'Name of the campaign', campaign);
    await expect(page.getByRole('heading', { name: campaign })).toBeVisible();
    const roll = page.getByRole('complementary', { name: 'Goes out today' });
    await expect(roll.getByText('People chosen')).toBeVisible();
    const text = page.getByLabel('Text of the message');
    await expect(text).toBeVisible();
    const { campaigns } = await outreach(page);
    const made = campaigns.find((one) => one.name === campaign)!;
    expect(made.people + made.without).toBe(firms);

    // The first message: what set it off is left out, and another proof named.
    hand.acts++;
    await page.getByLabel('What set it off').selectOption('out');
    await expect(text).not.toHaveValue(/“/);
    const named = page.locator('[aria-label="Proofs"] tr[aria-selected="true"] button').first();
    const best = (await named.textContent())!;
    await hand.key('2');
    await expect(named).not.toHaveText(best);
    const fact = await named.textContent();
    await expect(text).toHaveValue(new RegExp(fact!.slice(0, 30)));
    const words = (await text.inputValue()).split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
    await expect(page.getByText(`${45 - words} to spare`)).toBeVisible();
    await hand.key('j');
    await expect(page.getByText('2 of').first()).toBeVisible();
    await expect(roll.getByText(/2 looked at/)).toBeVisible();
    await hand.key('Control+Enter');
    await expect(page.getByText('2 messages in the outbox')).toBeVisible();
    await expect
      .poll(() => messagesOf(campaign).filter(({ state }) => state === 'sent' || state === 'bounced').length)
      .toBe(2);
    await hand.click(/^Replies/);
    await expect(page.getByRole('list', { name: 'Replies' })).toBeVisible();
    expect(hand.acts).toBeLessThanOrEqual(12);

    const went = messagesOf(campaign);
    expect(new Set(went.map(({ company }) => company)).size).toBe(2);
    for (const { mail } of went) expect(mail).toMatch(/\.example$/);
    expect(went[0]!.body).toContain(fact!);
    expect(went[0]!.body).not.toContain('“');
  });

test('J10: a firm opened from a list, two people put on one after reading what they did before, written to, and the limit counts down', async ({
  page,
}) => {
  const hand = new Hand(page);
  const list = `Read ${Date.now()}`;
  const before = (await outreach(page)).outbox;
  await page.goto('/desk');
  await hand.tally();
  await hand.type('nace 31 any rank; in Poland; has person (head or director)');
  await expect(page.locator('ol[aria-label="Lines"] > li')).toHaveCount(2 + 1);
  await hand.click(/Counts companies/);
  await hand.click('The people of these companies', 'menuitem');
  await expect(page.getByText('all people')).toBeVisible();
  await hand.press(page.locator('[data-row] a').first());
  const career = page.getByRole('heading', { name: /Earlier posts/ });
  await expect(career).toBeVisible();
  await expect(page.getByText('never, by nobody of us')).toBeVisible();
  await hand.key('s');
  await name(hand, 'A new list named', list);
  await expect(page.getByText(/put on Read/)).toBeVisible();
  await hand.key('Escape');
  await hand.key('l');
  await name(hand, 'Name of the campaign', list);
  const roll = page.getByRole('complementary', { name: 'Goes out today' });
  await expect(roll.getByText('People chosen')).toBeVisible();
  await expect(page.getByLabel('Text of the message')).toBeVisible();
  await hand.key('e');
  await page.keyboard.press('Control+a');
  hand.acts++;
  await page.keyboard.type('Dear reader, may we show you our plant?');
  await hand.key('Control+Enter');
  await expect(page.getByText('1 message in the outbox')).toBeVisible();
  await expect
    .poll(() => messagesOf(list).map(({ body }) => body))
    .toEqual(['Dear reader, may we show you our plant?']);
  await expect.poll(async () => (await outreach(page)).outbox.today).toBeGreaterThan(before.today);
  expect(hand.acts).toBeLessThanOrEqual(13);
});

test('who is left out, written to lately or of too unsure an address opens from the roll; all of it can be taken back', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/outreach');
  await hand.click(/^Autumn round/);
  const roll = page.getByRole('complementary', { name: 'Goes out today' });
  const table = page.getByRole('table', { name: 'People of the campaign' });
  await expect(table).toBeVisible();
  await axeFindsNothing(page, 'people of a campaign');
  const step = roll.locator('li').filter({ hasText: 'Address below' });
  const off = Number((await step.getByRole('button').textContent())!.replace(/\D/g, ''));
  await step.getByRole('button').click();
  await expect(table.locator('tbody tr')).toHaveCount(off);
  await expect(table.getByText('address too unsure')).toHaveCount(off);
  // A limit typed over on the roll, and taken back.
  const least = roll.getByLabel('Least certainty of an address, in percent');
  await least.fill('1');
  await least.press('Enter');
  await expect(step.getByText('0', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(least).toHaveValue('80');
  await page.getByRole('button', { name: /show all/ }).click();
  await table.locator('tbody tr').first().click();
  await page.keyboard.press('0');
  await expect(table.locator('tbody tr').first()).toContainText('left out');
  await page.keyboard.press('Control+z');
  await expect(table.locator('tbody tr').first()).not.toContainText('left out');

  await hand.click(/^Messages/);
  await expect(page.getByLabel('Text of the message')).toBeVisible();
  await axeFindsNothing(page, 'a message');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    (async () => {
      await hand.click('Files');
      await page.getByRole('menuitem', { name: /A sheet for a mail merge/ }).click();
    })(),
  ]);
  const foot = Number((await roll.getByLabel(/^go out today: /).textContent())!.replace(/\D/g, ''));
  const rows = parse<Record<string, string>>(await readFile(await download.path()), {
    bom: true,
    columns: true,
  });
  expect(rows).toHaveLength(foot);
  for (const row of rows) {
    expect(Number(row['Certainty, %'])).toBeGreaterThanOrEqual(80);
    expect(row.Message).toContain(row.Name!);
  }
  // Where one is stands in the address.
  await page.keyboard.press('j');
  await expect(page.getByText('2 of').first()).toBeVisible();
  const person = await page
    .getByRole('region', { name: 'What we know' })
    .getByRole('heading')
    .first()
    .textContent();
  await page.reload();
  await expect(page.getByRole('region', { name: 'What we know' }).getByRole('heading').first()).toHaveText(
    person!,
  );
});

test('templates, proofs, settings, figures and replies hold to every rule of axe', async ({ page }) => {
  await page.goto('/outreach');
  await expect(page.getByRole('table', { name: 'Campaigns' })).toBeVisible();
  await axeFindsNothing(page, 'campaigns');
  await page.getByRole('button', { name: 'Templates' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await axeFindsNothing(page, 'templates');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Settings', exact: true }).last().click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await axeFindsNothing(page, 'settings of outreach');
  await page.keyboard.press('Escape');
  for (const [part, shown] of [
    ['Outbox', 'wait'],
    ['Replies', 'What it answers'],
    ['Figures', '19 times in 20'],
  ] as const) {
    await page.getByRole('button', { name: new RegExp(`^${part}`) }).click();
    await expect(
      page
        .getByText(shown)
        .or(page.getByRole('region', { name: shown }))
        .first(),
    ).toBeVisible();
    await axeFindsNothing(page, part);
  }
});
