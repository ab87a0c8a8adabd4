import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Minus, Plus } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ClustersAnswer } from '../../../contract/market.ts';
import type { CitiesAnswer } from '../../../contract/responses.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { addLines, freeId } from '../../../core/tape/edit.ts';
import type { Test } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { Button, Kbd, Segments, Trouble } from '../../ui/controls.tsx';
import { openKeyOf } from '../open-key.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';
import { useLand } from './land.ts';
import { EUROPE, MapCanvas, type Box, type Corner, type Under, type View } from './map-canvas.ts';
import { partsOf } from './parts.ts';
import { Legend, SHADE_MEASURES, useShading, type Per } from './shading.tsx';

/** Where the map was left, so that it is there again after a company was opened. */
let lastView: View = EUROPE;
const IDLE_MS = 140;

/** Who is left on the map: clustered far off, one by one close up, or countries and regions shaded by how much of them there is. */
export function MapView() {
  const tape = countedPart(useDesk((state) => state.tape));
  const { subject } = tape;
  const { change, set } = useDesk.getState();
  const format = useFormat();
  const theme = useChartTheme();
  const land = useLand();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const map = useRef<MapCanvas | null>(null);
  const hand = useRef<{ x: number; y: number; view: View; moved: boolean } | null>(null);
  const [stretch, setStretch] = useState<Box | null>(null);
  const [show, setShow] = useState<'points' | 'country' | 'region'>('points');
  const [measure, setMeasure] = useState('count');
  const [per, setPer] = useState<Per>('all');
  const [drawing, setDrawing] = useState(false);
  const [corners, setCorners] = useState<readonly Corner[]>([]);
  const [under, setUnder] = useState<{ what: Under; x: number; y: number } | null>(null);
  const hasPlace = fieldOf(subject, 'place') !== undefined;
  const { data: cities } = useQuery({
    queryKey: ['cities'],
    staleTime: Infinity,
    queryFn: ({ signal }) => call<CitiesAnswer>('GET', '/cities', undefined, signal),
  });
  const { data, error } = useQuery({
    queryKey: ['clusters', tape, stretch],
    queryFn: ({ signal }) => call<ClustersAnswer>('POST', '/clusters', { tape, ...stretch }, signal),
    enabled: hasPlace && stretch !== null && show === 'points',
    placeholderData: keepPreviousData,
    retry: false,
  });
  const { shading, error: unshaded } = useShading(show === 'points' ? null : show, measure, per);

  // The stretch is asked for once the hand rests; it reaches beyond the view, so that a move has something to show.
  const idle = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moved = useCallback(() => {
    const now = map.current;
    if (!now) return;
    lastView = now.view;
    now.draw();
    clearTimeout(idle.current);
    idle.current = setTimeout(() => setStretch(now.box()), IDLE_MS);
  }, []);
  const go = useCallback(
    (view: View) => {
      if (!map.current) return;
      map.current.view = view;
      moved();
    },
    [moved],
  );

  useEffect(() => {
    const made = new MapCanvas(canvas.current!);
    made.view = lastView;
    map.current = made;
    const observer = new ResizeObserver(() => {
      made.renew();
      setStretch(made.box());
    });
    observer.observe(box.current!);
    // Wheels must be listened to by hand: React's listeners cannot keep the page from scrolling.
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const bounds = canvas.current!.getBoundingClientRect();
      go(
        made.zoom(
          made.view,
          Math.exp(-event.deltaY / 380),
          event.clientX - bounds.left,
          event.clientY - bounds.top,
        ),
      );
    };
    const element = canvas.current!;
    element.addEventListener('wheel', wheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
      clearTimeout(idle.current);
      made.dispose();
    };
  }, [go]);
  useEffect(() => map.current?.setLand(land, cities?.cities ?? []), [land, cities]);
  useEffect(() => {
    map.current!.clusters = data ?? null;
    map.current!.draw();
  }, [data]);
  useEffect(() => {
    map.current!.shades = shading ? { by: shading.by, of: shading.shades } : null;
    map.current!.renew();
  }, [shading, theme]);
  useEffect(() => {
    map.current!.corners = corners;
    map.current!.draw();
  }, [corners]);

  const addPlace = (test: Test) => {
    const now = useDesk.getState().tape;
    change(addLines(now, [{ id: freeId(now), field: 'place', test }]));
  };
  const closeArea = () => {
    if (corners.length >= 3)
      addPlace({
        within: {
          points: corners.map(([lat, lon]) => [round(lat), round(lon)] as const),
          label: 'drawn on the map',
        },
      });
    leaveArea();
  };
  const leaveArea = () => {
    setCorners([]);
    setDrawing(false);
  };
  const keepView = () => {
    const { west, south, east, north } = map.current!.seen();
    const points = [
      [north, west],
      [north, east],
      [south, east],
      [south, west],
    ].map(([lat, lon]) => [round(lat!), round(lon!)] as const);
    addPlace({ within: { points, label: 'the view of the map' } });
  };
  const local = (event: React.PointerEvent | React.MouseEvent): [number, number] => {
    const bounds = canvas.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };
  const clicked = (x: number, y: number) => {
    const now = map.current!;
    if (drawing) {
      const first = corners[0] && now.toPixels(...corners[0]);
      if (corners.length >= 3 && first && Math.hypot(first[0] - x, first[1] - y) < 10) closeArea();
      else setCorners([...corners, now.toPlace(x, y)]);
      return;
    }
    const what = now.under(x, y);
    if (what?.kind === 'single') set({ company: openKeyOf(subject, what.key) });
    if (what?.kind === 'cluster') go(now.zoom({ ...now.view, lat: what.lat, lon: what.lon }, 2.6));
    if (what?.kind === 'region')
      addPlace(show === 'country' ? { countries: [what.country] } : { regions: [what.key] });
  };
  const parts = useMemo(() => (land ? partsOf(land) : []), [land]);
  const seenSingles = data?.singles ?? [];
  const keys = (event: React.KeyboardEvent) => {
    const now = map.current!;
    const step = 80;
    const acts: Record<string, () => void> = {
      ArrowLeft: () => go(now.pan(now.view, step, 0)),
      ArrowRight: () => go(now.pan(now.view, -step, 0)),
      ArrowUp: () => go(now.pan(now.view, 0, step)),
      ArrowDown: () => go(now.pan(now.view, 0, -step)),
      '+': () => go(now.zoom(now.view, 1.5)),
      '-': () => go(now.zoom(now.view, 1 / 1.5)),
      Enter: () => drawing && closeArea(),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };

  if (!hasPlace)
    return (
      <p className="p-6 text-soft">
        {subjectOf(subject).many.charAt(0).toUpperCase() + subjectOf(subject).many.slice(1)} have no place of
        their own. Turn the tape to their companies or sites to see them on the map.
      </p>
    );
  return (
    <div
      className="flex min-h-0 flex-1 flex-col pb-3"
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || !drawing) return;
        event.stopPropagation();
        leaveArea();
      }}
    >
      <div className="flex flex-wrap items-center gap-2 py-2 text-[13px]">
        <Segments
          label="Show"
          value={show}
          onChange={setShow}
          options={[
            { key: 'points', label: 'Points' },
            { key: 'country', label: 'Countries' },
            { key: 'region', label: 'Regions' },
          ]}
        />
        {show !== 'points' && (
          <>
            <select
              aria-label="Shaded by"
              className="field w-36 py-1"
              value={measure}
              onChange={(event) => setMeasure(event.target.value)}
            >
              {SHADE_MEASURES.filter(({ field }) => field === null || fieldOf(subject, field)).map(
                ({ key, label }) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ),
              )}
            </select>
            {/* A median stands for itself. */}
            {SHADE_MEASURES.find(({ key }) => key === measure)?.measure.of !== 'median' && (
              <select
                aria-label="In relation to"
                className="field w-36 py-1"
                value={per}
                onChange={(event) => setPer(event.target.value as Per)}
              >
                <option value="all">in all</option>
                <option value="record">
                  {measure === 'count'
                    ? `of 100 ${subjectOf(subject).many} there`
                    : `a ${subjectOf(subject).one}`}
                </option>
                <option value="inhabitants">for 100,000 inhabitants</option>
              </select>
            )}
          </>
        )}
        <select
          aria-label="Part of the world"
          className="field w-28 py-1"
          value=""
          onChange={(event) => {
            const part = parts.find(({ code }) => code === event.target.value);
            if (part) go(map.current!.fit(...part.bounds));
            else if (event.target.value === 'europe') go(EUROPE);
          }}
        >
          <option value="">go to …</option>
          <option value="europe">Europe</option>
          {parts.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
        <span className="ml-auto flex gap-2">
          {drawing ? (
            <>
              <span className="self-center text-soft">
                {corners.length < 3 ? 'click the corners' : 'click the first corner again'}
              </span>
              <Button look="ink" disabled={corners.length < 3} onClick={closeArea}>
                Keep this area
              </Button>
              <Button onClick={leaveArea}>
                Leave <Kbd>Esc</Kbd>
              </Button>
            </>
          ) : (
            <>
              <Button
                onClick={() => {
                  setDrawing(true);
                  canvas.current!.focus();
                }}
              >
                Draw an area
              </Button>
              <Button onClick={keepView}>Keep the view</Button>
            </>
          )}
        </span>
      </div>
      <Trouble error={error ?? unshaded} />
      <div ref={box} className="relative min-h-0 flex-1 overflow-hidden rounded-md border border-edge">
        <canvas
          ref={canvas}
          tabIndex={0}
          role="application"
          aria-label={`Map of ${format.number(data?.inView ?? 0)} ${subjectOf(subject).many} in view. Arrows move it, plus and minus zoom.`}
          className="absolute inset-0 block h-full w-full touch-none"
          onKeyDown={keys}
          onPointerDown={(event) => {
            const [x, y] = local(event);
            event.currentTarget.setPointerCapture(event.pointerId);
            hand.current = { x, y, view: map.current!.view, moved: false };
          }}
          onPointerMove={(event) => {
            const [x, y] = local(event);
            const now = hand.current;
            if (now) {
              if (Math.hypot(x - now.x, y - now.y) > 3) now.moved = true;
              if (now.moved) go(map.current!.pan(now.view, x - now.x, y - now.y));
              return;
            }
            const what = drawing ? null : map.current!.under(x, y);
            event.currentTarget.style.cursor = drawing ? 'crosshair' : what ? 'pointer' : 'grab';
            setUnder(what ? { what, x: Math.min(x, event.currentTarget.clientWidth - 200), y } : null);
          }}
          onPointerLeave={() => setUnder(null)}
          onPointerUp={(event) => {
            const was = hand.current;
            hand.current = null;
            if (was && !was.moved) clicked(...local(event));
          }}
        />
        {under?.what && (
          <p
            className="pointer-events-none absolute z-10 max-w-64 rounded border border-edge bg-paper px-2 py-1 text-[12px] shadow"
            style={{
              left: under.x + 12,
              top: under.y + 14,
            }}
          >
            {under.what.kind === 'single' ? (
              <strong>{under.what.name}</strong>
            ) : under.what.kind === 'cluster' ? (
              <>
                <strong className="figure">{format.number(under.what.count)}</strong>{' '}
                {subjectOf(subject).many}; click to go nearer
              </>
            ) : (
              shading?.say(show === 'country' ? under.what.country : under.what.key)
            )}
          </p>
        )}
        <div className="absolute top-2 right-2 flex flex-col">
          <Button
            aria-label="Nearer"
            className="rounded-b-none px-2!"
            onClick={() => go(map.current!.zoom(map.current!.view, 1.6))}
          >
            <Plus size={15} />
          </Button>
          <Button
            aria-label="Farther"
            className="rounded-t-none border-t-0 px-2!"
            onClick={() => go(map.current!.zoom(map.current!.view, 1 / 1.6))}
          >
            <Minus size={15} />
          </Button>
        </div>
        {shading ? (
          <Legend shading={shading} />
        ) : (
          data && (
            <p className="absolute bottom-2 left-2 rounded border border-edge bg-paper px-2 py-1 text-[12px]">
              <strong className="figure">{format.number(data.located)}</strong> with a place
            </p>
          )
        )}
        {show === 'points' && seenSingles.length > 0 && (
          <ul className="sr-only" aria-label="In view">
            {seenSingles.slice(0, 100).map(({ key, name }) => (
              <li key={key}>
                <button type="button" onClick={() => set({ company: openKeyOf(subject, key) })}>
                  {name}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}

function round(degrees: number): number {
  return Math.round(degrees * 1e4) / 1e4;
}
