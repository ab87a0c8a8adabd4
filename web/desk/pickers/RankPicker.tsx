import { useState } from 'react';
import { removeLine } from '../../../core/tape/edit.ts';
import type { RankTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments, Trouble } from '../../ui/controls.tsx';
import { useAlternatives } from '../queries.ts';
import { useDesk } from '../store.ts';
import { CountBar } from './CountBar.tsx';
import type { PickerProps } from './picker-props.ts';
import { Ends } from './range/Ends.tsx';
import { EstimatesBox } from './range/EstimatesBox.tsx';

const LADDER = [1, 5, 10, 20, 50, 100, 200, 500, 1000, 5000];

/** The largest by revenue or headcount, of each country, of each industry division, or of all. */
export function RankPicker({
  field,
  test,
  at,
  onTest,
  estimates,
  onEstimates,
}: PickerProps<RankTest> & { estimates: boolean; onEstimates?(on: boolean): void }) {
  const format = useFormat();
  const [by, setBy] = useState<RankTest['by']>(test?.by ?? 'revenue');
  const [among, setAmong] = useState<RankTest['among']>(test?.among ?? 'country');
  const tests = LADDER.map((to): RankTest => ({ by, among, to }));
  const { data, error } = useAlternatives(field.id, at, tests, estimates ? { estimates: true } : {});
  const change = (next: Partial<RankTest>) => test && onTest({ ...test, ...next });
  const most = Math.max(1, ...(data?.counts ?? []));
  return (
    <div className="flex h-full min-h-0 flex-col gap-4 overflow-y-auto">
      <div className="flex flex-wrap items-center gap-3">
        <Segments
          label="By"
          value={by}
          options={[
            { key: 'revenue', label: 'by revenue' },
            { key: 'headcount', label: 'by headcount' },
          ]}
          onChange={(value) => {
            setBy(value);
            change({ by: value });
          }}
        />
        <Segments
          label="Among"
          value={among}
          options={[
            { key: 'country', label: 'of each country' },
            { key: 'industry', label: 'of each industry' },
            { key: 'all', label: 'of the universe' },
          ]}
          onChange={(value) => {
            setAmong(value);
            change({ among: value });
          }}
        />
        <EstimatesBox on={estimates} onChange={onEstimates} />
      </div>
      <div className="flex flex-wrap items-center gap-3">
        places
        <Ends
          test={test}
          onRange={({ from, to }) =>
            from === undefined && to === undefined
              ? onTest(null)
              : onTest({
                  by,
                  among,
                  ...(from === undefined ? {} : { from }),
                  ...(to === undefined ? {} : { to }),
                })
          }
        />
      </div>
      <Trouble error={error} />
      <ul aria-label="How many of the largest" className="max-w-2xl">
        {LADDER.map((to, i) => {
          const on = test?.to === to && test.from === undefined;
          return (
            <li key={to} className={on ? 'border-b border-rule bg-picked' : 'border-b border-rule'}>
              <button
                type="button"
                aria-pressed={on}
                className="grid w-full grid-cols-[140px_90px_1fr] items-center gap-3 px-2 py-1.5 text-left hover:bg-picked"
                onClick={() => onTest({ by, among, to })}
              >
                {to === 1 ? 'the largest' : `the largest ${format.number(to)}`}
                <span className="figure text-right">{data ? format.number(data.counts[i]!) : '…'}</span>
                <CountBar count={data?.counts[i] ?? 0} most={most} picked={on} />
              </button>
            </li>
          );
        })}
      </ul>
      <p className="text-[13px] text-soft">
        Ranked over the whole universe, then counted among what the other lines let through. Equal figures
        share a place; banded, estimated (unless they count) and unknown ones have none. The industry is the
        division of the main code in NACE 2.1.
      </p>
      {at !== undefined && test && (
        <p className="flex flex-wrap items-center gap-2 text-[13px]">
          Or of those that the other lines keep:
          <Button onClick={() => takeFirst(at, test)}>
            the first {format.number(test.to ?? LADDER[3]!)} by {by}
          </Button>
          <span className="text-soft">an order and a number instead of a line; exports take that many</span>
        </p>
      )}
    </div>
  );
}

/** Puts an order and a number in the place of a line of ranks. */
function takeFirst(at: string, { by, to }: RankTest): void {
  const { tape, change, set } = useDesk.getState();
  change({ ...removeLine(tape, at), first: to ?? LADDER[3]! }, undefined, {
    sort: [{ by, descending: true }],
  });
  set({ openLine: null });
}
