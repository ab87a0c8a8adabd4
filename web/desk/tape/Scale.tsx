import { memo } from 'react';

/** Where a count stands on a slide rule from 0 to the universe, in percent. */
function place(count: number, universe: number): number {
  return universe <= 0 ? 0 : (100 * Math.log10(count + 1)) / Math.log10(universe + 1);
}

/** Ticks at 1, 2, … 9 in each decade; the first of a decade is long. */
const Ticks = memo(function Ticks({ universe }: { universe: number }) {
  const ticks = [];
  for (let decade = 1; decade <= universe; decade *= 10)
    for (let step = 1; step < 10 && step * decade <= universe; step++) {
      const x = `${place(step * decade, universe)}%`;
      ticks.push(<line key={step * decade} x1={x} x2={x} y1={5} y2={step === 1 ? 10 : 7.5} />);
    }
  return <g stroke="var(--edge)">{ticks}</g>;
});

/** The slide-rule scale of a line: green up to what is left, red hatching over what the line cut. */
export function Scale({
  universe,
  before,
  subtotal,
}: {
  universe: number;
  before: number;
  subtotal: number;
}) {
  const at = place(subtotal, universe);
  const from = place(before, universe);
  return (
    <div className="relative mt-1 h-2.5" aria-hidden="true">
      <svg className="absolute inset-0 h-full w-full overflow-visible">
        <line x1="0" x2="100%" y1="4.5" y2="4.5" stroke="var(--edge)" />
        <Ticks universe={universe} />
      </svg>
      <div
        className="hatched absolute top-[3px] h-[4px]"
        style={{ left: `${at}%`, width: `${Math.max(0, from - at)}%` }}
      />
      <div className="absolute top-[3px] left-0 h-[3px] bg-kept" style={{ width: `${at}%` }} />
      <div className="absolute top-0 h-[9px] w-[3px] -translate-x-1/2 bg-kept" style={{ left: `${at}%` }} />
    </div>
  );
}
