import { useQueryClient } from '@tanstack/react-query';
import { Button } from '../../ui/controls.tsx';
import { JobProgress, useRunning } from '../../ui/JobProgress.tsx';

/** Starts a match, and shows how far it is until it is there. */
export function MatchIt({
  started,
  off,
  onStart,
  onMatched,
}: {
  /** The job that was begun; null before. */
  started: string | null;
  off: boolean;
  onStart(): void;
  onMatched(match: string): void;
}) {
  const client = useQueryClient();
  const running = useRunning(started);
  return (
    <div className="w-full">
      {started !== null && (
        <JobProgress
          id={started}
          onDone={({ job }) => {
            void client.invalidateQueries({ queryKey: ['matches'] });
            onMatched(job.result!.match as string);
          }}
        />
      )}
      <Button look="ink" disabled={off || running} onClick={onStart}>
        Match them
      </Button>
    </div>
  );
}
