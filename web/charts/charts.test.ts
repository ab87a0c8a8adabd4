import { describe, expect, test } from '@jest/globals';
import type { ChartAnswer, ChartSlot, ConcentrationAnswer } from '../../contract/market.ts';
import type { ChartWords } from '../../core/charts/wording.ts';
import { drawnSlots } from './drawing.ts';
import { monthsOption, yearsOption } from './history-options.ts';
import { curveOption, scatterOption, stripOption } from './spread-options.ts';
import type { ChartTheme } from './theme.ts';

/** What is drawn of figures: values, scales and what is said of a point. */

const theme: ChartTheme = {
  ...{
    ground: '#g',
    paper: '#p',
    ink: '#ink',
    soft: '#soft',
    rule: '#r',
    edge: '#e',
    bar: '#b',
    unsure: '#u',
  },
};
const words: ChartWords = {
  value: (value) => `${value} %`,
  axis: (value) => `${value} staff`,
  slot: ({ kind, label }) => label ?? kind,
};
const slot = (more: Partial<ChartSlot>): ChartSlot => ({
  ...{ kind: 'group', key: 'a', groups: 1, count: 1, value: 1, valued: 1, estimated: 0 },
  ...{ label: 'A', edges: null, test: null },
  ...more,
});
const answer = (more: Partial<ChartAnswer>): ChartAnswer =>
  ({ total: 0, median: null, slots: [], split: null, scatter: null, ...more }) as ChartAnswer;

interface Drawn {
  xAxis: {
    type: string;
    min?: number;
    max?: number;
    data?: string[];
    axisLabel: { formatter(n: number): string };
  };
  yAxis: { min: number; max: number; data?: string[] };
  series: {
    data: { value: number[]; real: number[]; name: string }[];
    symbol: string;
    lineStyle: { type: unknown; width: number };
    tooltip: { formatter(point: unknown): string };
  }[];
}
const drawn = (option: unknown) => option as Drawn;

describe('dots', () => {
  const dots = (...points: [x: number, y: number, soft: number][]) =>
    drawn(
      scatterOption(
        answer({
          scatter: { dots: points.flat(), placed: points.length, keys: points.map((_, i) => `k${i}`) },
        }),
        theme,
        words,
      ),
    );

  test('that rest on estimates are drawn otherwise and say so', () => {
    const { series } = dots([10, 5, 0], [20, 7, 1]);
    expect(series.map(({ symbol, data }) => [symbol, data.map(({ name }) => name)])).toEqual([
      ['circle', ['k0']],
      ['diamond', ['k1']],
    ]);
    expect(series[1]!.tooltip.formatter({ data: series[1]!.data[0] })).toBe('20 staff\n7 %\non an estimate');
    expect(series[0]!.tooltip.formatter({ data: series[0]!.data[0] })).toBe('10 staff\n5 %');
  });

  test('over decades stand by powers of ten, others plainly, and never where some are below zero', () => {
    expect(dots([30, 1, 0], [90_000, 2, 0]).xAxis).toMatchObject({ type: 'log', min: 10 });
    expect(dots([30, 1, 0], [900, 2, 0]).xAxis.type).toBe('value');
    expect(dots([-5, 1, 0], [90_000, 2, 0]).xAxis.type).toBe('value');
  });

  test('that lie far out stand at the edge and tell their own value', () => {
    const many = Array.from({ length: 300 }, (_, i): [number, number, number] => [10 + i, i % 20, 0]);
    const { yAxis, series } = dots(...many, [50, 4000, 0]);
    const far = series[0]!.data.at(-1)!;
    expect(far.real).toEqual([50, 4000]);
    expect(far.value[1]).toBe(yAxis.max);
    expect(yAxis.max).toBeLessThan(30);
  });

  test('without any point there is an empty plane', () => {
    const { series, yAxis } = dots();
    expect(series.map(({ data }) => data)).toEqual([[], []]);
    expect(yAxis.max).toBeGreaterThan(yAxis.min);
  });
});

describe('strips', () => {
  const strips = drawn(
    stripOption(
      answer({
        slots: [
          slot({ label: 'Wood', strip: [1, 2, 10, 20, 40, 80, 100] }),
          slot({ key: 'b', label: 'Metal', strip: [] }),
          slot({ key: 'c', label: 'Glass', count: 0, strip: [1, 1, 1, 1, 1, 1, 1] }),
        ],
      }),
      theme,
      words,
    ),
  );

  test('are drawn of groups that somebody with a figure is in', () => {
    expect(strips.yAxis.data).toEqual(['Wood']);
    expect(strips.series[0]!.data).toEqual([[0, 1, 2, 10, 20, 40, 80, 100]]);
  });

  test('say the median, the middle half and the ends', () => {
    expect(strips.series[0]!.tooltip.formatter({ dataIndex: 0 })).toBe(
      'Wood\nmedian 20 %\nhalf between 10 % and 40 %\nfrom 1 % to 100 %',
    );
  });
});

test('groups nobody is in are left out, but for bars between others', () => {
  const none = slot({ count: 0 });
  expect(drawnSlots(answer({ slots: [slot({}), none] }))).toHaveLength(1);
  expect(
    drawnSlots(answer({ slots: [slot({ edges: [0, 10] }), { ...none, edges: [10, null] }] })),
  ).toHaveLength(2);
  expect(
    drawnSlots(answer({ slots: [slot({}), slot({ kind: 'unknown', key: null, count: 0 })] })),
  ).toHaveLength(1);
});

test('the curve of what it is compared with is stretched to the same width', () => {
  const found = {
    units: 100,
    curve: [
      [0, 0],
      [10, 60],
      [100, 100],
    ],
  };
  const base = {
    units: 1000,
    curve: [
      [0, 0],
      [500, 90],
    ],
  };
  const option = (more: object) =>
    curveOption({ found, base: null, ...more } as unknown as ConcentrationAnswer, theme, String);
  expect(drawn(option({})).series).toHaveLength(1);
  const both = drawn(option({ base }));
  expect(both.series[1]!.data).toEqual([
    [0, 0],
    [50, 90],
  ]);
  expect(both.xAxis.max).toBe(100);
  const { tooltip } = option({}) as { tooltip: { formatter(points: unknown): string } };
  expect(tooltip.formatter([{ value: [10, 60.25] }])).toBe('the largest 10 hold 60.3 %');
});

describe('a history', () => {
  test('by year marks what is estimated and begins at zero, or below where a figure is', () => {
    const option = yearsOption(
      [
        { year: 2023, value: 40, estimate: true, shown: '40' },
        { year: 2024, value: 44, estimate: false, shown: '44' },
      ],
      theme,
    ) as unknown as {
      xAxis: { data: string[] };
      yAxis: { min(at: { min: number }): number };
      series: {
        data: { itemStyle: { color: string; decal?: object } }[];
        label: { formatter(at: object): string };
      }[];
    };
    expect(option.xAxis.data).toEqual(['2023', '2024']);
    expect(option.series[0]!.data.map(({ itemStyle }) => itemStyle.decal !== undefined)).toEqual([
      true,
      false,
    ]);
    expect(option.series[0]!.label.formatter({ dataIndex: 1 })).toBe('44');
    expect([option.yAxis.min({ min: 12 }), option.yAxis.min({ min: -3 })]).toEqual([0, -3]);
  });

  test('by month has a line a year, the latest solid, and gaps where nothing is known', () => {
    const months = [
      { year: 2023, month: 11, value: 9 },
      { year: 2024, month: 0, value: 5 },
      { year: 2024, month: 2, value: 7 },
    ];
    const { series } = drawn(monthsOption(months, theme, (value) => `€${value}`));
    expect(series.map(({ lineStyle }) => lineStyle.type)).toEqual([[2, 3], 'solid']);
    expect((series[1]!.data as unknown as (number | null)[]).slice(0, 4)).toEqual([5, null, 7, null]);
    expect(series[1]!.tooltip.formatter({ name: 'Mar', value: 7 })).toBe('Mar 2024\n€7');
  });
});
