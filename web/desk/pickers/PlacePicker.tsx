import { lazy, Suspense, useState } from 'react';
import type { PlaceCounts, TownCounts, ValueCount } from '../../../contract/responses.ts';
import type { PlaceTest } from '../../../core/tape/nodes.ts';
import { fold } from '../../../core/text/fold.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Segments, Trouble, UnknownMark } from '../../ui/controls.tsx';
import { useCounts, useMany } from '../queries.ts';
import { CountryGroups } from './CountryGroups.tsx';
import type { PickerProps } from './picker-props.ts';
import { PostcodePicker } from './PostcodePicker.tsx';
import { ValueRow } from './ValueRow.tsx';

const AreaPicker = lazy(() => import('./AreaPicker.tsx').then((module) => ({ default: module.AreaPicker })));
const NearPicker = lazy(() => import('./NearPicker.tsx').then((module) => ({ default: module.NearPicker })));

const MODES = {
  countries: 'countries',
  regions: 'regions',
  towns: 'towns',
  metro: 'metro areas',
  postcodes: 'postcodes',
  distance: 'distance',
  area: 'drawn area',
} as const;
type Mode = keyof typeof MODES;
type Named = 'countries' | 'regions' | 'towns' | 'metro' | 'postcodes';
const NAMED: readonly Named[] = ['countries', 'regions', 'towns', 'metro', 'postcodes'];

const NO_NAMES = {
  countries: undefined,
  regions: undefined,
  towns: undefined,
  metro: undefined,
  postcodes: undefined,
};

/** Named places as lists with counts, any of them; or, in their stead, a distance or a drawn area on a map. */
export function PlacePicker(props: PickerProps<PlaceTest>) {
  const { field, test, at, onTest } = props;
  const [mode, setMode] = useState<Mode>(
    test?.near ? 'distance' : test?.within ? 'area' : (NAMED.find((kind) => test?.[kind]) ?? 'countries'),
  );
  const [search, setSearch] = useState('');
  const format = useFormat();
  const site = test?.site === 'any' ? { site: 'any' as const } : {};
  const { data, error } = useCounts<PlaceCounts>({ field: field.id, at, ...site });
  const { data: towns } = useCounts<TownCounts>(
    { field: field.id, at, level: mode, search: search.trim(), ...site },
    mode === 'towns' || mode === 'metro',
  );
  const lastTown = test?.towns?.at(-1);
  const { data: neighbours } = useCounts<TownCounts>(
    { field: field.id, at, level: 'neighbours', within: lastTown, ...site },
    mode === 'towns' && lastTown !== undefined,
  );

  const set = (change: Partial<PlaceTest>) => {
    const next: Record<string, unknown> = { ...test, ...change };
    for (const key of Object.keys(next))
      if (next[key] === undefined || (Array.isArray(next[key]) && next[key].length === 0)) delete next[key];
    onTest(Object.keys(next).some((key) => key !== 'site') ? next : null);
  };
  const toggle = (kind: Named, key: string) => {
    const keys = test?.[kind] ?? [];
    set({
      [kind]: keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key],
      near: undefined,
      within: undefined,
    });
  };
  const many = useMany();
  const text = fold(search.trim());
  const countryName = new Map(data?.countries.map((country) => [country.key, country.label]));
  const listed: ValueCount[] =
    mode === 'towns' || mode === 'metro'
      ? (towns?.values ?? [])
      : mode === 'regions'
        ? (data?.regions ?? [])
        : (data?.countries ?? []);
  const shown =
    mode === 'towns' || mode === 'metro'
      ? listed
      : listed.filter(
          (value) =>
            fold(value.label).includes(text) ||
            fold(value.key).startsWith(text) ||
            (value.group !== undefined && fold(countryName.get(value.group) ?? '').startsWith(text)),
        );
  const most = Math.max(1, ...shown.map((value) => value.count));
  const inGroups = new Set(
    data?.groups.filter(({ key }) => test?.countries?.includes(key)).flatMap(({ countries }) => countries),
  );
  const picked = NAMED.flatMap((kind) => test?.[kind] ?? []);
  const nameOf = (kind: Named, key: string) =>
    kind === 'countries'
      ? (countryName.get(key) ?? data?.groups.find((group) => group.key === key)?.label ?? key)
      : kind === 'regions'
        ? (data?.regions.find((region) => region.key === key)?.label ?? key)
        : kind === 'metro'
          ? `metro ${key}`
          : key;

  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-3 pb-3">
        {mode !== 'distance' && mode !== 'area' && mode !== 'postcodes' && (
          <input
            autoFocus
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder={`search ${MODES[mode]}`}
            aria-label={`Search ${MODES[mode]}`}
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
          options={(Object.keys(MODES) as Mode[]).map((key) => ({ key, label: MODES[key] }))}
        />
      </div>
      {field.subject === 'companies' && test && (
        <div className="pb-2">
          <Segments
            label="Which site"
            value={test.site === 'any' ? 'any' : 'head'}
            options={[
              { key: 'head', label: 'of the head office' },
              { key: 'any', label: 'of any site' },
            ]}
            onChange={(site) => set({ site: site === 'any' ? 'any' : undefined })}
          />
        </div>
      )}
      <Trouble error={error} />
      {picked.length > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 pb-2 text-[13px]">
          <span className="text-soft">picked:</span>
          {NAMED.flatMap((kind) =>
            (test?.[kind] ?? []).map((key) => (
              <Button key={key} className="px-2 py-0.5" title="Let go" onClick={() => toggle(kind, key)}>
                {nameOf(kind, key)} ×
              </Button>
            )),
          )}
        </p>
      )}
      {mode === 'countries' && data && (
        <CountryGroups
          groups={data.groups}
          picked={test?.countries ?? []}
          onToggle={(key) => toggle('countries', key)}
        />
      )}
      {mode === 'towns' && neighbours && neighbours.values.length > 0 && (
        <p className="flex flex-wrap items-center gap-1.5 pb-2 text-[13px]">
          <span className="text-soft">neighbours:</span>
          {neighbours.values
            .filter(({ key }) => !test?.towns?.includes(key))
            .map(({ key, label, km, count }) => (
              <Button key={key} className="px-2 py-0.5" onClick={() => toggle('towns', key)}>
                {label} <span className="text-soft">{km} km</span>{' '}
                <span className="figure">{format.number(count)}</span>
              </Button>
            ))}
        </p>
      )}
      {mode === 'postcodes' ? (
        <PostcodePicker
          field={field}
          at={at}
          countries={data?.countries ?? []}
          site={test?.site}
          picked={test?.postcodes ?? []}
          onPostcodes={(postcodes) => set({ postcodes, near: undefined, within: undefined })}
        />
      ) : mode === 'area' ? (
        <Suspense fallback={<p className="text-soft">Drawing the map …</p>}>
          <AreaPicker
            at={at}
            area={test?.within ?? null}
            onArea={(within) => set({ within, ...(within ? { ...NO_NAMES, near: undefined } : {}) })}
          />
        </Suspense>
      ) : mode === 'distance' ? (
        <Suspense fallback={<p className="text-soft">Drawing the map …</p>}>
          <NearPicker
            field={field}
            at={at}
            near={test?.near ?? null}
            site={test?.site}
            onNear={(near) => set(near ? { near, within: undefined, ...NO_NAMES } : { near: undefined })}
          />
        </Suspense>
      ) : (
        <ul aria-label={MODES[mode]} className="min-h-0 flex-1 overflow-y-auto">
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
                note={mode === 'metro' ? `${(value as { km?: number }).km} km around, ${group}` : group}
                count={value.count}
                most={most}
                picked={on}
                byGroup={mode === 'countries' && inGroups.has(value.key)}
                onToggle={() => toggle(mode, value.key)}
              />
            );
          })}
          {mode === 'towns' && shown.length >= 200 && (
            <li className="p-3 text-soft">the 200 with most {many}; search finds the others</li>
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
