import type { EChartsCoreOption } from 'echarts/core';
import type { ChartAnswer, ChartSlot } from '../../contract/market.ts';
import type { ChartTheme } from './theme.ts';

export type ChartOption = EChartsCoreOption;

const SANS = 'Hanken Grotesk Variable';
const MONO = 'Spline Sans Mono';

/** The slots that a chart draws; unknown is one of them, and only left out where nobody is. */
export function drawnSlots(answer: ChartAnswer): ChartSlot[] {
  return answer.slots.filter(
    (slot) => slot.count > 0 || (slot.kind === 'group' && answer.slots.some(({ edges }) => edges)),
  );
}

/** How charts write. */
export const chartText = (theme: ChartTheme, mono = false) => ({
  color: theme.ink,
  fontFamily: mono ? MONO : SANS,
  fontSize: 12,
});

/** What all charts have. */
export function frame(theme: ChartTheme, grid: object): ChartOption {
  return {
    backgroundColor: theme.ground,
    animation: false,
    grid,
    tooltip: {
      trigger: 'item',
      confine: true,
      backgroundColor: theme.paper,
      borderColor: theme.edge,
      textStyle: { ...chartText(theme), fontSize: 12 },
      renderMode: 'richText',
    },
  };
}

/** Lines at a slant: the mark of what is unknown or estimated, which colour alone must not be. */
export const slanted = (theme: ChartTheme) => ({
  color: theme.ground,
  borderColor: theme.unsure,
  borderWidth: 1,
  decal: {
    symbol: 'rect',
    color: theme.unsure,
    dashArrayX: [1, 0],
    dashArrayY: [2, 4],
    rotation: -Math.PI / 4,
  },
});

/** Names down the left side, all of them, cut where they are too long. */
export const nameAxis = (names: readonly string[], theme: ChartTheme) => ({
  type: 'category',
  data: names,
  inverse: true,
  axisLine: { show: false },
  axisTick: { show: false },
  axisLabel: {
    ...chartText(theme),
    width: 146,
    overflow: 'truncate',
    interval: 0,
    align: 'left',
    margin: 152,
  },
});
