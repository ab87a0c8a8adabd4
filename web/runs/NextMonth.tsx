import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RunsAnswer } from '../../contract/runs.ts';
import { call } from '../api.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { JobProgress, useRunning } from '../ui/JobProgress.tsx';

/** Brings the demo to its next month, so that what runs has something to tell; nothing where the universe is one's own. Stands in a row that wraps: how far it is goes below. */
export function NextMonth({ month, onDone }: { month: RunsAnswer['month']; onDone(): void }) {
  const client = useQueryClient();
  const [job, setJob] = useState<string | null>(null);
  const running = useRunning(job);
  const begin = useMutation({
    mutationFn: () => call<{ job: { id: string } }>('POST', '/demo/month', {}),
    onSuccess: (begun) => setJob(begun.job.id),
  });
  if (!month) return null;
  return (
    <>
      <Trouble error={begin.error} />
      {job !== null && (
        <div className="order-last basis-full">
          <JobProgress
            key={job}
            id={job}
            onDone={() => {
              setJob(null);
              // Everything that is counted may be another.
              void client.invalidateQueries();
              onDone();
            }}
          />
        </div>
      )}
      {!running && (
        <Button
          look="quiet"
          disabled={begin.isPending}
          title="The scenario’s next refreshes: companies grow, move, close and are bought, people change posts"
          onClick={() => begin.mutate()}
        >
          Next month: {month.next}
        </Button>
      )}
    </>
  );
}
