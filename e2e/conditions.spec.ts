import { expect, test, type Page } from '@playwright/test';
import { lineFields } from '../core/fields/registry.ts';
import { axeFindsNothing } from './axe.ts';
import { Hand, tallyOf, WAYS, type Ways } from './hand.ts';

/** Narrowing by every kind of condition, as the jobs ask for it; the count is held to what the API says of the same tape. */

async function fresh(page: Page, by: Ways = 'mouse'): Promise<Hand> {
  await page.goto('/desk');
  const hand = new Hand(page, by);
  await hand.tally();
  return hand;
}

for (const by of WAYS)
  test(`J4, by ${by}: a sector by main code, tops of groups only, both sizes, one metro area; saved`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line('nace C main only');
    await hand.line('ownership top or independent');
    await hand.line('headcount 10-500; revenue 1m-100m eur');
    await hand.line('in metro Brno');
    const left = await hand.tally();
    const lines = [
      { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['C'], rank: 'main' } },
      { id: 'b', field: 'ownership', test: { any: ['top', 'independent'] } },
      { id: 'c', field: 'headcount', test: { from: 10, to: 500 } },
      { id: 'd', field: 'revenue', test: { from: 1e6, to: 1e8, currency: 'EUR' } },
      { id: 'e', field: 'place', test: { metro: ['Brno, CZ-64'] } },
    ];
    expect(left).toBe(await tallyOf(page, lines));
    await expect(page.getByText(/metro Brno \(\d+ km around\)/).first()).toBeVisible();
    await hand.click('Revenue', 'columnheader');
    await hand.click('Save');
    await expect(page.getByRole('dialog').getByLabel('Name')).toBeFocused();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('Makers around Brno');
    await hand.key('Enter');
    await expect(page.getByText('Saved Makers around Brno')).toBeVisible();
    expect(hand.acts).toBeLessThanOrEqual(13);

    await page.getByRole('button', { name: 'More for the tape' }).click();
    await page.getByRole('menuitem', { name: 'Saved tapes and parts' }).click();
    const row = page
      .getByRole('list', { name: 'Saved tapes' })
      .getByRole('listitem')
      .filter({ hasText: 'Makers around Brno' });
    await expect(row.getByText(`${left.toLocaleString('en-GB')} now`)).toBeVisible();
    await expect(row).toContainText('Companies with industry C manufacturing, main only (NACE 2.1)');
    await row.getByRole('button', { name: 'Remove' }).click();
    await expect(row).toHaveCount(0);
  });

for (const by of WAYS)
  test(`J5, by ${by}: the same activity under other schemes, and profit where revenue is withheld`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line('nace 25.51');
    const alone = await hand.tally();
    await hand.press(page.locator('[data-line]').first());
    await hand.click('and possible kin', 'radio');
    await expect(page.getByText('found by their codes in other schemes')).toBeVisible();
    const withKin = await hand.tally();
    expect(withKin).toBeGreaterThan(alone);
    await hand.click('and sure kin in others', 'radio');
    // NACE and NAICS meet only by chains of tables, which are never sure.
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(alone));
    await hand.click('and possible kin', 'radio');
    await hand.key('Escape');
    await hand.line('profit 100k+ eur');
    expect(await hand.tally()).toBe(
      await tallyOf(page, [
        { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['25.51'], kin: 'possible' } },
        { id: 'b', field: 'profit', test: { from: 100_000, currency: 'EUR' } },
      ]),
    );
    expect(hand.acts).toBeLessThanOrEqual(9);
  });

for (const by of WAYS)
  test(`J6, by ${by}: from a broad code to the exact one, then the revenue narrowed by the steps it shows`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line('nace 25');
    await hand.press(page.locator('[data-line]').first());
    const branch = page.getByRole('listitem').filter({ has: page.getByRole('checkbox', { name: /^25 / }) });
    await hand.press(branch.getByRole('button'));
    await hand.click(/^25\.5 /, 'checkbox');
    await expect(page.locator('[data-line]').first()).toContainText('except 25.5');
    await page.keyboard.press('Control+z');
    await hand.key('Escape');
    await hand.line('revenue 1m+ eur');
    const before = await hand.tally();
    await hand.press(page.locator('[data-line]').nth(1));
    const steps = page.getByRole('region', { name: 'One step wider or narrower' });
    const narrower = steps.getByRole('button', { name: /^from €2m/ });
    const promised = Number((await narrower.locator('span').nth(2).textContent())!.replaceAll(',', ''));
    expect(promised).toBeLessThan(before);
    await hand.press(narrower);
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', String(promised));
    expect(hand.acts).toBeLessThanOrEqual(11);
  });

test('headcount by revenue is brushed as a plane, which sets both lines', async ({ page }) => {
  const hand = await fresh(page);
  await hand.line('headcount 1+');
  await page.locator('[data-line]').first().click();
  await hand.click('headcount by revenue', 'radio');
  const from = page.getByRole('button', { name: 'headcount from 10, revenue from €1m', exact: false });
  const to = page.getByRole('button', { name: 'headcount from 70, revenue from €7m', exact: false });
  await from.hover();
  await page.mouse.down();
  await to.hover();
  await page.mouse.up();
  await expect(page.locator('[data-line]')).toHaveCount(2);
  await expect(page.locator('[data-line]').first()).toContainText('10 to 99');
  await expect(page.locator('[data-line]').nth(1)).toContainText('€1m to under €10m');
});

for (const by of WAYS)
  test(`J14, by ${by}: premises in the towns around one, postcodes pasted, neighbours offered`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line('in "Wien, AT-9"');
    await hand.press(page.locator('[data-line]').first());
    const neighbour = page.getByText('neighbours:').locator('..').getByRole('button').first();
    const key = (await neighbour.textContent())!;
    await hand.press(neighbour);
    await expect(page.locator('[data-line]').first()).toContainText(/in Wien or /);
    expect(key).toMatch(/ \d+ km \d+$/);
    await hand.click('postcodes', 'radio');
    const country = page.getByLabel('Country');
    if (by === 'keys') {
      await hand.reach(country);
      await page.keyboard.type('Austria');
    } else await country.selectOption('AT');
    await expect(country).toHaveValue('AT');
    const postcodes = page.getByLabel('Type or paste postcodes');
    if (by === 'keys') {
      await hand.reach(postcodes);
      await page.keyboard.type('10*\n1200..1299\nnonsense');
    } else await postcodes.fill('10*\n1200..1299\nnonsense');
    await expect(page.getByRole('alert')).toContainText('“AT nonsense” is no postcode');
    for (let i = 0; i < '\nnonsense'.length; i++) await postcodes.press('Backspace');
    await hand.click(/Add 2 postcodes/);
    await expect(page.locator('[data-line]').first()).toContainText('postcode AT 10* or AT 1200..1299');
    expect(await hand.tally()).toBeGreaterThan(0);
  });

test('an area is drawn on the map and holds what lies in it', async ({ page }) => {
  const hand = await fresh(page);
  await page.getByRole('button', { name: 'Pick a condition' }).click();
  await page.getByRole('menuitem', { name: /^Place/ }).click();
  await hand.click('drawn area', 'radio');
  const map = page.getByRole('img', { name: /Map/ });
  await expect(map).toBeVisible();
  for (const [x, y] of [
    [420, 160],
    [560, 170],
    [520, 300],
  ] as const)
    await map.click({ position: { x, y } });
  await expect(page.getByText('would be left')).toBeVisible();
  await hand.click('Close the area');
  await expect(page.locator('[data-line]').first()).toContainText('in a drawn area of 3 corners');
  const left = await hand.tally();
  expect(left).toBeGreaterThan(0);
  const typed = await page.locator('footer').getByText('typed:').locator('span').textContent();
  await page.keyboard.press('Control+z');
  await hand.key('Escape');
  await hand.line(typed!);
  expect(await hand.tally()).toBe(left);
});

for (const by of WAYS)
  test(`J18, by ${by}: which line holds back is seen at once; joined by or it holds back no more`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line('uses production-planning; words zzz');
    await expect(page.getByText('holds back most')).toBeVisible();
    expect(await hand.tally()).toBe(0);
    // The last line becomes a branch beside another condition.
    await hand.type('or growth of headcount over 1y 10+');
    await expect(page.locator('[data-line]').nth(1)).toContainText('Either words zzz or growth');
    const left = await hand.tally();
    expect(left).toBe(
      await tallyOf(page, [
        { id: 'a', field: 'technology', test: { any: ['production-planning'] } },
        {
          id: 'b',
          either: [
            { id: 'c', field: 'words', test: { text: 'zzz' } },
            { id: 'd', field: 'growth', test: { of: 'headcount', over: '1y', from: 10 } },
          ],
        },
      ]),
    );
    // A branch is picked without what only a whole line has.
    await hand.press(page.locator('[data-line]').nth(1));
    await hand.click(/growth/, 'tab');
    await expect(page.getByRole('figure')).toBeVisible();
    await expect(page.getByText('One step wider or narrower')).toHaveCount(0);
    await page.keyboard.press('Escape');
    if (by === 'mouse') await page.locator('[data-line]').nth(1).hover();
    await hand.click('Take the block apart');
    await expect(page.locator('[data-line]')).toHaveCount(3);
    if (by === 'keys') {
      await hand.reach(page.locator('[data-line]').nth(2));
      await hand.key('r');
      await expect(page.locator('[data-line]')).toHaveCount(2);
      expect(await hand.tally()).toBe(left);
      expect(hand.acts).toBeLessThanOrEqual(15);
      return;
    }
    // Dragged onto the one above, they are joined again.
    const grip = page.getByRole('button', { name: 'Move Growth' });
    await grip.hover();
    await page.mouse.down();
    await page.mouse.move(1000, 300, { steps: 4 });
    const zone = page.getByText('drop here: either this or that').nth(1);
    await zone.hover();
    await page.mouse.up();
    await expect(page.locator('[data-line]')).toHaveCount(2);
    expect(await hand.tally()).toBe(left);
  });

for (const by of WAYS)
  test(`J15 and J13, by ${by}: words in the description, a narrow span, known customers apart`, async ({
    page,
  }) => {
    const hand = await fresh(page, by);
    await hand.line(
      'words in description: family or certified not kitchen; headcount 12-30; not on list our-customers',
    );
    const left = await hand.tally();
    expect(left).toBeGreaterThan(0);
    // Rows are picked once they are those of the tape.
    await expect(page.getByText(/^rows 1 to/)).toContainText(`of ${left.toLocaleString('en-GB')}`);
    await hand.key('Escape');
    await hand.key('Escape');
    if (by === 'keys') for (const key of ['Space', 'j', 'j', 'Space', 's']) await hand.key(key);
    else {
      for (const row of [0, 2]) await hand.press(page.locator('[data-row]').nth(row).getByRole('checkbox'));
      await hand.click(/^Add to list/);
    }
    await expect(page.getByRole('heading', { name: '2 companies to a list' })).toBeVisible();
    await page.keyboard.type('To call');
    await hand.key('Enter');
    await expect(page.getByText('2 put on To call')).toBeVisible();
    expect(hand.acts).toBeLessThanOrEqual(12);
    await page.getByRole('link', { name: 'Lists', exact: true }).click();
    await page.getByRole('button', { name: 'To call', exact: true }).click();
    await expect(page.locator('[data-tally]')).toHaveAttribute('data-tally', '2');
    await page.getByRole('link', { name: 'Lists', exact: true }).click();
    await page.getByRole('button', { name: 'More for To call' }).click();
    await page.getByRole('menuitem', { name: 'Remove' }).click();
    await expect(page.getByRole('button', { name: 'To call', exact: true })).toHaveCount(0);
  });

test('“or …” without figures joins what is typed and not what it might mean otherwise', async ({ page }) => {
  const hand = await fresh(page);
  await hand.line('status active');
  await page.locator('[data-entry]').fill('or uses rutavel');
  await expect(page.getByRole('option').first()).toContainText('uses rutavel');
  await page.locator('[data-entry]').press('Enter');
  await expect(page.locator('[data-line]').first()).toContainText(
    'Either status active or technology Rutavel',
  );
});

test('from a company to its neighbours within a distance, in one act', async ({ page }) => {
  const hand = await fresh(page);
  await hand.line('nace 25.51; in Czechia');
  const row = page.locator('[data-row] a').first();
  const name = (await row.locator('strong').textContent())!;
  await row.click();
  await hand.click('Companies within 20 km');
  await expect(page.locator('[data-line]').nth(2)).toContainText(`within 20 km of ${name}`);
  expect(await hand.tally()).toBeGreaterThanOrEqual(1);
});

test('a part is put on another tape in one act, from the jump box; the whole reads as a sentence', async ({
  page,
}) => {
  const hand = await fresh(page);
  await hand.line('fresh 24 months headcount 20+');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('our target market');
  await page.getByRole('option', { name: /Our target market/ }).click();
  await expect(page.locator('[data-line]')).toHaveCount(3);
  await page.getByRole('button', { name: 'How it reads' }).click();
  await expect(
    page.getByText(
      /^Companies with headcount 20 or more, no older than 24 months, industry .* and place in Central Europe, Nordic or Baltic\.$/,
    ),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-line]')).toHaveCount(1);
});

test('the bare address opens the tape that the workspace opens with', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByLabel('Name of the tape')).toHaveValue(/^Targets/);
  expect(await new Hand(page).tally()).toBeGreaterThan(0);
});

test('axe finds nothing on any picker, by day and by night', async ({ page }) => {
  test.setTimeout(240_000);
  const kinds = new Set<string>();
  for (const field of lineFields('companies')) {
    if (kinds.has(field.kind)) continue;
    kinds.add(field.kind);
    await page.goto(`/desk?line=new:${field.id}`);
    await expect(page.getByRole('heading', { level: 1, name: field.label, exact: true })).toBeVisible();
    await expect(page.locator('[data-tally]')).toBeVisible();
    await axeFindsNothing(page, field.id);
  }
});
