import type { ChartAnswer, ChartSlot } from '../../contract/market.ts';
import { chartText, drawnSlots, frame, nameAxis, slanted, type ChartOption } from './drawing.ts';
import { shortCount, type ChartWords } from '../../core/charts/wording.ts';
import { scatterOption, stripOption } from './spread-options.ts';
import type { ChartTheme } from './theme.ts';

const ROW = 24;

/** The height that a chart needs, in pixels. */
export function heightOf(answer: ChartAnswer): number {
  switch (answer.chart.shape) {
    case 'bars':
    case 'stacked':
    case 'strip':
      return Math.max(2, drawnSlots(answer).length) * ROW + (answer.chart.shape === 'bars' ? 8 : 34);
    default:
      return 220;
  }
}

/** A chart's option for drawing; shapes that are tables have none. */
export function optionOf(
  answer: ChartAnswer,
  theme: ChartTheme,
  words: ChartWords,
  baseTotal: number | null,
): ChartOption | null {
  switch (answer.chart.shape) {
    case 'bars':
      return barsOption(answer, theme, words, baseTotal, true);
    case 'histogram':
      return barsOption(answer, theme, words, baseTotal, false);
    case 'stacked':
      return stackedOption(answer, theme, words);
    case 'parts':
      return partsOption(answer, theme, words);
    case 'scatter':
      return scatterOption(answer, theme, words);
    case 'strip':
      return stripOption(answer, theme, words);
    case 'table':
    case 'heat':
      return null;
  }
}

function fillOf(slot: ChartSlot, theme: ChartTheme): object {
  if (slot.kind === 'unknown' || slot.kind === 'banded') return slanted(theme);
  return { color: slot.kind === 'rest' ? theme.bar : theme.ink };
}

/** What a slot would be if it had its share of what is compared with; null where there is none. */
function expected(slot: ChartSlot, answer: ChartAnswer, baseTotal: number | null): number | null {
  if (!slot.base || baseTotal === null || slot.base.value === null) return null;
  const { of } = answer.chart.measure;
  if (of === 'count' || of === 'sum')
    return baseTotal === 0 ? null : (slot.base.value * answer.total) / baseTotal;
  return slot.base.value;
}

/** A bar of many groups together, or of unknowns, is cut where it would press the others into nothing; its figure stands beside it. */
const LONGEST = 1.3;
/** Upright bars up to which each has room for from where to where it goes. */
const MOST_NAMED = 8;

function barsOption(
  answer: ChartAnswer,
  theme: ChartTheme,
  words: ChartWords,
  baseTotal: number | null,
  lying: boolean,
): ChartOption {
  const slots = drawnSlots(answer);
  const names = slots.map((slot) => words.slot(slot));
  const amount = answer.chart.measure.of === 'sum' || answer.chart.measure.of === 'count';
  const marks = slots.map((slot) => expected(slot, answer, baseTotal));
  const largest = Math.max(
    0,
    ...slots.flatMap((slot, i) => (slot.kind === 'group' ? [slot.value ?? 0, marks[i] ?? 0] : [])),
  );
  const most = largest > 0 ? largest * LONGEST : Infinity;
  // What has no value, as the unknown among shares, is drawn by its number: its share of all.
  const lengthOf = (slot: ChartSlot) => slot.value ?? (100 * slot.count) / Math.max(1, answer.total);
  const shown = slots.map((slot) => Math.min(most, lengthOf(slot)));
  const soft = slots.map((slot, i) =>
    amount && (slot.kind === 'group' || slot.kind === 'rest') && (slot.value ?? 0) > 0
      ? (shown[i]! * Math.min(slot.estimated, slot.value!)) / slot.value!
      : 0,
  );
  const hasSoft = soft.some((value) => value > 0);
  const many = !lying && slots.length > MOST_NAMED;
  // Over narrow bars a long number would run into the next.
  const say = (value: number) =>
    many && answer.chart.measure.of === 'count' ? shortCount(value) : words.value(value);
  const label = {
    show: true,
    position: lying ? 'right' : 'top',
    formatter: ({ dataIndex }: { dataIndex: number }) =>
      slots[dataIndex]!.value === null ? shortCount(slots[dataIndex]!.count) : say(slots[dataIndex]!.value),
    ...chartText(theme, true),
    fontWeight: 600,
    fontSize: lying ? 12 : 10.5,
  };
  const cut = shown.flatMap((value, i) =>
    value < lengthOf(slots[i]!) ? [lying ? [value * 0.9, i] : [i, value * 0.9]] : [],
  );
  const tooltip = tip(slots, names, answer, words, marks);
  const category = {
    type: 'category',
    // Many bars have room for where they begin alone.
    data: many ? slots.map((slot, i) => (slot.edges ? words.axis(slot.edges[0]) : names[i]!)) : names,
    inverse: lying,
    axisLine: { show: !lying, lineStyle: { color: theme.ink } },
    axisTick: { show: false },
    axisLabel: {
      ...chartText(theme, !lying),
      fontSize: lying ? 12.5 : 10,
      ...(lying
        ? { interval: 0, width: 146, overflow: 'truncate', align: 'left', margin: 152 }
        : {
            interval: 0,
            ...(many
              ? { hideOverlap: true }
              : { width: Math.floor(400 / Math.max(1, slots.length)), overflow: 'break', lineHeight: 11 }),
          }),
    },
  };
  return {
    ...frame(
      theme,
      lying ? { left: 152, right: 62, top: 2, bottom: 2 } : { left: 4, right: 4, top: 16, bottom: 24 },
    ),
    [lying ? 'yAxis' : 'xAxis']: category,
    [lying ? 'xAxis' : 'yAxis']: {
      type: 'value',
      show: false,
      min: (at: { min: number }) => Math.min(0, at.min),
      max: (at: { max: number }) => at.max,
    },
    series: [
      {
        type: 'bar',
        stack: 'one',
        barCategoryGap: lying ? '38%' : '8%',
        data: slots.map((slot, i) => ({ value: shown[i]! - soft[i]!, itemStyle: fillOf(slot, theme) })),
        labelLayout: { hideOverlap: true },
        tooltip,
        ...(hasSoft ? {} : { label }),
      },
      ...(hasSoft
        ? [
            {
              type: 'bar',
              stack: 'one',
              data: soft.map((value) => ({ value, itemStyle: slanted(theme) })),
              label,
              labelLayout: { hideOverlap: true },
              tooltip,
            },
          ]
        : []),
      {
        type: 'scatter',
        data: cut,
        symbol: 'path://M0 6 L4 0 L7 0 L3 6 Z',
        symbolSize: lying ? [9, 20] : [20, 9],
        itemStyle: { color: theme.ground },
        z: 4,
        silent: true,
      },
      {
        type: 'scatter',
        data: marks.flatMap((mark, i) =>
          mark === null || mark > most ? [] : [lying ? [mark, i] : [i, mark]],
        ),
        symbol: 'rect',
        symbolSize: lying ? [4, 19] : [19, 4],
        itemStyle: { color: theme.ground, borderColor: theme.ink, borderWidth: 1 },
        z: 5,
        silent: true,
      },
    ],
  };
}

function tip(
  slots: readonly ChartSlot[],
  names: readonly string[],
  answer: ChartAnswer,
  words: ChartWords,
  marks: readonly (number | null)[],
) {
  return {
    formatter: ({ dataIndex }: { dataIndex: number }) => {
      const slot = slots[dataIndex]!;
      const lines = [
        `${names[dataIndex]}`,
        slot.value === null ? 'no figure known' : words.value(slot.value),
      ];
      const { of } = answer.chart.measure;
      if (of !== 'count') lines.push(`${slot.count} in all, ${slot.valued} with a figure`);
      if (slot.estimated > 0)
        lines.push(
          of === 'sum'
            ? `of it estimated: ${words.value(slot.estimated)}`
            : `${slot.estimated} on an estimate`,
        );
      if (marks[dataIndex] !== null && marks[dataIndex] !== undefined)
        lines.push(`compared: ${words.value(marks[dataIndex])}`);
      return lines.join('\n');
    },
  };
}

/** Shades of the parts of stacked bars, which patterns tell apart where two are alike. */
export const partShades = (theme: ChartTheme) => [
  theme.ink,
  theme.ink,
  theme.soft,
  theme.bar,
  theme.bar,
  theme.rule,
  theme.rule,
];

/** Fills that differ by pattern as well as by shade. */
function partFill(at: number, kind: string, theme: ChartTheme): object {
  if (kind === 'unknown' || kind === 'banded') return slanted(theme);
  if (kind === 'rest') return { color: theme.bar };
  const decals = [
    null,
    { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [2, 5], rotation: Math.PI / 4, color: theme.ground },
    null,
    { symbol: 'circle', symbolSize: 0.7, dashArrayX: [6, 6], dashArrayY: [6, 6], color: theme.ink },
    { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [1, 4], rotation: 0, color: theme.ink },
    { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [1, 4], rotation: Math.PI / 2, color: theme.ink },
    { symbol: 'triangle', symbolSize: 0.8, dashArrayX: [7, 7], dashArrayY: [7, 7], color: theme.soft },
  ];
  const shades = partShades(theme);
  const decal = decals[at % decals.length];
  return {
    color: shades[at % shades.length],
    borderColor: theme.ground,
    borderWidth: 1,
    ...(decal ? { decal } : {}),
  };
}

function stackedOption(answer: ChartAnswer, theme: ChartTheme, words: ChartWords): ChartOption {
  const slots = drawnSlots(answer);
  const names = slots.map((slot) => words.slot(slot));
  return {
    ...frame(theme, { left: 158, right: 12, top: 2, bottom: 30 }),
    yAxis: nameAxis(names, theme),
    xAxis: {
      type: 'value',
      axisLabel: {
        ...chartText(theme, true),
        fontSize: 10.5,
        formatter: (value: number) => words.value(value),
        hideOverlap: true,
      },
      splitLine: { lineStyle: { color: theme.rule } },
    },
    series: (answer.split ?? []).map((part, p) => ({
      name: words.slot({ ...part, edges: null }),
      type: 'bar',
      stack: 'all',
      barCategoryGap: '38%',
      itemStyle: partFill(p, part.kind, theme),
      data: slots.map((slot) => slot.parts?.[p]?.value ?? 0),
      tooltip: {
        formatter: ({ dataIndex, seriesName }: { dataIndex: number; seriesName: string }) =>
          `${names[dataIndex]}\n${seriesName}: ${words.value(slots[dataIndex]!.parts?.[p]?.value ?? 0)}`,
      },
    })),
  };
}

function partsOption(answer: ChartAnswer, theme: ChartTheme, words: ChartWords): ChartOption {
  return {
    ...frame(theme, {}),
    series: [
      {
        type: 'treemap',
        roam: false,
        nodeClick: false,
        breadcrumb: { show: false },
        left: 0,
        right: 0,
        top: 0,
        bottom: 0,
        itemStyle: { borderColor: theme.ground, borderWidth: 2, gapWidth: 2 },
        label: {
          ...chartText(theme),
          formatter: ({ name, value }: { name: string; value: number }) => `${name}\n${words.value(value)}`,
        },
        data: drawnSlots(answer).map((slot) => ({
          name: words.slot(slot),
          value: slot.value ?? 0,
          itemStyle:
            slot.kind === 'group'
              ? { color: theme.paper, borderColor: theme.ink }
              : slot.kind === 'rest'
                ? { color: theme.bar }
                : slanted(theme),
        })),
        tooltip: {
          formatter: ({ name, value }: { name: string; value: number }) => `${name}\n${words.value(value)}`,
        },
      },
    ],
  };
}
