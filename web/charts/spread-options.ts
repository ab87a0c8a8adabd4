import type { ChartAnswer, ConcentrationAnswer } from '../../contract/market.ts';
import { chartText, drawnSlots, frame, nameAxis, type ChartOption } from './drawing.ts';
import type { ChartWords } from '../../core/charts/wording.ts';
import type { ChartTheme } from './theme.ts';

/** Growth and small numbers on a plain scale; headcounts and money, which span decades, by powers of ten. */
function scaleFor(values: readonly number[]): { type: 'log' | 'value'; min?: number } {
  let least = Infinity;
  let most = -Infinity;
  for (const value of values) {
    if (value > 0 && value < least) least = value;
    if (value < 0) return { type: 'value' };
    if (value > most) most = value;
  }
  return most / Math.max(1, least) > 200
    ? { type: 'log', min: Math.max(1, 10 ** Math.floor(Math.log10(Math.max(1, least)))) }
    : { type: 'value' };
}

export function scatterOption(answer: ChartAnswer, theme: ChartTheme, words: ChartWords): ChartOption {
  const { dots = [], keys = [] } = answer.scatter ?? {};
  const points: { x: number; y: number; soft: boolean; key: string }[] = [];
  for (let i = 0; i < dots.length; i += 3)
    points.push({ x: dots[i]!, y: dots[i + 1]!, soft: dots[i + 2] === 1, key: keys[i / 3]! });
  const x = scaleFor(points.map((point) => point.x));
  // The few that lie far out would press all others into a line; they stand at the edge.
  const sorted = points.map((point) => point.y).sort((a, b) => a - b);
  const [low, high] = [
    sorted[Math.floor(sorted.length * 0.01)] ?? 0,
    sorted[Math.ceil(sorted.length * 0.99) - 1] ?? 1,
  ];
  const room = (high - low) * 0.15 || 1;
  const clamp = (value: number) => Math.max(low - room, Math.min(high + room, value));
  const series = (soft: boolean) => ({
    type: 'scatter',
    symbol: soft ? 'diamond' : 'circle',
    symbolSize: points.length > 1500 ? 3 : 5.5,
    itemStyle: soft
      ? { color: 'transparent', borderColor: theme.unsure, borderWidth: 1.2 }
      : { color: theme.ink, opacity: points.length > 1500 ? 0.45 : 0.65 },
    data: points
      .filter((point) => point.soft === soft)
      .map((point) => ({
        value: [x.type === 'log' ? Math.max(1, point.x) : point.x, clamp(point.y)],
        name: point.key,
        real: [point.x, point.y],
      })),
    tooltip: {
      formatter: ({ data }: { data: { real: [number, number] } }) =>
        `${words.axis(data.real[0])}\n${words.value(data.real[1])}${soft ? '\non an estimate' : ''}`,
    },
  });
  const axisText = { ...chartText(theme, true), fontSize: 10.5, color: theme.soft, hideOverlap: true };
  return {
    ...frame(theme, { left: 52, right: 14, top: 8, bottom: 26 }),
    xAxis: {
      ...x,
      splitLine: { show: false },
      axisLine: { lineStyle: { color: theme.ink } },
      axisLabel: { ...axisText, formatter: (value: number) => words.axis(value) },
    },
    yAxis: {
      type: 'value',
      min: low - room,
      max: high + room,
      splitLine: { lineStyle: { color: theme.rule } },
      axisLabel: {
        ...axisText,
        showMinLabel: false,
        showMaxLabel: false,
        formatter: (value: number) => words.value(value),
      },
    },
    series: [series(false), series(true)],
  };
}

export function stripOption(answer: ChartAnswer, theme: ChartTheme, words: ChartWords): ChartOption {
  const slots = drawnSlots(answer).filter((slot) => (slot.strip?.length ?? 0) > 0);
  const names = slots.map((slot) => words.slot(slot));
  const x = scaleFor(slots.flatMap((slot) => slot.strip!));
  const at = (value: number) => (x.type === 'log' ? Math.max(1, value) : value);
  return {
    ...frame(theme, { left: 158, right: 20, top: 2, bottom: 30 }),
    yAxis: nameAxis(names, theme),
    xAxis: {
      ...x,
      axisLabel: {
        ...chartText(theme, true),
        fontSize: 10.5,
        formatter: (value: number) => words.value(value),
        hideOverlap: true,
      },
      splitLine: { lineStyle: { color: theme.rule } },
    },
    series: [
      {
        type: 'custom',
        encode: { x: [1, 2, 3, 4, 5, 6, 7], y: 0 },
        data: slots.map((slot, i) => [i, ...slot.strip!.map(at)]),
        tooltip: {
          formatter: ({ dataIndex }: { dataIndex: number }) => {
            const strip = slots[dataIndex]!.strip!;
            return `${names[dataIndex]}\nmedian ${words.value(strip[3]!)}\nhalf between ${words.value(strip[2]!)} and ${words.value(strip[4]!)}\nfrom ${words.value(strip[0]!)} to ${words.value(strip[6]!)}`;
          },
        },
        renderItem: (
          _: unknown,
          api: { value(i: number): number; coord(point: [number, number]): [number, number] },
        ) => {
          const row = api.value(0);
          const px = (i: number) => api.coord([api.value(i), row])[0];
          const y = api.coord([api.value(1), row])[1];
          return {
            type: 'group',
            children: [
              {
                type: 'line',
                shape: { x1: px(1), y1: y, x2: px(7), y2: y },
                style: { stroke: theme.edge, lineWidth: 1 },
              },
              {
                type: 'rect',
                shape: { x: px(2), y: y - 4, width: Math.max(1, px(6) - px(2)), height: 8 },
                style: { fill: theme.rule },
              },
              {
                type: 'rect',
                shape: { x: px(3), y: y - 6, width: Math.max(1, px(5) - px(3)), height: 12 },
                style: { fill: theme.bar },
              },
              {
                type: 'rect',
                shape: { x: px(4) - 1.5, y: y - 8, width: 3, height: 16 },
                style: { fill: theme.ink },
              },
            ],
          };
        },
      },
    ],
  };
}

/** The curve of concentration: after how many of the largest, what share of the whole. */
export function curveOption(
  { found, base }: ConcentrationAnswer,
  theme: ChartTheme,
  number: (value: number) => string,
): ChartOption {
  const { curve, units } = found!;
  const scaled = (base?.curve ?? []).map(([n, share]) => [(n / Math.max(1, base!.units)) * units, share]);
  const axisText = { ...chartText(theme, true), fontSize: 10.5, color: theme.soft, hideOverlap: true };
  return {
    ...frame(theme, { left: 46, right: 20, top: 8, bottom: 24 }),
    tooltip: {
      trigger: 'axis',
      confine: true,
      backgroundColor: theme.paper,
      borderColor: theme.edge,
      textStyle: chartText(theme),
      renderMode: 'richText',
      formatter: (points: { value: [number, number] }[]) =>
        `the largest ${number(points[0]!.value[0])} hold ${points[0]!.value[1].toFixed(1)} %`,
    },
    xAxis: {
      type: 'value',
      max: units,
      splitLine: { show: false },
      axisLine: { lineStyle: { color: theme.ink } },
      axisLabel: { ...axisText, formatter: (value: number) => number(value) },
    },
    yAxis: {
      type: 'value',
      max: 100,
      interval: 25,
      splitLine: { lineStyle: { color: theme.rule } },
      axisLabel: { ...axisText, formatter: (value: number) => `${value} %` },
    },
    series: [
      {
        type: 'line',
        data: curve,
        showSymbol: false,
        lineStyle: { color: theme.ink, width: 2.5 },
        itemStyle: { color: theme.ink },
      },
      ...(scaled.length
        ? [
            {
              type: 'line',
              data: scaled,
              showSymbol: false,
              silent: true,
              tooltip: { show: false },
              lineStyle: { color: theme.soft, width: 1.5, type: [4, 4] },
            },
          ]
        : []),
    ],
  };
}
