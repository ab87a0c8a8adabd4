import type { ChartAnswer, ChartSlot } from '../../../contract/market.ts';
import { safeText } from '../../../core/exports/safe-text.ts';
import { drawnSlots } from '../../charts/drawing.ts';
import type { ChartWords } from '../../../core/charts/wording.ts';
import { wordAxis, wordMeasure } from '../../../core/charts/wording.ts';

interface Props {
  answer: ChartAnswer;
  words: ChartWords;
  /** `part` is the place of a part of it. */
  onSlot(slot: ChartSlot, x: number, y: number, part?: number): void;
}

/** The numbers of a chart as a table; a group's name opens what can be done with it. */
export function ChartTable({
  answer,
  words,
  subject,
  title,
  onSlot,
}: Props & { subject: string; title: string }) {
  const { chart, split } = answer;
  const counts = chart.measure.of === 'count';
  const slots = drawnSlots(answer);
  const compared = slots.some((slot) => slot.base);
  return (
    <div className="max-h-[420px] overflow-auto">
      <table className="w-full text-[13px]">
        <caption className="sr-only">{title}</caption>
        <thead className="text-[12px] text-soft">
          <tr className="border-b border-edge">
            <th className="py-1 pr-3 text-left font-semibold">{wordAxis(subject, chart.by)}</th>
            {!counts && (
              <th className="px-2 text-right font-semibold">{wordMeasure(subject, { of: 'count' })}</th>
            )}
            <th className="px-2 text-right font-semibold">{wordMeasure(subject, chart.measure)}</th>
            {split?.map((part, p) => (
              <th key={p} className="px-2 text-right font-semibold">
                {words.slot({ ...part, edges: null })}
              </th>
            ))}
            {compared && <th className="px-2 text-right font-semibold">compared</th>}
          </tr>
        </thead>
        <tbody>
          {slots.map((slot, i) => (
            <tr key={i} className="border-b border-rule">
              <th scope="row" className="py-1 pr-3 text-left font-normal">
                <SlotName slot={slot} words={words} onSlot={onSlot} />
              </th>
              {!counts && <td className="figure px-2 text-right">{slot.count}</td>}
              <td className="figure px-2 text-right font-semibold">
                {slot.value === null ? '–' : words.value(slot.value)}
              </td>
              {slot.parts?.map((_, p) => (
                <td key={p} className="figure px-2 text-right">
                  <PartValue answer={answer} slot={slot} part={p} words={words} onSlot={onSlot} />
                </td>
              ))}
              {compared && (
                <td className="figure px-2 text-right text-soft">
                  {slot.base?.value == null ? '–' : words.value(slot.base.value)}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function SlotName({ slot, words, onSlot }: { slot: ChartSlot; words: ChartWords; onSlot: Props['onSlot'] }) {
  const name = words.slot(slot);
  if (!slot.test) return <span className={slot.kind === 'unknown' ? 'text-unsure' : ''}>{name}</span>;
  return (
    <button
      type="button"
      className="text-left underline decoration-rule underline-offset-4 hover:decoration-ink"
      onClick={(event) => {
        const { left, bottom } = event.currentTarget.getBoundingClientRect();
        onSlot(slot, left + 20, bottom);
      }}
    >
      {name}
    </button>
  );
}

/** The figure of a cell, which opens what can be done with its records where lines keep just them. */
function PartValue({
  answer: { split },
  slot,
  part,
  words,
  onSlot,
}: Props & { slot: ChartSlot; part: number }) {
  const { value, count } = slot.parts![part]!;
  const text = value === null ? '–' : words.value(value);
  if (!slot.test || !split![part]!.test || count === 0) return text;
  return (
    <button
      type="button"
      className="hover:underline"
      aria-label={`${words.slot(slot)}, ${words.slot({ ...split![part]!, edges: null })}: ${text}`}
      onClick={(event) => {
        const { left, bottom } = event.currentTarget.getBoundingClientRect();
        onSlot(slot, left + 20, bottom, part);
      }}
    >
      {text}
    </button>
  );
}

/** Two fields at once: the darker a cell, the more; every cell has its figure. */
export function HeatTable({ answer, words, onSlot }: Props) {
  const slots = drawnSlots(answer);
  const most = Math.max(0, ...slots.flatMap((slot) => slot.parts!.map(({ value }) => Math.abs(value ?? 0))));
  return (
    <div className="overflow-auto">
      <table className="w-full border-separate border-spacing-px text-[12px]">
        <thead>
          <tr>
            <th />
            {answer.split!.map((part, p) => (
              <th
                key={p}
                className="max-w-24 truncate px-1 text-left font-normal text-soft"
                title={words.slot({ ...part, edges: null })}
              >
                {words.slot({ ...part, edges: null })}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {slots.map((slot, i) => (
            <tr key={i}>
              <th
                scope="row"
                className="max-w-36 truncate pr-2 text-left font-normal"
                title={words.slot(slot)}
              >
                <SlotName slot={slot} words={words} onSlot={onSlot} />
              </th>
              {slot.parts!.map(({ value }, p) => {
                const share = most === 0 ? 0 : Math.round((70 * Math.abs(value ?? 0)) / most);
                return (
                  <td
                    key={p}
                    className="figure px-1.5 py-1 text-right"
                    style={{
                      background: `color-mix(in srgb, var(--ink) ${share}%, var(--paper))`,
                      color: share > 42 ? 'var(--paper)' : 'var(--ink)',
                    }}
                  >
                    <PartValue answer={answer} slot={slot} part={p} words={words} onSlot={onSlot} />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The numbers of a chart as CSV: plain figures, one row a group. */
export async function tableCsv(answer: ChartAnswer, words: ChartWords, subject: string): Promise<string> {
  const { stringify } = await import('csv-stringify/browser/esm/sync');
  const { chart, split } = answer;
  const slots = drawnSlots(answer);
  const compared = slots.some((slot) => slot.base);
  const head = [
    wordAxis(subject, chart.by),
    wordMeasure(subject, { of: 'count' }),
    ...(chart.measure.of === 'count' ? [] : [wordMeasure(subject, chart.measure), 'with a figure']),
    'resting on estimates',
    ...(split?.map((part) => words.slot({ ...part, edges: null })) ?? []),
    ...(compared ? ['compared'] : []),
  ];
  const rows = slots.map((slot) => [
    words.slot(slot),
    slot.count,
    ...(chart.measure.of === 'count' ? [] : [slot.value, slot.valued]),
    slot.estimated,
    ...(slot.parts?.map((part) => part.value) ?? []),
    ...(compared ? [slot.base?.value ?? null] : []),
  ]);
  return stringify([head, ...rows], { record_delimiter: 'windows', cast: { string: safeText } });
}
