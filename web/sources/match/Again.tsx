import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { MatchView } from '../../../contract/matches.ts';
import type { Job } from '../../../contract/responses.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { JobProgress, useRunning } from '../../ui/JobProgress.tsx';

/** Matching a file again once the universe has changed, and the rows that came to something else by it. */
export function Again({ match, onMoved }: { match: MatchView; onMoved(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const again = useMutation({
    mutationFn: () => call<{ job: Job }>('POST', `/matches/${encodeURIComponent(match.id)}/again`),
  });
  const running = useRunning(again.data?.job.id ?? null);
  if (!match.changed && match.moved === 0 && !again.data) return null;
  const { data } = again;
  return (
    <div className="w-full space-y-1.5 text-[13px]">
      <Trouble error={again.error} />
      {data && (
        <JobProgress
          key={data.job.id}
          id={data.job.id}
          onDone={() =>
            void client.invalidateQueries({
              predicate: ({ queryKey }) => String(queryKey[0]).startsWith('match'),
            })
          }
        />
      )}
      {match.changed && (
        <Button disabled={again.isPending || running} onClick={() => again.mutate()}>
          Match again
        </Button>
      )}
      {match.moved > 0 && (
        <p>
          <button type="button" className="underline underline-offset-4" onClick={onMoved}>
            <span className="figure">{format.number(match.moved)}</span> {match.moved === 1 ? 'row' : 'rows'}{' '}
            came to something else
          </button>{' '}
          when it was matched again; what was settled stayed.
        </p>
      )}
    </div>
  );
}
