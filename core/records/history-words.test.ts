import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { historyText } from './history-words.ts';
import { readHistory, readMonths } from './lists-in-cells.ts';

const figure = fc.oneof(fc.nat(), fc.double({ min: 0, max: 1e12, noNaN: true }).map(hundredth));

test('figures by year come back, estimates marked', () => {
  expect(historyText([{ year: 2024, value: 12.5, estimate: true }])).toBe('2024:≈12.5');
  const points = fc
    .uniqueArray(fc.integer({ min: 1900, max: 2100 }), { minLength: 1, maxLength: 8 })
    .chain((years) =>
      fc.tuple(
        ...[...years]
          .sort((a, b) => a - b)
          .map((year) => fc.record({ year: fc.constant(year), value: figure, estimate: fc.boolean() })),
      ),
    );
  fc.assert(fc.property(points, (history) => expect(readHistory(historyText(history))).toEqual(history)));
});

test('so do those of months on end', () => {
  const months = fc.record({
    start: fc.constantFrom('2024-01', '2025-12'),
    values: fc.array(figure, { minLength: 1, maxLength: 24 }),
  });
  fc.assert(fc.property(months, (history) => expect(readMonths(historyText(history))).toEqual(history)));
});

function hundredth(value: number): number {
  return Math.round(value * 100) / 100;
}
