import { stringify } from 'csv-stringify/sync';
import { carelessFile } from '../demo/corrupt.ts';
import { openUniverse } from '../server/db/open.ts';
import { firmFinder } from '../server/match/universe-firms.ts';

/** A careless file of visitors of a fair, as of some companies of a demo universe and some that it has not. */
export function fairVisitors(dir: string, rows: number): Buffer {
  const universe = openUniverse(dir, { readonly: true });
  const ids = universe
    .prepare<[number], number>(
      "SELECT id FROM company WHERE country IN ('PL', 'CZ', 'SK', 'DE', 'AT') ORDER BY (id * 7919) % 10007, id LIMIT ?",
    )
    .pluck()
    .all(rows);
  const look = firmFinder(universe);
  const file = carelessFile(
    ids.map((id) => look(id)),
    5,
  );
  universe.close();
  const asked = ['filters', 'ventilation', 'a visit', 'price list', ''];
  return Buffer.from(
    stringify([
      [
        ...[
          'Company',
          'Registration number',
          'Website',
          'Mail',
          'Phone',
          'Street',
          'Postcode',
          'Town',
          'Country',
        ],
        ...['Employees', 'Stand', 'Asked about'],
      ],
      ...file.map(({ firm }, i) => [
        ...[
          firm.name,
          firm.registration,
          firm.web,
          firm.mail,
          firm.phone,
          firm.street,
          firm.postcode,
          firm.town,
        ],
        ...[firm.country, firm.headcount, (i % 40) + 1, asked[i % asked.length]],
      ]),
    ]),
  );
}
