import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DeliveredAnswer, GatherRunView } from '../../contract/gather-views.ts';
import type { ProgramsAnswer } from '../../contract/program-views.ts';
import type { JobAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';

const TITLES = { source: 'Into a source', list: 'Onto a list', more: 'As a file' } as const;

/** What is made of a run's records is called as its gatherer is. */
export const nameOf = ({ name, nth }: GatherRunView) =>
  `${name}${nth > 1 ? `, run ${nth}` : ''}`.slice(0, 120);

/** Makes something of a run's records. */
export const useDeliver = (run: string) =>
  useMutation({
    mutationFn: (wish: { to: 'source' | 'list' | 'webhook'; name: string }) =>
      call<DeliveredAnswer>('POST', `/gather/runs/${run}/deliver`, wish),
  });
type Delivering = ReturnType<typeof useDeliver>;

/** What becomes of a run's records; it is under way as this opens, and asked again only where it was refused. */
export function DeliverDialog({
  run,
  to,
  deliver,
  onClose,
}: {
  run: GatherRunView;
  to: keyof typeof TITLES;
  deliver: Delivering;
  onClose(): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const [name, setName] = useState(nameOf(run));
  const [ended, setEnded] = useState<JobAnswer | null>(null);
  const { data } = deliver;
  const done = (answer: JobAnswer) => {
    setEnded(answer);
    for (const queryKey of [['sources'], ['lists'], ['health'], ['tally'], ['matches']])
      void client.invalidateQueries({ queryKey });
  };
  return (
    <Dialog
      title={TITLES[to]}
      description={`${format.number(run.roll.foot)} records of ${run.name}`}
      open
      onClose={onClose}
    >
      {to === 'more' ? (
        <Files
          run={run}
          onHook={(hook) => deliver.mutate({ to: 'webhook', name: hook })}
          said={data?.message ?? null}
        />
      ) : deliver.isPending || deliver.isIdle ? (
        <p className="text-soft">Beginning …</p>
      ) : !data ? (
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            deliver.mutate({ to, name: name.trim() });
          }}
        >
          <label>
            <span className="block text-[13px] text-soft">
              {to === 'source' ? 'Name of the source' : 'Name of the list'}
            </span>
            <input
              className="field w-full"
              value={name}
              maxLength={120}
              required
              autoFocus
              onFocus={(event) => event.target.select()}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <p className="text-[13px] text-soft">
            {to === 'source'
              ? 'They are read by the rules of any file, and join the companies that the universe has already.'
              : 'They are lined up with the universe; those surely in it come onto the list, doubtful ones are settled under Sources.'}
          </p>
          <div className="flex justify-end">
            <Button type="submit" look="ink" disabled={deliver.isPending}>
              {to === 'source' ? 'Load them' : 'Match them'}
            </Button>
          </div>
        </form>
      ) : data.job ? (
        <div className="grid gap-3">
          <JobProgress id={data.job} onDone={done} />
          {ended && (
            <p>
              {to === 'source' ? (
                <>
                  <b>{name}</b> is a source now.{' '}
                  <Link className="underline underline-offset-4" to="/sources" onClick={onClose}>
                    See it under Sources
                  </Link>
                </>
              ) : (
                <>
                  Those surely in the universe are on <b>{name}</b>.{' '}
                  <Link className="underline underline-offset-4" to="/lists" onClick={onClose}>
                    See it under Lists
                  </Link>
                </>
              )}
            </p>
          )}
        </div>
      ) : (
        <p>
          {data.message}{' '}
          {data.upload && (
            <>
              Take them{' '}
              <a
                className="underline underline-offset-4"
                href={`/api/gather/runs/${run.id}/file?format=csv`}
                download
              >
                as CSV
              </a>{' '}
              and load that{' '}
              <Link className="underline underline-offset-4" to="/sources" onClick={onClose}>
                under Sources
              </Link>
              .
            </>
          )}
        </p>
      )}
      <div className="mt-3">
        <Trouble error={deliver.error} />
      </div>
    </Dialog>
  );
}

function Files({
  run,
  onHook,
  said,
}: {
  run: GatherRunView;
  onHook(hook: string): void;
  said: string | null;
}) {
  const { data } = useQuery({
    queryKey: ['programs'],
    queryFn: ({ signal }) => call<ProgramsAnswer>('GET', '/programs', undefined, signal),
  });
  const file = (format: string) => `/api/gather/runs/${run.id}/file?format=${format}`;
  return (
    <div className="grid gap-4">
      <div className="flex gap-2">
        {(['csv', 'xlsx', 'jsonl'] as const).map((format) => (
          <a
            key={format}
            href={file(format)}
            download
            className="rounded-md border border-edge bg-paper px-3 py-1.5 hover:border-ink"
          >
            {format === 'jsonl' ? 'JSON Lines' : format.toUpperCase()}
          </a>
        ))}
      </div>
      <p className="text-[13px] text-soft">
        Each record with the words and places that found it, its page and the day.
      </p>
      <div>
        <h3 className="font-semibold">To a webhook</h3>
        {data?.hooks.length === 0 && (
          <p className="text-[13px] text-soft">There is none yet; make one under Exports, Other programs.</p>
        )}
        <div className="mt-1 flex flex-wrap gap-2">
          {data?.hooks.map(({ id, name }) => (
            <Button key={id} onClick={() => onHook(id)}>
              {name}
            </Button>
          ))}
        </div>
        {said && (
          <p role="status" className="mt-2 text-kept">
            {said}
          </p>
        )}
      </div>
    </div>
  );
}
