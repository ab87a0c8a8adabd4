import type { CompanyRecord, HistoryPoint } from './record.ts';

/** Figures by year, or those of months on end. */
export type History = readonly HistoryPoint[] | NonNullable<CompanyRecord['revenueMonths']>;

/** A history as its column in a file has it (`readHistory`, `readMonths`): "2021:120; 2022:≈130", "2024-01: 12000 13000". */
export function historyText(history: History): string {
  if ('start' in history) return `${history.start}: ${history.values.join(' ')}`;
  return history.map(({ year, value, estimate }) => `${year}:${estimate ? '≈' : ''}${value}`).join('; ');
}
