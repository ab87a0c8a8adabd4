import { useQuery } from '@tanstack/react-query';
import { Minus, Plus } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ClustersAnswer } from '../../../contract/market.ts';
import type { CitiesAnswer } from '../../../contract/responses.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import type { Extent } from '../../../core/geo/extent.ts';
import { addLines } from '../../../core/tape/edit.ts';
import type { PlaceTest } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useChartTheme } from '../../charts/theme.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { openKeyOf } from '../open-key.ts';
import { putOneOnList, putTapeOnList } from '../putting.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';
import { useLand } from './land.ts';
import { EUROPE, MapCanvas, type Box, type Corner, type Under, type View } from './map-canvas.ts';
import { MapBar, type Shown } from './MapBar.tsx';
import { partsOf } from './parts.ts';
import { lineOfPlace } from './place-line.ts';
import { Legend, useShading, type Per } from './shading.tsx';

/** Where the map was left, so that it is there again after a company was opened, and whether a hand had moved it there. */
const last: { view: View; byHand: boolean; fitted: string } = { view: EUROPE, byHand: false, fitted: '' };
const IDLE_MS = 140;

/** What is asked for: a stretch of the world, and the part of it that is on the screen. */
type Stretch = Box & { seen: ReturnType<MapCanvas['seen']> };

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
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const [show, setShow] = useState<Shown>('points');
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
  const shown = hasPlace ? show : 'points';
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ['clusters', tape, stretch] as const,
    queryFn: ({ signal }) => call<ClustersAnswer>('POST', '/clusters', { tape, ...stretch }, signal),
    enabled: stretch !== null && shown === 'points',
    // What was drawn of another subject is none of this one's.
    placeholderData: (before, query) => (query?.queryKey[1]?.subject === subject ? before : undefined),
    retry: false,
  });
  const { shading, error: unshaded } = useShading(shown === 'points' ? null : shown, measure, per);

  // The stretch is asked for once the hand rests; it reaches beyond the view, so that a move has something to show.
  const idle = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moved = useCallback(() => {
    const now = map.current;
    if (!now) return;
    last.view = now.view;
    now.draw();
    clearTimeout(idle.current);
    idle.current = setTimeout(() => setStretch({ ...now.box(), seen: now.seen() }), IDLE_MS);
  }, []);
  const go = useCallback(
    (view: View, byHand = true) => {
      if (!map.current) return;
      map.current.view = view;
      last.byHand = byHand;
      moved();
    },
    [moved],
  );
  const fit = useCallback(
    ({ west, south, east, north }: Extent) => go(map.current!.fit(west, south, east, north), false),
    [go],
  );

  useEffect(() => {
    const made = new MapCanvas(canvas.current!);
    made.view = last.view;
    map.current = made;
    const observer = new ResizeObserver(() => {
      made.renew();
      setStretch({ ...made.box(), seen: made.seen() });
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
  // The map goes to what is kept whenever that changes, unless a hand has moved it to where some of it is.
  const counted = JSON.stringify(tape);
  useEffect(() => {
    if (!data?.extent || isPlaceholderData || last.fitted === counted) return;
    const leave = last.byHand && last.fitted !== '' && data.seen > 0;
    last.fitted = counted;
    if (!leave) fit(data.extent);
  }, [data, isPlaceholderData, counted, fit]);
  useEffect(() => {
    map.current!.shades = shading ? { by: shading.by, of: shading.shades } : null;
    map.current!.renew();
  }, [shading, theme]);
  useEffect(() => {
    map.current!.corners = corners;
    map.current!.draw();
  }, [corners]);

  const addPlace = (test: PlaceTest) => {
    const now = useDesk.getState().tape;
    change(addLines(now, [lineOfPlace(now, test)]));
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
  const viewTest = (): PlaceTest => {
    const { west, south, east, north } = map.current!.seen();
    const points = [
      [north, west],
      [north, east],
      [south, east],
      [south, west],
    ].map(([lat, lon]) => [round(lat!), round(lon!)] as const);
    return { within: { points, label: 'the view of the map' } };
  };
  const putView = () => putTapeOnList(addLines(tape, [lineOfPlace(tape, viewTest())]), null);
  const local = (event: React.PointerEvent | React.MouseEvent): [number, number] => {
    const bounds = canvas.current!.getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  };
  const clicked = (x: number, y: number, alt: boolean) => {
    const now = map.current!;
    if (drawing) {
      const first = corners[0] && now.toPixels(...corners[0]);
      if (corners.length >= 3 && first && Math.hypot(first[0] - x, first[1] - y) < 10) closeArea();
      else setCorners([...corners, now.toPlace(x, y)]);
      return;
    }
    const what = now.under(x, y);
    if (what?.kind === 'single') {
      if (alt) putOneOnList(subject, what.key);
      else set({ company: openKeyOf(subject, what.key) });
    }
    if (what?.kind === 'cluster') go(now.zoom({ ...now.view, lat: what.lat, lon: what.lon }, 2.6));
    if (what?.kind === 'region')
      addPlace(shown === 'country' ? { countries: [what.country] } : { regions: [what.key] });
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

  return (
    <div
      className="flex min-h-0 flex-1 flex-col pb-3"
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || !drawing) return;
        event.stopPropagation();
        leaveArea();
      }}
    >
      <MapBar
        subject={subject}
        places={data?.places}
        shown={shown}
        onShow={setShow}
        measure={measure}
        onMeasure={setMeasure}
        per={per}
        onPer={setPer}
        parts={parts}
        onPart={(bounds) => go(bounds ? map.current!.fit(...bounds) : EUROPE)}
        corners={drawing ? corners.length : null}
        onDraw={() => {
          setDrawing(true);
          canvas.current!.focus();
        }}
        onClose={closeArea}
        onLeave={leaveArea}
        onKeepView={() => addPlace(viewTest())}
        onPutView={putView}
      />
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
            if (was && !was.moved) clicked(...local(event), event.altKey);
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
              <>
                <strong>{under.what.name}</strong>
                <span className="block text-soft">click opens it, with Alt it goes on a list</span>
              </>
            ) : under.what.kind === 'cluster' ? (
              <>
                <strong className="figure">{format.number(under.what.count)}</strong>{' '}
                {subjectOf(subject).many}; click to go nearer
              </>
            ) : (
              shading?.say(shown === 'country' ? under.what.country : under.what.key)
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
              {data.located > data.seen && (
                <>
                  , <span className="figure">{format.number(data.located - data.seen)}</span> outside this
                  view
                  {data.extent && (
                    <Button look="quiet" className="ml-1" onClick={() => fit(data.extent!)}>
                      Fit
                    </Button>
                  )}
                </>
              )}
            </p>
          )
        )}
        {shown === 'points' && seenSingles.length > 0 && (
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
