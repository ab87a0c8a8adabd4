import { chartText, frame, slanted, type ChartOption } from './drawing.ts';
import type { ChartTheme } from './theme.ts';

export interface YearBar {
  year: number;
  value: number;
  estimate: boolean;
  /** As it is written over the bar. */
  shown: string;
}

/** A figure by year as bars that start at zero. */
export function yearsOption(bars: readonly YearBar[], theme: ChartTheme): ChartOption {
  return {
    ...frame(theme, { left: 2, right: 2, top: 18, bottom: 18 }),
    tooltip: { show: false },
    xAxis: {
      type: 'category',
      data: bars.map(({ year }) => String(year)),
      axisTick: { show: false },
      axisLine: { lineStyle: { color: theme.ink } },
      axisLabel: { ...chartText(theme, true), fontSize: 10, interval: 0 },
    },
    yAxis: { type: 'value', show: false, min: (at: { min: number }) => Math.min(0, at.min) },
    series: [
      {
        type: 'bar',
        barCategoryGap: '22%',
        data: bars.map(({ value, estimate }) => ({
          value,
          itemStyle: estimate ? slanted(theme) : { color: theme.ink },
        })),
        label: {
          show: true,
          position: 'top',
          formatter: ({ dataIndex }: { dataIndex: number }) => bars[dataIndex]!.shown,
          ...chartText(theme, true),
          fontSize: 10.5,
          fontWeight: 600,
        },
      },
    ],
  };
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A figure by month, one line a year, so that the season shows: the latest solid, earlier ones dashed. */
export function monthsOption(
  months: readonly { year: number; month: number; value: number }[],
  theme: ChartTheme,
  say: (value: number) => string,
): ChartOption {
  const years = [...new Set(months.map(({ year }) => year))];
  const of = (year: number) =>
    MONTHS.map((_, month) => months.find((one) => one.year === year && one.month === month)?.value ?? null);
  return {
    ...frame(theme, { left: 54, right: 14, top: 10, bottom: 20 }),
    xAxis: {
      type: 'category',
      data: MONTHS,
      boundaryGap: false,
      axisTick: { show: false },
      axisLine: { lineStyle: { color: theme.ink } },
      axisLabel: { ...chartText(theme, true), fontSize: 10 },
    },
    yAxis: {
      type: 'value',
      min: 0,
      splitNumber: 3,
      splitLine: { lineStyle: { color: theme.rule } },
      axisLabel: { ...chartText(theme, true), fontSize: 10, color: theme.soft, formatter: say },
    },
    series: years.map((year, i) => ({
      type: 'line',
      name: String(year),
      data: of(year),
      symbol: 'circle',
      symbolSize: 4,
      lineStyle: {
        color: theme.ink,
        width: i === years.length - 1 ? 2.2 : 1.2,
        type: i === years.length - 1 ? 'solid' : i === 0 ? [2, 3] : [6, 3],
      },
      itemStyle: { color: theme.ink },
      tooltip: {
        formatter: ({ name, value }: { name: string; value: number }) => `${name} ${year}\n${say(value)}`,
      },
    })),
  };
}
