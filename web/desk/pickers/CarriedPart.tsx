import { useState } from 'react';
import type { CarriedCounts } from '../../../contract/lists.ts';
import { carriedText, type CarriedColumn } from '../../../core/lists/carried.ts';
import type { CarriedTest, ListTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Trouble } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import { ValueRow } from './ValueRow.tsx';

/** What the files of lists say of their members: a heading, then its values, a range, or words. */
export function CarriedPart({
  columns,
  test: { carried: test, ...members },
  at,
  onTest,
}: {
  columns: readonly CarriedColumn[];
  test: ListTest;
  at: string | undefined;
  onTest(test: CarriedTest | undefined): void;
}) {
  const [chosen, setChosen] = useState(test?.column ?? '');
  const column = columns.find((one) => one.column === chosen);
  return (
    <div className="mb-3 border-y border-rule py-2 text-[13px]">
      <label className="flex items-center gap-1.5">
        whose file says under
        <select
          className="field max-w-60 py-0.5"
          value={column?.column ?? ''}
          onChange={(event) => {
            setChosen(event.target.value);
            onTest(undefined);
          }}
        >
          <option value="">any heading</option>
          {columns.map((one) => (
            <option key={one.column}>{one.column}</option>
          ))}
        </select>
      </label>
      {column && (
        <Asked key={column.column} column={column} test={test} members={members} at={at} onTest={onTest} />
      )}
    </div>
  );
}

function Asked({
  column: { column, kind },
  test,
  members,
  at,
  onTest,
}: {
  column: CarriedColumn;
  test: CarriedTest | undefined;
  /** Of which members it is counted what their files say. */
  members: ListTest;
  at: string | undefined;
  onTest(test: CarriedTest | undefined): void;
}) {
  const { data, error } = useCounts<CarriedCounts>({ field: 'list', at, column, members });
  const format = useFormat();
  const known = data && (
    <p className="py-1 text-soft">
      <span className="figure">{format.number(data.known)}</span> have it
      {data.low !== null && data.high !== null && (
        <>
          , from <span className="figure">{format.number(data.low, 2)}</span> to{' '}
          <span className="figure">{format.number(data.high, 2)}</span>
        </>
      )}
      ; not said of <span className="figure text-unsure">{format.number(data.unknown)}</span>
    </p>
  );
  if (kind === 'number') {
    const limit = (end: 'from' | 'to', value: number | undefined) => {
      const limits = { from: test?.from, to: test?.to, [end]: value };
      const asked = Object.entries(limits).filter(([, one]) => one !== undefined);
      onTest(asked.length ? { column, ...Object.fromEntries(asked) } : undefined);
    };
    return (
      <>
        {known}
        <div className="flex items-center gap-3">
          <LimitBox label="from" value={test?.from} onValue={(value) => limit('from', value)} />
          <LimitBox label="to" value={test?.to} onValue={(value) => limit('to', value)} />
        </div>
        <Trouble error={error} />
      </>
    );
  }
  if (kind === 'text')
    return (
      <>
        {known}
        <label className="flex items-center gap-1.5">
          with the words
          <input
            key={test?.words ?? ''}
            className="field w-60 py-0.5"
            defaultValue={test?.words ?? ''}
            maxLength={200}
            onBlur={(event) => {
              const words = event.target.value.replaceAll('"', '').trim();
              onTest(words === '' ? undefined : { column, words });
            }}
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          />
        </label>
        <Trouble error={error} />
      </>
    );
  const picked = new Map((test?.any ?? []).map((value) => [carriedText(value), value]));
  const values = data?.values ?? [];
  const most = Math.max(1, ...values.map(({ count }) => count));
  const toggle = (key: string, label: string) => {
    const any = picked.has(key)
      ? [...picked].filter(([one]) => one !== key).map(([, value]) => value)
      : [...picked.values(), label.replaceAll('"', '').trim()];
    onTest(any.length ? { column, any } : undefined);
  };
  return (
    <>
      {known}
      <ul aria-label={column}>
        {values.map(({ key, label, count }) => (
          <ValueRow
            key={key}
            label={label}
            count={count}
            most={most}
            picked={picked.has(key)}
            onToggle={() => toggle(key, label)}
          />
        ))}
      </ul>
      <Trouble error={error} />
    </>
  );
}

/** A limit of a range, taken once it is written; one that is no number is said and not taken. */
function LimitBox({
  label,
  value,
  onValue,
}: {
  label: string;
  value: number | undefined;
  onValue(value: number | undefined): void;
}) {
  const [wrong, setWrong] = useState(false);
  return (
    <label className="flex items-center gap-1.5">
      {label}
      <input
        key={value ?? ''}
        inputMode="decimal"
        className="field figure w-28 py-0.5"
        defaultValue={value ?? ''}
        aria-invalid={wrong}
        onBlur={(event) => {
          const text = event.target.value.trim().replace(',', '.');
          const number = text === '' ? undefined : Number(text);
          setWrong(Number.isNaN(number));
          if (!Number.isNaN(number) && number !== value) onValue(number);
        }}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      {wrong && <span className="text-cut">a number such as 12.5</span>}
    </label>
  );
}
