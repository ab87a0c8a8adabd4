import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { DOUBLES_JOB, type DoublesAnswer } from '../../../contract/matches.ts';
import type { Job } from '../../../contract/responses.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';

/**
 * Companies that several sources name differently: how many may be there twice, looking for them, and what is left to settle. While
 * they are looked for, what was found before is not led to: it goes when the search ends.
 * @param jobs all jobs that are known
 */
export function Doubles({ jobs }: { jobs: readonly Job[] }) {
  const format = useFormat();
  const client = useQueryClient();
  const looks = jobs.filter(({ title }) => title === DOUBLES_JOB);
  const ended = looks.filter(({ state }) => state !== 'running').length;
  const { data, error } = useQuery({
    queryKey: ['matches', 'doubles', ended],
    queryFn: ({ signal }) => call<DoublesAnswer>('GET', '/doubles', undefined, signal),
  });
  const look = useMutation({
    mutationFn: () => call<{ job: Job }>('POST', '/doubles'),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const looking = look.isPending || ended < looks.length;
  if (!data || (data.withoutNumber === 0 && data.joined === 0)) return <Trouble error={error} />;
  const { withoutNumber, joined, match } = data;
  return (
    <section className="mt-8" aria-label="Doubles">
      <h2 className="title border-b border-edge pb-1 text-[17px]">Doubles</h2>
      <Trouble error={look.error} />
      <div className="flex items-start gap-4 py-2.5">
        <p className="max-w-2xl">
          <span className="figure font-semibold">{format.number(withoutNumber)}</span>{' '}
          {withoutNumber === 1 ? 'company has' : 'companies have'} no registration number, so that another
          record may be the same company.
          {joined > 0 && (
            <>
              {' '}
              <span className="figure">{format.number(joined)}</span>{' '}
              {joined === 1 ? 'was joined to another.' : 'were joined to others.'}
            </>
          )}
          {looking && <span className="block text-soft">They are being looked for …</span>}
          {match && !looking && (
            <span className="block">
              {match.found + match.doubtful > 0 ? (
                <Link
                  to={`/sources?match=${encodeURIComponent(match.id)}`}
                  className="underline underline-offset-4"
                >
                  <span className="figure">{format.number(match.found)}</span> found
                  {match.doubtful > 0 && (
                    <>
                      , <span className="figure">{format.number(match.doubtful)}</span>{' '}
                      {match.doubtful === 1 ? 'pair' : 'pairs'} to settle
                    </>
                  )}
                </Link>
              ) : (
                'None was found'
              )}
              <span className="text-soft">, looked for {format.date(match.madeAt.slice(0, 10))}</span>
              {match.changed && <span className="text-unsure">; the universe has changed since</span>}
            </span>
          )}
        </p>
        <Button className="ml-auto" disabled={looking || withoutNumber === 0} onClick={() => look.mutate()}>
          {match ? 'Look again' : 'Look for doubles'}
        </Button>
      </div>
    </section>
  );
}
