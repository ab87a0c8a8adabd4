import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { NoteAnswer } from '../../contract/responses.ts';
import { call, isClash } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { record } from '../app/history.ts';
import { Button, Trouble } from '../ui/controls.tsx';

const LONGEST = 4000;

/** One's own note on a record, kept in the workspace. */
export function NoteBox({
  subject,
  recordKey,
  open,
  onOpen,
}: {
  subject: string;
  recordKey: string;
  open: boolean;
  onOpen(open: boolean): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const path = `/notes/${subject}/${encodeURIComponent(recordKey)}`;
  const queryKey = ['note', subject, recordKey];
  const { data, error } = useQuery({
    queryKey,
    queryFn: ({ signal }) => call<NoteAnswer>('GET', path, undefined, signal),
  });
  const [draft, setDraft] = useState<string | null>(null);
  const text = draft ?? data?.text ?? '';
  /** What another window wrote since the note was shown here. */
  const [theirs, setTheirs] = useState<NoteAnswer | null>(null);
  const close = () => {
    setDraft(null);
    setTheirs(null);
    onOpen(false);
  };
  /** Writes the note over the one that was seen. */
  const save = async (seen: NoteAnswer) => {
    try {
      const [before, after] = [seen.text, text.trim()];
      const put = async (note: string, version?: string | null) =>
        client.setQueryData(
          queryKey,
          await call<NoteAnswer>('PUT', path, { text: note }, undefined, version),
        );
      await put(after, seen.changedAt);
      if (before !== after) record({ name: 'a note', undo: () => put(before), redo: () => put(after) });
      close();
    } catch (failure) {
      if (isClash(failure)) setTheirs(failure.current as NoteAnswer);
      else toast.error((failure as Error).message);
    }
  };
  // Writing over a note that could not be read would lose it.
  if (error)
    return (
      <div className="mt-3">
        <Trouble error={error} />
      </div>
    );
  if (!open)
    return data?.text ? (
      <button
        type="button"
        className="mt-3 block w-full max-w-3xl rounded-md border border-edge bg-paper px-3 py-2 text-left whitespace-pre-wrap hover:border-ink"
        onClick={() => onOpen(true)}
      >
        <span className="text-[12px] text-soft">
          Note{data.changedAt ? `, ${format.date(data.changedAt.slice(0, 10))}` : ''}
        </span>
        <span className="block">{data.text}</span>
      </button>
    ) : null;
  return (
    <div className="mt-3 max-w-3xl">
      <textarea
        autoFocus
        aria-label="Note"
        className="field h-24 w-full"
        maxLength={LONGEST}
        // Not before the note that is there is known, which would be written over.
        readOnly={data === undefined}
        value={text}
        onChange={(event) => setDraft(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && data && !theirs) void save(data);
        }}
      />
      {theirs ? (
        <div role="alert" className="mt-2 rounded-md border border-ink bg-paper p-3">
          <p>
            <strong>Another window changed this note since it was shown here.</strong> It reads there:
          </p>
          <p className="my-2 whitespace-pre-wrap">
            {theirs.text || <span className="text-soft italic">nothing</span>}
          </p>
          <p className="flex gap-2">
            <Button look="ink" onClick={() => void save(theirs)}>
              Keep mine instead
            </Button>
            <Button
              onClick={() => {
                client.setQueryData(queryKey, theirs);
                close();
              }}
            >
              Keep theirs
            </Button>
          </p>
        </div>
      ) : (
        <p className="mt-1 flex items-center gap-2 text-[12px] text-soft">
          <Button look="ink" disabled={data === undefined} onClick={() => data && void save(data)}>
            Keep the note
          </Button>
          <Button onClick={close}>Cancel</Button>
          Ctrl Enter keeps it; an empty note is none
        </p>
      )}
    </div>
  );
}
