import { READY_GROUPS } from '../../../core/geo/country-groups.ts';
import type { Land } from './land.ts';

export interface Part {
  code: string;
  name: string;
  bounds: [west: number, south: number, east: number, north: number];
}

/** Parts of the world: ready groups of countries, then every country that the outlines have, each with the stretch that holds most of it. */
export function partsOf(land: Land): Part[] {
  const names = new Intl.DisplayNames(['en'], { type: 'region' });
  const bounds = new Map<string, { lons: number[]; lats: number[] }>();
  for (const { geometry, properties } of land.regions.features) {
    const own = bounds.get(properties.country) ?? { lons: [], lats: [] };
    bounds.set(properties.country, own);
    const rings =
      geometry.type === 'Polygon'
        ? geometry.coordinates
        : geometry.type === 'MultiPolygon'
          ? geometry.coordinates.flat()
          : [];
    for (const ring of rings)
      for (const [lon, lat] of ring) {
        own.lons.push(lon!);
        own.lats.push(lat!);
      }
  }
  // Far islands would make the stretch too wide: the middle 94 of 100 corners say where a country is.
  const middle = (values: number[]): [number, number] => {
    values.sort((a, b) => a - b);
    return [values[Math.floor(values.length * 0.03)]!, values[Math.ceil(values.length * 0.97) - 1]!];
  };
  const countries = [...bounds]
    .filter(([code, { lons }]) => /^[A-Z]{2}$/.test(code) && lons.length > 0)
    .map(([code, { lons, lats }]): Part => {
      const [west, east] = middle(lons);
      const [south, north] = middle(lats);
      return { code, name: names.of(code) ?? code, bounds: [west, south, east, north] };
    })
    .sort((a, b) => a.name.localeCompare(b.name));
  const byCode = new Map(countries.map((part) => [part.code, part.bounds]));
  const groups = [...READY_GROUPS.values()].flatMap(({ key, label, countries: members }): Part[] => {
    const own = members.flatMap((code) => {
      const one = byCode.get(code);
      return one ? [one] : [];
    });
    if (own.length === 0) return [];
    const end = (at: number, of: (...values: number[]) => number) => of(...own.map((one) => one[at]!));
    return [
      {
        code: key,
        name: label,
        bounds: [end(0, Math.min), end(1, Math.min), end(2, Math.max), end(3, Math.max)],
      },
    ];
  });
  return [...groups, ...countries];
}
