import { expect, test, type Page } from '@playwright/test';
import type { PlanAnswer, RunsAnswer } from '../contract/runs.ts';
import type { SavedTapeView } from '../contract/responses.ts';
import { baseOf } from './ports.ts';
import { fairVisitors } from './fair-visitors.ts';

const LINES = [
  'must nace 16.23 16.25 25.51',
  'in Czechia, Poland, Austria, Germany',
  'headcount 20-249',
  'keep unknown revenue 2m-40m eur with estimates',
  'uses production-planning or paint-line-control',
  'not words restaurant',
  'parked checked past 12 months',
].join('; ');

async function shot(page: Page, name: string): Promise<void> {
  await page.mouse.move(640, 799);
  await page.waitForLoadState('networkidle');
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
}

async function desk(page: Page): Promise<void> {
  await page.goto('/desk');
  await page.locator('[data-entry]').fill(LINES);
  await page.locator('[data-entry]').press('Enter');
  await expect(page.locator('[data-line]')).toHaveCount(7);
  await page.keyboard.press('Escape');
  await page.getByLabel('Name of the tape').fill('Coating shops and joineries, mid-size');
  await page
    .getByRole('columnheader', { name: /Revenue/ })
    .getByRole('button')
    .click();
  await expect(page.locator('[data-row] a').first()).toBeVisible();
}

for (const [theme, suffix] of [
  ['light', ''],
  ['dark', '-night'],
] as const)
  test(`desk${suffix}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme });
    await desk(page);
    for (const row of [0, 2, 4]) await page.locator('[data-row]').nth(row).getByRole('checkbox').click();
    await shot(page, `desk${suffix}`);
  });

test('pickers and profile', async ({ page }) => {
  await desk(page);
  await page.locator('[data-line]').nth(0).click();
  await page.getByLabel('Search codes').fill('joinery');
  await expect(page.getByText(/\d codes/)).toBeVisible();
  await shot(page, 'industry');
  await desk(page);
  await page.locator('[data-line]').nth(4).click();
  await page
    .getByRole('button', { name: /Park it/ })
    .nth(4)
    .click();
  await page.locator('[data-line]').nth(1).click();
  await page.getByRole('radio', { name: 'distance' }).click();
  await page.getByLabel('Town').fill('Brno');
  await expect(page.getByRole('button', { name: /^Brno South/ })).toBeVisible();
  await page.getByLabel('Town').press('Enter');
  await page.getByLabel('Radius in km').fill('120');
  await expect(page.locator('[data-line]').nth(1)).toContainText('120 km');
  await shot(page, 'place');
  await page.keyboard.press('Escape');
  await page.goto('/desk');
  await desk(page);
  await page.locator('[data-row]').nth(1).getByRole('link').click();
  await expect(page.getByRole('heading', { name: 'What each source says' })).toBeVisible();
  await expect(page.getByText('…', { exact: true })).toHaveCount(0);
  await shot(page, 'profile');
  await page.goto('/sources');
  await expect(page.getByRole('row', { name: /Register extract/ })).toBeVisible();
  await shot(page, 'sources');
});

test('who is left: Breakdown, the map, peers', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await page.keyboard.press('2');
  await page.getByLabel('Compare with').selectOption('universe');
  await expect(page.locator('[data-chart=where]')).toContainText('times its share');
  await shot(page, 'breakdown');
  await page.keyboard.press('3');
  await expect(page.getByText(/with a place$/)).toBeVisible();
  await shot(page, 'map');
  await page.keyboard.press('1');
  await page.locator('[data-row]').nth(4).getByRole('link').click();
  await page.getByRole('button', { name: 'Its peers' }).click();
  await expect(page.locator('[data-line]')).toHaveCount(1);
  await page.locator('[data-line]').first().click();
  await expect(
    page.getByRole('region', { name: 'The most alike' }).getByRole('listitem').first(),
  ).toBeVisible();
  await shot(page, 'peers');
});

test('lists, their review and a spot check', async ({ page }) => {
  await page.goto('/lists');
  await page
    .getByRole('row', { name: /Targets, autumn/ })
    .getByText('Ilona')
    .click();
  await expect(
    page.getByRole('complementary', { name: 'Targets, autumn' }).getByText('already there'),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Lists that share its members' })).toBeVisible();
  await shot(page, 'lists');
  await page.getByRole('button', { name: 'Open on the Desk' }).click();
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: /^Verdict on/ })).toBeVisible();
  await page.keyboard.press('-');
  await expect(page.getByText('out because')).toBeVisible();
  await page.getByRole('button', { name: 'Which line would part in from out?' }).click();
  await expect(page.getByText(/would drop/).first()).toBeVisible();
  await shot(page, 'review');
  await page.goto('/');
  await expect(page.locator('[data-row] a').first()).toBeVisible();
  await page.keyboard.press('4');
  await page.getByLabel('Shared out').selectOption('place');
  await page.getByLabel('Seed').fill('7');
  await page.getByRole('button', { name: 'Draw 60' }).click();
  await expect(page.getByText(/^number 1 of 60/)).toBeVisible();
  for (let i = 0; i < 43; i++) {
    await page.keyboard.press(i % 6 === 5 ? '-' : i % 17 === 3 ? '0' : '+');
    await expect(page.getByText(new RegExp(`^number ${i + 2} of 60`))).toBeVisible();
  }
  await shot(page, 'spot-check');
});

test('messages of a campaign', async ({ page }) => {
  await page.goto('/outreach');
  await page.getByRole('button', { name: /^Autumn round/ }).click();
  await page.getByRole('button', { name: /^Messages/ }).click();
  await expect(page.getByLabel('Text of the message')).toBeVisible();
  for (let nth = 2; nth <= 12; nth++) {
    await page.keyboard.press('j');
    await expect(page.getByText(new RegExp(`^${nth} of `)).first()).toBeVisible();
    await expect(page.getByText(`${nth} looked at`).first()).toBeVisible();
  }
  await shot(page, 'outreach');
});

test('a file that is matched', async ({ page }) => {
  await page.goto('/sources?load=match');
  await page.getByLabel('File of companies').setInputFiles({
    name: 'fair-visitors-poznan.csv',
    mimeType: 'text/csv',
    buffer: fairVisitors('data-demo/48000', 412),
  });
  await expect(page.getByLabel(/^rows to match: /)).toBeVisible();
  await page.getByRole('button', { name: 'Match them' }).click();
  await expect(page.getByText('Settle the doubtful')).toBeVisible({ timeout: 60_000 });
  // On to a row that may be several.
  const chances = page.locator('thead').getByText(/^(likely|perhaps|hardly|almost sure)$/);
  for (let on = 0; on < 12; on++) {
    await expect(page.locator('tbody').getByText('Why')).toBeVisible();
    if ((await chances.count()) > 1) break;
    const row = await page.getByText(/^the file, row/).textContent();
    await page.keyboard.press('j');
    await expect(page.getByText(row!, { exact: true })).toHaveCount(0);
  }
  await shot(page, 'match');
});

test('a directory being taught', async ({ page }) => {
  await page.goto('/gather');
  await page.getByRole('button', { name: /New gatherer/ }).click();
  await page.getByRole('button', { name: 'Workshop Guide' }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('joinery\ncoating shop\ncomposite moulder');
  await page.getByRole('textbox', { name: 'Places' }).fill('Brno\nOlomouc\nZlín\nJihlava');
  await page.keyboard.press('Control+Enter');
  const frame = page.frameLocator('iframe');
  await frame.locator('.firm h3 a').first().click();
  await expect(frame.locator('.jt-row').first()).toBeVisible();
  await frame.locator('.mini strong a').first().click();
  await expect(page.getByText(/2 looks/)).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await shot(page, 'gather');
});

test('handing over', async ({ page }) => {
  const handed = async (
    lines: string,
    name: string,
    receiver: string,
    template: string,
    chosen: () => Promise<unknown>,
  ) => {
    await page.goto('/desk');
    await page.locator('[data-entry]').fill(lines);
    await page.locator('[data-entry]').press('Enter');
    await expect(page.locator('[data-line]')).toHaveCount(lines.split(';').length);
    await page.keyboard.press('Escape');
    await page.keyboard.press('x');
    await page.getByRole('radio', { name: template, exact: true }).click();
    await page.getByLabel('Name of the export').fill(name);
    await page.getByLabel('Whom it is for').fill(receiver);
    await chosen();
    const go = page.getByRole('button', { name: /^Export [\d,]+$/ });
    await expect(go).toBeVisible();
    return go;
  };
  const made = async (go: Awaited<ReturnType<typeof handed>>) => {
    await Promise.all([page.waitForEvent('download'), go.click()]);
    await page.getByRole('button', { name: 'Close' }).first().click();
  };
  const none = () => Promise.resolve();
  const { exports } = (await (await page.request.get('/api/exports')).json()) as { exports: unknown[] };
  if (exports.length === 0) {
    await made(
      await handed(
        'nace 16.23; near Brno 40 km',
        'Open day, Brno',
        'Print shop, Brno',
        'Names and addresses',
        none,
      ),
    );
    await made(await handed('nace 25.51; headcount 50+', 'Accounts of coaters', 'Finance', 'Finance', none));
    await made(
      await handed(
        'nace 25.51; in Poland; headcount 20-249',
        'Coaters for the agents',
        'Agents in Poland',
        'Outreach',
        none,
      ),
    );
  }
  const go = await handed(
    'nace 16.23; near Brno 90 km',
    'Open day, wider',
    'Print shop, Brno',
    'Names and addresses',
    () => page.getByLabel('Whose earlier records stay off').selectOption('receiver'),
  );
  await expect(page.getByText('Print shop, Brno has them')).toBeVisible();
  await expect(go).toBeEnabled();
  await shot(page, 'export');
  await page.keyboard.press('Escape');
  await page.goto('/exports');
  await page.getByRole('button', { name: 'Coaters for the agents' }).click();
  await expect(page.getByRole('complementary', { name: 'Coaters for the agents' })).toBeVisible();
  await shot(page, 'exports');
});

test('runs, as a month goes by', async ({ page }) => {
  const ask = async <T>(method: 'get' | 'post', path: string, data?: object) =>
    (await (await page.request[method](`/api${path}`, { data })).json()) as T;
  const { plans, month } = await ask<RunsAnswer>('get', '/runs');
  const done = async (key: string) =>
    expect
      .poll(async () => (await ask<PlanAnswer>('get', `/plans/${key}`)).runs[0]?.state, { timeout: 60_000 })
      .toBe('done');
  if (plans.length === 0) {
    const { tapes } = await ask<{ tapes: SavedTapeView[] }>('get', '/tapes');
    const planned = async (name: string, words: string) => {
      const wish = {
        ...{ kind: 'tape', name, target: { tape: tapes.find((tape) => tape.name.startsWith(name))!.id } },
        schedule: { how: 'repeats', words, zone: 'Europe/Prague' },
        tell: { success: false, failure: true, changes: 0, rate: 'at-once', ways: ['bell'] },
      };
      const { plan } = await ask<PlanAnswer>('post', '/plans', wish);
      await ask('post', `/plans/${plan.key}/run`);
      await done(plan.key);
      return plan.key;
    };
    await planned('Dealers', 'last working day of the month at 18');
    await planned('Rivals', 'first of each month at 6');
    const targets = await planned('Targets', 'every Monday at 7');
    await page.goto('/runs');
    await page.getByRole('button', { name: /^Next month/ }).click();
    await expect(page.getByRole('button', { name: `Next month: ${month!.next}` })).toHaveCount(0, {
      timeout: 200_000,
    });
    await expect(page.getByRole('button', { name: /^Next month/ })).toBeEnabled({ timeout: 200_000 });
    for (const key of ['rivals', targets]) {
      await ask('post', `/plans/${key}/run`);
      await done(key);
    }
  }
  await page.goto('/runs?plan=targets');
  await expect(page.getByRole('table', { name: 'What changed' }).getByText('Left')).toBeVisible();
  await shot(page, 'runs');
});

test('empty workspace and loading a file', async ({ page }) => {
  await page.goto(`${baseOf('empty')}/`);
  await expect(page.getByRole('heading', { name: 'The universe is empty' })).toBeVisible();
  await page.getByRole('link', { name: 'Choose a file' }).click();
  const rows = [
    ['Firma', 'IČO', 'Obec', 'Země', 'Zaměstnanci', 'Obrat v tis. Kč', 'NACE', 'Ověřeno', 'Poznámka'],
    [
      'Kostrava Povrchy a.s.',
      '27000011',
      'Zlín',
      'CZ',
      '201',
      '765.200,50',
      '25.51',
      '12.3.2026',
      'prášková lakovna',
    ],
    ['Tissovec Okna s.r.o.', '27000029', 'Třebíč', 'CZ', '100-249', '', '16.25', '4.9.2026', 'okna a dveře'],
    [
      'Drozdín Lakovna s.r.o.',
      '27000037',
      'Olomouc',
      'CZ',
      '88',
      '≈365.000 (310.000-420.000)',
      '25.51',
      '21.6.2026',
      '',
    ],
    ['Ostrolin Dveře a.s.', '27000045', 'Prostějov', 'Morava', '50+', '289.400,00', '16.25', '30.8.2026', ''],
    ['Luhovan Kov s.r.o.', '27000053', 'Zlín', 'CZ', 'pár lidí', 'k.A.', '25.53', 'loni', ''],
    ['Celkem', '', '', '', '339', '1.419.600,50', '', '', ''],
  ];
  await page.getByLabel('File of companies').setInputFiles({
    name: 'lakovny-a-truhlari.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(rows.map((row) => row.join(';')).join('\r\n')),
  });
  await expect(page.getByLabel('companies: 5')).toBeVisible();
  await shot(page, 'load');
});
