import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { MatchView } from '../../../contract/matches.ts';
import type { Job } from '../../../contract/responses.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Dialog, Trouble } from '../../ui/controls.tsx';
import { JobProgress, useRunning } from '../../ui/JobProgress.tsx';

/** Joining the doubles that are sure or settled. It is taken back company by company, on their profiles. */
export function DoublesActs({ match, onWeights }: { match: MatchView; onWeights(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const [asking, setAsking] = useState(false);
  const join = useMutation({ mutationFn: () => call<{ job: Job }>('POST', '/doubles/join') });
  const running = useRunning(join.data?.job.id ?? null);
  const what = match.found === 1 ? 'double' : 'doubles';
  return (
    <div className="w-full space-y-1.5">
      <Trouble error={join.error} />
      {join.data && (
        <JobProgress
          key={join.data.job.id}
          id={join.data.job.id}
          onDone={() => void client.invalidateQueries()}
        />
      )}
      {match.found > 0 && (
        <Button look="ink" disabled={join.isPending || running} onClick={() => setAsking(true)}>
          Join the {format.number(match.found)} {what}
        </Button>
      )}
      <Button look="quiet" className="-ml-1.5 text-[13px] underline" onClick={onWeights}>
        how it was weighed
      </Button>
      <Dialog
        title={`Join ${format.number(match.found)} ${what}?`}
        open={asking}
        onClose={() => setAsking(false)}
      >
        <p>
          Each becomes one company with the records of both; lists and notes follow it. This is not taken back
          by Ctrl Z: what was wrongly joined is taken apart on its profile, company by company.
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={() => setAsking(false)}>Leave them as they are</Button>
          <Button
            look="ink"
            onClick={() => {
              setAsking(false);
              join.mutate();
            }}
          >
            Join them
          </Button>
        </div>
      </Dialog>
    </div>
  );
}
