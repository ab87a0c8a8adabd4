import { useEffect, useRef, useState } from 'react';
import type { NumberTest } from '../../../../core/tape/nodes.ts';
import { readFigure, spellFigure } from '../../../../core/tape/typed/figures.ts';

/** The two ends as text: 20, 2.5m, 500k. A reversed or unreadable end leaves the line as it was and says so. */
export function Ends({ test, onRange }: { test: NumberTest | null; onRange(range: NumberTest): void }) {
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
