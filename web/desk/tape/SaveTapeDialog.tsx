import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { SavedTapeView } from '../../../contract/responses.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { call, isClash } from '../../api.ts';
import { did } from '../../app/history.ts';
import { Button, Dialog, Segments, Trouble } from '../../ui/controls.tsx';
import { useDesk } from '../store.ts';

/** Keeps the tape by name in the workspace, as a whole or as a part for other tapes. */
export function SaveTapeDialog({ onClose }: { onClose(): void }) {
  const { tape, sort, change } = useDesk.getState();
  const client = useQueryClient();
  const [name, setName] = useState(tape.name ?? '');
  const [description, setDescription] = useState(tape.description ?? '');
  const [kind, setKind] = useState<'tape' | 'part'>('tape');
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const { data } = useSavedTapes();
  const same = data?.tapes.find((one) => one.kind === kind && one.name === name.trim());
  /** Saves it; over one of the same name, which another window may have changed since it was seen here. */
  const save = async (over: 'seen' | 'any' = 'seen') => {
    setBusy(true);
    setError(null);
    const { name: _name, description: _description, ...bare } = tape;
    const whole: Tape = {
      ...bare,
      name: name.trim(),
      ...(description.trim() ? { description: description.trim() } : {}),
      ...(kind === 'tape' && sort.length ? { sort } : {}),
    };
    try {
      const wish = { tape: whole, kind, name: name.trim() };
      const put = async (body: object, at?: string, version?: string) => {
        const { tape: saved } = await call<{ tape: SavedTapeView }>(
          at ? 'PUT' : 'POST',
          `/tapes${at ? `/${at}` : ''}`,
          body,
          undefined,
          version,
        );
        await client.invalidateQueries({ queryKey: ['saved-tapes'] });
        return saved.id;
      };
      let id = await put(wish, same?.id, over === 'seen' ? same?.savedAt : undefined);
      if (kind === 'tape') {
        const { sort: _sort, ...kept } = whole;
        change(kept, 'name');
      }
      did(`Saved ${name.trim()}`, {
        name: `saving ${name.trim()}`,
        undo: async () => {
          if (same) await put({ tape: same.tape, kind, name: same.name }, same.id);
          else await call('DELETE', `/tapes/${id}`);
          await client.invalidateQueries({ queryKey: ['saved-tapes'] });
        },
        redo: async () => (id = await put(wish, same?.id)),
      });
      onClose();
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
    }
  };
  return (
    <Dialog open title="Save the tape" onClose={onClose}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '' && !busy) void save();
        }}
      >
        <label className="flex flex-col gap-1">
          Name
          <input
            autoFocus
            value={name}
            maxLength={200}
            onChange={(event) => {
              setName(event.target.value);
              setError(null);
            }}
            className="field border-ink"
          />
        </label>
        <label className="flex flex-col gap-1">
          What it is for
          <textarea
            value={description}
            rows={2}
            maxLength={2000}
            onChange={(event) => setDescription(event.target.value)}
            className="field"
          />
        </label>
        <Segments
          label="Saved as"
          value={kind}
          options={[
            { key: 'tape', label: 'a tape' },
            { key: 'part', label: 'a part to put on other tapes' },
          ]}
          onChange={(next) => {
            setKind(next);
            setError(null);
          }}
        />
        <Trouble error={error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          {isClash(error) ? (
            <Button look="ink" disabled={busy} onClick={() => void save('any')}>
              Replace what the other window saved
            </Button>
          ) : (
            <Button type="submit" look="ink" disabled={name.trim() === '' || busy}>
              {same ? 'Replace the one of this name' : 'Save'}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

/** The saved tapes and parts, counted as of now. */
export function useSavedTapes() {
  return useQuery({
    queryKey: ['saved-tapes'],
    queryFn: ({ signal }) => call<{ tapes: SavedTapeView[] }>('GET', '/tapes', undefined, signal),
  });
}
