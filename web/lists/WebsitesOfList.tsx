import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ListView } from '../../contract/lists.ts';
import type { CategoryCounts, Job } from '../../contract/responses.ts';
import { SITE_STATES, type SiteState } from '../../core/records/record.ts';
import type { FieldLine } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { countedPart } from '../desk/queries.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { JobProgress, useJob, useRunning } from '../ui/JobProgress.tsx';
import { useOpenTape } from './open-list.ts';
import { columnsOfList, tapeOfList } from './use-lists.ts';
import { useDesk } from '../desk/store.ts';

const STATES: Readonly<Record<SiteState, { label: string; look: string }>> = {
  works: { label: 'answer', look: 'text-kept' },
  moved: { label: 'lead to another address', look: 'text-unsure' },
  parked: { label: 'only wait for a buyer', look: 'text-cut' },
  dead: { label: 'do not answer', look: 'text-cut' },
};

/** How the websites of a list's companies answered when they were last tried; each figure opens its companies. They can be tried anew. */
export function WebsitesOfList({ list }: { list: ListView }) {
  const format = useFormat();
  const client = useQueryClient();
  const openTape = useOpenTape();
  const tape = tapeOfList(list);
  const columns = useDesk((state) => state.columns.companies);
  const { data, error } = useQuery({
    queryKey: ['counts', countedPart(tape), 'site-state'],
    queryFn: ({ signal }) =>
      call<CategoryCounts>('POST', '/counts', { tape: countedPart(tape), field: 'site-state' }, signal),
    retry: false,
  });
  const trying = useMutation({
    mutationFn: () => call<{ job: Job }>('POST', '/websites/try', { list: list.key }),
  });
  const job = trying.data?.job.id ?? null;
  const running = useRunning(job);
  const { data: tried } = useJob(job);
  const notAllowed = (tried?.job.result as { notAllowed: number } | null | undefined)?.notAllowed ?? 0;
  const open = (line: Omit<FieldLine, 'id' | 'field'>, name: string) =>
    openTape(
      {
        ...tape,
        name: `${list.name}: ${name}`,
        lines: [...tape.lines, { id: 'l2', field: 'site-state', ...line }],
      },
      ['name', ...COLUMNS, ...columnsOfList(list, columns).filter((id) => !SHOWN_FIRST.has(id))],
    );
  const rows = SITE_STATES.map((state) => ({
    ...STATES[state],
    count: data?.values.find(({ key }) => key === state)?.count ?? 0,
    onOpen: () => open({ test: { any: [state] } }, STATES[state].label),
  }));
  const untried = {
    label: 'not tried, or without a website',
    look: 'text-soft',
    count: data?.unknown ?? 0,
    onOpen: () => open({ test: { any: [...SITE_STATES] }, not: true, unknown: 'keep' }, 'not tried'),
  };
  return (
    <section className="border-t border-edge py-2 pr-4 pl-10 text-[13px]">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="font-semibold">Websites</h3>
        <Button
          look="quiet"
          className="underline"
          disabled={running || trying.isPending || list.members === 0}
          onClick={() => trying.mutate()}
        >
          Try them
        </Button>
      </div>
      <Trouble error={error ?? trying.error} />
      {job && <JobProgress key={job} id={job} onDone={() => void client.invalidateQueries()} />}
      {notAllowed > 0 && (
        <p className="text-unsure">
          <span className="figure">{format.number(notAllowed)}</span> were not tried: their hosts are not
          among those that pages may be read from (Gather, Hosts).
        </p>
      )}
      {data && (
        <ul aria-label="Websites">
          {[...rows, untried]
            .filter(({ count }) => count > 0)
            .map(({ label, look, count, onOpen }) => (
              <li key={label} className={`flex justify-between ${look}`}>
                <span>{label}</span>
                <button
                  type="button"
                  className="figure underline underline-offset-4"
                  title="See these on the Desk"
                  onClick={onOpen}
                >
                  {format.number(count)}
                </button>
              </li>
            ))}
        </ul>
      )}
    </section>
  );
}

const COLUMNS = ['domain', 'site-state', 'site-moved-to', 'site-checked'];
const SHOWN_FIRST = new Set(['name', ...COLUMNS]);
