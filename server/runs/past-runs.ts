import type { PastRunView, RunState } from '../../contract/runs.ts';
import type { Job } from '../../contract/responses.ts';
import type { Services } from '../services.ts';
import { allExports } from '../tables/exports.ts';
import { planKind, planName } from '../tables/runs/plans.ts';
import { newestRuns, type RunRow } from '../tables/runs/runs.ts';

/** What ran: by plans, and without one, such as loads, matches, exports and gatherers by hand. */

const LISTED = 100;
const MOST_LOOKED_AT = 500;

const KINDS: Partial<Record<Job['kind'], PastRunView['kind']>> = {
  load: 'load',
  remove: 'remove',
  match: 'match',
  export: 'export',
  demo: 'demo',
  addresses: 'addresses',
};

const STATES: Readonly<Record<string, RunState>> = {
  running: 'running',
  paused: 'waits',
  asks: 'waits',
  done: 'done',
  stopped: 'cancelled',
};

/** The newest of them, the latest first. */
export function pastRuns(services: Services): PastRunView[] {
  const ofPlans = newestRuns(services.runs.db, MOST_LOOKED_AT);
  const carried = new Set(
    ofPlans.flatMap(({ carried_by }) =>
      Object.values(JSON.parse(carried_by ?? '{}') as Record<string, string>),
    ),
  );
  const found = [
    ...ofPlans.slice(0, LISTED).map((row) => ofPlan(services, row)),
    ...ofJobs(services, carried),
    ...ofGatherers(services, carried),
  ];
  return found.sort((a, b) => (a.startedAt < b.startedAt ? 1 : -1)).slice(0, LISTED);
}

function ofPlan({ runs }: Services, row: RunRow): PastRunView {
  const { id, plan, state, message, due_at, started_at, ended_at } = row;
  return {
    ...{ id, state, name: planName(runs.db, plan), kind: planKind(runs.db, plan), outcome: message ?? '' },
    startedAt: new Date(started_at ?? due_at).toISOString(),
    took: started_at === null || ended_at === null ? null : ended_at - started_at,
    ...{ progress: null, job: null, link: `/runs?plan=${encodeURIComponent(plan)}&run=${id}` },
  };
}

function ofJobs({ jobs, workspace }: Services, carried: ReadonlySet<unknown>): PastRunView[] {
  const exports = new Map(allExports(workspace).map((row) => [row.job_id, row]));
  return jobs.list().flatMap((job) => {
    const kind = KINDS[job.kind];
    if (!kind || carried.has(job.id)) return [];
    const refreshed = job.result?.refreshed !== undefined;
    return [
      {
        id: job.id,
        kind: refreshed ? ('refresh' as const) : kind,
        name: exports.get(job.id)?.name ?? job.title,
        state: job.state,
        startedAt: job.startedAt,
        took: job.endedAt === null ? null : Date.parse(job.endedAt) - Date.parse(job.startedAt),
        outcome: outcomeOf(job, exports.get(job.id)?.count ?? null),
        progress: job.state === 'running' ? { done: job.done, total: job.total } : null,
        job: job.id,
        link: linkOf(kind, job),
      },
    ];
  });
}

function linkOf(kind: PastRunView['kind'], job: Job): string | null {
  if (kind === 'export') return '/exports';
  if (kind === 'match')
    return typeof job.result?.match === 'string' ? `/sources?match=${job.result.match}` : '/sources';
  return kind === 'addresses' ? '/outreach' : '/sources';
}

/** What came of a job, in words. */
function outcomeOf({ state, message, result }: Job, count: number | null): string {
  if (state === 'failed') return message ?? 'failed';
  if (state === 'cancelled') return 'cancelled';
  if (state === 'running') return message ?? '';
  const n = (value: unknown) => Number(value).toLocaleString('en-GB');
  if (count !== null) return `${n(count)} rows`;
  const refreshed = result?.refreshed as
    { added: number; gone: number; changed: number; now: number } | undefined;
  if (refreshed)
    return `${n(refreshed.now)} records; ${n(refreshed.added)} new, ${n(refreshed.gone)} gone, ${n(refreshed.changed)} changed`;
  if (result?.read !== undefined)
    return `${n(result.read)} rows${Number(result.refused) > 0 ? `, ${n(result.refused)} refused` : ''}`;
  if (result?.rows !== undefined) return `${n(result.rows)} records`;
  return 'done';
}

function ofGatherers({ gather }: Services, carried: ReadonlySet<unknown>): PastRunView[] {
  return gather.db
    .prepare<
      [number],
      {
        id: string;
        gatherer: string;
        name: string;
        state: string;
        why: string | null;
        started_at: number;
        ended_at: number | null;
        records: number;
      }
    >(
      `SELECT r.id, r.gatherer, g.name, r.state, r.why, r.started_at, r.ended_at,
         (SELECT count(*) FROM gathered d WHERE d.run = r.id) AS records
       FROM run r JOIN gatherer g ON g.id = r.gatherer ORDER BY r.started_at DESC LIMIT ?`,
    )
    .all(LISTED)
    .filter(({ id }) => !carried.has(id))
    .map((row) => ({
      ...{ id: row.id, kind: 'gatherer' as const, name: row.name, state: STATES[row.state] ?? 'done' },
      startedAt: new Date(row.started_at).toISOString(),
      took: row.ended_at === null ? null : row.ended_at - row.started_at,
      outcome: row.why ?? `${row.records.toLocaleString('en-GB')} records`,
      ...{ progress: null, job: null, link: `/gather/${row.gatherer}` },
    }));
}
