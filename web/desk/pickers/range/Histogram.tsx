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

/** Counts as bars from the first that has any; dragging over them takes their range. `factor` turns the test's unit into the bars'. */
export function Histogram({
  data,
  test,
  factor,
  estimates,
  show,
  onRange,
}: {
  data: RangeCounts;
  test: NumberTest | null;
  factor: number;
  /** Whether the line counts estimates; only then are they among what a bar leaves. */
  estimates: boolean;
  show(value: number): string;
  onRange(range: NumberTest): void;
}) {
  const format = useFormat();
  const many = useMany();
  /** The bar a drag began on. */
  const [start, setStart] = useState<number | null>(null);
  const first = data.counts.findIndex((count) => count > 0);
  const last = data.counts.findLastIndex((count) => count > 0);
  if (last < 0) return <p className="py-6 text-soft">None of these {many} has a figure.</p>;
  const bars = data.bars.slice(first, last + 1).map((range, i) => ({
    range,
    all: data.counts[first + i]!,
    estimated: data.estimated[first + i]!,
    count: data.counts[first + i]! - (estimates ? 0 : data.estimated[first + i]!),
  }));
  type Bar = (typeof bars)[number];
  const most = Math.max(...bars.map((bar) => bar.all));
  const kept = (bar: Bar) => test !== null && overlap(bar.range, test, factor);
  const named = ({ range: { from, to } }: Bar) =>
    from === undefined
      ? `up to ${show(to!)}`
      : to === undefined
        ? `${show(from)} or more`
        : from === to
          ? show(from)
          : `${show(from)} to ${show(to)}`;
  const take = (one: number, other: number) => {
    const { from } = bars[Math.min(one, other)]!.range;
    const { to } = bars[Math.max(one, other)]!.range;
    onRange({
      from: from === undefined ? undefined : from / factor,
      to: to === undefined ? undefined : to / factor,
    });
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
            key={i}
            type="button"
            aria-label={`${named(bar)}: ${bar.count} ${many}`}
            title={`${named(bar)}\n${format.number(bar.count)} ${many}${bar.estimated ? `${estimates ? ', of them' : ', and'} ${format.number(bar.estimated)} on an estimate${estimates ? '' : ', which do not count'}` : ''}`}
            className="group flex h-full min-w-0 flex-1 flex-col justify-end"
            onMouseDown={(event) => {
              event.preventDefault();
              setStart(i);
              take(i, i);
            }}
            onMouseEnter={() => start !== null && take(start, i)}
            onKeyDown={(event) => event.key === 'Enter' && take(i, i)}
          >
            {bar.all > 0 && (
              <span className="figure flex justify-center whitespace-nowrap text-[10px] text-soft group-hover:text-ink">
                {bars.length > MOST_WIDE && bar.count >= LONG
                  ? shortCount(bar.count)
                  : format.number(bar.count)}
              </span>
            )}
            <span
              className={clsx(
                'relative block w-full',
                kept(bar) === 'whole'
                  ? 'bg-kept'
                  : kept(bar) === 'part'
                    ? 'bg-kept/45'
                    : 'bg-bar group-hover:bg-edge',
              )}
              style={{ height: `${(90 * bar.all) / most}%`, minHeight: bar.all > 0 ? 1 : 0 }}
            >
              <span
                className="absolute inset-x-0 bottom-0 opacity-60"
                style={{
                  height: `${bar.all ? (100 * bar.estimated) / bar.all : 0}%`,
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
          <span key={i} className="figure min-w-0 flex-1 text-[11px] whitespace-nowrap text-soft">
            {i % step === 0
              ? bar.range.from === undefined
                ? `to ${show(bar.range.to!)}`
                : show(bar.range.from)
              : ''}
          </span>
        ))}
      </div>
      <figcaption className="mt-2 text-[13px] text-soft">
        Each bar starts at the figure under it; the steps widen as slide-rule steps do. Drag over bars to take
        their range. Hatched: estimates{estimates ? '' : ', which this line does not count'}.
      </figcaption>
    </figure>
  );
}

/** How much of a bar a test keeps. */
function overlap(bar: NumberTest, test: NumberTest, factor: number): 'whole' | 'part' | 'none' {
  const [from, to] = [(test.from ?? -Infinity) * factor, (test.to ?? Infinity) * factor];
  const [low, high] = [bar.from ?? -Infinity, bar.to ?? Infinity];
  if (low >= from && high <= to) return 'whole';
  return high >= from && low <= to ? 'part' : 'none';
}

/** How many have no figure, and why. */
export function Unknowns({ data }: { data: RangeCounts }) {
  const format = useFormat();
  const reasons = Object.entries(data.reasons);
  return (
    <p className="text-[13px]">
      {data.banded > 0 && (
        <span className="mr-4">
          <span className="figure">{format.number(data.banded)}</span> in no single bar: wider bands, or a
          figure between two
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
