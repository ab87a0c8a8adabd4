import { useState } from 'react';
import type { AreaTest } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { Button } from '../../ui/controls.tsx';
import { useAlternatives, useMany, usePoints } from '../queries.ts';
import { PlaceMap } from './PlaceMap.tsx';

type Corner = readonly [lat: number, lon: number];

/** An area drawn on the map, corner by corner. */
export function AreaPicker({
  at,
  area,
  onArea,
}: {
  at: string | undefined;
  area: AreaTest | null;
  onArea(area: AreaTest | undefined): void;
}) {
  const format = useFormat();
  const [corners, setCorners] = useState<readonly Corner[]>([]);
  const many = useMany();
  const { data: points } = usePoints(at);
  const drawing = area === null || corners.length > 0;
  const preview = corners.length >= 3 ? { within: { points: corners } } : null;
  const { data: counted } = useAlternatives('place', at, preview ? [preview] : []);
  const close = () => {
    onArea({ points: corners });
    setCorners([]);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <p className="flex-1 text-soft">
          {drawing
            ? corners.length < 3
              ? `Click the corners of the area on the map; ${3 - corners.length} more at least.`
              : 'Click further corners, or close the area.'
            : `An area of ${area.points.length} corners.`}
          {preview && counted && (
            <>
              {' '}
              <span className="figure font-semibold text-ink">
                {format.number(counted.counts[0] ?? 0)}
              </span>{' '}
              would be left.
            </>
          )}
        </p>
        {drawing && (
          <>
            <Button disabled={corners.length === 0} onClick={() => setCorners(corners.slice(0, -1))}>
              One corner back
            </Button>
            <Button look="ink" disabled={corners.length < 3} onClick={close}>
              Close the area
            </Button>
          </>
        )}
        {!drawing && (
          <>
            <label className="flex items-center gap-2">
              name
              <input
                key={area.points.join()}
                defaultValue={area.label ?? ''}
                maxLength={120}
                className="field py-1"
                onBlur={(event) => {
                  const label = event.target.value.trim();
                  if (label !== (area.label ?? ''))
                    onArea({ points: area.points, ...(label ? { label } : {}) });
                }}
              />
            </label>
            <Button onClick={() => onArea(undefined)}>Draw anew</Button>
          </>
        )}
      </div>
      <div className="relative min-h-48 flex-1">
        <PlaceMap
          points={points?.points ?? []}
          near={null}
          km={0}
          area={drawing ? { points: corners, open: true } : { points: area.points, open: false }}
          onPoint={(lat, lon) => drawing && setCorners([...corners, [lat, lon]])}
          onRadius={() => {}}
        />
      </div>
      <p className="text-[12px] text-soft">
        Dots are the {many} the other lines let through. Drag to move, wheel to zoom.
      </p>
    </div>
  );
}
