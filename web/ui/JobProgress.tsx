import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { JobAnswer } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { Button, Trouble } from './controls.tsx';

/** A job as it is now, asked for until it has ended; nothing where there is none. */
export function useJob(id: string | null) {
  return useQuery({
    queryKey: ['job', id],
    queryFn: ({ signal }) => call<JobAnswer>('GET', `/jobs/${id}`, undefined, signal),
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data && state.data.job.state !== 'running' ? false : 300),
  });
}

/** Whether a job that was begun here has not ended yet. */
export function useRunning(id: string | null): boolean {
  const { data } = useJob(id);
  return id !== null && (!data || data.job.state === 'running');
}

/** A job as it runs: how far, how long still, and how to cancel it. Found again after a reload by its id. */
export function JobProgress({ id, onDone }: { id: string; onDone?(answer: JobAnswer): void }) {
  const { data, dataUpdatedAt } = useJob(id);
  const told = useRef(false);
  useEffect(() => {
    if (data?.job.state === 'done' && !told.current) {
      told.current = true;
      onDone?.(data);
    }
  }, [data, onDone]);
  if (!data) return <p className="text-soft">Starting …</p>;
  const { job } = data;
  if (job.state === 'failed') return <Trouble error={new Error(job.message ?? 'It failed.')} />;
  if (job.state === 'cancelled') return <p className="text-soft">{job.message}</p>;
  if (job.state === 'done') return <p className="text-kept">Done.</p>;
  const share = job.total ? job.done / job.total : null;
  const seconds = (dataUpdatedAt - Date.parse(job.startedAt)) / 1000;
  const left = share && share > 0.02 ? Math.ceil((seconds * (1 - share)) / share) : null;
  return (
    <div>
      <div
        role="progressbar"
        aria-label={job.title}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={share === null ? undefined : Math.round(share * 100)}
        className="h-2 overflow-hidden rounded bg-rule"
      >
        <div
          className="h-full bg-ink transition-[width] duration-200"
          style={{ width: `${(share ?? 0) * 100}%` }}
        />
      </div>
      <div className="mt-1 flex items-center justify-between text-[13px] text-soft">
        <span>
          {share !== null && <span className="figure">{Math.floor(share * 100)} %</span>} {job.message}{' '}
          {left !== null && left > 0 && `· about ${left} s left`}
        </span>
        <Button look="quiet" onClick={() => void call('POST', `/jobs/${id}/cancel`).catch(() => {})}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
