import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { learnAddresses, makeAddress, type KnownAddress } from '../core/people/address-model.ts';
import { namePartsOf } from '../core/people/name-parts.ts';
import { domainOf } from '../core/text/domain.ts';
import { openUniverse, type Db } from '../server/db/open.ts';
import { loadDemo } from './load-demo.ts';

/** How far the certainty of made addresses holds, on addresses of the demo that the model has not seen. */

const dir = mkdtempSync(join(tmpdir(), 'just-tally-mails-'));
let db: Db;
beforeAll(async () => {
  db = openUniverse(dir);
  await loadDemo(db, 12_000, () => {});
});
afterAll(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

interface Row {
  id: number;
  name: string;
  mail: string;
  country: string;
  headcount: number | null;
  web: string;
}

function recorded(): (KnownAddress & { id: number })[] {
  return db
    .prepare<[], Row>(
      `SELECT p.id, p.name, p.recorded_mail AS mail, c.country, c.headcount_point AS headcount, c.web
       FROM person p JOIN company c ON c.id = p.company_id WHERE p.recorded_mail IS NOT NULL AND c.web IS NOT NULL`,
    )
    .all()
    .map(({ id, name, mail, country, headcount, web }) => ({
      ...{ id, country, headcount, web: domainOf(web) },
      name: namePartsOf(name)!,
      local: mail.split('@')[0]!,
      domain: mail.split('@')[1]!,
    }));
}

test('of those said to be so sure, so many are right: on four times a fourth held out', () => {
  const all = recorded();
  const bins = new Map<number, { told: number; right: number; n: number }>();
  for (let part = 0; part < 4; part++) {
    const model = learnAddresses(all.filter(({ id }) => id % 4 !== part));
    for (const person of all) {
      if (person.id % 4 !== part) continue;
      const made = makeAddress(model, person);
      if (!made) continue;
      const at = Math.min(19, Math.floor(20 * made.certainty));
      const bin = bins.get(at) ?? { told: 0, right: 0, n: 0 };
      bins.set(at, bin);
      bin.n++;
      bin.told += made.certainty;
      bin.right += Number(made.local === person.local);
    }
  }
  const high = bins.get(18)!;
  expect(high.n).toBeGreaterThan(1000);
  expect(high.right / high.n).toBeGreaterThanOrEqual(0.9);
  expect(high.right / high.n).toBeLessThanOrEqual(0.95);
  for (const [at, { told, right, n }] of bins) {
    if (n < 300) continue;
    const share = right / n;
    // What luck alone may do to so many, three times over, and a little for what was learned from others.
    const room = 3 * Math.sqrt((share * (1 - share)) / n) + 0.03;
    expect({ bin: at * 5, off: Math.abs(share - told / n) <= room }).toEqual({ bin: at * 5, off: true });
  }
});

test('everybody at a company with a site has an address, and each says how it was come by', () => {
  const counts = db
    .prepare<[], { address: string | null; made: number; n: number }>(
      `SELECT address, made_by IS NOT NULL AS made, count(*) AS n FROM person p JOIN company c ON c.id = p.company_id
       WHERE c.web IS NOT NULL GROUP BY 1, 2`,
    )
    .all();
  expect(counts.map(({ address, made }) => [address, made]).sort()).toEqual([
    ['guess', 1],
    ['likely', 1],
    ['recorded', 0],
  ]);
  const twice = db
    .prepare<[], number>(
      `SELECT count(*) FROM (SELECT mail FROM person WHERE made_by IS NOT NULL GROUP BY mail HAVING count(*) > 1)`,
    )
    .pluck()
    .get();
  expect(twice).toBe(0);
});
