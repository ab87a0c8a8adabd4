import clsx from 'clsx';
import type { ReactNode } from 'react';
import { useFormat } from '../app/format.ts';

/** One step of a roll: what comes to it or goes off it, and what is left after it. */
export interface RollStep {
  key: string;
  label: ReactNode;
  /** Below zero where it takes away. */
  delta: number;
  /** What is left after it. */
  total: number;
  note?: ReactNode;
}

/** The paper on the right of a place: steps that add and take away, with what is left after each, and the sum large at its foot. */
export function Roll({
  title,
  about,
  steps,
  foot,
  note,
  busy = false,
  children,
}: {
  title: string;
  about?: ReactNode;
  steps: readonly RollStep[];
  foot: { label: string; total: number | null };
  note?: ReactNode;
  /** Whether what is shown is being counted anew. */
  busy?: boolean;
  /** What can be done with it. */
  children?: ReactNode;
}) {
  const format = useFormat();
  const most = Math.max(1, ...steps.map(({ total }) => total));
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
        {steps.map(({ key, label, delta, total, note: more }, i) => {
          const off = i > 0 && delta <= 0;
          return (
            <li key={key} className="relative border-b border-dashed border-edge/70 py-2 pr-4 pl-10">
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
                <span className={clsx('figure', off ? 'text-cut' : 'text-kept')}>
                  {delta === 0 ? '' : off ? '−' : '+'}
                  {format.number(Math.abs(delta))}
                </span>
              </div>
              <div className="relative mt-1.5 h-1.5 border-b border-edge" aria-hidden="true">
                <div
                  className="absolute top-0 left-0 h-1 bg-kept"
                  style={{ width: `${(100 * total) / most}%` }}
                />
                {delta < 0 && (
                  <div
                    className="hatched absolute top-0 h-1"
                    style={{ left: `${(100 * total) / most}%`, width: `${(100 * -delta) / most}%` }}
                  />
                )}
              </div>
            </li>
          );
        })}
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
            aria-label={`${foot.label}: ${foot.total ?? 'being counted'}`}
          >
            {foot.total === null ? '…' : format.number(foot.total)}
          </p>
        </div>
        {children && <div className="mt-3.5 flex flex-wrap items-center gap-2">{children}</div>}
      </footer>
    </aside>
  );
}
