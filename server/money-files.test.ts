import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import type { MoneyCell } from '../core/cells.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Money of files in every unit, spelling and currency: each amount is on the right side of a line that ends just there. */

const server = new TestServer();
beforeAll(() => server.start(1));
afterAll(() => server.stop());

const FIELDS = [
  ['revenue', 'Revenue', 'Obrat', 'Umsatz'],
  ['profit', 'Profit', 'Zisk', 'Gewinn'],
  ['assets', 'Total assets', 'Bilancni suma', 'Bilanzsumme'],
] as const;
/** How a heading says the unit, and what one of it is. */
const UNITS = [
  ['', 1],
  [' in thousands', 1e3],
  [' v mil.', 1e6],
] as const;
const CURRENCIES = ['EUR', 'CZK', 'GBP'] as const;
/** In the unit: some that binary fractions do not hold. */
const AMOUNTS = [0.07, 1.005, 4.35, 19.99, 2500];

/** Every field in every unit and currency once. */
const cases = FIELDS.flatMap(([field, ...headings]) =>
  UNITS.flatMap(([unit, scale], u) =>
    CURRENCIES.filter((_, c) => c === u).map((currency) => ({
      field,
      heading: `${headings[u % headings.length]}${unit}`,
      scale,
      currency,
      decimal: currency === 'CZK' ? ',' : '.',
    })),
  ),
);
describe.each(cases)(
  '$heading in $currency with decimal $decimal',
  ({ field, heading, scale, currency, decimal }) => {
    const cell = (amount: number) => `"${String(amount).replace('.', decimal)}"`;
    const exact = (amount: number) => Number((amount * scale).toPrecision(15));
    const source = `${heading} ${currency}`;
    const lineOf = (range: object) => ({
      id: 'a',
      field,
      test: { ...range, currency },
    });
    const from = { id: 's', field: 'source', test: { any: [] as string[] } };

    beforeAll(async () => {
      const rows = AMOUNTS.map((amount, i) => `Firm ${i},${source}${i},CZ,${cell(amount)}`);
      const file = `name,registration number,country,${heading}\n${rows.join('\n')}`;
      const preview = (await server.upload('money.csv', Buffer.from(file))).body as UploadAnswer;
      expect(preview.mapping.columns[3]).toBe(field);
      const mapping = { ...preview.mapping, decimal, currency, year: 2025 };
      const answer = await server.load(preview, { mapping, name: source });
      expect(answer.job).toMatchObject({ state: 'done', result: { refused: 0 } });
      const { sources } = (await server.api.get('/api/sources')).body as {
        sources: { key: string; name: string }[];
      };
      from.test.any = [sources.find(({ name }) => name === source)!.key];
    });

    test('is kept as it was written', async () => {
      const answer = await server.api
        .post('/api/rows')
        .send({ tape: tape([from]), columns: [field], sort: [{ by: field }], limit: 10, offset: 0 });
      const cells = (answer.body as RowsAnswer).rows.map((row) => row.cells[field] as MoneyCell);
      expect(cells.map(({ amount, currency: own, basis }) => [amount, own, basis])).toEqual(
        AMOUNTS.map((amount) => [exact(amount), currency, 'reported']),
      );
    });
    test('is on the right side of a line that ends just there', async () => {
      for (const [i, amount] of AMOUNTS.entries()) {
        const left = async (range: object) =>
          (
            (await server.api.post('/api/tally').send({ tape: tape([from, lineOf(range)]) }))
              .body as WordedTally
          ).tally;
        expect([amount, await left({ from: exact(amount) })]).toEqual([amount, AMOUNTS.length - i]);
        expect([amount, await left({ to: exact(amount) })]).toEqual([amount, i + 1]);
        expect([amount, await left({ from: exact(amount), to: exact(amount) })]).toEqual([amount, 1]);
      }
    });
  },
);
