import clsx from 'clsx';
import type { ReactNode } from 'react';
import { useFormat } from '../app/format.ts';

/** One step of a roll: what comes to it or goes off it, and what is left after it. */
export interface ShownStep {
  key: string;
  label: ReactNode;
  /** Below zero where it takes away. */
  delta: number;
  /** Of a step of nothing: whether it would have added. */
  adds?: boolean;
  /** What is left after it. */
  total: number;
  note?: ReactNode;
  /** Opens the records of the step. */
  onOpen?(): void;
}

/** The paper on the right of a place: steps that add and take away, with what is left after each, and the sum large at its foot. */
export function Roll({
  title,
  about,
  before,
  steps,
  foot,
  below,
  note,
  busy = false,
  opens = 'See these on the Desk',
  children,
}: {
  title: string;
  about?: ReactNode;
  /** Above the steps: where they come from. */
  before?: ReactNode;
  steps: readonly ShownStep[];
  /** Between the steps and the foot: what the result is made of. */
  below?: ReactNode;
  foot: { label: string; total: number | null; unit?: string };
  note?: ReactNode;
  /** Whether what is shown is being counted anew. */
  busy?: boolean;
  /** What a figure does that opens its records. */
  opens?: string;
  /** What can be done with it. */
  children?: ReactNode;
}) {
  const format = useFormat();
  const ruler = rulerOf(steps);
  const at = (total: number) => (100 * (total - ruler.from)) / (ruler.to - ruler.from);
  return (
    <aside
      aria-label={title}
      className="flex w-[384px] shrink-0 flex-col border-l border-edge bg-paper max-[1000px]:w-[300px]"
    >
      <header className="px-4 pt-4 pb-2 pl-10">
        <h2 className="title text-[18px]">{title}</h2>
        {about && <p className="text-[13px] text-soft">{about}</p>}
      </header>
      <ol className={clsx('min-h-0 flex-1 overflow-y-auto', busy && 'opacity-60')}>
        {before && <li>{before}</li>}
        {steps.map(({ key, label, delta, adds = false, total, note: more, onOpen }, i) => {
          const off = i > 0 && (delta < 0 || (delta === 0 && !adds));
          return (
            <li
              key={key}
              className={clsx(
                'relative border-b border-dashed border-edge/70 pr-4 pl-10',
                steps.length > MOST_AIRY ? 'py-1' : 'py-2',
              )}
            >
              <span
                aria-hidden="true"
                className={clsx('figure absolute left-4 font-semibold', off ? 'text-cut' : 'text-kept')}
              >
                {off ? '−' : '+'}
              </span>
              <div className="flex items-baseline justify-between gap-3">
                <span>{label}</span>
                <span className="figure text-[15px] font-semibold">{format.number(total)}</span>
              </div>
              <div className="flex items-baseline justify-between gap-3 text-[13px]">
                <span className="min-w-0 text-soft">{more}</span>
                <Figure delta={delta} off={off} onOpen={onOpen} opens={opens} />
              </div>
              <div className="relative mt-1.5 h-1.5 border-b border-edge" aria-hidden="true">
                <div className="absolute top-0 left-0 h-1 bg-kept" style={{ width: `${at(total)}%` }} />
                {delta < 0 && (
                  <div
                    className="hatched absolute top-0 h-1"
                    style={{ left: `${at(total)}%`, width: `${at(total - delta) - at(total)}%` }}
                  />
                )}
              </div>
            </li>
          );
        })}
        {steps.length > 0 && ruler.from > 0 && (
          <li className="flex justify-between py-0.5 pr-4 pl-10 text-[11px] text-soft">
            <span>
              broken off at <span className="figure">{format.number(ruler.from)}</span>
            </span>
            <span className="figure">{format.number(ruler.to)}</span>
          </li>
        )}
        {below && <li>{below}</li>}
      </ol>
      <footer className="border-t-3 border-double border-ink px-4 pt-2 pb-3">
        <div className="flex items-end justify-between gap-3">
          <div className="pb-1">
            <p className="font-semibold">{foot.label}</p>
            {note && <div className="text-[13px] text-soft">{note}</div>}
          </div>
          <p
            className={clsx(
              'figure text-5xl leading-none font-semibold tracking-tight',
              busy && 'opacity-60',
            )}
            aria-label={`${foot.label}: ${foot.total ?? 'being counted'}${foot.unit ? ` ${foot.unit}` : ''}`}
          >
            {foot.total === null ? '…' : format.number(foot.total)}
            {foot.unit && <span className="ml-1 text-2xl">{foot.unit}</span>}
          </p>
        </div>
        {children && <div className="mt-3.5 flex flex-wrap items-center gap-1.5">{children}</div>}
      </footer>
    </aside>
  );
}

/** What a step adds or takes away, which opens its records where there is a way to. */
function Figure({
  delta,
  off,
  onOpen,
  opens,
}: {
  delta: number;
  off: boolean;
  onOpen: (() => void) | undefined;
  opens: string;
}) {
  const format = useFormat();
  const text = `${delta === 0 ? '' : off ? '−' : '+'}${format.number(Math.abs(delta))}`;
  const look = clsx('figure', off ? 'text-cut' : 'text-kept');
  return onOpen && delta !== 0 ? (
    <button
      type="button"
      className={clsx(look, 'underline underline-offset-4 hover:decoration-2')}
      title={opens}
      onClick={onOpen}
    >
      {text}
    </button>
  ) : (
    <span className={look}>{text}</span>
  );
}

/** Rulers are plain, from zero; where the steps are small against the totals they are broken off below them. */
function rulerOf(steps: readonly ShownStep[]): { from: number; to: number } {
  const ends = steps.flatMap(({ total, delta }, i) => (i === 0 ? [total] : [total, total - delta]));
  const to = Math.max(1, ...ends);
  const least = Math.min(...ends);
  if (steps.length < 2 || least === to || least < BROKEN_FROM * to) return { from: 0, to };
  const step = 10 ** Math.floor(Math.log10(Math.max(1, to - least)));
  return { from: Math.max(0, Math.floor((least - (to - least)) / step) * step), to };
}

/** More steps than this stand closer, so that all are seen at once. */
const MOST_AIRY = 8;

/** Where the least total is so much of the greatest, steps could not be seen on a ruler from zero. */
const BROKEN_FROM = 0.8;
