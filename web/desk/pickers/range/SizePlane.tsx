import { keepPreviousData, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { addLines, freeId, replaceLine } from '../../../../core/tape/edit.ts';
import {
  isBlock,
  isHas,
  type FieldLine,
  type MoneyTest,
  type NumberTest,
  type Tape,
} from '../../../../core/tape/nodes.ts';
import type { Plane } from '../../../../core/tally/plane.ts';
import { money } from '../../../../core/tape/wording.ts';
import { call } from '../../../api.ts';
import { useFormat } from '../../../app/format.ts';
import { countedPart } from '../../queries.ts';
import { useDesk } from '../../store.ts';

interface Spot {
  x: number;
  y: number;
}

/** Headcount against revenue: each field of the grid as dark as it has companies. Dragging a rectangle sets both lines. */
export function SizePlane({ currency }: { currency: string }) {
  const format = useFormat();
  const tape = useDesk((state) => state.tape);
  const counted = countedPart(tape);
  const [start, setStart] = useState<Spot | null>(null);
  const [end, setEnd] = useState<Spot | null>(null);
  const { data } = useQuery({
    queryKey: ['plane', counted, currency],
    queryFn: ({ signal }) => call<Plane>('POST', '/plane', { tape: counted, currency }, signal),
    placeholderData: keepPreviousData,
  });
  if (!data) return <p className="text-soft">Counting …</p>;
  const { xBars, yBars, counts } = data;
  const used = (at: (i: number) => number, length: number) => {
    const filled = Array.from({ length }, (_, i) => i).filter((i) => at(i) > 0);
    return [filled[0] ?? 0, filled.at(-1) ?? 0] as const;
  };
  const count = (x: number, y: number) => counts[y * xBars.length + x]!;
  const [left, right] = used((x) => yBars.reduce((sum, _, y) => sum + count(x, y), 0), xBars.length);
  const [low, high] = used((y) => xBars.reduce((sum, _, x) => sum + count(x, y), 0), yBars.length);
  const columns = Array.from({ length: right - left + 1 }, (_, i) => left + i);
  const rows = Array.from({ length: high - low + 1 }, (_, i) => high - i);
  const most = Math.max(1, ...counts);
  const chosen = lineTests(tape);
  const rangeOf = (bars: readonly NumberTest[], a: number, b: number): NumberTest => {
    const { from } = bars[Math.min(a, b)]!;
    const { to } = bars[Math.max(a, b)]!;
    return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
  };
  const take = (from: Spot, to: Spot) => {
    const headcount = rangeOf(xBars, from.x, to.x);
    const revenue = { ...rangeOf(yBars, from.y, to.y), currency };
    const { tape: now, change } = useDesk.getState();
    change(withTest(withTest(now, 'headcount', headcount), 'revenue', revenue), 'plane');
  };
  const within = (x: number, y: number) =>
    start && end
      ? x >= Math.min(start.x, end.x) &&
        x <= Math.max(start.x, end.x) &&
        y >= Math.min(start.y, end.y) &&
        y <= Math.max(start.y, end.y)
      : overlaps(chosen.headcount, xBars[x]!) && overlaps(chosen.revenue, yBars[y]!);
  const columnStep = Math.ceil(columns.length / 10);

  return (
    <figure className="select-none" onMouseLeave={() => setStart(null)}>
      <div
        className="grid gap-px"
        style={{ gridTemplateColumns: `64px repeat(${columns.length}, minmax(0, 1fr))` }}
        onMouseUp={() => {
          if (start && end) take(start, end);
          setStart(null);
          setEnd(null);
        }}
      >
        {rows.map((y) => (
          <div key={y} className="contents">
            <span className="figure pr-2 text-right text-[11px] leading-[15px] text-soft">
              {(high - y) % 2 === 0 ? money(startOf(yBars[y]!), currency) : ''}
            </span>
            {columns.map((x) => {
              const here = count(x, y);
              return (
                <button
                  key={x}
                  type="button"
                  tabIndex={here > 0 ? 0 : -1}
                  aria-label={`headcount from ${startOf(xBars[x]!)}, revenue from ${money(startOf(yBars[y]!), currency)}: ${here} companies`}
                  title={`headcount from ${format.number(startOf(xBars[x]!))}, revenue from ${money(startOf(yBars[y]!), currency)}\n${format.number(here)} companies`}
                  className={clsx(
                    'relative h-[15px] bg-rule/40',
                    within(x, y) && 'outline outline-1 -outline-offset-1 outline-kept',
                  )}
                  onMouseDown={(event) => {
                    event.preventDefault();
                    setStart({ x, y });
                    setEnd({ x, y });
                  }}
                  onMouseEnter={() => start && setEnd({ x, y })}
                  onKeyDown={(event) => event.key === 'Enter' && take({ x, y }, { x, y })}
                >
                  <span
                    className={clsx('absolute inset-0', within(x, y) ? 'bg-kept' : 'bg-ink')}
                    style={{ opacity: here === 0 ? 0 : 0.12 + (0.88 * Math.log1p(here)) / Math.log1p(most) }}
                  />
                </button>
              );
            })}
          </div>
        ))}
        <span />
        {columns.map((x, i) => (
          <span key={x} className="figure text-[11px] whitespace-nowrap text-soft">
            {i % columnStep === 0 ? format.number(startOf(xBars[x]!)) : ''}
          </span>
        ))}
      </div>
      <figcaption className="mt-2 text-[13px] text-soft">
        Headcount to the right, revenue upwards; darker is more companies, by slide-rule steps. Drag a
        rectangle to set both lines. {format.number(data.placed)} of {format.number(data.total)} have a figure
        for both.
      </figcaption>
    </figure>
  );
}

/** The tests of the first headcount line and the first revenue line. */
function lineTests(tape: Tape): { headcount: NumberTest | undefined; revenue: NumberTest | undefined } {
  const of = (field: string) => lineOn(tape, field)?.test as NumberTest | undefined;
  return { headcount: of('headcount'), revenue: of('revenue') };
}

function lineOn(tape: Tape, field: string): FieldLine | undefined {
  return tape.lines.find(
    (line): line is FieldLine => !isBlock(line) && !isHas(line) && line.field === field && !line.not,
  );
}

/** The line on a field with another range; a new one counts estimates, as the grid does. */
function withTest(tape: Tape, field: string, test: NumberTest | MoneyTest): Tape {
  const line = lineOn(tape, field);
  return line
    ? replaceLine(tape, { ...line, test })
    : addLines(tape, [{ id: freeId(tape), field, test, estimates: true }]);
}

/** Where a bar starts; the first takes all that is less, and sizes are not below 0. */
function startOf(bar: NumberTest): number {
  return bar.from ?? 0;
}

function overlaps(test: NumberTest | undefined, bar: NumberTest): boolean {
  if (!test) return false;
  return (test.from ?? -Infinity) <= (bar.to ?? Infinity) && (test.to ?? Infinity) >= (bar.from ?? -Infinity);
}
