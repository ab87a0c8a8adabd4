import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { WatchSubject, WatchView } from '../../contract/runs.ts';
import type { Rate } from '../../core/runs/kinds.ts';
import { HAPPENINGS, HAPPENING_WORDS, type WatchedKind } from '../../core/runs/happenings.ts';
import { call } from '../api.ts';
import { said } from '../app/history.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { TellFields } from './TellFields.tsx';
import { runsChanged, useWatches } from './use-runs.ts';

/** Something that can be watched. */
export interface Watchable {
  subject: WatchSubject;
  key: string;
  name: string;
}

const USUAL_GROWTH = 20;

/** Says what of something one wants to be told, how often and in which ways. */
export function WatchDialog({ of, onClose }: { of: Watchable; onClose(): void }) {
  const { data } = useWatches();
  const there = data?.find(({ subject, key }) => subject === of.subject && key === of.key) ?? null;
  // What is watched already is shown once it is known.
  return data ? <Watching key={there?.id ?? 'new'} of={of} there={there} onClose={onClose} /> : null;
}

function Watching({ of, there, onClose }: { of: Watchable; there: WatchView | null; onClose(): void }) {
  const client = useQueryClient();
  const can = HAPPENINGS.filter((kind) => HAPPENING_WORDS[kind].of.includes(of.subject));
  const [kinds, setKinds] = useState<readonly WatchedKind[]>(
    there?.kinds ?? can.filter((kind) => kind !== 'record'),
  );
  const [growth, setGrowth] = useState(String(there?.growth ?? USUAL_GROWTH));
  const [rate, setRate] = useState<Rate>(there?.rate ?? 'at-once');
  const [ways, setWays] = useState<string[]>(there?.ways ?? ['bell']);
  const [error, setError] = useState<Error | null>(null);
  const attempt = async (work: () => Promise<unknown>, words: string) => {
    try {
      await work();
      runsChanged(client);
      said(words);
      onClose();
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const wish = {
    ...{ subject: of.subject, key: of.key, kinds, rate, ways },
    growth: kinds.includes('growth') && growth.trim() !== '' ? Number(growth.replace(',', '.')) : null,
  };
  return (
    <Dialog open title={`Watch ${of.name}`} onClose={onClose} width={520}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void attempt(() => call('PUT', '/watches', wish), `Watching ${of.name}`);
        }}
      >
        <fieldset className="grid grid-cols-2 gap-x-4 gap-y-1">
          <legend className="pb-1 text-soft">Tell me of</legend>
          {can.map((kind) => (
            <label key={kind} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={kinds.includes(kind)}
                onChange={(event) =>
                  setKinds(event.target.checked ? [...kinds, kind] : kinds.filter((one) => one !== kind))
                }
              />
              {kind === 'growth' ? 'growth beyond' : HAPPENING_WORDS[kind].label}
              {kind === 'growth' && (
                <>
                  <input
                    className="field figure w-14 py-0.5"
                    inputMode="decimal"
                    aria-label="Growth beyond which it is told, in percent"
                    value={growth}
                    onChange={(event) => setGrowth(event.target.value)}
                  />
                  %
                </>
              )}
            </label>
          ))}
        </fieldset>
        <TellFields rate={rate} ways={ways} onRate={setRate} onWays={setWays} />
        <Trouble error={error} />
        <div className="flex justify-end gap-2">
          {there && (
            <Button
              className="mr-auto"
              onClick={() =>
                void attempt(
                  () => call('DELETE', `/watches/${there.id}`),
                  `${of.name} is not watched any more`,
                )
              }
            >
              Watch no more
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="ink" type="submit" disabled={kinds.length === 0}>
            {there ? 'Save' : 'Watch'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
