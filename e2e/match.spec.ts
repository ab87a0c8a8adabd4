import { expect, test, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { parse } from 'csv-parse/sync';
import { readFile } from 'node:fs/promises';
import { axeFindsNothing } from './axe.ts';
import { Hand, WAYS } from './hand.ts';
import { baseOf, folderOf } from './ports.ts';

/** One's own companies found again in the universe, settled by keys, and what is made of them. */

interface Known {
  key: string;
  name: string;
  registration: string;
  web: string;
  town: string;
}

/** Companies of the demo that alone have their domain, in one country. */
function known(limit: number): Known[] {
  const db = new Database(`${folderOf('demo')}/universe.sqlite`, { readonly: true });
  const found = db
    .prepare<[number], Known>(
      `SELECT key, name, registration, web, town FROM company c WHERE registration IS NOT NULL AND web IS NOT NULL AND town IS NOT NULL
         AND country = 'CZ' AND people_known = 1 AND (SELECT count(*) FROM company o WHERE o.web = c.web) = 1 ORDER BY id LIMIT ?`,
    )
    .all(limit);
  db.close();
  return found;
}

/** A file of some of them by domain, some by number, one by a name alone, and one that nobody knows. */
function visitors(firms: readonly Known[]): Buffer {
  const lines = firms.map(({ name, registration, web, town }, i) =>
    i === 0
      ? [name.toUpperCase(), '', '', '', '1']
      : i % 2
        ? ['', '', `https://www.${web}/contact`, '', String(i + 1)]
        : ['', `CZ${registration}`, '', town, String(i + 1)],
  );
  lines.push(['Nowhere Known Brothers', '', '', 'Brno', '99']);
  const rows = [['Company', 'Registration number', 'Website', 'Town', 'Stand'], ...lines];
  return Buffer.from(rows.map((row) => row.map((cell) => `"${cell}"`).join(',')).join('\n'));
}

for (const by of WAYS)
  test(`J17: one’s own firms by domain, the doubtful settled by hand, then their people, by ${by}`, async ({
    page,
  }) => {
    const firms = known(9);
    const hand = new Hand(page, by);
    await page.goto('/sources');
    await hand.click('Match a file');
    await page.getByLabel('File of companies').setInputFiles({
      name: `visitors ${by}.csv`,
      mimeType: 'text/csv',
      buffer: visitors(firms),
    });
    hand.acts++;
    await expect(page.getByLabel('rows to match: 10')).toBeVisible();
    await hand.click('Match them');
    const roll = page.getByRole('complementary', { name: `visitors ${by}` });
    await expect(roll.getByLabel(/match rate: 8\d %/)).toBeVisible({ timeout: 60_000 });
    await expect(page.getByText('the file, row 2')).toBeVisible();
    await hand.key('1');
    await expect(roll.getByLabel('match rate: 90 %')).toBeVisible();
    await hand.key('p');
    await expect(page.getByText('all people')).toBeVisible();
    const before = await hand.tally();
    await hand.type('head+; title not assistant');
    await expect(page.locator('ol[aria-label="Lines"] > li')).toHaveCount(3);
    expect(hand.acts).toBeLessThanOrEqual(7);
    const left = await hand.tally();
    expect(before).toBeGreaterThan(0);
    expect(left).toBeLessThanOrEqual(before);
    const db = new Database(`${folderOf('demo')}/universe.sqlite`, { readonly: true });
    const people = db
      .prepare<[string], number>(
        'SELECT count(*) FROM person p JOIN company c ON c.id = p.company_id WHERE c.key IN (SELECT value FROM json_each(?))',
      )
      .pluck()
      .get(JSON.stringify(firms.map(({ key }) => key)));
    db.close();
    expect(before).toBe(people);
  });

test('the file comes back with columns, the rest becomes a file, and all of it is undone or removed', async ({
  page,
}) => {
  const firms = known(9);
  const hand = new Hand(page);
  await page.goto('/sources?load=match');
  // Pasted as from a sheet.
  await page.getByLabel(/Or paste a column/).fill(visitors(firms).toString().replaceAll('","', '"\t"'));
  await hand.click('Use what is pasted');
  await page.getByLabel('Name of the match').fill('Fair of Brno');
  await hand.click('Match them');
  const roll = page.getByRole('complementary', { name: 'Fair of Brno' });
  await expect(roll.getByLabel(/match rate: 8\d %/)).toBeVisible({ timeout: 60_000 });
  const counted = page.getByRole('region', { name: 'Settle the doubtful' });
  await expect(counted).toContainText('the file, row 2');
  await page.keyboard.press('0');
  await expect(counted).toContainText('1 settled, 0 left');
  await page.keyboard.press('Control+z');
  await expect(counted).toContainText('0 settled, 1 left');

  await hand.click(/The file with columns/);
  const whole = await hand.download(() => hand.click(/^Write 10 rows/));
  const rows = parse<Record<string, string>>(whole, { bom: true, columns: true });
  expect(rows).toHaveLength(10);
  expect(rows[1]).toMatchObject({ Stand: '2', Match: 'sure, by domain', 'Company key': firms[1]!.key });
  expect(rows[2]).toMatchObject({ Stand: '3', Match: 'sure, by number', 'Company key': firms[2]!.key });
  // The file's own column stays as it came, beside that of the universe.
  expect([rows[1]!.Company, rows[1]!['Company (universe)']]).toEqual(['', firms[1]!.name]);
  expect(rows[9]).toMatchObject({ Match: 'none', 'Company key': '' });

  const [download] = await Promise.all([page.waitForEvent('download'), hand.click('as a file')]);
  const rest = parse<Record<string, string>>(await readFile(await download.path()), {
    bom: true,
    columns: true,
  });
  expect(rest.map(({ Stand }) => Stand)).toContain('99');
  await hand.click('as new companies');
  await expect(page.getByLabel(/^companies: /)).toBeVisible();
  await page.goBack();
  await expect(roll.getByLabel(/match rate/)).toBeVisible();

  // What the file says goes onto the list, and is a column there.
  await hand.click(/^Make a list of/);
  await hand.click(/^Open “Fair of Brno” on the Desk/);
  await expect(page.locator('[data-row]').first()).toBeVisible();
  await hand.click(/^Columns/);
  await page.getByRole('checkbox', { name: 'From its file' }).check();
  await page.keyboard.press('Escape');
  await expect(page.locator(`[data-row="${firms[1]!.key}"]`)).toContainText('Stand: 2');

  await page.goto('/sources');
  await page.getByRole('button', { name: 'Remove Fair of Brno' }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Fair of Brno' })).toHaveCount(0);
});

test('axe finds nothing on a match, its doubtful, its rows and its weights, by day and by night', async ({
  page,
}) => {
  await page.goto('/sources?load=match');
  await page.getByLabel('File of companies').setInputFiles({
    name: 'axe.csv',
    mimeType: 'text/csv',
    buffer: visitors(known(5)),
  });
  await expect(page.getByLabel('rows to match: 6')).toBeVisible();
  await axeFindsNothing(page, 'a file to be matched');
  await page.getByRole('button', { name: 'Match them' }).click();
  await expect(page.getByText('Settle the doubtful')).toBeVisible({ timeout: 60_000 });
  await axeFindsNothing(page, 'the doubtful');
  await page.getByRole('button', { name: 'All as a table' }).click();
  await expect(page.getByRole('heading', { name: 'All rows' })).toBeVisible();
  await axeFindsNothing(page, 'the rows');
  await page.getByRole('button', { name: 'how it was weighed' }).click();
  await expect(page.getByRole('heading', { name: 'How it was weighed' })).toBeVisible();
  await axeFindsNothing(page, 'the weights');
});

/** Loads a file of companies as a source, as the reading screen does; `beside` where nothing of it is to be joined. */
async function load(page: Page, name: string, lines: string[], beside = false): Promise<void> {
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: `${name}.csv`,
    mimeType: 'text/csv',
    buffer: Buffer.from(lines.join('\n')),
  });
  if (beside)
    await page.getByLabel('What surely is a company of another source').selectOption('stays beside it');
  await page.getByRole('button', { name: 'Load it' }).click();
  await expect(page.getByRole('row', { name: new RegExp(`^${name}`) })).toBeVisible();
}

async function remove(page: Page, name: string): Promise<void> {
  await page.goto(`${baseOf('empty')}/sources`);
  await page.getByRole('button', { name: `Remove ${name}` }).click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('row', { name: new RegExp(`^${name}`) })).toHaveCount(0);
}

/** Companies of a register, of which none has anything to do with the others. */
const strangers = (retry: number) =>
  Array.from(
    { length: 30 },
    (_, i) => `Othermark ${i} Bau GmbH,4000${retry}${100 + i},DE,Bremen,28195,Polweg ${i},`,
  );

test('what surely is a company of another source is joined by itself after the load', async ({ page }, {
  retry,
}) => {
  const [register, directory] = [`office ${retry}`, `guide ${retry}`];
  await load(page, register, [
    'Company,Registration number,Country,Town,Postcode,Street,Website',
    `Lakovna Veldín s.r.o.,2700022${retry},CZ,Brno,602 00,Hutní 7,www.veldin.example`,
    ...strangers(retry),
  ]);
  await load(page, directory, [
    'Company,Country,Town,Postcode,Street,Phone,Website',
    'VELDIN LAKOVNA,CZ,Brno,60200,Hutni 7,+420 000 055 512,veldin.example',
  ]);
  await expect(page.getByRole('region', { name: 'Doubles' })).toContainText(/1 was joined to another/);
  await page.goto(`${baseOf('empty')}/desk?company=CZ-2700022${retry}`);
  await expect(page.getByText('+420 000 055 512').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'take apart' })).toBeVisible();
  for (const name of [register, directory]) await remove(page, name);
});

test('two sources that name one company differently are made one universe, and two again on its profile', async ({
  page,
}, { retry }) => {
  const [register, directory] = [`register ${retry}`, `directory ${retry}`];
  await load(page, register, [
    'Company,Registration number,Country,Town,Postcode,Street,Website',
    `Zarmysko Stolařství s.r.o.,2500011${retry},CZ,Boskovice,680 01,Lipová 18,www.zarmysko.example`,
    ...strangers(retry),
  ]);
  const other = [
    'Company,Country,Town,Postcode,Street,Phone,Website',
    'ZARMYSKO STOLARSTVI,CZ,Boskovice,68001,Lipova 18,+420 000 041 228,zarmysko.example',
  ];
  await load(page, directory, other, true);
  const universe = async () =>
    ((await (await page.request.get(`${baseOf('empty')}/api/health`)).json()) as { universe: number })
      .universe;
  const before = await universe();
  const doubles = page.getByRole('region', { name: 'Doubles' });
  await doubles.getByRole('button', { name: /^Look/ }).click();
  await doubles.getByRole('link', { name: /1 found/ }).click();
  await page.getByRole('button', { name: 'Join the 1 double' }).click();
  await page.getByRole('button', { name: 'Join them' }).click();
  await expect.poll(universe).toBe(before - 1);
  await page.goto(`${baseOf('empty')}/desk?company=CZ-2500011${retry}`);
  // The phone is of the one, the number of the other.
  await expect(page.getByText('+420 000 041 228').first()).toBeVisible();
  await page.getByRole('button', { name: 'take apart' }).click();
  await expect.poll(universe).toBe(before);
  await expect(page.getByRole('button', { name: 'take apart' })).toHaveCount(0);
  for (const name of [register, directory]) await remove(page, name);
});

test('a newer version of a source is put in its place: who is new, changed and gone, as a list', async ({
  page,
}, { retry }) => {
  const name = `suppliers ${retry}`;
  const head = 'Company,Registration number,Country,Town,Employees';
  await load(page, name, [
    head,
    `Alder Works,7100000${retry},CZ,Brno,20`,
    `Birch Works,7200000${retry},CZ,Brno,30`,
    `Cedar Works,7300000${retry},CZ,Brno,40`,
  ]);
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: `${name} 2026-10.csv`,
    mimeType: 'text/csv',
    buffer: Buffer.from(
      [
        head,
        `Alder Works,7100000${retry},CZ,Brno,20`,
        `Birch Works,7200000${retry},CZ,Praha,45`,
        `Dogwood Works,7400000${retry},CZ,Brno,5`,
      ].join('\n'),
    ),
  });
  await page.getByRole('radio', { name: 'a newer version of …' }).click();
  await expect(page.getByLabel('The source whose place it takes')).toContainText(name);
  await page.getByRole('button', { name: 'Put it in place' }).click();
  await page.getByRole('link', { name: 'newer version: 1 new, 1 changed, 1 gone' }).click();
  const roll = page.getByRole('complementary', { name });
  await expect(roll.getByLabel('companies now: 3')).toBeVisible();
  await expect(page.getByRole('row', { name: /Birch Works town Brno Praha/ })).toBeVisible();
  await axeFindsNothing(page, 'what a newer version did');
  await roll.getByRole('button', { name: '−1' }).click();
  await expect(page.getByRole('cell', { name: 'Cedar Works' })).toBeVisible();
  await roll.getByRole('button', { name: '1', exact: true }).click();
  await page.getByRole('button', { name: 'Make a list of the 1 changed' }).click();
  await page.getByRole('button', { name: 'Open it on the Desk' }).click();
  await expect(page.locator('[data-row]')).toHaveCount(1);
  await expect(page.locator('[data-row]')).toContainText('Birch Works');
  await remove(page, name);
});

test('a newer file of people is put in the place of the older: who moved is who they were', async ({ page }, {
  retry,
}) => {
  const [firms, staff] = [`houses ${retry}`, `staff ${retry}`];
  await load(page, firms, [
    'Company,Registration number,Country,Town,Website',
    `Elder Works,7500000${retry},CZ,Brno,elder-${retry}.example`,
    `Fir Works,7600000${retry},CZ,Brno,fir-${retry}.example`,
  ]);
  const head = 'Full name,Job title,Company domain,Department,E-mail';
  const bruno = (title: string, at: string) =>
    `Bruno Zarvel ${retry},${title},${at}-${retry}.example,sales,bruno-${retry}@mail.example`;
  await load(page, staff, [
    head,
    bruno('Head of sales', 'elder'),
    `Anna Zarvel,Buyer,elder-${retry}.example,,`,
  ]);
  const { sources } = (await (await page.request.get(`${baseOf('empty')}/api/sources`)).json()) as {
    sources: { key: string; name: string }[];
  };
  const { key } = sources.find(({ name }) => name === staff)!;
  await page.goto(`${baseOf('empty')}/sources?load`);
  await page.getByLabel('File of companies').setInputFiles({
    name: `${staff} 2026-10.csv`,
    mimeType: 'text/csv',
    buffer: Buffer.from([head, bruno('Sales director', 'fir'), 'Cyril Zarvel,Clerk,,,'].join('\n')),
  });
  await page.getByRole('radio', { name: 'a newer version of …' }).click();
  await expect(page.getByLabel('The source whose place it takes')).toHaveValue(key);
  await page.getByRole('button', { name: 'Put it in place' }).click();
  await page.getByRole('link', { name: /^newer version: \d new, 1 changed, 1 gone$/ }).click();
  const table = page.getByRole('region', { name: 'Changed' });
  await expect(table.getByRole('row', { name: /company Elder Works Fir Works/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /title Head of sales Sales director/ })).toBeVisible();
  await axeFindsNothing(page, 'what a newer file of people did');
  // Who moved opens at the new company.
  await table.getByRole('link', { name: `Bruno Zarvel ${retry}` }).click();
  await expect(page.getByRole('heading', { level: 1, name: `Bruno Zarvel ${retry}` })).toBeVisible();
  await expect(page.getByText('Fir Works').first()).toBeVisible();
  for (const name of [staff, firms]) {
    await page.goto(`${baseOf('empty')}/sources`);
    await page.getByRole('button', { name: `Remove ${name}` }).click();
    await page.getByRole('button', { name: 'Remove', exact: true }).click();
    await expect(page.getByRole('row', { name: new RegExp(`^${name}`) })).toHaveCount(0);
  }
});

test('a file from elsewhere is asked by its own columns, and fills in what it knows of the companies found, by keys', async ({
  page,
}) => {
  const firms = known(6);
  const hand = new Hand(page, 'keys');
  const health = async () => (await (await page.request.get('/api/health')).json()) as { universe: number };
  const before = await health();
  await page.goto('/sources?load=match');
  const lines = firms.map(({ web }, i) => `${web},buying@${web},${'AB'[i % 2]},${i * 10}`);
  await page.getByLabel('File of companies').setInputFiles({
    name: 'enriched.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['Website,Mail,Segment,Score', ...lines].join('\n')),
  });
  await expect(page.getByLabel('rows to match: 6')).toBeVisible();
  await hand.click('Match them');
  const roll = page.getByRole('complementary', { name: 'enriched' });
  await expect(roll.getByLabel('match rate: 100 %')).toBeVisible({ timeout: 60_000 });
  const match = page.url();

  await hand.key('s');
  await hand.click(/^Open “enriched” on the Desk/);
  await expect(page.getByRole('columnheader', { name: 'Segment' })).toBeVisible();
  expect(await hand.tally()).toBe(6);
  await hand.line('on list enriched carried "Segment" "a"');
  expect(await hand.tally()).toBe(3);
  await hand.line('on list enriched carried "Score" 20+');
  expect(await hand.tally()).toBe(2);

  await page.goto(match);
  await expect(roll.getByLabel('match rate: 100 %')).toBeVisible();
  await hand.key('i');
  await expect(page.getByLabel('companies: 6')).toBeVisible();
  await expect(page.getByLabel('Column Company key is read as')).toHaveValue('company-key');
  await hand.click('Load it');
  await expect(page.getByRole('row', { name: /^enriched, filled in/ })).toContainText('6', {
    timeout: 60_000,
  });
  expect((await health()).universe).toBe(before.universe);
  const { sources } = (await (await page.request.get('/api/sources')).json()) as {
    sources: { key: string; name: string; companies: number }[];
  };
  const filled = sources.find(({ name }) => name === 'enriched, filled in')!;
  expect(filled.companies).toBe(6);
  const profile = await (await page.request.get(`/api/companies/${firms[0]!.key}`)).text();
  expect(profile).toContain(`buying@${firms[0]!.web}`);
  // Other flows find the workspace as it was.
  await page.request.delete(`/api/sources/${filled.key}`, {
    headers: { origin: new URL(page.url()).origin },
  });
});
