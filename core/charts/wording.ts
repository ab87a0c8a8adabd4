import type { Field } from '../fields/field.ts';
import { fieldOf, subjectOf } from '../fields/registry.ts';
import { keysOf } from './axes.ts';
import type { Axis, Chart, Measure } from './chart.ts';
import type { SlotKind } from './figures.ts';

/** How a chart writes its figures. */
export interface ChartWords {
  /** A value of the measure. */
  value(value: number): string;
  /** A value of the axis of figures. */
  axis(value: number): string;
  /** A slot by name. */
  slot(slot: {
    kind: SlotKind;
    label: string | null;
    edges: [from: number, to: number | null] | null;
    groups: number;
  }): string;
}

/** How plain numbers are written, and the sign of the currency that money is shown in. */
export interface Figuring {
  number(value: number, decimals?: number): string;
  symbol: string;
}

/** A figure of a field in few characters, as axes and bars have room for: money in thousands, millions or billions. */
export function shortFigure(field: Field | null, format: Figuring, value: number): string {
  const sign = value < 0 ? '−' : '';
  const size = Math.abs(value);
  if (field?.kind === 'money') {
    const [divisor, mark] =
      size >= 1e9 ? [1e9, 'bn'] : size >= 1e6 ? [1e6, 'm'] : size >= 1e3 ? [1e3, 'k'] : [1, ''];
    const shown = size / divisor;
    return `${sign}${format.symbol}${format.number(shown, shown < 10 && divisor > 1 ? 1 : 0)}${mark}`;
  }
  if (field?.kind === 'growth' || field?.unit === '%')
    return `${value > 0 && field.kind === 'growth' ? '+' : sign}${format.number(size, 1)} %`;
  if (field?.id === 'founded') return String(Math.round(value));
  return `${sign}${format.number(size, size < 100 && !Number.isInteger(value) ? 1 : 0)}`;
}

/** A number of records in four characters or fewer: 950, 1.2k, 34k, 1.1m. */
export function shortCount(count: number): string {
  if (count < 1000) return String(count);
  const [divisor, mark] = count < 999_500 ? [1e3, 'k'] : [1e6, 'm'];
  const shown = count / divisor;
  return `${shown < 9.95 ? shown.toFixed(1) : Math.round(shown)}${mark}`;
}

/** What the groups of an axis are called: "region", "growth of headcount over 1 year". */
export function wordAxis(subject: string, axis: Axis): string {
  const field = fieldOf(subject, axis.field)!;
  const key = keysOf(field).find((one) => one.key === axis.key)?.label;
  if (field.kind === 'place') return axis.level ?? 'region';
  if (field.kind === 'codes') return `industry ${axis.level ?? 'group'}`;
  if (field.id === 'technology') return axis.level === 'category' ? 'kind of technology' : 'technology';
  if (field.kind === 'date') return `${axis.level ?? 'year'} of ${field.label.toLowerCase()}`;
  return [field.label.toLowerCase(), key].filter(Boolean).join(field.kind === 'growth' ? ' ' : ': ');
}

/** What is told of each group: "companies", "share of companies", "median revenue". */
export function wordMeasure(subject: string, measure: Measure): string {
  const { many } = subjectOf(subject);
  if (measure.of === 'count') return many;
  if (measure.of === 'share') return `share of ${many}`;
  const field = fieldOf(subject, measure.field!)!;
  const key = keysOf(field).find((one) => one.key === measure.key)?.label;
  const name = [field.label.toLowerCase(), key].filter(Boolean).join(field.kind === 'growth' ? ' ' : ': ');
  return `${measure.of === 'sum' ? 'sum of' : measure.of} ${name}`;
}

/** A chart's name where it has none of its own. */
export function titleOf(subject: string, chart: Chart): string {
  if (chart.title) return chart.title;
  const by = wordAxis(subject, chart.by);
  if (chart.shape === 'scatter') {
    const field = fieldOf(subject, chart.measure.field!)!;
    return `${field.label} against ${by}`;
  }
  const measure = wordMeasure(subject, chart.measure);
  const words = chart.shape === 'strip' ? measure.replace(/^\S+ (of )?/, '') : measure;
  return `${words.charAt(0).toUpperCase()}${words.slice(1)} by ${by}${chart.split ? `, by ${wordAxis(subject, chart.split)}` : ''}`;
}

/** How a chart writes its figures and slots. */
export function chartWords(subject: string, chart: Chart, format: Figuring): ChartWords {
  const axis = fieldOf(subject, chart.by.field)!;
  const own = chart.measure.field === undefined ? null : fieldOf(subject, chart.measure.field)!;
  const value = (figure: number) =>
    chart.measure.of === 'share'
      ? `${format.number(figure, 1)} %`
      : own
        ? shortFigure(own, format, figure)
        : format.number(figure);
  const axisFigure = (figure: number) => shortFigure(axis, format, figure);
  return {
    value,
    axis: axisFigure,
    slot: ({ kind, label, edges, groups }) => {
      if (kind === 'unknown') return 'unknown';
      if (kind === 'banded') return 'wider bands';
      if (kind === 'rest') return groups === 1 ? '1 other' : `${format.number(groups)} others`;
      if (!edges) return label ?? '';
      const [from, to] = edges;
      if (axis.kind === 'growth' || axis.unit === '%') return axisFigure(from);
      if (to === null) return `${axisFigure(from)}+`;
      return axis.kind === 'number' && to - from > 1 && to <= 1000 && axis.id !== 'founded'
        ? `${axisFigure(from)}–${axisFigure(to - 1)}`
        : axisFigure(from);
    },
  };
}
