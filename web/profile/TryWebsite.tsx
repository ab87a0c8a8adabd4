import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Job } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { jobEnded } from '../ui/job-ended.ts';

/** Tries the website of one company now. */
export function TryWebsite({ companyKey }: { companyKey: string }) {
  const client = useQueryClient();
  const trying = useMutation({
    mutationFn: async () => {
      const { job } = await call<{ job: Job }>('POST', '/websites/try', { companies: [companyKey] });
      const { result } = await jobEnded(job);
      await client.invalidateQueries();
      return result as { notAllowed: number };
    },
  });
  return (
    <>
      <Button
        look="quiet"
        className="block text-[12px] underline"
        disabled={trying.isPending}
        onClick={() => trying.mutate()}
      >
        {trying.isPending ? 'trying …' : 'try it now'}
      </Button>
      {trying.data?.notAllowed ? (
        <p className="text-[12px] text-soft">
          It was not tried: its host is not among those that pages may be read from (Gather, Hosts).
        </p>
      ) : null}
      <Trouble error={trying.error} />
    </>
  );
}
