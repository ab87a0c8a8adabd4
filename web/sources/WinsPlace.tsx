import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { PrecedenceAnswer } from '../../contract/own-values.ts';
import type { Job } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { useFormat } from '../app/format.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { JobProgress, useJob, useRunning } from '../ui/JobProgress.tsx';
import { jobEnded } from '../ui/job-ended.ts';
import { Roll } from '../ui/Roll.tsx';
import { SourceOrder } from './SourceOrder.tsx';
import { SubPlace } from './SubPlace.tsx';

type Group = PrecedenceAnswer['groups'][number];
type Rule = Pick<Group, 'group' | 'by' | 'sources'>;

const WAYS = { newest: 'checked last', exact: 'most exact', order: 'in my order' } as const;

/** What another precedence comes to, as its job counts it. */
interface Counted {
  several: number;
  companies: number;
  values: { part: string; count: number }[];
}

/** Which source wins where several know a value: by groups of fields, with what a change comes to before it is made. */
export function WinsPlace({ onLeave }: { onLeave(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ['precedence'],
    queryFn: ({ signal }) => call<PrecedenceAnswer>('GET', '/precedence', undefined, signal),
  });
  const [changed, setChanged] = useState<Partial<Record<Group['group'], Rule>>>({});
  const now = (data?.groups ?? []).map((group) => ({ ...group, ...changed[group.group] }));
  const rules = now.map(({ group, by, sources }): Rule => ({
    group,
    by,
    sources: by === 'order' ? sources : [],
  }));
  const before = (data?.groups ?? []).map(({ group, by, sources }): Rule => ({ group, by, sources }));
  const differs = JSON.stringify(rules) !== JSON.stringify(before);
  const put = (groups: readonly Rule[], apply: boolean) =>
    call<{ job: Job }>('PUT', '/precedence', { groups, apply });
  const counting = useMutation({ mutationFn: () => put(rules, false) });
  const applying = useMutation({
    mutationFn: async () => {
      const take = async (groups: readonly Rule[]) => {
        const { job } = await put(groups, true);
        await jobEnded(job);
      };
      const takeAnew = async (groups: readonly Rule[]) => {
        await take(groups);
        await client.invalidateQueries();
      };
      await take(rules);
      did('Values are taken by the new order', {
        name: 'which source wins',
        undo: () => takeAnew(before),
        redo: () => takeAnew(rules),
      });
      await client.invalidateQueries();
      setChanged({});
      counting.reset();
    },
  });
  const job = counting.data?.job.id ?? null;
  const running = useRunning(job);
  const { data: counted } = useJob(job);
  const result = (counted?.job.state === 'done' ? counted.job.result : null) as Counted | null;
  const change = (rule: Rule) => {
    setChanged({ ...changed, [rule.group]: rule });
    counting.reset();
  };
  const busy = running || counting.isPending || applying.isPending;
  return (
    <main className="flex min-h-0 flex-1">
      <SubPlace
        name="Which source wins"
        about="Where several sources know a value of a company, one of them is shown. Corrections by hand go before all."
        onLeave={onLeave}
      >
        <Trouble error={error} />
        {!data && !error && <p className="text-soft">Looking …</p>}
        {now.map(({ group, label, by, sources, ways }) => (
          <section key={group} aria-label={label} className="border-t border-rule py-2.5">
            <div className="flex flex-wrap items-center justify-between gap-3">
              <h2 className="font-semibold">{label}</h2>
              <Segments
                label={`Which wins: ${label}`}
                value={by}
                onChange={(way) => change({ group, by: way, sources: ordered(data!, sources) })}
                options={ways.map((key) => ({ key, label: WAYS[key] }))}
              />
            </div>
            {by === 'order' && (
              <SourceOrder
                of={label}
                sources={ordered(data!, sources).map((key) => data!.sources.find((one) => one.key === key)!)}
                onOrder={(order) => change({ group, by, sources: order })}
              />
            )}
          </section>
        ))}
      </SubPlace>
      <Roll
        title="What it changes"
        about={
          differs ? 'by what is chosen on the left' : 'Choose another way on the left to see what it changes.'
        }
        busy={busy}
        steps={
          result
            ? [
                {
                  key: 'several',
                  label: 'Companies of several sources',
                  delta: result.several,
                  total: result.several,
                },
                {
                  key: 'same',
                  label: 'Stay as they are',
                  delta: result.companies - result.several,
                  total: result.companies,
                },
              ]
            : []
        }
        foot={{ label: 'companies change', total: differs ? (result?.companies ?? null) : 0 }}
        below={
          <div className="px-4 py-2 pl-10 text-[13px]">
            {job && <JobProgress key={job} id={job} />}
            {result?.companies === 0 && <p>No value changes: the sources that win then say the same.</p>}
            {result && (
              <ul aria-label="Values that change">
                {result.values.map(({ part, count }) => (
                  <li key={part} className="flex justify-between border-b border-dashed border-edge/70 py-1">
                    <span>{part}</span>
                    <span className="figure">{format.number(count)}</span>
                  </li>
                ))}
              </ul>
            )}
            <Trouble error={counting.error ?? applying.error} />
          </div>
        }
      >
        <Button className="px-2" disabled={!differs || busy} onClick={() => counting.mutate()}>
          Count what changes
        </Button>
        <Button look="ink" className="px-2" disabled={!differs || busy} onClick={() => applying.mutate()}>
          {applying.isPending ? 'Taking over …' : 'Take over'}
        </Button>
        {differs && (
          <Button
            look="quiet"
            className="px-2"
            disabled={busy}
            onClick={() => {
              setChanged({});
              counting.reset();
            }}
          >
            Leave as it is
          </Button>
        )}
      </Roll>
    </main>
  );
}

/** All sources: those that were ordered, then the others. */
function ordered({ sources }: PrecedenceAnswer, first: readonly string[]): string[] {
  const known = new Set(sources.map(({ key }) => key));
  const named = first.filter((key) => known.has(key));
  return [...named, ...sources.map(({ key }) => key).filter((key) => !named.includes(key))];
}
