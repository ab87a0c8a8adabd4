import { useQuery } from '@tanstack/react-query';
import { geoCircle, geoMercator, geoPath } from 'd3-geo';
import type { Feature } from 'geojson';
import { useEffect, useRef, useState } from 'react';
import { isInArea, sidesOf } from '../../../core/geo/area.ts';
import { EARTH_KM, distanceKm } from '../../../core/geo/distance.ts';
import type { CitiesAnswer } from '../../../contract/responses.ts';
import type { NearTest } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { drawCities } from '../map/cities.ts';
import { useLand } from '../map/land.ts';

interface Props {
  /** Longitude and latitude in turn. */
  points: readonly number[];
  near: NearTest | null;
  km: number;
  /** Corners of a drawn area; while it is open, the last side is not there yet. */
  area?: { points: readonly Corner[]; open: boolean } | null;
  /** A place that was clicked: the centre of a distance, or the next corner of an area. */
  onPoint(lat: number, lon: number): void;
  onRadius(km: number): void;
}

type Corner = readonly [lat: number, lon: number];

const EUROPE = { lon: 14, lat: 50, scale: 900 };
/** How near to the ring the hand must be to take it, in pixels. */
const GRIP = 9;

/** Radius in pixels of the ring when its centre is chosen. */
const RING_PIXELS = 110;

function zoomed(scale: number): number {
  return Math.max(200, Math.min(60_000, scale));
}

/** A map of regions with the companies that the other lines let through, and a ring of equal distance. */
export function PlaceMap({ points, near, km, area = null, onPoint, onRadius }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [view, setView] = useState(EUROPE);
  const [held, setHeld] = useState(false);
  const hand = useRef<{
    kind: 'pan' | 'ring';
    x: number;
    y: number;
    moved: boolean;
    view: typeof EUROPE;
  } | null>(null);
  const land = useLand();

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setSize({ width: Math.floor(entry!.contentRect.width), height: Math.floor(entry!.contentRect.height) }),
    );
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const { data: cities } = useQuery({
    queryKey: ['cities'],
    staleTime: Infinity,
    queryFn: ({ signal }) => call<CitiesAnswer>('GET', '/cities', undefined, signal),
  });
  // A newly chosen centre comes into view at a scale that shows the ring; a dragged radius moves nothing.
  const centreKey = near ? `${near.lat} ${near.lon}` : '';
  const [seenCentre, setSeenCentre] = useState('');
  if (near && centreKey !== seenCentre) {
    setSeenCentre(centreKey);
    setView({
      lon: near.lon,
      lat: near.lat,
      scale: zoomed((RING_PIXELS * EARTH_KM * Math.cos((near.lat * Math.PI) / 180)) / Math.max(1, km)),
    });
  }

  const projection = geoMercator()
    .center([view.lon, view.lat])
    .scale(view.scale)
    .translate([size.width / 2, size.height / 2]);
  const ringEdge = (): number | null => {
    if (!near) return null;
    const centre = projection([near.lon, near.lat])!;
    const edge = projection([near.lon, Math.min(89, near.lat + (km / EARTH_KM) * (180 / Math.PI))])!;
    return Math.abs(centre[1] - edge[1]);
  };

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || size.width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    canvas.current!.width = size.width * ratio;
    canvas.current!.height = size.height * ratio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    context.fillStyle = colour('--water');
    context.fillRect(0, 0, size.width, size.height);
    const path = geoPath(projection, context);
    if (land) {
      context.beginPath();
      path(land.regions);
      context.fillStyle = colour('--paper');
      context.fill();
      context.lineWidth = 0.5;
      context.strokeStyle = colour('--rule');
      context.beginPath();
      path(land.inner);
      context.stroke();
      context.lineWidth = 1;
      context.strokeStyle = colour('--edge');
      context.beginPath();
      path(land.borders);
      context.stroke();
    }
    drawCities(context, cities?.cities ?? [], projection, size, colour, near?.label);
    const centre = near ? projection([near.lon, near.lat]) : null;
    if (near && centre) {
      const ring: Feature = {
        type: 'Feature',
        properties: {},
        geometry: geoCircle()
          .center([near.lon, near.lat])
          .radius((km / EARTH_KM) * (180 / Math.PI))
          .precision(2)(),
      };
      context.beginPath();
      path(ring);
      context.globalAlpha = 0.12;
      context.fillStyle = colour('--kept');
      context.fill();
      context.globalAlpha = 1;
      context.lineWidth = 2;
      context.strokeStyle = colour('--kept');
      context.stroke();
    }
    const sides = area && !area.open ? sidesOf(area.points) : null;
    if (area) drawArea(context, area, projection, colour);
    for (let i = 0; i < points.length; i += 2) {
      const [lon, lat] = [points[i]!, points[i + 1]!];
      const at = projection([lon, lat])!;
      if (at[0] < 0 || at[1] < 0 || at[0] > size.width || at[1] > size.height) continue;
      const inside =
        (near !== null && distanceKm(near.lat, near.lon, lat, lon) <= km) ||
        (sides !== null && isInArea(lat, lon, sides));
      context.globalAlpha = inside ? 0.9 : 0.35;
      context.fillStyle = colour(inside ? '--kept' : '--ink');
      context.fillRect(at[0] - 1.5, at[1] - 1.5, 3, 3);
    }
    context.globalAlpha = 1;
    if (near && centre) {
      context.beginPath();
      context.arc(centre[0], centre[1], 4, 0, 2 * Math.PI);
      context.fillStyle = colour('--paper');
      context.fill();
      context.lineWidth = 2.5;
      context.strokeStyle = colour('--ink');
      context.stroke();
      if (near.label) {
        context.font = '600 13px "Hanken Grotesk Variable"';
        context.lineWidth = 3;
        context.strokeStyle = colour('--paper');
        context.strokeText(near.label, centre[0] + 9, centre[1] + 4);
        context.fillStyle = colour('--ink');
        context.fillText(near.label, centre[0] + 9, centre[1] + 4);
      }
    }
  });

  // A radius that was typed or slid beyond the view takes the view with it; one that is dragged does not.
  const edge = ringEdge();
  if (near && edge !== null && !held && size.height > 0 && edge > 0.49 * size.height)
    setView({ ...view, scale: zoomed((view.scale * 0.4 * size.height) / edge) });

  const local = (event: React.PointerEvent): [number, number] => {
    const bounds = canvas.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };
  const onRing = (x: number, y: number) => {
    const radius = ringEdge();
    if (!near || radius === null) return false;
    const centre = projection([near.lon, near.lat])!;
    return Math.abs(Math.hypot(x - centre[0], y - centre[1]) - radius) < GRIP;
  };
  return (
    <div ref={box} className="absolute inset-0 overflow-hidden rounded-md border border-edge">
      <canvas
        ref={canvas}
        role="img"
        aria-label={
          near
            ? `Map around ${near.label ?? 'the point'} with a ring of ${Math.round(km)} km`
            : area
              ? `Map with a drawn area of ${area.points.length} corners`
              : 'Map of who is left; click to choose a point'
        }
        className="block h-full w-full touch-none"
        onPointerDown={(event) => {
          const [x, y] = local(event);
          event.currentTarget.setPointerCapture(event.pointerId);
          setHeld(true);
          hand.current = { kind: onRing(x, y) ? 'ring' : 'pan', x, y, moved: false, view };
        }}
        onPointerMove={(event) => {
          const [x, y] = local(event);
          const now = hand.current;
          event.currentTarget.style.cursor =
            now?.kind === 'pan' && now.moved ? 'grabbing' : onRing(x, y) ? 'ew-resize' : 'crosshair';
          if (!now) return;
          if (Math.hypot(x - now.x, y - now.y) > 3) now.moved = true;
          if (!now.moved) return;
          if (now.kind === 'ring' && near) {
            const point = projection.invert!([x, y])!;
            onRadius(distanceKm(near.lat, near.lon, point[1], point[0]));
          } else {
            const start = geoMercator()
              .center([now.view.lon, now.view.lat])
              .scale(now.view.scale)
              .translate([size.width / 2, size.height / 2]);
            const centre = start.invert!([size.width / 2 - (x - now.x), size.height / 2 - (y - now.y)])!;
            setView({ ...now.view, lon: centre[0], lat: Math.max(-75, Math.min(78, centre[1])) });
          }
        }}
        onPointerUp={(event) => {
          const was = hand.current;
          hand.current = null;
          setHeld(false);
          if (!was || was.moved) return;
          const point = projection.invert!(local(event))!;
          onPoint(Math.round(point[1] * 1e4) / 1e4, Math.round(point[0] * 1e4) / 1e4);
        }}
        onWheel={(event) => setView({ ...view, scale: zoomed(view.scale * Math.exp(-event.deltaY / 400)) })}
      />
    </div>
  );
}

/** The sides of an area, filled once it is closed, with a dot on each corner. */
function drawArea(
  context: CanvasRenderingContext2D,
  { points, open }: { points: readonly Corner[]; open: boolean },
  projection: (point: [number, number]) => [number, number] | null,
  colour: (name: string) => string,
): void {
  const corners = points.map(([lat, lon]) => projection([lon, lat])!);
  context.beginPath();
  corners.forEach(([x, y], i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
  if (!open) {
    context.closePath();
    context.globalAlpha = 0.12;
    context.fillStyle = colour('--kept');
    context.fill();
    context.globalAlpha = 1;
  }
  context.lineWidth = 2;
  context.strokeStyle = colour('--kept');
  context.stroke();
  for (const [x, y] of corners) {
    context.beginPath();
    context.arc(x, y, 4, 0, 2 * Math.PI);
    context.fillStyle = colour('--paper');
    context.fill();
    context.stroke();
  }
}
