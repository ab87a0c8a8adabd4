import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { FoundAnswer } from '../../../contract/responses.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { Button, Kbd } from '../../ui/controls.tsx';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

/** Found names that are asked for at once. */
const STRETCH = 1000;

/** Finds names within the result and goes from one to the next, without narrowing anything. */
export function FindWithin({ onGo }: { onGo(row: number): void }) {
  const tape = countedPart(useDesk((state) => state.tape));
  const sort = useDesk((state) => state.sort);
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  useKey('f', () => setOpen(true));
  const from = Math.floor(at / STRETCH) * STRETCH;
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ['find', tape, sort, text, from],
    queryFn: ({ signal }) => call<FoundAnswer>('POST', '/find', { tape, sort, text, from }, signal),
    enabled: open && text.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  });
  const total = data?.total ?? 0;
  const row = isPlaceholderData ? undefined : data?.positions[at - from];
  const latest = useRef(onGo);
  useEffect(() => {
    latest.current = onGo;
  });
  useEffect(() => {
    if (row !== undefined) latest.current(row);
  }, [row]);
  if (!open)
    return (
      <Button look="quiet" onClick={() => setOpen(true)}>
        Find in these <Kbd>f</Kbd>
      </Button>
    );
  const go = (step: number) => {
    if (total > 0) setAt((at + step + total) % total);
  };
  return (
    <span className="flex items-center gap-1">
      <input
        autoFocus
        className="field w-44 py-0.5"
        value={text}
        placeholder="Find a name in these"
        aria-label={`Find a name among these ${subjectOf(tape.subject).many}`}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') go(event.shiftKey ? -1 : 1);
          if (event.key === 'Escape') {
            event.stopPropagation();
            setOpen(false);
          }
        }}
      />
      <span className="text-soft" role="status">
        {text.trim() === '' || !data
          ? (error?.message ?? '')
          : data.total === 0
            ? 'none here'
            : `${format.number(Math.min(at + 1, data.total))} of ${format.number(data.total)}`}
      </span>
      <Button look="quiet" aria-label="The one before" disabled={total === 0} onClick={() => go(-1)}>
        <ChevronUp size={14} />
      </Button>
      <Button look="quiet" aria-label="The next one" disabled={total === 0} onClick={() => go(1)}>
        <ChevronDown size={14} />
      </Button>
    </span>
  );
}
