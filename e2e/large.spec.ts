import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import { parse } from 'csv-parse/sync';
import { Hand } from './hand.ts';
import { baseOf, folderOf } from './ports.ts';

test.use({ baseURL: baseOf('large') });
test.setTimeout(360_000);

test('100,000 companies: narrowed, looked through to the last, sorted and exported whole', async ({
  page,
}) => {
  const hand = new Hand(page);
  await page.goto('/desk');
  expect(await hand.tally()).toBe(100_000);
  await hand.line('not nace 16.23 any rank; founded 1950-2026; words windows or steel');
  const left = await hand.tally();
  await page.keyboard.press('Escape');

  const db = new Database(`${folderOf('large')}/universe.sqlite`, { readonly: true });
  const wanted = db
    .prepare<[], { key: string; name: string; founded: number }>(
      `SELECT key, name, founded FROM company c WHERE founded BETWEEN 1950 AND 2026
         AND id IN (SELECT rowid FROM company_words WHERE company_words MATCH 'windows OR steel')
         AND NOT EXISTS (SELECT 1 FROM company_code WHERE company_id = c.id AND scheme = 'nace-2.1' AND code = '16.23')
       ORDER BY founded DESC, id`,
    )
    .all();
  // Our customers, their groups, and whoever has the domain of one of these stay here.
  db.exec(`ATTACH '${folderOf('large')}/lists.sqlite' AS lists`);
  const keptOff = new Set(
    db
      .prepare<[], string>(
        `WITH own AS (SELECT c.key, c.group_name FROM lists.list_member m JOIN company c ON c.key = m.key
           JOIN lists.list l ON l.key = m.list WHERE l.suppression IS NOT NULL AND l.subject = 'companies')
         , named AS (SELECT key FROM own UNION SELECT key FROM company WHERE group_name IN (SELECT group_name FROM own))
         SELECT key FROM named UNION SELECT key FROM company WHERE domain IN (
           SELECT domain FROM company GROUP BY domain HAVING count(*) BETWEEN 2 AND 50
             AND max(key IN (SELECT key FROM named)))`,
      )
      .pluck()
      .all(),
  );
  db.close();
  expect(left).toBe(wanted.length);

  await page.goto(`${page.url()}&sort=founded-`);
  await expect(page.locator('[data-row]').first()).toHaveAttribute('data-row', wanted[0]!.key);
  const sheet = page.locator('[data-sheet]');
  for (const share of [0.5, 0.25, 1]) {
    await sheet.evaluate((element, part) => {
      element.scrollTop = (element.scrollHeight - element.clientHeight) * part;
    }, share);
    const key = share === 1 ? wanted.at(-1)!.key : wanted[Math.floor(left * share)]!.key;
    await expect(page.locator(`[data-row="${key}"]`)).toBeVisible();
  }

  await page.keyboard.press('x');
  await hand.click('CSV', 'radio');
  const file = await hand.download(() => hand.click(/^Export [\d,]+$/), 120_000);
  const rows = parse<Record<string, string>>(file, { bom: true, columns: true });
  expect(rows.map((row) => row.Company)).toEqual(
    wanted.filter(({ key }) => !keptOff.has(key)).map(({ name }) => name),
  );
});
