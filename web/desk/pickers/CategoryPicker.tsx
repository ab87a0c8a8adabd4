import { useState } from 'react';
import type { CategoryCounts, ValueCount } from '../../../contract/responses.ts';
import { parseSpan } from '../../../core/dates.ts';
import { hasDays, isMany, saysFirstSeen } from '../../../core/fields/field.ts';
import type { CategoryTest } from '../../../core/tape/nodes.ts';
import { fold } from '../../../core/text/fold.ts';
import { useFormat } from '../../app/format.ts';
import { Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { ValueRow } from './ValueRow.tsx';

const SEEN = ['6 months', '12 months', '24 months'];
const DONE = ['1 month', '3 months', '6 months', '12 months'];
const DAY_WORDS: Record<string, string> = { 'handed-over': 'last handed over' };

/** A searchable list of values with counts; groups stand over their members and stand for any of them. */
export function CategoryPicker({ field, test, at, onTest }: PickerProps<CategoryTest>) {
  const [search, setSearch] = useState('');
  const [mode, setMode] = useState<'any' | 'all'>(test?.all ? 'all' : 'any');
  const format = useFormat();
  const { data, error } = useCounts<CategoryCounts>({
    field: field.id,
    at,
    ...(test?.seen ? { seen: test.seen } : {}),
  });
  const many = isMany(field);
  const keys = test?.all ?? test?.any ?? [];
  const dated = hasDays(field);
  const build = (next: readonly string[], how: 'any' | 'all', seen = test?.seen) =>
    onTest(next.length ? { [how]: next, ...(seen ? { seen } : {}) } : null);
  // Companies of which the field is known and that have not this value.
  const without = (count: number) => (data ? data.total - data.unknown - count : 0);
  const toggle = (key: string) =>
    build(keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key], mode);
  const values = data?.values ?? [];
  const groups = new Set(values.map((value) => value.group).filter(Boolean));
  const text = fold(search.trim());
  const matches = (value: ValueCount) =>
    fold(value.label).includes(text) || (value.group !== undefined && fold(value.group).includes(text));
  const sorted = [...values].sort((a, b) => b.count - a.count);
  const rows = groups.size
    ? sorted
        .filter((value) => groups.has(value.key))
        .flatMap((group) => [group, ...sorted.filter((value) => value.group === group.key)])
        .concat(sorted.filter((value) => !value.group && !groups.has(value.key)))
    : sorted;
  const shown = rows.filter(
    (value) =>
      matches(value) ||
      (groups.has(value.key) && values.some((one) => one.group === value.key && matches(one))),
  );
  const most = Math.max(1, ...values.map((value) => value.count));

  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex items-center gap-3 pb-3">
        <input
          autoFocus
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          placeholder={`search ${field.label.toLowerCase()}`}
          aria-label={`Search ${field.label.toLowerCase()}`}
          className="field min-w-0 flex-1 border-ink"
        />
        {many && (
          <Segments
            label="How many"
            value={mode}
            onChange={(value) => {
              setMode(value);
              if (keys.length) build(keys, value);
            }}
            options={[
              { key: 'any', label: 'any of them' },
              { key: 'all', label: 'all of them' },
            ]}
          />
        )}
      </div>
      {dated && (
        <label className="flex items-center gap-2 pb-2 text-[13px]">
          {saysFirstSeen(field) ? 'first seen' : (DAY_WORDS[field.id] ?? field.label.toLowerCase())}
          <select
            className="field py-1"
            value={test?.seen ?? ''}
            disabled={keys.length === 0}
            title={keys.length === 0 ? 'Pick a value first' : undefined}
            onChange={(event) => build(keys, mode, event.target.value || undefined)}
          >
            <option value="">at any time</option>
            {[...new Set([...(saysFirstSeen(field) ? SEEN : DONE), ...(test?.seen ? [test.seen] : [])])].map(
              (span) => (
                <option key={span} value={span}>
                  {parseSpan(span) ? 'in the past' : 'since'} {span}
                </option>
              ),
            )}
          </select>
        </label>
      )}
      <Trouble error={error} />
      <ul aria-label={field.label} className="min-h-0 flex-1 overflow-y-auto">
        {shown.map((value) => {
          const picked = keys.includes(value.key);
          const byGroup = value.group !== undefined && keys.includes(value.group);
          return (
            <ValueRow
              key={value.key}
              label={value.label}
              count={value.count}
              most={most}
              picked={picked}
              byGroup={byGroup}
              strong={groups.has(value.key)}
              indent={value.group !== undefined}
              note={many ? `${format.number(without(value.count))} without` : undefined}
              onToggle={() => toggle(value.key)}
            />
          );
        })}
        {data && shown.length === 0 && (
          <li className="p-4 text-soft">
            {values.length
              ? 'Nothing of that name.'
              : `No ${field.label.toLowerCase()} is recorded in this universe.`}
          </li>
        )}
        {data && data.unknown > 0 && (
          <li className="py-2 pl-8 text-[13px] text-unsure">
            <UnknownMark />
            <span className="figure">{format.number(data.unknown)}</span> unknown
            {field.id === 'technology' || field.id === 'offers' ? ': their website was never surveyed' : ''}
          </li>
        )}
      </ul>
    </div>
  );
}
