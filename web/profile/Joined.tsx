import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { JoinsAnswer } from '../../contract/matches.ts';
import type { Job } from '../../contract/responses.ts';
import { SURE_BY_WORDS } from '../../core/match/outcome.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { JobProgress, useRunning } from '../ui/JobProgress.tsx';
import { Section } from './parts.tsx';

const HOW = { ...SURE_BY_WORDS, hand: 'hand' };

/** Records that were another company before the two were found to be one, each to be taken apart again. */
export function Joined({ companyKey }: { companyKey: string }) {
  const format = useFormat();
  const client = useQueryClient();
  const path = `/companies/${encodeURIComponent(companyKey)}`;
  const { data } = useQuery({
    queryKey: ['company', companyKey, 'joins'],
    queryFn: ({ signal }) => call<JoinsAnswer>('GET', `${path}/joins`, undefined, signal),
    retry: false,
  });
  const apart = useMutation({
    mutationFn: (gone: string) => call<{ job: Job }>('POST', `${path}/apart`, { gone }),
  });
  const running = useRunning(apart.data?.job.id ?? null);
  if (!data?.joins.length) return null;
  return (
    <Section name="Joined" note="records that were companies of their own">
      {data.joins.map(({ gone, how, chance, person, at }) => (
        <div key={gone} className="flex items-baseline gap-3 border-b border-rule py-1.5">
          <span className="text-[13px]">
            by {HOW[how]}
            {chance !== null && (
              <>
                , <span className="figure">{chance.toFixed(2)}</span>
              </>
            )}
            <span className="text-soft">
              {' '}
              · {[person, format.date(at.slice(0, 10))].filter(Boolean).join(', ')}
            </span>
          </span>
          <Button
            look="quiet"
            className="ml-auto underline"
            disabled={apart.isPending || running}
            onClick={() => apart.mutate(gone)}
          >
            take apart
          </Button>
        </div>
      ))}
      <Trouble error={apart.error} />
      {apart.data && <JobProgress id={apart.data.job.id} onDone={() => void client.invalidateQueries()} />}
    </Section>
  );
}
