import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { SavedTapeView } from '../../../contract/responses.ts';
import type { PlanAnswer, PlanView } from '../../../contract/runs.ts';
import type { Rate } from '../../../core/runs/kinds.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { call, isClash } from '../../api.ts';
import { did } from '../../app/history.ts';
import { Button, Dialog, Segments, Trouble } from '../../ui/controls.tsx';
import { RATE_WORDS } from '../../runs/TellFields.tsx';
import { useDesk } from '../store.ts';

/** Keeps the tape by name in the workspace, as a whole or as a part for other tapes. */
export function SaveTapeDialog({ onClose }: { onClose(): void }) {
  const { tape, sort, change } = useDesk.getState();
  const client = useQueryClient();
  const [name, setName] = useState(tape.name ?? '');
  const [description, setDescription] = useState(tape.description ?? '');
  const [kind, setKind] = useState<'tape' | 'part'>('tape');
  const [when, setWhen] = useState('');
  const [rate, setRate] = useState<Rate>('at-once');
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
      const schedule = { how: 'repeats', words: when.trim() };
      // What says no time is refused before anything is saved.
      const runs = kind === 'tape' && when.trim() !== '';
      if (runs) await call('POST', '/runs/when', schedule);
      let id = await put(wish, same?.id, over === 'seen' ? same?.savedAt : undefined);
      if (kind === 'tape') {
        const { sort: _sort, ...kept } = whole;
        change(kept, 'name');
      }
      const plan = runs ? await planOf(id, name.trim(), schedule, rate) : null;
      if (plan) void client.invalidateQueries({ queryKey: ['runs'] });
      did(plan ? `Saved ${name.trim()}; it runs ${plan.when}` : `Saved ${name.trim()}`, {
        name: `saving ${name.trim()}`,
        undo: async () => {
          if (plan) await call('DELETE', `/plans/${plan.key}`);
          if (same) await put({ tape: same.tape, kind, name: same.name }, same.id);
          else await call('DELETE', `/tapes/${id}`);
          await client.invalidateQueries({ queryKey: ['saved-tapes'] });
        },
        redo: async () => {
          id = await put(wish, same?.id);
          if (plan) await planOf(id, name.trim(), schedule, rate);
        },
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
        {kind === 'tape' && (
          <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <label className="flex min-w-0 flex-1 items-center gap-2">
              Run it
              <input
                value={when}
                maxLength={120}
                placeholder="every Monday at 7; not, where empty"
                onChange={(event) => {
                  setWhen(event.target.value);
                  setError(null);
                }}
                className="field min-w-0 flex-1"
              />
            </label>
            <label className="flex items-center gap-2">
              told of changes
              <select
                className="field py-1"
                value={rate}
                disabled={when.trim() === ''}
                onChange={(event) => setRate(event.target.value as Rate)}
              >
                {Object.entries(RATE_WORDS).map(([key, label]) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          </div>
        )}
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

/** Has a saved tape run again and again, and its changes told at a rate. */
async function planOf(tape: string, name: string, schedule: object, rate: Rate): Promise<PlanView> {
  const tell = { success: false, failure: rate !== 'never', changes: 0, rate, ways: ['bell'] };
  const { plan } = await call<PlanAnswer>('POST', '/plans', {
    ...{ kind: 'tape', name: name.slice(0, 120), target: { tape }, schedule, tell },
  });
  await call('POST', `/plans/${plan.key}/run`);
  return plan;
}

/** The saved tapes and parts, counted as of now. */
export function useSavedTapes() {
  return useQuery({
    queryKey: ['saved-tapes'],
    queryFn: ({ signal }) => call<{ tapes: SavedTapeView[] }>('GET', '/tapes', undefined, signal),
  });
}
