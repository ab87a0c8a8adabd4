import type { ChartAnswer } from '../../contract/market.ts';
import { chartWords, titleOf, wordMeasure, type Figuring } from '../../core/charts/wording.ts';
import { subjectOf } from '../../core/fields/registry.ts';

/** A chart of the Breakdown as a workbook has it: a table whose figures are drawn as bars. */
export interface SheetChart {
  title: string;
  /** What the second figure is; null where it is the count alone. */
  measure: string | null;
  many: string;
  rows: { name: string; count: number; value: number | null }[];
}

const PLAIN: Figuring = {
  number: (value, decimals = 0) => value.toLocaleString('en-GB', { maximumFractionDigits: decimals }),
  symbol: '€',
};

/** Charts as tables; the figures are those that the Breakdown shows. */
export function sheetCharts(charts: readonly ChartAnswer[], subject: string): SheetChart[] {
  const { many } = subjectOf(subject);
  return charts.map(({ chart, slots }) => {
    const words = chartWords(subject, chart, PLAIN);
    const counts = chart.measure.of === 'count' || chart.shape === 'scatter';
    return {
      title: titleOf(subject, chart),
      measure: counts ? null : wordMeasure(subject, chart.measure),
      many,
      rows: slots
        .filter(({ count }) => count > 0)
        .map((slot) => ({ name: words.slot(slot), count: slot.count, value: counts ? null : slot.value })),
    };
  });
}
