import { useState } from 'react';
import { dayOf } from '../../../core/dates.ts';
import { wordDays } from '../../../core/tape/dates.ts';
import type { DateTest } from '../../../core/tape/nodes.ts';
import { Button } from '../../ui/controls.tsx';
import { useFormat } from '../../app/format.ts';
import { useAlternatives, useHealth } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';

const SPANS = ['3 months', '6 months', '12 months', '18 months', '24 months', '36 months', '60 months'];
const YEARS = ['this', 'last'] as const;
const CHOICES: readonly DateTest[] = [...SPANS.map((past) => ({ past })), ...YEARS.map((year) => ({ year }))];

/** What a choice would leave. */
function Count({ of }: { of: number | undefined }) {
  const format = useFormat();
  return of === undefined ? null : <span className="figure text-[12px] opacity-80">{format.number(of)}</span>;
}

/** Rolling spans that end on the as-of date, calendar years, or two dates. */
export function DatePicker({ field, test, at, onTest }: PickerProps<DateTest>) {
  const { data: health } = useHealth();
  const [from, setFrom] = useState(test?.from ?? '');
  const [to, setTo] = useState(test?.to ?? '');
  const asOf = dayOf(health?.asOf ?? '') ?? 0;
  const reversed = from !== '' && to !== '' && from > to;
  const set = (nextFrom: string, nextTo: string) => {
    setFrom(nextFrom);
    setTo(nextTo);
    if (nextFrom !== '' && nextTo !== '' && nextFrom > nextTo) return;
    onTest(
      nextFrom === '' && nextTo === ''
        ? null
        : { ...(nextFrom ? { from: nextFrom } : {}), ...(nextTo ? { to: nextTo } : {}) },
    );
  };
  const { data } = useAlternatives(field.id, at, CHOICES);
  const counts = data?.counts;
  const pick = (next: DateTest) => {
    setFrom('');
    setTo('');
    onTest(next);
  };
  return (
    <div className="max-w-2xl space-y-6 pt-2">
      <fieldset>
        <legend className="title pb-2 text-base">In the past</legend>
        <div className="flex flex-wrap gap-2">
          {SPANS.map((past, i) => (
            <Button
              key={past}
              look={test?.past === past ? 'ink' : 'plain'}
              aria-pressed={test?.past === past}
              onClick={() => pick({ past })}
            >
              {past} <Count of={counts?.[i]} />
            </Button>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="title pb-2 text-base">Calendar year</legend>
        <div className="flex flex-wrap gap-2">
          {YEARS.map((year, i) => (
            <Button
              key={year}
              look={test?.year === year ? 'ink' : 'plain'}
              aria-pressed={test?.year === year}
              onClick={() => pick({ year })}
            >
              {year} year <Count of={counts?.[SPANS.length + i]} />
            </Button>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="title pb-2 text-base">Between two days</legend>
        <div className="flex items-center gap-2">
          <input
            type="date"
            aria-label="From"
            value={from}
            onChange={(event) => set(event.target.value, to)}
            className="field"
          />
          to
          <input
            type="date"
            aria-label="To"
            value={to}
            onChange={(event) => set(from, event.target.value)}
            className="field"
          />
        </div>
        {reversed && (
          <p role="alert" className="mt-1 text-[13px] text-cut">
            The dates are reversed: the first is after the second. The line stays as it was.
          </p>
        )}
      </fieldset>
      {test && health && (
        <p className="text-soft">
          This means <span className="figure text-ink">{wordDays(test, asOf)}</span>, both days included,
          counted from the as-of date {health.asOf}.
        </p>
      )}
    </div>
  );
}
