import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { PositionAnswer } from '../../contract/responses.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { countedPart } from '../desk/queries.ts';
import { useDesk } from '../desk/store.ts';
import { Button, Kbd } from '../ui/controls.tsx';

const VIEW_WORDS = { sheet: 'sheet', breakdown: 'Breakdown', map: 'map', check: 'spot check' } as const;

/** The way back to the view, and to the records before and after in the order of the tape. */
export function Steps({ subject, recordKey }: { subject: string; recordKey: string }) {
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const { set, leave } = useDesk.getState();
  const cameFrom = useDesk((state) => state.cameFrom);
  const view = useDesk((state) => state.view);
  const format = useFormat();
  const own = tape.subject === subject;
  const { data } = useQuery({
    queryKey: ['position', countedPart(tape), sort, recordKey],
    queryFn: ({ signal }) =>
      call<PositionAnswer>('POST', '/position', { tape: countedPart(tape), sort, key: recordKey }, signal),
    enabled: own,
    retry: false,
  });
  const position = own ? data?.position : null;
  // The sheet opens again at this record, also after a reload.
  useEffect(() => {
    if (position) set({ cursor: position.at });
  }, [position, set]);
  const go = (key: string | null | undefined, step: number) =>
    key &&
    set({
      company: subject === 'companies' ? key : `${subject}/${key}`,
      cursor: (position?.at ?? 0) + step,
    });
  useKey('j', () => go(position?.next, 1));
  useKey('k', () => go(position?.previous, -1));
  const { many } = subjectOf(tape.subject);
  return (
    <div className="flex items-center gap-3 pb-2 text-[13px] text-soft">
      <Button look="quiet" onClick={leave}>
        <Kbd>Esc</Kbd> {cameFrom === null ? VIEW_WORDS[view] : 'its company'}
      </Button>
      {position ? (
        <>
          <span>
            <span className="figure text-ink">{format.number(position.at + 1)}</span> of{' '}
            <span className="figure text-ink">{format.number(position.total)}</span>
          </span>
          <Button look="quiet" disabled={!position.previous} onClick={() => go(position.previous, -1)}>
            previous <Kbd>k</Kbd>
          </Button>
          <Button look="quiet" disabled={!position.next} onClick={() => go(position.next, 1)}>
            next <Kbd>j</Kbd>
          </Button>
        </>
      ) : (
        (!own || data) && (
          <span>{own ? `not among the ${many} of this tape` : `beside the ${many} of this tape`}</span>
        )
      )}
    </div>
  );
}
