import clsx from 'clsx';
import { useState } from 'react';
import type { CategoryCounts, ValueCount } from '../../../contract/responses.ts';
import type { CategoryTest } from '../../../core/tape/nodes.ts';
import { fold } from '../../../core/text/fold.ts';
import { useFormat } from '../../app/format.ts';
import { Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import { CountBar } from './CountBar.tsx';
import type { PickerProps } from './picker-props.ts';

/** A searchable list of values with counts; groups stand over their members and stand for any of them. */
export function CategoryPicker({ field, test, at, onTest }: PickerProps<CategoryTest>) {
  const [search, setSearch] = useState('');
  const [mode, setMode] = useState<'any' | 'all'>(test?.all ? 'all' : 'any');
  const format = useFormat();
  const { data, error } = useCounts<CategoryCounts>({ field: field.id, at });
  const many = field.store.at === 'many';
  const keys = test?.all ?? test?.any ?? [];
  const build = (next: readonly string[], how: 'any' | 'all') =>
    onTest(next.length ? (how === 'all' ? { all: next } : { any: next }) : null);
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
      <Trouble error={error} />
      <ul aria-label={field.label} className="min-h-0 flex-1 overflow-y-auto">
        {shown.map((value) => {
          const picked = keys.includes(value.key);
          const byGroup = value.group !== undefined && keys.includes(value.group);
          return (
            <li key={value.key} className={clsx('border-b border-rule', picked && 'bg-picked')}>
              <label
                className={clsx(
                  'grid cursor-pointer grid-cols-[22px_1fr_80px_200px] items-center gap-2 py-1.5 pr-2',
                  value.count === 0 && 'text-soft',
                )}
              >
                <input
                  type="checkbox"
                  className="ml-1.5 size-4"
                  checked={picked || byGroup}
                  disabled={byGroup}
                  onChange={() => toggle(value.key)}
                />
                <span
                  className={clsx('truncate', groups.has(value.key) && 'font-semibold')}
                  style={{ paddingLeft: value.group ? 18 : 0 }}
                >
                  {value.label}
                </span>
                <span className="figure text-right text-[13px]">{format.number(value.count)}</span>
                <CountBar count={value.count} most={most} picked={picked || byGroup} />
              </label>
            </li>
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
            {field.id === 'technology' ? ': their site was never surveyed' : ''}
          </li>
        )}
      </ul>
    </div>
  );
}
