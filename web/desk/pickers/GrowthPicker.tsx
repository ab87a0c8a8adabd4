import { useState } from 'react';
import type { RangeCounts } from '../../../contract/responses.ts';
import type { GrowthTest, NumberTest } from '../../../core/tape/nodes.ts';
import { GROWTH_OF } from '../../../core/tape/tests.ts';
import { Button, Segments, Trouble } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { Ends } from './range/Ends.tsx';
import { Histogram, Unknowns } from './range/Histogram.tsx';
import { StepCounts } from './range/StepCounts.tsx';

const STEPS: readonly { label: string; range: NumberTest }[] = [
  { label: 'shrank by 10 % or more', range: { to: -10 } },
  { label: 'shrank', range: { to: -0.1 } },
  { label: 'grew', range: { from: 0.1 } },
  { label: 'grew by 10 % or more', range: { from: 10 } },
  { label: '20 % or more', range: { from: 20 } },
];

const percent = (n: number) => `${n > 0 ? '+' : n < 0 ? '−' : ''}${Math.abs(n)} %`;

/** What grew, over which span, and by how many percent; shrinking is below zero. */
export function GrowthPicker({ field, test, at, onTest }: PickerProps<GrowthTest>) {
  const [of, setOf] = useState(test?.of ?? 'headcount');
  const [over, setOver] = useState<'1y' | '3y'>(test?.over ?? '1y');
  const { data, error } = useCounts<RangeCounts>({ field: field.id, at, key: `${of} ${over}` });
  const build = ({ from, to }: NumberTest) =>
    from === undefined && to === undefined
      ? onTest(null)
      : onTest({ of, over, ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) });
  return (
    <div className="flex h-full min-h-0 flex-col gap-4 overflow-y-auto">
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          growth of
          <select
            value={of}
            className="field"
            onChange={(event) => {
              setOf(event.target.value);
              if (test) onTest({ ...test, of: event.target.value });
            }}
          >
            {GROWTH_OF.map((one) => (
              <option key={one} value={one}>
                {one === 'headcount' || one === 'revenue' ? one : `staff in ${one}`}
              </option>
            ))}
          </select>
        </label>
        <Segments
          label="Over"
          value={over}
          options={[
            { key: '1y', label: 'one year' },
            { key: '3y', label: 'three years' },
          ]}
          onChange={(value) => {
            setOver(value);
            if (test) onTest({ ...test, over: value });
          }}
        />
        <Ends test={test} onRange={build} /> <span className="text-soft">percent</span>
      </div>
      <div className="flex flex-wrap gap-2" role="group" aria-label="Ready steps">
        {STEPS.map(({ label, range }) => {
          const on = test !== null && test.from === range.from && test.to === range.to;
          return (
            <Button key={label} look={on ? 'ink' : 'plain'} aria-pressed={on} onClick={() => build(range)}>
              {label}
            </Button>
          );
        })}
      </div>
      <Trouble error={error} />
      {data && <Histogram data={data} test={test} factor={1} estimates show={percent} onRange={build} />}
      {data && <Unknowns data={data} />}
      {test && at && (
        <StepCounts field={field.id} at={at} test={test} whole={false} show={percent} onTest={onTest} />
      )}
    </div>
  );
}
