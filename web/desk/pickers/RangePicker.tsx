import clsx from 'clsx';
import { useEffect, useRef, useState } from 'react';
import type { RangeCounts } from '../../../contract/responses.ts';
import { CURRENCIES } from '../../../core/money/rates.ts';
import type { MoneyTest, NumberTest } from '../../../core/tape/nodes.ts';
import { readFigure, spellFigure } from '../../../core/tape/typed/figures.ts';
import { money } from '../../../core/tape/wording.ts';
import { useFormat } from '../../app/format.ts';
import { useSettings } from '../../app/settings.ts';
import { Button, Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';

type RangeTest = NumberTest | MoneyTest;

interface Step {
  label: string;
  from?: number;
  to?: number;
}

/** Ready steps: the European size classes by headcount, with the smallest split further, and by revenue. */
const STEPS: Record<string, readonly Step[]> = {
  headcount: [
    { label: '0–1', from: 0, to: 1 },
    { label: '2–4', from: 2, to: 4 },
    { label: '5–9', from: 5, to: 9 },
    { label: 'micro 0–9', from: 0, to: 9 },
    { label: 'small 10–49', from: 10, to: 49 },
    { label: 'medium 50–249', from: 50, to: 249 },
    { label: 'large 250+', from: 250 },
  ],
  revenue: [
    { label: 'up to 2m', to: 2e6 },
    { label: '2m–10m', from: 2e6, to: 1e7 },
    { label: '10m–50m', from: 1e7, to: 5e7 },
    { label: '50m+', from: 5e7 },
  ],
  founded: [
    { label: 'before 1990', to: 1989 },
    { label: '1990–2009', from: 1990, to: 2009 },
    { label: 'since 2010', from: 2010 },
  ],
};

/** A histogram that can be brushed, two ends that can be typed, and ready steps. */
export function RangePicker({
  field,
  test,
  at,
  onTest,
  estimates,
  onEstimates,
}: PickerProps<RangeTest> & { estimates: boolean; onEstimates?(on: boolean): void }) {
  const settings = useSettings();
  const format = useFormat();
  const isMoney = field.kind === 'money';
  // Chosen before there is a line: kept for it, and no reason to make one.
  const [wanted, setWanted] = useState<string | null>(null);
  const currency = (test && 'currency' in test ? test.currency : undefined) ?? wanted ?? settings.currency;
  const [per, setPer] = useState<'year' | 'month'>(
    test && 'per' in test && test.per === 'month' ? 'month' : 'year',
  );
  const { data, error } = useCounts<RangeCounts>({ field: field.id, at, ...(isMoney ? { currency } : {}) });
  const build = (range: NumberTest, next: { currency?: string; per?: 'year' | 'month' } = {}) => {
    if (range.from === undefined && range.to === undefined) return onTest(null);
    const ends = {
      ...(range.from === undefined ? {} : { from: range.from }),
      ...(range.to === undefined ? {} : { to: range.to }),
    };
    onTest(
      isMoney
        ? {
            ...ends,
            currency: next.currency ?? currency,
            ...((next.per ?? per) === 'month' ? { per: 'month' as const } : {}),
          }
        : ends,
    );
  };
  const show = (value: number) =>
    isMoney ? money(value, currency) : field.id === 'founded' ? String(value) : format.number(value);

  return (
    <div className="flex h-full min-h-0 flex-col gap-4 overflow-y-auto">
      <div className="flex flex-wrap items-center gap-3">
        <Ends test={test} onRange={build} />
        {isMoney && (
          <>
            <select
              aria-label="Currency"
              value={currency}
              className="field"
              onChange={(event) => {
                setWanted(event.target.value);
                if (test) build(test, { currency: event.target.value });
              }}
            >
              {CURRENCIES.map((code) => (
                <option key={code}>{code}</option>
              ))}
            </select>
            <Segments
              label="Per"
              value={per}
              options={[
                { key: 'year', label: 'a year' },
                { key: 'month', label: 'a month' },
              ]}
              onChange={(value) => {
                setPer(value);
                if (test) build(test, { per: value });
              }}
            />
          </>
        )}
        {field.store.at === 'range' && (
          <label className={clsx('flex items-center gap-2', !onEstimates && 'opacity-50')}>
            <input
              type="checkbox"
              checked={estimates}
              disabled={!onEstimates}
              onChange={(event) => onEstimates?.(event.target.checked)}
            />{' '}
            estimates count
          </label>
        )}
      </div>
      {isMoney && per === 'month' && test && (
        <p className="-mt-2 text-[13px] text-soft">
          that is {test.from === undefined ? 'up to ' : `${money(test.from * 12, currency)} `}
          {test.to === undefined
            ? 'or more'
            : `${test.from === undefined ? '' : 'to '}${money(test.to * 12, currency)}`}{' '}
          a year, twelve times the month
        </p>
      )}
      <div className="flex flex-wrap gap-2" role="group" aria-label="Ready steps">
        {(STEPS[field.id] ?? []).map((step) => {
          const on = test !== null && test.from === step.from && test.to === step.to;
          return (
            <Button
              key={step.label}
              look={on ? 'ink' : 'plain'}
              aria-pressed={on}
              onClick={() => {
                // The steps are yearly figures.
                setPer('year');
                build(step, { per: 'year' });
              }}
            >
              {step.label}
            </Button>
          );
        })}
      </div>
      <Trouble error={error} />
      {data && (
        <Histogram
          data={data}
          test={test}
          factor={per === 'month' ? 12 : 1}
          whole={!isMoney}
          show={show}
          onRange={build}
        />
      )}
      {data && <Unknowns data={data} />}
    </div>
  );
}

/** The two ends as text: 20, 2.5m, 500k. A reversed or unreadable end leaves the line as it was and says so. */
function Ends({ test, onRange }: { test: RangeTest | null; onRange(range: NumberTest): void }) {
  const spelled = (value: number | undefined) => (value === undefined ? '' : spellFigure(value));
  const [from, setFrom] = useState(spelled(test?.from));
  const [to, setTo] = useState(spelled(test?.to));
  const own = useRef<string | null>(null);
  const outside = `${test?.from},${test?.to}`;
  useEffect(() => {
    if (own.current === outside) return;
    setFrom(spelled(test?.from));
    setTo(spelled(test?.to));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what came from elsewhere rewrites what is typed
  }, [outside]);
  const read = (text: string) =>
    text.trim() === '' ? undefined : readFigure(text.trim().replace(/\s/g, ''));
  const low = read(from);
  const high = read(to);
  const problem =
    low === null || high === null
      ? `“${low === null ? from : to}” is no figure; write 20, 2.5m or 500k`
      : low !== undefined && high !== undefined && low > high
        ? `reversed: ${from} is above ${to}`
        : null;
  const set = (nextFrom: string, nextTo: string) => {
    setFrom(nextFrom);
    setTo(nextTo);
    const [a, b] = [read(nextFrom), read(nextTo)];
    if (a === null || b === null || (a !== undefined && b !== undefined && a > b)) return;
    own.current = `${a},${b}`;
    onRange({ from: a, to: b });
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        from
        <input
          autoFocus
          value={from}
          aria-invalid={low === null}
          onChange={(event) => set(event.target.value, to)}
          placeholder="any"
          className="field figure w-28 border-ink text-right"
        />
      </label>
      <label className="flex items-center gap-2">
        to
        <input
          value={to}
          aria-invalid={high === null}
          onChange={(event) => set(from, event.target.value)}
          placeholder="any"
          className="field figure w-28 border-ink text-right"
        />
      </label>
      {problem && (
        <span role="alert" className="text-[13px] text-cut">
          {problem}; the line stays as it was
        </span>
      )}
    </div>
  );
}

function Histogram({
  data,
  test,
  factor,
  whole,
  show,
  onRange,
}: {
  data: RangeCounts;
  test: RangeTest | null;
  factor: number;
  whole: boolean;
  show(value: number): string;
  onRange(range: NumberTest): void;
}) {
  const format = useFormat();
  /** The bar a drag began on. */
  const [start, setStart] = useState<number | null>(null);
  const first = Math.max(
    0,
    data.counts.findIndex((count) => count > 0),
  );
  const last = data.counts.findLastIndex((count) => count > 0);
  if (last < 0) return <p className="py-6 text-soft">None of these companies has a figure.</p>;
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
            aria-label={`${show(bar.edge)}${bar.next === undefined ? ' or more' : ` to ${show(upper(bar))}`}: ${bar.count} companies`}
            title={`${show(bar.edge)}${bar.next === undefined ? ' or more' : ` to ${show(upper(bar))}`}\n${format.number(bar.count)} companies${bar.estimated ? `, ${format.number(bar.estimated)} of them on an estimate` : ''}`}
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
                {format.number(bar.count)}
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

function Unknowns({ data }: { data: RangeCounts }) {
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
