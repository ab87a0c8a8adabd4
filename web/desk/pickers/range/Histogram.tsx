import clsx from 'clsx';
import { useState } from 'react';
import type { RangeCounts } from '../../../../contract/responses.ts';
import { shortCount } from '../../../../core/charts/wording.ts';
import type { NumberTest } from '../../../../core/tape/nodes.ts';
import { useFormat } from '../../../app/format.ts';
import { useMany } from '../../queries.ts';
import { UnknownMark } from '../../../ui/controls.tsx';

/** Bars up to which each has room for a number of any length, and from where on it is shortened over narrower ones; the tooltip has it exactly. */
const MOST_WIDE = 12;
const LONG = 10_000;

/** Counts as bars from their first figure on; dragging over them takes their range. `factor` turns the test's unit into the bars'. */
export function Histogram({
  data,
  test,
  factor,
  whole,
  show,
  onRange,
}: {
  data: RangeCounts;
  test: NumberTest | null;
  factor: number;
  whole: boolean;
  show(value: number): string;
  onRange(range: NumberTest): void;
}) {
  const format = useFormat();
  const many = useMany();
  /** The bar a drag began on. */
  const [start, setStart] = useState<number | null>(null);
  const first = Math.max(
    0,
    data.counts.findIndex((count) => count > 0),
  );
  const last = data.counts.findLastIndex((count) => count > 0);
  if (last < 0) return <p className="py-6 text-soft">None of these {many} has a figure.</p>;
  const bars = data.edges.slice(first, last + 1).map((edge, i) => ({
    edge,
    next: data.edges[first + i + 1],
    count: data.counts[first + i]!,
    estimated: data.estimated[first + i]!,
  }));
  const most = Math.max(...bars.map((bar) => bar.count));
  const upper = (bar: (typeof bars)[number]) =>
    bar.next === undefined ? Infinity : whole ? bar.next - 1 : bar.next;
  const [from, to] = [(test?.from ?? -Infinity) * factor, (test?.to ?? Infinity) * factor];
  const inside = (bar: (typeof bars)[number]) => test !== null && upper(bar) >= from && bar.edge <= to;
  const take = (one: number, other: number) => {
    const [a, b] = [Math.min(one, other), Math.max(one, other)];
    const top = upper(bars[b]!);
    onRange({ from: bars[a]!.edge / factor, to: top === Infinity ? undefined : top / factor });
  };
  const step = Math.ceil(bars.length / 12);
  return (
    <figure>
      <div
        className="flex h-56 items-end gap-[2px] border-b border-ink select-none"
        onMouseLeave={() => setStart(null)}
        onMouseUp={() => setStart(null)}
      >
        {bars.map((bar, i) => (
          <button
            key={bar.edge}
            type="button"
            aria-label={`${show(bar.edge)}${bar.next === undefined ? ' or more' : ` to ${show(upper(bar))}`}: ${bar.count} ${many}`}
            title={`${show(bar.edge)}${bar.next === undefined ? ' or more' : ` to ${show(upper(bar))}`}\n${format.number(bar.count)} ${many}${bar.estimated ? `, ${format.number(bar.estimated)} of them on an estimate` : ''}`}
            className="group flex h-full min-w-0 flex-1 flex-col justify-end"
            onMouseDown={(event) => {
              event.preventDefault();
              setStart(i);
              take(i, i);
            }}
            onMouseEnter={() => start !== null && take(start, i)}
            onKeyDown={(event) => event.key === 'Enter' && take(i, i)}
          >
            {bar.count > 0 && (
              <span className="figure flex justify-center whitespace-nowrap text-[10px] text-soft group-hover:text-ink">
                {bars.length > MOST_WIDE && bar.count >= LONG
                  ? shortCount(bar.count)
                  : format.number(bar.count)}
              </span>
            )}
            <span
              className={clsx(
                'relative block w-full',
                inside(bar) ? 'bg-kept' : 'bg-bar group-hover:bg-edge',
              )}
              style={{ height: `${(90 * bar.count) / most}%`, minHeight: bar.count > 0 ? 1 : 0 }}
            >
              <span
                className="absolute inset-x-0 bottom-0 opacity-60"
                style={{
                  height: `${bar.count ? (100 * bar.estimated) / bar.count : 0}%`,
                  backgroundImage:
                    'repeating-linear-gradient(115deg, var(--unsure) 0 2px, transparent 2px 5px)',
                }}
              />
            </span>
          </button>
        ))}
      </div>
      <div className="mt-1 flex gap-[2px]" aria-hidden="true">
        {bars.map((bar, i) => (
          <span key={bar.edge} className="figure min-w-0 flex-1 text-[11px] whitespace-nowrap text-soft">
            {i % step === 0 ? show(bar.edge) : ''}
          </span>
        ))}
      </div>
      <figcaption className="mt-2 text-[13px] text-soft">
        Each bar starts at the figure under it; the steps widen as slide-rule steps do. Drag over bars to take
        their range. Hatched: estimates.
      </figcaption>
    </figure>
  );
}

/** How many have no figure, and why. */
export function Unknowns({ data }: { data: RangeCounts }) {
  const format = useFormat();
  const reasons = Object.entries(data.reasons);
  return (
    <p className="text-[13px]">
      {data.banded > 0 && (
        <span className="mr-4">
          <span className="figure">{format.number(data.banded)}</span> known only as a band wider than a bar
        </span>
      )}
      {data.unknown > 0 && (
        <span className="text-unsure">
          <UnknownMark />
          <span className="figure">{format.number(data.unknown)}</span> unknown
          {reasons.length > 0 &&
            `: ${reasons.map(([reason, count]) => `${reason} ${format.number(count)}`).join(', ')}`}
        </span>
      )}
    </p>
  );
}
