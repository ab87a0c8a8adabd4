import type { NumberTest } from './nodes.ts';

/** Figures that limits step to: 1, 2, 5 in each decade, below zero too, and 0. */
function neighbour(value: number, way: 1 | -1): number {
  if (value === 0) return way;
  if (value < 0) return -neighbour(-value, way === 1 ? -1 : 1);
  const decade = 10 ** Math.floor(Math.log10(value) + 1e-9);
  const steps = [0.5, 1, 2, 5, 10].map((step) => Number((step * decade).toPrecision(12)));
  if (way === 1) return steps.find((step) => step > value * (1 + 1e-9))!;
  if (value <= 1) return 0;
  return steps.findLast((step) => step < value * (1 - 1e-9))!;
}

/** A range with one of its limits moved by a step. */
export interface RangeStep {
  end: 'from' | 'to';
  way: 'wider' | 'narrower';
  test: NumberTest;
}

/**
 * What a range becomes one step wider or narrower at either end, by steps of 1, 2, 5 a decade. Limits of whole
 * numbers that end on 9, as size classes do, step to the next that does (49 to 99). Steps that
 * would leave nothing between the limits are left out.
 */
export function rangeSteps(test: NumberTest, whole: boolean): RangeStep[] {
  const steps: RangeStep[] = [];
  const add = (end: 'from' | 'to', way: RangeStep['way'], limit: number) => {
    const moved = { ...test, [end]: limit };
    if ((moved.from ?? -Infinity) <= (moved.to ?? Infinity) && limit !== test[end])
      steps.push({ end, way, test: moved });
  };
  if (test.from !== undefined) {
    add('from', 'wider', neighbour(test.from, -1));
    add('from', 'narrower', neighbour(test.from, 1));
  }
  if (test.to !== undefined) {
    const nines = whole && test.to % 10 === 9 ? 1 : 0;
    add('to', 'narrower', neighbour(test.to + nines, -1) - nines);
    add('to', 'wider', neighbour(test.to + nines, 1) - nines);
  }
  return steps;
}
