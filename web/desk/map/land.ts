import { useQuery } from '@tanstack/react-query';
import type { FeatureCollection, Geometry, MultiLineString } from 'geojson';
import { feature, mesh } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';

interface RegionProperties {
  key: string;
  country: string;
}

/** Outlines of regions, with the borders between regions of one country and those of countries apart. */
export interface Land {
  regions: FeatureCollection<Geometry, RegionProperties>;
  inner: MultiLineString;
  borders: MultiLineString;
}

/** The outlines that ship with the program. */
export function useLand(): Land | undefined {
  return useQuery({
    queryKey: ['outlines'],
    staleTime: Infinity,
    queryFn: async (): Promise<Land> => {
      const topology = (await (await fetch('/data/regions.topojson')).json()) as Topology<{
        regions: GeometryCollection<RegionProperties>;
      }>;
      const countryOf = (one: unknown) => (one as { properties: RegionProperties }).properties.country;
      return {
        regions: feature(topology, topology.objects.regions),
        inner: mesh(topology, topology.objects.regions, (a, b) => a !== b && countryOf(a) === countryOf(b)),
        borders: mesh(topology, topology.objects.regions, (a, b) => a === b || countryOf(a) !== countryOf(b)),
      };
    },
  }).data;
}
