import { useContext, useState } from 'react';
import type { RangeCounts } from '../../../contract/responses.ts';
import { isWhole } from '../../../core/fields/field.ts';
import { CURRENCIES } from '../../../core/money/rates.ts';
import type { MoneyTest, NumberTest } from '../../../core/tape/nodes.ts';
import { money } from '../../../core/tape/wording.ts';
import { useFormat } from '../../app/format.ts';
import { useSettings } from '../../app/settings.ts';
import { Button, Segments, Trouble } from '../../ui/controls.tsx';
import { Holder, useAlternatives, useCounts, useInBlock } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { Ends } from './range/Ends.tsx';
import { EstimatesBox } from './range/EstimatesBox.tsx';
import { Histogram, Unknowns } from './range/Histogram.tsx';
import { SizePlane } from './range/SizePlane.tsx';
import { StepCounts } from './range/StepCounts.tsx';

type RangeTest = NumberTest | MoneyTest;

interface Step {
  label: string;
  from?: number;
  to?: number;
}

/** Ready steps: the European size classes by headcount, with the smallest split further, and by revenue. */
const STEPS: Record<string, readonly Step[]> = {
  headcount: [
    { label: '0–1', from: 0, to: 1 },
    { label: '2–4', from: 2, to: 4 },
    { label: '5–9', from: 5, to: 9 },
    { label: 'micro 0–9', from: 0, to: 9 },
    { label: 'small 10–49', from: 10, to: 49 },
    { label: 'medium 50–249', from: 50, to: 249 },
    { label: 'large 250+', from: 250 },
  ],
  revenue: [
    { label: 'up to 2m', to: 2e6 },
    { label: '2m–10m', from: 2e6, to: 1e7 },
    { label: '10m–50m', from: 1e7, to: 5e7 },
    { label: '50m+', from: 5e7 },
  ],
  profit: [
    { label: 'a loss', to: 0 },
    { label: 'up to 1m', from: 0, to: 1e6 },
    { label: '1m–10m', from: 1e6, to: 1e7 },
    { label: '10m+', from: 1e7 },
  ],
  assets: [
    { label: 'up to 2m', to: 2e6 },
    { label: '2m–10m', from: 2e6, to: 1e7 },
    { label: '10m–43m', from: 1e7, to: 4.3e7 },
    { label: '43m+', from: 4.3e7 },
  ],
  'revenue-per-head': [
    { label: 'up to 50k', to: 5e4 },
    { label: '50k–100k', from: 5e4, to: 1e5 },
    { label: '100k–200k', from: 1e5, to: 2e5 },
    { label: '200k+', from: 2e5 },
  ],
  age: [
    { label: 'up to 5', to: 5 },
    { label: '6–20', from: 6, to: 20 },
    { label: '21–50', from: 21, to: 50 },
    { label: '51+', from: 51 },
  ],
  sources: [
    { label: 'one alone', from: 1, to: 1 },
    { label: 'two or more', from: 2 },
    { label: 'three or more', from: 3 },
  ],
  founded: [
    { label: 'before 1990', to: 1989 },
    { label: '1990–2009', from: 1990, to: 2009 },
    { label: 'since 2010', from: 2010 },
  ],
};

/** A histogram that can be brushed, two ends that can be typed, and ready steps. */
export function RangePicker({
  field,
  test,
  at,
  onTest,
  estimates,
  onEstimates,
}: PickerProps<RangeTest> & { estimates: boolean; onEstimates?(on: boolean): void }) {
  const settings = useSettings();
  const format = useFormat();
  const isMoney = field.kind === 'money';
  const whole = isWhole(field);
  // What is earned in a year may be asked by the month; what was paid once may not.
  const yearly = field.subject === 'companies' && field.id !== 'raised' && field.id !== 'assets';
  // Chosen before there is a line: kept for it, and no reason to make one.
  const [wanted, setWanted] = useState<string | null>(null);
  const currency = (test && 'currency' in test ? test.currency : undefined) ?? wanted ?? settings.currency;
  const [per, setPer] = useState<'year' | 'month'>(
    test && 'per' in test && test.per === 'month' ? 'month' : 'year',
  );
  // The plane sets whole lines, which a branch is not.
  const inBlock = useInBlock(at);
  const holder = useContext(Holder);
  const [view, setView] = useState<'bars' | 'plane'>('bars');
  const { data, error } = useCounts<RangeCounts>({ field: field.id, at, ...(isMoney ? { currency } : {}) });
  const steps = STEPS[field.id] ?? [];
  const { data: stepCounts } = useAlternatives(
    field.id,
    at,
    steps.map(({ from, to }) => ({
      ...(from === undefined ? {} : { from }),
      ...(to === undefined ? {} : { to }),
      ...(isMoney ? { currency } : {}),
    })),
    estimates ? { estimates: true } : {},
  );
  const build = (range: NumberTest, next: { currency?: string; per?: 'year' | 'month' } = {}) => {
    if (range.from === undefined && range.to === undefined) return onTest(null);
    const ends = {
      ...(range.from === undefined ? {} : { from: range.from }),
      ...(range.to === undefined ? {} : { to: range.to }),
    };
    onTest(
      isMoney
        ? {
            ...ends,
            currency: next.currency ?? currency,
            ...((next.per ?? per) === 'month' ? { per: 'month' as const } : {}),
          }
        : ends,
    );
  };
  const show = (value: number) =>
    isMoney
      ? money(value, currency)
      : field.id === 'founded'
        ? String(value)
        : format.number(value, whole ? 2 : 3);

  return (
    <div className="flex h-full min-h-0 flex-col gap-4 overflow-y-auto">
      <div className="flex flex-wrap items-center gap-3">
        <Ends test={test} onRange={build} />
        {isMoney && (
          <>
            <select
              aria-label="Currency"
              value={currency}
              className="field"
              onChange={(event) => {
                setWanted(event.target.value);
                if (test) build(test, { currency: event.target.value });
              }}
            >
              {CURRENCIES.map((code) => (
                <option key={code}>{code}</option>
              ))}
            </select>
            {yearly && (
              <Segments
                label="Per"
                value={per}
                options={[
                  { key: 'year', label: 'a year' },
                  { key: 'month', label: 'a month' },
                ]}
                onChange={(value) => {
                  setPer(value);
                  if (test) build(test, { per: value });
                }}
              />
            )}
          </>
        )}
        {field.store.at === 'range' && <EstimatesBox on={estimates} onChange={onEstimates} />}
      </div>
      {isMoney && per === 'month' && test && (
        <p className="-mt-2 text-[13px] text-soft">
          that is {test.from === undefined ? 'up to ' : `${money(test.from * 12, currency)} `}
          {test.to === undefined
            ? 'or more'
            : `${test.from === undefined ? '' : 'to '}${money(test.to * 12, currency)}`}{' '}
          a year, twelve times the month
        </p>
      )}
      <div className="flex flex-wrap gap-2" role="group" aria-label="Ready steps">
        {steps.map((step, i) => {
          const on = test !== null && test.from === step.from && test.to === step.to;
          return (
            <Button
              key={step.label}
              look={on ? 'ink' : 'plain'}
              aria-pressed={on}
              onClick={() => {
                // The steps are yearly figures.
                setPer('year');
                build(on ? {} : step, { per: 'year' });
              }}
            >
              {step.label}
              {stepCounts?.counts[i] !== undefined && (
                <span className="figure text-[12px]">{format.number(stepCounts.counts[i])}</span>
              )}
            </Button>
          );
        })}
      </div>
      <Trouble error={error} />
      {!inBlock &&
        field.subject === 'companies' &&
        holder === null &&
        (field.id === 'headcount' || field.id === 'revenue') && (
          <div>
            <Segments
              label="Shown as"
              value={view}
              options={[
                { key: 'bars', label: field.label.toLowerCase() },
                { key: 'plane', label: 'headcount by revenue' },
              ]}
              onChange={setView}
            />
          </div>
        )}
      {view === 'plane' && <SizePlane currency={currency} />}
      {view === 'bars' && data && (
        <Histogram
          data={data}
          test={test}
          factor={per === 'month' ? 12 : 1}
          estimates={estimates}
          show={show}
          onRange={build}
        />
      )}
      {view === 'bars' && data && <Unknowns data={data} />}
      {test && at && (
        <StepCounts field={field.id} at={at} test={test} whole={whole} show={show} onTest={onTest} />
      )}
    </div>
  );
}
