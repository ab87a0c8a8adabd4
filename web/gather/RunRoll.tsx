import { useQueryClient } from '@tanstack/react-query';
import { Pause, Play, Square } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { RUN_ACTS } from '../../contract/gather.ts';
import type { GatherRunAnswer, GatherRunView, RunPart } from '../../contract/gather-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';
import { DeliverDialog, nameOf, useDeliver } from './DeliverDialog.tsx';
import { SearchGrid } from './SearchGrid.tsx';
import { clock, STATE_WORDS } from './words.ts';

const PARTS: Readonly<Record<string, RunPart>> = {
  found: 'records',
  adverts: 'adverts',
  twice: 'twice',
  refused: 'refused',
};

/** The paper of a run: its searches, the pages read, and how the rows on them came to records. Each figure opens what it counts. */
export function RunRoll({
  onAgain,
  run,
  to,
}: {
  run: GatherRunView;
  /** Address of the run's rows. */
  to: string;
  /** Runs it once more. */
  onAgain?: (() => void) | undefined;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [delivering, setDelivering] = useState<'source' | 'list' | 'more' | null>(null);
  const deliver = useDeliver(run.id);
  const begin = (to: 'source' | 'list') => {
    deliver.mutate({ to, name: nameOf(run) });
    setDelivering(to);
  };
  const [trouble, setTrouble] = useState<Error | null>(null);
  const show = (part: RunPart, search?: number) =>
    void navigate(`${to}&part=${part}${search === undefined ? '' : `&search=${search}`}`);
  const act = (what: (typeof RUN_ACTS)[number]) =>
    call<GatherRunAnswer>('POST', `/gather/runs/${run.id}/act`, { act: what }).then(
      (answer) => {
        setTrouble(null);
        client.setQueryData(['gather run', run.id], answer);
        void client.invalidateQueries({ queryKey: ['gathered', run.id] });
      },
      (error: Error) => setTrouble(error),
    );
  const over = run.state === 'done' || run.state === 'stopped';
  const left = run.timeLeft;
  const steps = run.roll.steps.map(({ step, label, note, delta, total }) => ({
    ...{ key: step, label, delta, total, note },
    onOpen: () => show(PARTS[step]!),
  }));
  return (
    <>
      <Roll
        title={run.nth === 1 ? 'First run' : `Run ${run.nth}`}
        about={
          <>
            {[
              run.person,
              `begun ${format.date(run.startedAt.slice(0, 10))} at ${run.startedAt.slice(11, 16)}`,
            ]
              .filter(Boolean)
              .join(', ')}
            {run.state !== 'running' && (
              <span className="block font-semibold text-ink">{STATE_WORDS[run.state]}</span>
            )}
            {run.why && (
              <span role="status" className={run.state === 'asks' ? 'block text-unsure' : 'block'}>
                {run.why}
              </span>
            )}
          </>
        }
        before={
          <>
            {run.searches.some(({ word, place }) => word !== '' || place !== '') && (
              <SearchGrid run={run} onShow={(search) => show('records', search)} />
            )}
            <div className="flex items-baseline justify-between border-b border-dashed border-edge/70 py-2 pr-4 pl-10">
              <span>
                <span className="font-semibold">Pages read</span>{' '}
                <span className="text-[13px] text-soft">
                  {run.searches.length > 1 && `${format.number(run.searchesDone)} searches whole`}
                  <Pages count={run.pagesFailed} words="not read" onOpen={() => show('failed')} />
                  <Pages
                    count={run.pagesNotAllowed}
                    words="not allowed by robots.txt"
                    onOpen={() => show('not-allowed')}
                  />
                </span>
              </span>
              <span className="figure text-[15px] font-semibold">{format.number(run.pagesRead)}</span>
            </div>
          </>
        }
        steps={steps}
        opens="See these rows"
        below={
          over ? undefined : (
            <div className="py-2.5 pr-4 pl-10">
              <div className="flex items-baseline justify-between">
                <span className="font-semibold">Time left</span>
                <span className="figure text-[15px] font-semibold">{left === null ? '…' : clock(left)}</span>
              </div>
              <p className="text-[13px] text-soft">
                <span className="figure">{format.number(run.pagesWaiting)}</span>{' '}
                {run.pagesWaiting === 1 ? 'page waits' : 'pages wait'}
                {run.pause > 0 && `, one every ${run.pause} s of a host`}
              </p>
              <div
                className="mt-1.5 h-1.5 border border-edge"
                role="progressbar"
                aria-label="Pages read of those known"
                aria-valuenow={Math.round(
                  (100 * run.pagesRead) / Math.max(1, run.pagesRead + run.pagesWaiting),
                )}
              >
                <div
                  className="h-full bg-ink"
                  style={{
                    width: `${(100 * run.pagesRead) / Math.max(1, run.pagesRead + run.pagesWaiting)}%`,
                  }}
                />
              </div>
            </div>
          )
        }
        foot={{ label: over ? 'records' : 'records so far', total: run.roll.foot }}
        note={<Trouble error={trouble} />}
      >
        <Button look="ink" onClick={() => begin('source')} disabled={run.roll.foot === 0}>
          Into a source
        </Button>
        <Button onClick={() => begin('list')} disabled={run.roll.foot === 0}>
          Onto a list
        </Button>
        <Button
          onClick={() => {
            deliver.reset();
            setDelivering('more');
          }}
          disabled={run.roll.foot === 0}
        >
          As a file …
        </Button>
        {run.state === 'running' && (
          <Button onClick={() => void act('pause')}>
            <Pause size={13} /> Pause
          </Button>
        )}
        {(run.state === 'paused' || run.state === 'asks' || run.state === 'stopped') && (
          <Button onClick={() => void act('go-on')}>
            <Play size={13} /> Go on
          </Button>
        )}
        {!over && (
          <Button onClick={() => void act('stop')}>
            <Square size={12} /> Stop
          </Button>
        )}
        {run.state !== 'running' && run.pagesRead > 0 && (
          <Button
            onClick={() => void act('read-again')}
            title="Reads the pages that are kept with what was taught since; nothing is fetched again"
          >
            Read again
          </Button>
        )}
        {onAgain && run.state !== 'running' && <Button onClick={onAgain}>Run once more</Button>}
        {run.pagesFailed > 0 && run.state !== 'running' && (
          <Button onClick={() => void act('try-failed')}>Try those not read</Button>
        )}
      </Roll>
      {delivering && (
        <DeliverDialog run={run} to={delivering} deliver={deliver} onClose={() => setDelivering(null)} />
      )}
    </>
  );
}

function Pages({ count, words, onOpen }: { count: number; words: string; onOpen(): void }) {
  const format = useFormat();
  if (count === 0) return null;
  return (
    <button type="button" className="ml-2 text-cut underline underline-offset-4" onClick={onOpen}>
      <span className="figure">{format.number(count)}</span> {words}
    </button>
  );
}
