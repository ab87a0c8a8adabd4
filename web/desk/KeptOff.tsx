import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { BeforeExportAnswer } from '../../contract/lists.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button } from '../ui/controls.tsx';

/** Suppression lists whose members go out this time, with the reason. */
export type Along = Readonly<Record<string, string>>;

/** What of an export goes out, and what suppression lists keep off it. */
export function useGoingOut(wish: object, along: Along) {
  const asked = { ...wish, along: Object.keys(along) };
  return useQuery({
    queryKey: ['going out', asked],
    queryFn: ({ signal }) => call<BeforeExportAnswer>('POST', '/exports/before', asked, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** The roll of an export before it is made: what goes, less what is kept off, which can be taken along for a reason. */
export function KeptOff({
  going,
  along,
  onAlong,
}: {
  going: BeforeExportAnswer;
  along: Along;
  onAlong(along: Along): void;
}) {
  const format = useFormat();
  if (going.off.length === 0)
    return <p className="pt-1.5 text-[13px] text-soft">none of them is on a suppression list</p>;
  return (
    <ol aria-label="What goes out" className="rounded-md border border-edge text-[13px]">
      <li className="flex justify-between border-b border-dashed border-edge/70 px-3 py-1">
        chosen <span className="figure font-semibold">{format.number(going.of)}</span>
      </li>
      {going.off.map(({ list, name, count }) => {
        const reason = along[list];
        return (
          <li key={list} className="border-b border-dashed border-edge/70 px-3 py-1">
            <div className="flex items-center justify-between gap-3">
              <span>
                on <strong>{name}</strong>
                {reason !== undefined && ', taken along'}
              </span>
              <span className="flex items-center gap-3">
                <Button
                  look="quiet"
                  onClick={() => {
                    const { [list]: had, ...rest } = along;
                    onAlong(had === undefined ? { ...along, [list]: '' } : rest);
                  }}
                >
                  {reason === undefined ? 'take along' : 'keep off'}
                </Button>
                <span className={reason === undefined ? 'figure text-cut' : 'figure text-soft'}>
                  {reason === undefined ? `−${format.number(count)}` : format.number(count)}
                </span>
              </span>
            </div>
            {reason !== undefined && (
              <input
                autoFocus
                value={reason}
                maxLength={200}
                aria-label={`Why those on ${name} go out`}
                placeholder="Why they go out; the file says so"
                className="field mt-1 w-full py-1"
                onChange={(event) => onAlong({ ...along, [list]: event.target.value })}
              />
            )}
          </li>
        );
      })}
      <li className="flex justify-between px-3 py-1 font-semibold">
        rows of the file <span className="figure">{format.number(going.goes)}</span>
      </li>
    </ol>
  );
}
