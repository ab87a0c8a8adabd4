import type { BreakdownAnswer, ChartAnswer, ConcentrationAnswer } from '../../contract/market.ts';
import { chartWords, shortFigure, titleOf, wordMeasure, type Figuring } from '../../core/charts/wording.ts';
import type { ExportColumn } from '../../core/exports/field-columns.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { INK, type Paper, type PaperBar, type PaperHead, type TableColumn } from './paper.ts';

/** What every paper tells of how it came to be. */
export interface Made {
  size: 'A4' | 'Letter';
  /** The tape in words, a line each; none where everybody is meant. */
  words: readonly string[];
  /** Sources with their days, and the day from which spans count. */
  foot: string;
  currency: string;
  figuring: Figuring;
}

export function head(wish: Made, title: string, under: string, landscape = false): PaperHead {
  return { title, under, foot: `${wish.foot}. “c.” marks an estimate.`, size: wish.size, landscape };
}

/** How the list came to be, a line each. */
export function howMade(paper: Paper, { words }: Made): void {
  if (words.length === 0)
    return paper.write('No line narrows it: all of the universe.', { colour: INK.soft });
  for (const line of words) paper.write(`– ${line}`, { size: 9 });
}

/** The columns of a table on paper: what basis and year a figure has is for files. */
export function printed(columns: readonly ExportColumn[]): ExportColumn[] {
  return columns.filter(({ heading }) => !/ (basis|year)$/.test(heading) && heading !== 'All industry codes');
}

export function tableColumns(columns: readonly ExportColumn[]): TableColumn[] {
  return columns.map(({ heading, kind, width }) => ({
    heading,
    // Figures are never cut: the longest has eleven characters.
    width: kind === 'number' ? Math.max(13, Math.min(16, width)) : Math.max(8, Math.min(30, width)),
    right: kind === 'number',
    mono: kind === 'number',
  }));
}

export function plain(value: string | number | null, figuring: Figuring): string {
  if (value === null) return '';
  return typeof value === 'number' ? figuring.number(value, Math.abs(value) < 100 ? 1 : 0) : value;
}

/** The slots of a chart as bars; what is many groups together is cut at the longest of them. */
export function barsOf(answer: ChartAnswer, subject: string, figuring: Figuring): PaperBar[] {
  const words = chartWords(subject, answer.chart, figuring);
  const drawn = answer.slots.filter((slot) => slot.count > 0);
  const most = Math.max(1e-9, ...drawn.filter(({ kind }) => kind === 'group').map(({ value }) => value ?? 0));
  return drawn.map((slot) => ({
    name: words.slot(slot),
    length: Math.min(1, (slot.value ?? (100 * slot.count) / Math.max(1, answer.total)) / most),
    soft:
      slot.value && ['count', 'sum'].includes(answer.chart.measure.of)
        ? Math.min(1, slot.estimated / slot.value)
        : 0,
    shown: slot.value === null ? figuring.number(slot.count) : words.value(slot.value),
    unknown: slot.kind === 'unknown' || slot.kind === 'banded',
    rest: slot.kind === 'rest',
  }));
}

export function chart(paper: Paper, answer: ChartAnswer, subject: string, figuring: Figuring): void {
  const { chart: own, split } = answer;
  const words = chartWords(subject, own, figuring);
  paper.heading(titleOf(subject, own), own.shape === 'scatter' ? '' : wordMeasure(subject, own.measure));
  if (own.shape === 'scatter') {
    paper.write(
      `${figuring.number(answer.scatter?.placed ?? 0)} of ${figuring.number(answer.total)} have both figures; median across ${answer.median === null ? 'unknown' : words.axis(answer.median)}. By group, the median upwards:`,
      { colour: INK.soft },
    );
    paper.table(
      [
        { heading: 'group', width: 20 },
        { heading: 'records', width: 10, right: true, mono: true },
        { heading: wordMeasure(subject, own.measure), width: 16, right: true, mono: true },
      ],
      answer.slots
        .filter(({ count }) => count > 0)
        .map((slot) => [
          words.slot(slot),
          figuring.number(slot.count),
          slot.value === null ? '–' : words.value(slot.value),
        ]),
    );
    return;
  }
  if (split) {
    paper.table(
      [
        { heading: '', width: 24 },
        { heading: 'all', width: 10, right: true, mono: true },
        ...split.map((part) => ({
          heading: words.slot({ ...part, edges: null }),
          width: 11,
          right: true,
          mono: true,
        })),
      ],
      answer.slots
        .filter(({ count }) => count > 0)
        .map((slot) => [
          words.slot(slot),
          slot.value === null ? '–' : words.value(slot.value),
          ...slot.parts!.map(({ value }) => (value === null ? '–' : words.value(value))),
        ]),
    );
    return;
  }
  const bars = barsOf(answer, subject, figuring);
  paper.need(bars.length * 13);
  paper.bars(bars);
}

export function concentration(paper: Paper, answer: ConcentrationAnswer, figuring: Figuring): void {
  const { found } = answer;
  paper.heading(`How concentrated, by ${answer.by}`);
  if (!found) return paper.write(`Nobody here has a figure for ${answer.by}.`);
  const field = fieldOf('companies', answer.by)!;
  paper.write(
    `Groups as one${answer.leftOut.length ? `; lines on size left out: ${answer.leftOut.join('; ')}` : ''}. ${found.largest.map(({ units, share }) => `The largest ${figuring.number(units)} hold ${figuring.number(share, 1)} %.`).join(' ')} HHI ${figuring.number(found.hhi, 1)}. ${figuring.number(found.units)} with a figure, together ${shortFigure(field, figuring, found.total)}; ${figuring.number(answer.unknown)} of ${figuring.number(answer.companies)} without one; ${figuring.number(answer.estimated, 1)} % of the total rests on estimates.`,
    { size: 9 },
  );
  paper.curve(
    found.curve.map(([units, share]) => [units / found.units, share / 100] as const),
    { right: figuring.number(found.units), top: '100 %' },
  );
}

export function knownBars({ known, total }: BreakdownAnswer, figuring: Figuring, most: number): PaperBar[] {
  return [...known]
    .sort((one, other) => other.known - one.known)
    .slice(0, most)
    .map(({ label, known: count, estimated, banded }) => ({
      name: label,
      length: count / Math.max(1, total),
      soft: count === 0 ? 0 : (estimated + banded) / count,
      shown: `${figuring.number((100 * count) / Math.max(1, total), 1)} %`,
    }));
}
