import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api.ts';
import { Button } from '../ui/controls.tsx';
import { JobProgress, useRunning } from '../ui/JobProgress.tsx';

/** A button that begins a job, and how far it is once it runs. */
export function JobButton({
  path,
  body,
  label,
  onDone,
}: {
  path: string;
  body?(): object;
  label: string;
  /** Called with what the job came to. */
  onDone(result: Record<string, unknown>): void;
}) {
  const [job, setJob] = useState<string | null>(null);
  const running = useRunning(job);
  const begin = async () => {
    try {
      const begun = await call<{ job: { id: string } }>('POST', path, body?.());
      setJob(begun.job.id);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  return (
    <>
      {!running && <Button onClick={() => void begin()}>{label}</Button>}
      {job !== null && (
        <div className="min-w-56 flex-1">
          <JobProgress
            key={job}
            id={job}
            onDone={({ job: { result } }) => {
              setJob(null);
              onDone(result ?? {});
            }}
          />
        </div>
      )}
    </>
  );
}
