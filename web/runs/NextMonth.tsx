import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { RunsAnswer } from '../../contract/runs.ts';
import { call } from '../api.ts';
import { Button } from '../ui/controls.tsx';
import { useJob } from '../ui/JobProgress.tsx';

/** Brings the demo to its next month, so that what runs has something to tell; nothing where the universe is one's own. */
export function NextMonth({ month, onDone }: { month: RunsAnswer['month']; onDone(): void }) {
  const client = useQueryClient();
  const [job, setJob] = useState<string | null>(null);
  const { data } = useJob(job);
  const running = job !== null && (data?.job.state ?? 'running') === 'running';
  const told = useRef<string | null>(null);
  useEffect(() => {
    if (!data || data.job.state === 'running' || told.current === data.job.id) return;
    told.current = data.job.id;
    if (data.job.state === 'failed') toast.error(data.job.message ?? 'The month could not be loaded.');
    // Everything that is counted may be another.
    void client.invalidateQueries();
    onDone();
  }, [data, client, onDone]);
  if (!month) return null;
  const begin = async () => {
    try {
      const { job: begun } = await call<{ job: { id: string } }>('POST', '/demo/month', {});
      setJob(begun.id);
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  return (
    <Button
      look="quiet"
      disabled={running}
      title="The scenario’s next refreshes: companies grow, move, close and are bought, people change posts"
      onClick={() => void begin()}
    >
      {running ? `Coming to ${month.next} …` : `Next month: ${month.next}`}
    </Button>
  );
}
