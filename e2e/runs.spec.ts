import { expect, test, type Locator, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NoticesAnswer, PlanAnswer, RunsAnswer } from '../contract/runs.ts';
import { axeFindsNothing } from './axe.ts';
import { Hand, WAYS } from './hand.ts';

/** What runs, on a server and a small demo of their own, since its months go by. */

const COMPANIES = '4000';
let dir: string;
let server: ChildProcess;
let base: string;
/** Somebody who goes to another company in the scenario's next month. */
let mover: { key: string; name: string };

test.beforeAll(async () => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-runs-'));
  const data = join(dir, 'data');
  expect(spawnSync('node', ['dist/demo/make.js', data, COMPANIES]).status).toBe(0);
  // What the month brings is seen on a copy before.
  cpSync(data, join(dir, 'ahead'), { recursive: true });
  const ahead = spawnSync('node', ['dist/demo/make.js', join(dir, 'ahead'), COMPANIES, '2026-10'], {
    encoding: 'utf8',
  });
  expect(ahead.stdout).toContain('at the end of 2026-10');
  const db = new Database(join(dir, 'ahead', 'universe.sqlite'), { readonly: true });
  mover = db
    .prepare<[], typeof mover>(
      "SELECT key, name FROM history WHERE subject = 'people' AND field = 'company' ORDER BY id LIMIT 1",
    )
    .get()!;
  db.close();
  server = spawn('node', ['dist/server/main.js', '--data', data, '--port', '0']);
  base = await new Promise<string>((resolve) =>
    server.stdout!.on('data', (chunk) => {
      const found = /http:\S+/.exec(String(chunk))?.[0];
      if (found) resolve(found);
    }),
  );
});
test.afterAll(async () => {
  server.kill('SIGKILL');
  await once(server, 'exit');
  rmSync(dir, { recursive: true });
});

const get = async <T>(page: Page, path: string): Promise<T> =>
  (await (await page.request.get(`${base}/api${path}`)).json()) as T;

/** Chooses in a list of choices, which is one act. */
async function choose(hand: Hand, field: Locator, label: string): Promise<void> {
  hand.acts++;
  if (hand.by === 'mouse') return void (await field.selectOption({ label }));
  await hand.reach(field);
  await hand.page.keyboard.type(label);
}

const SEARCHES = [
  'Search\tCountry\tHeadcount from',
  'nace 16.23\tCzechia\t5',
  'nace 16.23 31.00\tCzechia\t5',
  'nace 99.99 x\t\t',
  'nace 25.51\tPoland\t',
];

for (const by of WAYS)
  test(`J11, by ${by}: a sheet of searches, capped, tried before, run, and its rows as CSV`, async ({
    page,
  }) => {
    const hand = new Hand(page, by);
    await page.goto(`${base}/runs`);
    await expect(page.getByRole('button', { name: /New run/ })).toBeVisible();
    if (by === 'keys') await hand.key('n');
    else await hand.click(/New run/);
    await hand.click('batch', 'radio');
    await hand.enter(page.getByRole('textbox', { name: 'Searches' }), SEARCHES.join('\n'), 'Control+Enter');
    await expect(page.getByRole('list', { name: 'Preview' }).getByRole('listitem')).toHaveCount(4);
    await expect(page.getByText('1 are refused')).toBeVisible();
    await choose(hand, page.getByRole('combobox', { name: 'into' }), 'a CSV file');
    await hand.click('when it is done', 'checkbox');
    await hand.enter(page.getByRole('textbox', { name: 'Rows of each search' }), '3');
    await hand.enter(page.getByRole('textbox', { name: 'Searches a run' }), '3', 'Enter');
    await expect(page.getByRole('table', { name: 'Searches' }).getByRole('row')).toHaveCount(4);
    const csv = (await hand.download(() => hand.click('CSV', 'link'))).toString('utf8');
    expect(hand.acts).toBeLessThanOrEqual(8);
    const lines = csv.trim().split('\n');
    const { plans } = await get<RunsAnswer>(page, '/runs');
    const own = plans.find(({ kind, last }) => kind === 'batch' && last?.nth === 1)!;
    expect(lines).toHaveLength(own.last!.count! + 1);
    expect(lines[1]).toMatch(/^(?:\ufeff)?nace 16\.23,/);
    await expect(page.getByRole('table', { name: 'Searches' }).getByText(/nace 99.99 x/)).toBeVisible();
    const { notices } = await get<NoticesAnswer>(page, '/notices');
    expect(notices[0]!.why).toBe('you are told when it ran');
    // The next run goes on where this one stopped; and it is planned to, in words.
    await page.keyboard.press('r');
    await expect(page.getByRole('combobox', { name: 'Which run' })).toContainText('run 2');
    await page.keyboard.press('e');
    await page
      .getByRole('textbox', { name: 'When, in words' })
      .fill('first working day of the month at 7:30');
    await expect(page.getByText(/first working day of the month at 7:30: next/)).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    const changed = (await get<PlanAnswer>(page, `/plans/${own.key}`)).plan;
    expect(changed.schedule).toMatchObject({ cron: '30 7 1W * *' });
    await page.request.delete(`${base}/api/plans/${own.key}`);
  });

test('J18: a search that is saved runs again and again, and is told of never', async ({ page }) => {
  await page.goto(`${base}/desk`);
  const hand = new Hand(page);
  await hand.line('headcount 20-249');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Middling ones');
  await page.getByRole('textbox', { name: 'Run it' }).fill('every Monday at 7');
  await page.getByRole('combobox', { name: 'told of changes' }).selectOption('never');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved Middling ones; it runs every Monday at 7')).toBeVisible();
  const { plans } = await get<RunsAnswer>(page, '/runs');
  expect(plans.find(({ name }) => name === 'Middling ones')).toMatchObject({
    tell: { rate: 'never' },
    schedule: { cron: '0 7 * * 1' },
  });
});

test('J10: told when somebody moves, whom one watches', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto(`${base}/watched/people/${mover.key}`);
  await expect(page.getByRole('heading', { level: 1, name: mover.name })).toBeVisible();
  await hand.click('Watch');
  await page.getByRole('dialog').getByRole('button', { name: 'Watch', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Watched' })).toBeVisible();
  expect(hand.acts).toBeLessThanOrEqual(2);
});

test('B9: the month goes by; who joined, who left and who moved stands beside with why, opens, and becomes a list', async ({
  page,
}) => {
  await page.goto(`${base}/runs`);
  await page.getByRole('button', { name: 'Middling ones' }).click();
  await page.getByRole('button', { name: 'Next month: 2026-10' }).click();
  await expect(page.getByRole('button', { name: 'Next month: 2026-11' })).toBeVisible({ timeout: 100_000 });
  await page.keyboard.press('r');
  const sheet = page.getByRole('table', { name: 'What changed' });
  await expect(sheet.getByText('Joined')).toBeVisible({ timeout: 60_000 });
  const roll = page.getByRole('complementary', { name: 'Middling ones' });
  const { plans } = await get<RunsAnswer>(page, '/runs');
  const { key, last } = plans.find(({ name }) => name === 'Middling ones')!;
  expect(Math.min(last!.joined!, last!.left!, last!.moved!)).toBeGreaterThan(0);
  await expect(roll.getByLabel(`companies now: ${last!.count}`)).toBeVisible();
  await axeFindsNothing(page, 'Runs');
  // The person who is watched has moved, and the bell says where to; the search is told of never.
  await page.getByRole('button', { name: /What there is to tell: \d+ unread/ }).click();
  const bell = page.getByRole('list', { name: 'Notices' });
  await expect(bell.getByText(new RegExp(mover.name)).first()).toBeVisible();
  await expect(bell.getByText(/employer: .+ → .+/).first()).toBeVisible();
  await expect(bell.getByText(/Middling/)).toHaveCount(0);
  await axeFindsNothing(page, 'The bell');
  await page.keyboard.press('Escape');
  // Those who joined, as a list, and by a line.
  await page.keyboard.press('s');
  await expect(page.getByText(new RegExp(`^${last!.joined} on Middling ones, joined`))).toBeVisible();
  expect(last!.joined).toBe(
    await tallyAt(page, [{ id: 'l1', field: 'joined', test: { any: [key], seen: '2026-10-01' } }]),
  );
  const [step] = last!.roll!.steps.filter(({ step: name }) => name.startsWith('joined'));
  await roll
    .getByRole('button', { name: `+${step!.delta}`, exact: true })
    .first()
    .click();
  await expect(page).toHaveURL(/\/desk/);
  expect(await new Hand(page).tally()).toBe(step!.delta);
});

test('every tab of Runs passes axe, and a run without anything says what to do', async ({ page }) => {
  for (const tab of ['past', 'watches']) {
    await page.goto(`${base}/runs?tab=${tab}`);
    await expect(page.getByRole('navigation', { name: 'Runs' })).toBeVisible();
    await axeFindsNothing(page, tab);
  }
  await page.goto(`${base}/runs`);
  await page.getByRole('button', { name: /New run/ }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await axeFindsNothing(page, 'a new run');
});

async function tallyAt(page: Page, lines: object[]): Promise<number> {
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines };
  const answer = await page.request.post(`${base}/api/tally`, { data: { tape } });
  return ((await answer.json()) as { tally: number }).tally;
}
