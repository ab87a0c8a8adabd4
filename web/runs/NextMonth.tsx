import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { RunsAnswer } from '../../contract/runs.ts';
import { call } from '../api.ts';
import { Button } from '../ui/controls.tsx';
import { useRunning } from '../ui/JobProgress.tsx';

/** Brings the demo to its next month, so that what runs has something to tell; nothing where the universe is one's own. */
export function NextMonth({ month, onDone }: { month: RunsAnswer['month']; onDone(): void }) {
  const client = useQueryClient();
  const [job, setJob] = useState<string | null>(null);
  const running = useRunning(job);
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !running) {
      // Everything that is counted may be another.
      void client.invalidateQueries();
      onDone();
    }
    was.current = running;
  }, [running, client, onDone]);
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
