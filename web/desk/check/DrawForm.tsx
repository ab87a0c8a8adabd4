import { useState } from 'react';
import { MOST_CHECKED } from '../../../contract/checks.ts';
import { columnFields, fieldOf } from '../../../core/fields/registry.ts';
import { sizeFor } from '../../../core/stats/accuracy.ts';
import { useFormat } from '../../app/format.ts';
import { Button } from '../../ui/controls.tsx';

/** Half widths that are offered, in percentage points. */
const MARGINS = [5, 8, 10, 12];
/** Fields with more values than a sample can be shared out by are refused by the server. */
const SHARED_BY = new Set([
  'status',
  'ownership',
  'listing',
  'checked-how',
  'kind',
  'level',
  'department',
  'category',
]);

export function wordBy(subject: string, by: string): string {
  return by === 'place' ? 'country' : (fieldOf(subject, by)?.label.toLowerCase() ?? by);
}

/** Before anything is drawn: how many, shared out by what, and what is asked of the list. */
export function DrawForm({
  total,
  subject,
  onDraw,
  onCancel,
}: {
  total: number;
  subject: string;
  onDraw(wish: { size: number; by?: string; atLeast: number; seed?: number }): Promise<void>;
  onCancel: (() => void) | undefined;
}) {
  const format = useFormat();
  const [size, setSize] = useState('60');
  const [by, setBy] = useState('');
  const [atLeast, setAtLeast] = useState('75');
  const [seed, setSeed] = useState('');
  const [busy, setBusy] = useState(false);
  const count = Number(size);
  const percent = Number(atLeast);
  const right =
    Number.isInteger(count) &&
    count >= 1 &&
    count <= MOST_CHECKED &&
    percent >= 1 &&
    percent <= 99 &&
    total > 0;
  const fields = columnFields(subject).filter(({ id, kind }) => kind === 'place' || SHARED_BY.has(id));
  const figures = (text: string) => text.replace(/\D/g, '');
  return (
    <form
      className="max-w-2xl space-y-4 py-5"
      onSubmit={(event) => {
        event.preventDefault();
        if (!right || busy) return;
        setBusy(true);
        void onDraw({
          size: count,
          atLeast: percent,
          ...(by ? { by } : {}),
          ...(seed ? { seed: Number(seed) } : {}),
        }).finally(() => setBusy(false));
      }}
    >
      <h2 className="title text-[18px]">Do they really fit?</h2>
      <p className="text-soft">
        Some of the <span className="figure text-ink">{format.number(total)}</span> are drawn at random. Judge
        them one by one by key, and read off how many of all fit, how sure that is, and which line lets the
        misses through.
      </p>
      <div className="grid grid-cols-[150px_1fr] items-center gap-x-4 gap-y-3">
        <label htmlFor="check-size">How many</label>
        <div className="flex flex-wrap items-center gap-2">
          <input
            id="check-size"
            autoFocus
            inputMode="numeric"
            className="field figure w-20 text-right"
            value={size}
            onChange={(event) => setSize(figures(event.target.value))}
          />
          {MARGINS.map((margin) => {
            const needed = sizeFor(margin / 100, total);
            return (
              <Button
                key={margin}
                disabled={needed > MOST_CHECKED || needed < 1}
                aria-pressed={count === needed}
                onClick={() => setSize(String(needed))}
              >
                <span className="figure">{format.number(needed)}</span>
                <span className="text-[12px] text-soft">for ±{margin} points</span>
              </Button>
            );
          })}
        </div>
        <label htmlFor="check-by">Shared out</label>
        <select
          id="check-by"
          className="field w-fit"
          value={by}
          onChange={(event) => setBy(event.target.value)}
        >
          <option value="">not: plainly at random</option>
          {fields.map(({ id }) => (
            <option key={id} value={id}>
              by {wordBy(subject, id)}
            </option>
          ))}
        </select>
        <label htmlFor="check-least">It is good if at least</label>
        <span>
          <input
            id="check-least"
            inputMode="numeric"
            className="field figure w-16 text-right"
            value={atLeast}
            onChange={(event) => setAtLeast(figures(event.target.value))}
          />{' '}
          % fit
        </span>
        <label htmlFor="check-seed">Seed</label>
        <span>
          <input
            id="check-seed"
            inputMode="numeric"
            placeholder="any"
            className="field figure w-24 text-right"
            value={seed}
            onChange={(event) => setSeed(figures(event.target.value).slice(0, 9))}
          />{' '}
          <span className="text-[13px] text-soft">the same seed draws the same for everybody</span>
        </span>
      </div>
      <div className="flex gap-2">
        <Button type="submit" look="ink" disabled={!right || busy}>
          Draw {right ? format.number(Math.min(count, total)) : ''}
        </Button>
        {onCancel && <Button onClick={onCancel}>Cancel</Button>}
      </div>
      {total === 0 && <p className="text-soft">Nothing passes the tape, so nothing can be drawn.</p>}
    </form>
  );
}
