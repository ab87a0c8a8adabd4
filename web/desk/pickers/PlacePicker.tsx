import { lazy, Suspense, useState } from 'react';
import type { PlaceCounts, TownCounts, ValueCount } from '../../../contract/responses.ts';
import type { PlaceTest } from '../../../core/tape/nodes.ts';
import { fold } from '../../../core/text/fold.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts } from '../queries.ts';
import type { PickerProps } from './picker-props.ts';
import { ValueRow } from './ValueRow.tsx';

const NearPicker = lazy(() => import('./NearPicker.tsx').then((module) => ({ default: module.NearPicker })));

type Mode = 'countries' | 'regions' | 'towns' | 'distance';
type Named = 'countries' | 'regions' | 'towns';

const NO_NAMES = { countries: undefined, regions: undefined, towns: undefined };

/** Countries, regions and towns as lists with counts, any of them; or, in their stead, a distance on a map. */
export function PlacePicker(props: PickerProps<PlaceTest>) {
  const { field, test, at, onTest } = props;
  const [mode, setMode] = useState<Mode>(
    test?.near ? 'distance' : test?.towns ? 'towns' : test?.regions ? 'regions' : 'countries',
  );
  const [search, setSearch] = useState('');
  const format = useFormat();
  const { data, error } = useCounts<PlaceCounts>({ field: field.id, at });
  const { data: towns } = useCounts<TownCounts>(
    { field: field.id, at, level: 'towns', search: search.trim() },
    mode === 'towns',
  );

  const set = (change: Partial<PlaceTest>) => {
    const next: Record<string, unknown> = { ...test, ...change };
    for (const key of Object.keys(next))
      if (next[key] === undefined || (Array.isArray(next[key]) && next[key].length === 0)) delete next[key];
    onTest(Object.keys(next).some((key) => key !== 'site') ? next : null);
  };
  const toggle = (kind: Named, key: string) => {
    const keys = test?.[kind] ?? [];
    set({ [kind]: keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key], near: undefined });
  };
  const text = fold(search.trim());
  const countryName = new Map(data?.countries.map((country) => [country.key, country.label]));
  const listed: ValueCount[] =
    mode === 'towns'
      ? (towns?.values ?? [])
      : mode === 'regions'
        ? (data?.regions ?? [])
        : (data?.countries ?? []);
  const shown =
    mode === 'towns'
      ? listed
      : listed.filter(
          (value) =>
            fold(value.label).includes(text) ||
            fold(value.key).startsWith(text) ||
            (value.group !== undefined && fold(countryName.get(value.group) ?? '').startsWith(text)),
        );
  const most = Math.max(1, ...shown.map((value) => value.count));
  const picked = [...(test?.countries ?? []), ...(test?.regions ?? []), ...(test?.towns ?? [])];

  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-3 pb-3">
        {mode !== 'distance' && (
          <input
            autoFocus
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder={`search ${mode}`}
            aria-label={`Search ${mode}`}
            className="field min-w-52 flex-1 border-ink"
          />
        )}
        <Segments
          label="By"
          value={mode}
          onChange={(value: Mode) => {
            setMode(value);
            setSearch('');
          }}
          options={[
            { key: 'countries', label: 'countries' },
            { key: 'regions', label: 'regions' },
            { key: 'towns', label: 'towns' },
            { key: 'distance', label: 'distance' },
          ]}
        />
      </div>
      <Trouble error={error} />
      {picked.length > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 pb-2 text-[13px]">
          <span className="text-soft">picked:</span>
          {(['countries', 'regions', 'towns'] as const).flatMap((kind) =>
            (test?.[kind] ?? []).map((key) => (
              <Button key={key} className="px-2 py-0.5" title="Let go" onClick={() => toggle(kind, key)}>
                {kind === 'countries'
                  ? (countryName.get(key) ?? key)
                  : kind === 'regions'
                    ? (data?.regions.find((region) => region.key === key)?.label ?? key)
                    : key}{' '}
                ×
              </Button>
            )),
          )}
        </p>
      )}
      {mode === 'distance' ? (
        <Suspense fallback={<p className="text-soft">Drawing the map …</p>}>
          <NearPicker
            field={field}
            at={at}
            near={test?.near ?? null}
            onNear={(near) => set(near ? { near, ...NO_NAMES } : { near: undefined })}
          />
        </Suspense>
      ) : (
        <ul aria-label={mode} className="min-h-0 flex-1 overflow-y-auto">
          {shown.map((value) => {
            const on = test?.[mode]?.includes(value.key) ?? false;
            const group =
              value.group === undefined
                ? ''
                : mode === 'regions'
                  ? (countryName.get(value.group) ?? value.group)
                  : value.group;
            return (
              <ValueRow
                key={value.key}
                label={value.label}
                note={group}
                count={value.count}
                most={most}
                picked={on}
                onToggle={() => toggle(mode, value.key)}
              />
            );
          })}
          {mode === 'towns' && shown.length >= 200 && (
            <li className="p-3 text-soft">the 200 with most companies; search finds the others</li>
          )}
          {data && shown.length === 0 && (
            <li className="p-4 text-soft">No company stands in a place of that name.</li>
          )}
          {data && data.unknown > 0 && (
            <li className="py-2 pl-8 text-[13px] text-unsure">
              <UnknownMark />
              <span className="figure">{format.number(data.unknown)}</span> have no known country
            </li>
          )}
        </ul>
      )}
    </div>
  );
}
