import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import type { BeforeExportAnswer, ExportStepAnswer } from '../../../contract/export-views.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useOpenTape } from '../../desk/open-tape.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { Roll } from '../../ui/Roll.tsx';

/** Suppression lists whose members go out this time, with the reason. */
export type Along = Readonly<Record<string, string>>;

/** What of an export goes out, and what keeps the others off. */
export function useGoingOut(wish: object, along: Along) {
  const asked = { ...wish, along: Object.keys(along) };
  return useQuery({
    queryKey: ['going out', asked],
    queryFn: ({ signal }) => call<BeforeExportAnswer>('POST', '/exports/before', asked, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** The roll of an export before it is made: what goes, less what is kept off. Members of a suppression list can be taken along for a reason. */
export function GoingRoll({
  wish,
  going,
  busy,
  along,
  unit,
  onAlong,
  children,
}: {
  wish: object;
  going: BeforeExportAnswer | undefined;
  busy: boolean;
  along: Along;
  /** What the rows are of: "companies". */
  unit: string;
  onAlong(along: Along): void;
  children?: React.ReactNode;
}) {
  const format = useFormat();
  const openTape = useOpenTape();
  const open = useMutation({
    mutationFn: (step: string) =>
      call<ExportStepAnswer>('POST', '/exports/before/step', { ...wish, along: Object.keys(along), step }),
    onSuccess: ({ tape, why }) => {
      if (!tape) throw new Error(why ?? 'These cannot be opened.');
      openTape(tape);
    },
  });
  const toggle = (list: string) => {
    const { [list]: had, ...rest } = along;
    onAlong(had === undefined ? { ...along, [list]: '' } : rest);
  };
  const steps = (going?.roll.steps ?? []).map(({ step, label, note, delta, total }) => {
    const list = step.startsWith('off-') ? step.slice('off-'.length) : null;
    return {
      ...{ key: step, label, delta, total, onOpen: () => open.mutate(step) },
      note: list ? (
        <Button look="quiet" className="-ml-1.5 py-0 text-[13px] underline" onClick={() => toggle(list)}>
          take along
        </Button>
      ) : (
        note
      ),
    };
  });
  const gone = going?.off.filter((one) => one.along) ?? [];
  return (
    <Roll
      title="What goes out"
      about="and what stays off, and why"
      steps={steps}
      busy={busy}
      below={
        <div className="space-y-2 px-4 py-2 pl-10 text-[13px]">
          <Trouble error={open.error} />
          {going && going.off.length === 0 && (
            <p className="text-soft">none of them is on a suppression list</p>
          )}
          {gone.map(({ list, name, count }) => (
            <div key={list}>
              <p>
                <span className="figure">{format.number(count)}</span> on <strong>{name}</strong> go along{' '}
                <Button look="quiet" className="py-0 underline" onClick={() => toggle(list)}>
                  keep off
                </Button>
              </p>
              <input
                autoFocus
                value={along[list] ?? ''}
                maxLength={200}
                aria-label={`Why those on ${name} go out`}
                placeholder="Why they go out; the file says so"
                className="field mt-1 w-full py-1"
                onChange={(event) => onAlong({ ...along, [list]: event.target.value })}
              />
            </div>
          ))}
        </div>
      }
      foot={{ label: 'rows of the file', total: going ? going.goes : null }}
      note={unit}
    >
      {children}
    </Roll>
  );
}
