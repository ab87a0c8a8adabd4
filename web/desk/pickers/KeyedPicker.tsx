import clsx from 'clsx';
import { useState } from 'react';
import type { KeyedCounts } from '../../../contract/responses.ts';
import { isWhole } from '../../../core/fields/field.ts';
import type { KeyedTest, NumberTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Trouble } from '../../ui/controls.tsx';
import { useCounts, useMany } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { Ends } from './range/Ends.tsx';
import { Histogram, Unknowns } from './range/Histogram.tsx';
import { StepCounts } from './range/StepCounts.tsx';

/** A measure by key: the key on the left, its figures on the right. */
export function KeyedPicker({ field, test, at, onTest }: PickerProps<KeyedTest>) {
  const format = useFormat();
  const many = useMany();
  const whole = isWhole(field);
  const show = (n: number) => format.number(n, whole ? 2 : 3);
  const [key, setKey] = useState(test?.key ?? field.values![0]!.key);
  const { data, error } = useCounts<KeyedCounts>({ field: field.id, at, key });
  const own = test?.key === key ? test : null;
  const build = ({ from, to }: NumberTest) =>
    from === undefined && to === undefined
      ? onTest(null)
      : onTest({ key, ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) });
  const choose = (next: string) => {
    setKey(next);
    if (test) onTest({ ...test, key: next });
  };
  return (
    <div className="flex h-full min-h-0 gap-6 overflow-y-auto">
      <ul aria-label={field.label} className="w-56 shrink-0">
        {data?.values.map((value) => (
          <li key={value.key} className="border-b border-rule">
            <button
              type="button"
              aria-pressed={value.key === key}
              onClick={() => choose(value.key)}
              className={clsx(
                'flex w-full justify-between px-2 py-1.5 text-left hover:bg-picked',
                value.key === key && 'bg-picked font-semibold',
              )}
            >
              {value.label}
              <span className="figure text-[13px]">{format.number(value.count)}</span>
            </button>
          </li>
        ))}
        <li className="pt-2 text-[12px] text-soft">
          {field.id === 'departments' ? 'companies with anybody there' : `${many} with any of it`}
        </li>
      </ul>
      <div className="flex min-w-0 flex-1 flex-col gap-4">
        <Ends key={key} test={own} onRange={build} />
        <Trouble error={error} />
        {data && <Histogram data={data} test={own} factor={1} estimates show={show} onRange={build} />}
        {data && <Unknowns data={data} />}
        {own && at && (
          <StepCounts field={field.id} at={at} test={own} whole={whole} show={show} onTest={onTest} />
        )}
      </div>
    </div>
  );
}
