import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Figures } from '../tally/figures.ts';
import type { Buckets } from './buckets.ts';
import type { Measure } from './chart.ts';
import { chartFigures, spanOf, type Slot } from './figures.ts';

/** A record: the group it is in (0 unknown, one above the last banded) and its figure, if it has one. */
interface Drawn {
  group: number;
  figure: number | null;
}
const KEYS = ['a', 'b', 'c', 'd', 'e'];
const anyDrawn = fc.array(
  fc.record({ group: fc.nat(KEYS.length + 1), figure: fc.option(fc.integer({ min: -50, max: 500 })) }),
  { minLength: 1, maxLength: 60 },
);

function bucketsOf(drawn: readonly Drawn[], ordered = false): Buckets {
  return {
    keys: KEYS,
    ordered,
    edges: null,
    single: Uint8Array.from(drawn, ({ group }) => group),
    many: null,
  };
}
function figuresOf(drawn: readonly Drawn[]): Figures {
  return {
    values: Float64Array.from(drawn, ({ figure }) => figure ?? NaN),
    column: null,
    scale: (value) => value,
  };
}
const allOf = (drawn: readonly unknown[]) => Uint32Array.from(drawn.keys());
const of = (drawn: readonly Drawn[], measure: Measure, more: object = {}) =>
  chartFigures(
    {
      by: bucketsOf(drawn),
      split: null,
      measure,
      figures: measure.field ? figuresOf(drawn) : null,
      axisFigures: null,
      strips: false,
      ...more,
    },
    allOf(drawn),
    null,
  );
const groupOf = (slot: Slot) =>
  slot.kind === 'unknown' ? 0 : slot.kind === 'banded' ? KEYS.length + 1 : KEYS.indexOf(slot.key!) + 1;
const median = (values: number[]) => {
  const sorted = values.toSorted((a, b) => a - b);
  const middle = (sorted.length - 1) / 2;
  return (sorted[Math.floor(middle)]! + sorted[Math.ceil(middle)]!) / 2;
};

describe('figures of a chart', () => {
  test('count every record once, the unknown and the banded beside the groups', () => {
    fc.assert(
      fc.property(anyDrawn, fc.boolean(), (drawn, ordered) => {
        const { slots, total } = of(drawn, { of: 'count' }, { by: bucketsOf(drawn, ordered) });
        expect(total).toBe(drawn.length);
        expect(slots.reduce((sum, { count }) => sum + count, 0)).toBe(drawn.length);
        for (const slot of slots)
          expect(slot.count).toBe(drawn.filter(({ group }) => group === groupOf(slot)).length);
      }),
    );
  });
  test('sums, means and medians are of the figures that are there', () => {
    fc.assert(
      fc.property(anyDrawn, fc.constantFrom('sum', 'mean', 'median'), (drawn, what) => {
        const { slots } = of(drawn, { of: what, field: 'revenue' });
        for (const slot of slots) {
          const figures = drawn
            .filter(({ group, figure }) => group === groupOf(slot) && figure !== null)
            .map(({ figure }) => figure!);
          expect(slot.valued).toBe(figures.length);
          if (!figures.length) expect(slot.value).toBeNull();
          else {
            const sum = figures.reduce((all, one) => all + one, 0);
            const wanted = { sum, mean: sum / figures.length, median: median(figures) }[what];
            expect(slot.value).toBeCloseTo(wanted, 9);
          }
        }
      }),
    );
  });
  test('shares are of those known and add up to the whole', () => {
    fc.assert(
      fc.property(anyDrawn, (drawn) => {
        const { slots } = of(drawn, { of: 'share' });
        const known = slots.filter(({ kind }) => kind !== 'unknown');
        for (const { value, kind } of slots) if (kind === 'unknown') expect(value).toBeNull();
        const whole = known.reduce((sum, { value }) => sum + (value ?? 0), 0);
        if (known.some(({ count }) => count > 0)) expect(whole).toBeCloseTo(100, 9);
      }),
    );
  });
  test('show the largest groups and put the others together, none twice', () => {
    fc.assert(
      fc.property(anyDrawn, fc.integer({ min: 1, max: 4 }), (drawn, most) => {
        const { slots } = of(drawn, { of: 'count' }, { most });
        const shown = slots.filter(({ kind }) => kind === 'group');
        const rest = slots.find(({ kind }) => kind === 'rest');
        const counts = KEYS.map((_, g) => drawn.filter(({ group }) => group === g + 1).length);
        const filled = counts.filter((count) => count > 0).sort((a, b) => b - a);
        expect(shown.map(({ count }) => count)).toEqual(filled.slice(0, most));
        expect(rest?.groups ?? 0).toBe(Math.max(0, filled.length - most));
        expect(rest?.count ?? 0).toBe(filled.slice(most).reduce((sum, count) => sum + count, 0));
      }),
    );
  });
  test('of groups in an order run from the first to the last that anybody is in, with those between', () => {
    const drawn = [
      { group: 2, figure: null },
      { group: 4, figure: null },
      { group: 4, figure: null },
    ];
    const by = bucketsOf(drawn, true);
    const { slots } = of(drawn, { of: 'count' }, { by });
    expect(slots.map(({ key, count }) => [key, count])).toEqual([
      ['b', 1],
      ['c', 0],
      ['d', 2],
    ]);
    expect(spanOf(by, allOf(drawn))).toBe(3);
    expect(spanOf(by, new Uint32Array())).toBe(0);
  });
  test('are compared with another set, group by group', () => {
    fc.assert(
      fc.property(anyDrawn, (drawn) => {
        const half = allOf(drawn).filter((r) => r % 2 === 0);
        const { slots } = chartFigures(
          {
            by: bucketsOf(drawn),
            split: null,
            measure: { of: 'count' },
            figures: null,
            axisFigures: null,
            strips: false,
          },
          half,
          allOf(drawn),
        );
        for (const slot of slots)
          if (slot.kind === 'group')
            expect(slot.base!.count).toBe(drawn.filter(({ group }) => group === groupOf(slot)).length);
      }),
    );
  });
  test('of a split add up to their group', () => {
    fc.assert(
      fc.property(anyDrawn, (drawn) => {
        const split = bucketsOf(drawn.map(({ figure }) => ({ group: Math.abs(figure ?? 0) % 6, figure })));
        const { slots, split: parts } = of(drawn, { of: 'count' }, { split });
        for (const { count, parts: own } of slots) {
          expect(own).toHaveLength(parts!.length);
          expect(own!.reduce((sum, part) => sum + part.count, 0)).toBe(count);
        }
      }),
    );
  });
  test('strips rise from the least figure to the largest', () => {
    fc.assert(
      fc.property(anyDrawn, (drawn) => {
        const { slots } = of(drawn, { of: 'median', field: 'revenue' }, { strips: true });
        for (const { strip, valued, value } of slots)
          if (valued > 0) {
            expect(strip).toEqual(strip!.toSorted((a, b) => a - b));
            expect(strip![3]).toBeCloseTo(value!, 9);
          }
      }),
    );
  });
});

describe('records with several values', () => {
  /** The first has a and b, the second b twice, the third none though surveyed, the fourth nobody looked at. */
  const by: Buckets = {
    keys: ['a', 'b'],
    ordered: false,
    edges: null,
    single: null,
    many: {
      offsets: Uint32Array.of(0, 2, 4, 4, 4),
      values: Uint8Array.of(0, 1, 1, 1),
      known: Uint32Array.of(0b0111),
    },
  };
  test('count in each group of theirs, once; those without any known are unknown', () => {
    const drawn = Array.from({ length: 4 }, () => ({ group: 0, figure: 10 }));
    const { slots } = of(drawn, { of: 'sum', field: 'revenue' }, { by, figures: figuresOf(drawn) });
    const told = Object.fromEntries(
      slots.map(({ key, kind, count, value }) => [key ?? kind, [count, value]]),
    );
    expect(told).toMatchObject({ a: [1, 10], b: [2, 20], unknown: [1, 10] });
  });
});
