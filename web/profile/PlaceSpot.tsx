import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { CitiesAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useChartTheme } from '../charts/theme.ts';
import { MapCanvas } from '../desk/map/map-canvas.ts';
import { useLand } from '../desk/map/land.ts';

const SCALE = 5200;

/** Where a company is, on a small map. */
export function PlaceSpot({ lat, lon, name }: { lat: number; lon: number; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const land = useLand();
  const theme = useChartTheme();
  const { data: cities } = useQuery({
    queryKey: ['cities'],
    staleTime: Infinity,
    queryFn: ({ signal }) => call<CitiesAnswer>('GET', '/cities', undefined, signal),
  });
  useEffect(() => {
    const map = new MapCanvas(canvas.current!);
    map.view = { lat, lon, scale: SCALE };
    map.clusters = { clusters: [], singles: [{ key: '', name, lat, lon }] };
    map.setLand(land, cities?.cities ?? []);
    const observer = new ResizeObserver(() => map.renew());
    observer.observe(canvas.current!);
    return () => {
      observer.disconnect();
      map.dispose();
    };
  }, [land, cities, lat, lon, name, theme]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${name} on the map, at ${lat.toFixed(3)}, ${lon.toFixed(3)}`}
      className="mt-2 block h-40 w-full rounded-md border border-edge"
    />
  );
}
