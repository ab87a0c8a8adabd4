import { expect, test, type FrameLocator, type Locator, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobAnswer, UploadAnswer } from '../contract/responses.ts';
import type { GatheredAnswer } from '../contract/gather-views.ts';
import { axeFindsNothing } from './axe.ts';
import { Hand, WAYS } from './hand.ts';

/** Companies from pages, on a server and a small universe of their own, since what is gathered is loaded. */

let dir: string;
let server: ChildProcess;
let base: string;

/** Firms of two trades in two towns, which the directory knows, and some more that it makes up. */
const FIRMS = Array.from({ length: 60 }, (_, i) =>
  [
    `${i % 2 ? 'Joinery' : 'Coating shop'} ${['Drevan', 'Mirov', 'Halv', 'Zarm', 'Tonb'][i % 5]}${i} s.r.o.`,
    ...[5000 + i, 'CZ', i % 4 < 2 ? 'Brno' : 'Ostrava', `Cejl ${i + 1}`, `6${String(i).padStart(2, '0')} 00`],
    `firm-${i}.example`,
    `office@firm-${i}.example`,
    `+420 000 000 ${100 + i}`,
    ['quote-form', 'shop; price-list', 'visit-booking', ''][i % 4],
  ].join(','),
);
const HEADER = 'name,registration number,country,town,street,postcode,web,mail,phone,website offers';

async function post<T>(path: string, body: object): Promise<T> {
  const isForm = body instanceof FormData;
  const answer = await fetch(`${base}/api${path}`, {
    method: 'POST',
    ...(isForm ? { body } : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  });
  return (await answer.json()) as T;
}

test.beforeAll(async () => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-gather-'));
  server = spawn('node', ['dist/server/main.js', '--data', join(dir, 'data'), '--port', '0']);
  base = await new Promise<string>((resolve) =>
    server.stdout!.on('data', (chunk) => {
      const found = /http:\S+/.exec(String(chunk))?.[0];
      if (found) resolve(found);
    }),
  );
  const form = new FormData();
  form.append('file', new Blob([[HEADER, ...FIRMS].join('\n')]), 'firms.csv');
  const { upload, encoding, delimiter, hasHeader, mapping } = await post<UploadAnswer>('/uploads', form);
  const read = { encoding, delimiter, hasHeader };
  const wish = { upload, name: 'Firms', asOf: '2026-09-30', read, mapping };
  const { job } = await post<JobAnswer>('/sources', wish);
  const state = async () =>
    ((await (await fetch(`${base}/api/jobs/${job.id}`)).json()) as JobAnswer).job.state;
  while ((await state()) === 'running') await new Promise((resolve) => setTimeout(resolve, 50));
  const { list } = await post<{ list: { key: string } }>('/lists', {
    name: 'In Ostrava',
    subject: 'companies',
  });
  const line = { id: 'l1', field: 'words', test: { text: 'joinery mirov*' } };
  await post(`/lists/${list.key}/members`, {
    tape: { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [line] },
  });
});
test.afterAll(async () => {
  server.kill('SIGKILL');
  await once(server, 'exit');
  rmSync(dir, { recursive: true });
});

const framed = (page: Page): FrameLocator => page.frameLocator('iframe');

/** Points at something on the page that is shown; by keys, arrows go from value to value, which is no act, and Enter points. */
async function pointAt(hand: Hand, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  hand.acts++;
  if (hand.by === 'mouse') return target.click();
  await hand.page.locator('iframe').focus();
  await framed(hand.page).locator('html').focus();
  for (let moves = 0; moves < 200; moves++) {
    if (await target.evaluate((element) => element.classList.contains('jt-hover'))) break;
    await hand.page.keyboard.press('ArrowDown');
  }
  await hand.page.keyboard.press('Enter');
}

async function rowsOfRun(page: Page, part = 'records'): Promise<GatheredAnswer> {
  const run = new URL(page.url()).searchParams.get('run')!;
  return (await (
    await page.request.get(`${base}/api/gather/runs/${run}/rows?part=${part}&limit=500`)
  ).json()) as GatheredAnswer;
}

for (const by of WAYS)
  test(`J8, by ${by}: words times places through a directory, its pages and those of its firms, into a source`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto(`${base}/gather`);
    await hand.click(/New gatherer/);
    await hand.click('Workshop Guide');
    await hand.enter(page.getByRole('textbox', { name: 'Words' }), 'joinery, "coating shop"');
    await hand.enter(page.getByRole('textbox', { name: 'Places' }), 'Brno\nOstrava', 'Control+Enter');
    await expect(page).toHaveURL(/\/gather\/.+/);
    const frame = framed(page);
    await pointAt(hand, frame.locator('.firm:not(.promo) h3 a').first());
    await expect(page.getByRole('group', { name: 'Example' })).toBeVisible();
    await pointAt(hand, frame.locator('.mini strong a').first());
    await expect(page.getByText(/2 looks, \d+ like 1, \d+ like 2/)).toBeVisible();
    // All rows of the page, and no advert among them.
    const rows = frame.locator('.results > div:not(.promo)');
    await expect(page.getByRole('table', { name: 'What comes of it' }).locator('tbody tr')).toHaveCount(
      await rows.count(),
    );
    await hand.click(/open each company/, 'checkbox');
    await expect(page.getByRole('button', { name: 'see one' })).toBeVisible();
    await hand.click(/Run 4 searches/);
    await expect(page).toHaveURL(/run=/);
    // Rows come as they are read, with the time left.
    await expect(page.getByRole('table', { name: 'records' }).locator('tbody tr').first()).toBeVisible();
    await expect(page.getByText('Time left')).toBeVisible();
    await expect(page.getByRole('complementary').getByText('done', { exact: true })).toBeVisible({
      timeout: 100_000,
    });
    const called = await page.getByRole('heading', { level: 1 }).textContent();
    await hand.click('Into a source');
    expect(hand.acts).toBeLessThanOrEqual(9);
    await expect(page.getByText(/is a source now/)).toBeVisible();

    const { rows: found, total } = await rowsOfRun(page);
    const foot = await page.getByLabel(/^records: /).getAttribute('aria-label');
    expect(foot).toBe(`records: ${total}`);
    for (const { values, tags } of found) {
      expect(values.name).toBeTruthy();
      expect(values.name).not.toContain('Saw blades');
      expect(tags.length).toBeGreaterThan(0);
    }
    const all = new Set(found.flatMap(({ tags }) => tags));
    expect([...all].every((tag) => /^(?:joinery|coating shop) \/ (?:Brno|Ostrava)$/.test(tag))).toBe(true);
    // The page of each firm was read, but for those that robots.txt keeps.
    const kept = (await rowsOfRun(page, 'not-allowed')).rows.map(({ page: url }) => url);
    const withPage = found.filter(({ values }) => !kept.includes(values.page!));
    expect(
      withPage.filter(({ values }) => values.founded || values.headcount || values.mail).length,
    ).toBeGreaterThan(0.7 * withPage.length);
    const { sources } = (await (await page.request.get(`${base}/api/sources`)).json()) as {
      sources: { name: string; rowsRead: number; rowsRefused: number }[];
    };
    expect(sources.find(({ name }) => name === called)).toMatchObject({
      rowsRead: total,
      rowsRefused: 0,
    });
    await page.keyboard.press('Escape');
    if (by === 'mouse') await axeFindsNothing(page, 'a run of a gatherer');
  });

const LISTING = `<!doctype html><html><body><nav><a href="/">Home</a></nav><div id="list">${Array.from(
  { length: 14 },
  (_, i) =>
    i % 5 === 3
      ? `<section class="box"><b>Buy varnish now ${i}</b><small>Advertisement</small></section>`
      : i % 4 === 1
        ? `<p class="line"><strong>Firm number ${i} Ltd</strong>, Mill Lane ${i}, <i>LS1 ${i % 10}DY</i> Leeds</p>`
        : `<section class="box"><b>Firm number ${i} Ltd</b><div>Mill Lane ${i}, Leeds LS1 ${i % 10}DY</div>${i % 3 ? `<div>Tel. 01632 9600${String(i).padStart(2, '0')}</div>` : ''}</section>`,
).join('')}</div></body></html>`;

for (const by of WAYS)
  test(`J16, by ${by}: a saved page of two looks, taught by two examples, adverts kept apart, into a source`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    const saved = join(dir, `listing ${by}.html`);
    writeFileSync(saved, LISTING);
    await page.goto(`${base}/gather`);
    hand.acts++;
    await page.getByLabel('A saved page').setInputFiles(saved);
    await expect(page).toHaveURL(/\/gather\/.+/);
    const frame = framed(page);
    const table = page.getByRole('table', { name: 'What comes of it' }).locator('tbody tr');
    await pointAt(hand, frame.locator('.box b').first());
    await expect(table).toHaveCount(8);
    await pointAt(hand, frame.locator('.line strong').first());
    await expect(table).toHaveCount(11);
    await expect(frame.locator('.jt-advert')).toHaveCount(3);
    await hand.key('g');
    await expect(page).toHaveURL(/run=/);
    await expect(page.getByRole('complementary').getByText('done', { exact: true })).toBeVisible();
    await hand.click('Into a source');
    await expect(page.getByText(/is a source now/)).toBeVisible();
    expect(hand.acts).toBeLessThanOrEqual(6);
    const { rows } = await rowsOfRun(page);
    expect(rows.map(({ values }) => values.name)).toEqual(
      Array.from({ length: 14 }, (_, i) => i).flatMap((i) => (i % 5 === 3 ? [] : [`Firm number ${i} Ltd`])),
    );
    expect(rows.every(({ values }) => /^LS1 \dDY$/.test(values.postcode!) && values.town === 'Leeds')).toBe(
      true,
    );
  });

test('a page that is taught has no fault that axe finds, and its examples are undone by Ctrl Z, in the frame too', async ({
  page,
}) => {
  writeFileSync(join(dir, 'page.html'), LISTING);
  await page.goto(`${base}/gather`);
  await expect(page.getByRole('table', { name: 'Gatherers' })).toBeVisible();
  await axeFindsNothing(page, 'gatherers');
  await page.keyboard.press('n');
  await page.getByRole('radio', { name: 'A saved page' }).click();
  await axeFindsNothing(page, 'a new gatherer');
  await page.getByRole('dialog').locator('input[type=file]').setInputFiles(join(dir, 'page.html'));
  await expect(page).toHaveURL(/\/gather\/.+/);
  const frame = framed(page);
  const table = page.getByRole('table', { name: 'What comes of it' }).locator('tbody tr');
  await frame.locator('.box b').first().click();
  await expect(table).toHaveCount(8);
  await frame.locator('.line strong').first().click();
  await expect(table).toHaveCount(11);
  await expect(frame.locator('.jt-advert')).toHaveCount(3);
  await axeFindsNothing(page, 'a page that is taught');
  await page.keyboard.press('Control+z');
  await expect(table).toHaveCount(8);
  await page.reload();
  await expect(table).toHaveCount(8);
  // A column of one's own, from a marked part of a text.
  await page.getByRole('radio', { name: 'a field of it' }).click();
  await frame.locator('.box div').first().click();
  const bar = page.getByRole('form', { name: 'What this value is' });
  await bar.getByRole('combobox').selectOption('a column of my own …');
  await bar.getByRole('textbox').fill('As printed');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('columnheader', { name: 'As printed' })).toBeVisible();
  await page.keyboard.press('g');
  await expect(page.getByRole('complementary').getByText('done', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'As a file …' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV' }).click(),
  ]);
  const csv = readFileSync(await download.path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(csv[0]).toContain('As printed');
  expect(csv).toHaveLength(9);
});

test('what is done before the list is recorded on the page itself, and stands there in words that are changed', async ({
  page,
}) => {
  await page.goto(`${base}/gather`);
  await page.getByRole('button', { name: /New gatherer/ }).click();
  await page.getByRole('textbox', { name: 'Where it begins' }).fill('http://trades-register.example/');
  await page.getByRole('textbox', { name: 'Name' }).fill('Recorded');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Recorded' })).toBeVisible();
  const frame = framed(page);
  await page.getByRole('radio', { name: 'what is done before' }).click();
  await frame.getByRole('textbox').first().fill('joinery');
  await frame.getByRole('textbox').nth(1).fill('Brno');
  await frame.getByRole('button', { name: 'Look up' }).click();
  // The page that the steps lead to is there to be pointed at.
  await expect(
    frame.getByRole('cell', { name: 'Joinery' }).or(frame.locator('td').nth(1)).first(),
  ).toBeVisible();
  await expect(
    page.getByText('type “joinery” into “Trade or name”, type “Brno” into “Town”, press “Look up”'),
  ).toBeVisible();
  await page.getByRole('button', { name: /Words and places/ }).click();
  await page.getByRole('textbox', { name: 'Text for Trade or name' }).fill('{word}');
  await page.getByRole('textbox', { name: 'Words' }).fill('joinery\ncoating');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Searches 2 words')).toBeVisible();
  await expect(page.getByText(/type “\{word\}” into “Trade or name”/)).toBeVisible();
});

for (const by of WAYS)
  test(`J20, by ${by}: what each company’s own site offers becomes a field, with the page it was seen on`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto(`${base}/gather`);
    await hand.click(/New gatherer/);
    await hand.click(/own sites/, 'radio');
    await hand.press(page.getByLabel('Companies on'), 'Tab', 'i');
    await page.getByLabel('Companies on').selectOption({ label: 'In Ostrava (6)' });
    await hand.click('Read them');
    await expect(page).toHaveURL(/run=/);
    await expect(page.getByRole('complementary').getByText('done', { exact: true })).toBeVisible({
      timeout: 90_000,
    });
    const { rows } = await rowsOfRun(page);
    expect(rows).toHaveLength(6);
    const offering = rows.filter(({ values }) => values.offers);
    expect(offering.length).toBeGreaterThan(0);
    for (const { values } of offering) expect(values['own:Seen on']).toContain(': /');
    const before = (await (await page.request.get(`${base}/api/health`)).json()) as { universe: number };
    await hand.click('Into a source');
    await expect(page.getByText(/is a source now/)).toBeVisible();
    // They are the companies that were there.
    expect(await (await page.request.get(`${base}/api/health`)).json()).toMatchObject({
      universe: before.universe,
    });
  });
