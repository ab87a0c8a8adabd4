import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { NearCounts, TownsAnswer } from '../../../contract/responses.ts';
import type { Field } from '../../../core/fields/field.ts';
import { KM_A_MILE } from '../../../core/geo/distance.ts';
import type { NearTest } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useSettings } from '../../app/settings.ts';
import { Button } from '../../ui/controls.tsx';
import { useCounts, usePoints } from '../queries.ts';
import { PlaceMap } from './PlaceMap.tsx';

const DEFAULT_KM = 40;

/** A distance from a town or a point: search the town, drag the circle, or type the radius; other radii show what they would give. */
export function NearPicker({
  field,
  at,
  near,
  site,
  onNear,
}: {
  field: Field;
  at: string | undefined;
  near: NearTest | null;
  /** Of which site, as the line has it. */
  site: 'head' | 'any' | undefined;
  onNear(near: NearTest | null): void;
}) {
  const [search, setSearch] = useState('');
  const format = useFormat();
  const { distance } = useSettings();
  const unit = near?.miles !== undefined ? 'miles' : near?.km !== undefined ? 'km' : distance;
  const radius = near?.km ?? near?.miles ?? DEFAULT_KM;
  const { data: found } = useQuery({
    queryKey: ['towns', search],
    queryFn: ({ signal }) =>
      call<TownsAnswer>('GET', `/towns?search=${encodeURIComponent(search)}`, undefined, signal),
    enabled: search.trim() !== '',
    placeholderData: keepPreviousData,
  });
  const { data: counts } = useCounts<NearCounts>(
    {
      field: field.id,
      at,
      near: { lat: near?.lat ?? 0, lon: near?.lon ?? 0, unit },
      ...(site === 'any' ? { site } : {}),
    },
    near !== null,
  );
  const { data: points } = usePoints(at);
  const set = (centre: { lat: number; lon: number; label?: string }, size: number) =>
    onNear({
      lat: centre.lat,
      lon: centre.lon,
      ...(unit === 'km' ? { km: size } : { miles: size }),
      ...(centre.label ? { label: centre.label } : {}),
    });
  const towns = search.trim() === '' ? [] : (found?.towns ?? []).slice(0, 8);

  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="relative flex flex-wrap items-center gap-3">
        <input
          autoFocus
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || !towns[0]) return;
            set({ lat: towns[0].lat, lon: towns[0].lon, label: towns[0].name }, radius);
            setSearch('');
          }}
          placeholder={near?.label ? `from ${near.label}; type another town` : 'a town to measure from'}
          aria-label="Town"
          className="field min-w-52 flex-1 border-ink"
        />
        <label className="flex items-center gap-2">
          within
          <input
            type="number"
            min={1}
            max={5000}
            value={radius}
            disabled={!near}
            aria-label={`Radius in ${unit}`}
            className="field figure w-24 text-right"
            onChange={(event) =>
              near && Number(event.target.value) > 0 && set(near, Number(event.target.value))
            }
          />
          {unit}
        </label>
        <input
          type="range"
          min={1}
          max={300}
          value={Math.min(300, radius)}
          disabled={!near}
          aria-label="Radius"
          className="w-40 accent-kept"
          onChange={(event) => near && set(near, Number(event.target.value))}
        />
        {near && (
          <Button look="quiet" onClick={() => onNear(null)}>
            No distance
          </Button>
        )}
        {towns.length > 0 && (
          <ul className="absolute top-full left-0 z-20 mt-1 w-96 overflow-hidden rounded-md border border-edge bg-paper shadow-lg">
            {towns.map((town) => (
              <li key={town.key + town.lat}>
                <button
                  type="button"
                  className="flex w-full items-baseline justify-between gap-3 border-b border-rule px-3 py-1.5 text-left hover:bg-picked focus-visible:bg-picked"
                  onClick={() => {
                    set({ lat: town.lat, lon: town.lon, label: town.name }, radius);
                    setSearch('');
                  }}
                >
                  <span>
                    {town.name}{' '}
                    <span className="text-[13px] text-soft">
                      {town.regionName}, {town.country}
                    </span>
                  </span>
                  <span className="figure text-[12px] text-soft">
                    {format.number(town.population)} people
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <div className="relative min-h-48 flex-1">
        <PlaceMap
          points={points?.points ?? []}
          near={near}
          km={unit === 'km' ? radius : radius * KM_A_MILE}
          onPoint={(lat, lon) => set({ lat, lon }, radius)}
          onRadius={(km) => near && set(near, Math.max(1, Math.round(unit === 'km' ? km : km / KM_A_MILE)))}
        />
        {near && counts && (
          <p className="absolute bottom-3 left-3 flex flex-wrap gap-x-3 rounded-md border border-edge bg-paper px-3 py-1.5 text-[13px]">
            {counts.radii
              .filter(({ radius }) => radius >= 10 && radius <= 200)
              .map(({ radius: other, count }) => (
                <button
                  key={other}
                  type="button"
                  className="hover:underline"
                  onClick={() => set(near, other)}
                >
                  <span className="text-soft">
                    {other} {unit}
                  </span>{' '}
                  <span className="figure font-semibold">{format.number(count)}</span>
                </button>
              ))}
          </p>
        )}
        {points && points.points.length / 2 < points.located && (
          <p className="absolute top-2 right-3 text-[12px] text-soft">
            {format.number(points.points.length / 2)} of {format.number(points.located)} drawn
          </p>
        )}
      </div>
      <p className="text-[12px] text-soft">
        As the crow flies, to the head office. Click the map to measure from there, drag the ring, drag
        elsewhere to move, wheel to zoom.
      </p>
    </div>
  );
}
