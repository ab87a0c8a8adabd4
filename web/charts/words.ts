import type { ChartAnswer, ChartSlot } from '../../contract/market.ts';
import type { ChartWords } from '../../core/charts/wording.ts';
import type { useFormat } from '../app/format.ts';

type Format = ReturnType<typeof useFormat>;

/** One sentence on what a chart shows: its median, what stands out against what it is compared with, what is unknown. */
export function noteOf(
  answer: ChartAnswer,
  words: ChartWords,
  format: Format,
  baseTotal: number | null,
  against: string | null,
): string {
  const parts: string[] = [];
  if (answer.median !== null && answer.chart.shape !== 'scatter')
    parts.push(`Median ${words.axis(answer.median)}.`);
  if (answer.scatter) {
    const shown = answer.scatter.dots.length / 3;
    parts.push(
      shown < answer.scatter.placed
        ? `${format.number(shown)} of the ${format.number(answer.scatter.placed)} with both figures, evenly taken.`
        : `${format.number(answer.scatter.placed)} have both figures, ${format.number(answer.total - answer.scatter.placed)} not.`,
    );
  }
  const out = standsOut(answer, baseTotal);
  if (out && against)
    parts.push(`${words.slot(out.slot)} has ${format.number(out.times, 1)} times its share of ${against}.`);
  const unknown = answer.slots.find(({ kind }) => kind === 'unknown');
  if (unknown && unknown.count > 0 && !answer.scatter) parts.push(`${format.number(unknown.count)} unknown.`);
  return parts.join(' ');
}

/** Records from which a group's share can be said to stand out. */
const LEAST_TO_STAND_OUT = 5;

/** The group with most beyond its share of what is compared with. */
function standsOut(answer: ChartAnswer, baseTotal: number | null): { slot: ChartSlot; times: number } | null {
  if (!baseTotal || !answer.total || answer.median !== null) return null;
  let best: { slot: ChartSlot; times: number } | null = null;
  for (const slot of answer.slots) {
    if (slot.kind !== 'group' || !slot.base?.count || slot.count < LEAST_TO_STAND_OUT) continue;
    const times = slot.count / answer.total / (slot.base.count / baseTotal);
    if (times > 1.1 && (!best || times > best.times)) best = { slot, times };
  }
  return best;
}
