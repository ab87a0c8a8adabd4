import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import { ROOT, loadReferenceData } from '../../reference.ts';

interface RegionProperties {
  key: string;
  country: string;
}
type Ring = [number, number][];

/** A region with how many records lie in it, as GeoJSON has areas: longitude first, outer rings anticlockwise (RFC 7946, 3.1.6). */
export function areasOf(counts: ReadonlyMap<string, number>): object[] {
  const topology = JSON.parse(
    gunzipSync(readFileSync(join(ROOT, 'data/geo/regions.topojson.gz'))).toString('utf8'),
  ) as Topology<{ regions: GeometryCollection<RegionProperties> }>;
  const { places } = loadReferenceData();
  return feature(topology, topology.objects.regions).features.flatMap(({ geometry, properties }) => {
    const { key } = properties;
    const count = counts.get(key);
    if (count === undefined) return [];
    return [
      {
        type: 'Feature',
        id: key,
        geometry: wound(geometry as { type: string; coordinates: Ring[] | Ring[][] }),
        properties: {
          region: places.region(key)?.english ?? key,
          country: places.country(properties.country)?.name ?? properties.country,
          count,
        },
      },
    ];
  });
}

function wound({ type, coordinates }: { type: string; coordinates: Ring[] | Ring[][] }) {
  return type === 'Polygon'
    ? { type, coordinates: polygon(coordinates as Ring[]) }
    : { type, coordinates: (coordinates as Ring[][]).map(polygon) };
}

const polygon = (rings: readonly Ring[]) =>
  rings.map((ring, i) => (isAnticlockwise(ring) === (i === 0) ? ring : [...ring].reverse()));

/** By the sign of twice the area (shoelace formula). */
function isAnticlockwise(ring: Ring): boolean {
  let area = 0;
  for (let i = 1; i < ring.length; i++) area += ring[i - 1]![0] * ring[i]![1] - ring[i]![0] * ring[i - 1]![1];
  return area > 0;
}
