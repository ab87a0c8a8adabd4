import type { ChangeOrder } from '../../core/runs/change-order.ts';
import type { ChangeKind } from '../../core/runs/kinds.ts';
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import type {
  BatchSearchView,
  ChangesAnswer,
  NoticesAnswer,
  PlanAnswer,
  RunsAnswer,
  RunView,
  WatchView,
} from '../../contract/runs.ts';
import { call } from '../api.ts';
import type { Order } from '../ui/SortHead.tsx';

/** While something runs, it is asked for so often, else so. */
const [BUSY_MS, CALM_MS] = [700, 15_000];

const isBusy = (state: string | undefined) => state === 'running' || state === 'waits';

/** What runs when, and what ran. */
export function useRuns() {
  return useQuery({
    queryKey: ['runs'],
    queryFn: ({ signal }) => call<RunsAnswer>('GET', '/runs', undefined, signal),
    refetchInterval: ({ state: { data } }) =>
      data?.plans.some(({ last }) => isBusy(last?.state)) ||
      data?.past.some(({ state }) => state === 'running')
        ? BUSY_MS
        : CALM_MS,
  });
}

/** A plan with its runs; nothing while none is named. */
export function usePlan(key: string | null) {
  return useQuery({
    queryKey: ['runs', 'plan', key],
    queryFn: ({ signal }) => call<PlanAnswer>('GET', `/plans/${key}`, undefined, signal),
    enabled: key !== null,
    retry: false,
    refetchInterval: ({ state: { data } }) =>
      data?.runs.some(({ state }) => isBusy(state)) ? BUSY_MS : CALM_MS,
  });
}

/** What changed at a run: the first of each kind. */
export function useChanges(
  run: RunView | null,
  what: ChangeKind,
  limit: number,
  order: Order<ChangeOrder> | null,
) {
  const asked = new URLSearchParams({ what, limit: String(limit) });
  if (order) asked.set('sort', order.by);
  if (order?.descending) asked.set('descending', 'true');
  return useQuery({
    queryKey: ['runs', 'changes', run?.id, asked.toString()],
    queryFn: ({ signal }) =>
      call<ChangesAnswer>('GET', `/runs/${run!.id}/changes?${asked.toString()}`, undefined, signal),
    enabled: run?.state === 'done' && run.comparedTo !== null,
  });
}

/** What parts a run from another of the same plan; nothing while none is named. */
export function useComparison(first: string | null, second: string | null) {
  return useQuery({
    queryKey: ['runs', 'compare', first, second],
    queryFn: ({ signal }) => call<ChangesAnswer>('POST', '/runs/compare', { first, second }, signal),
    enabled: first !== null && second !== null,
    retry: false,
  });
}

export function useSearches(run: RunView | null) {
  return useQuery({
    queryKey: ['runs', 'searches', run?.id, run?.state],
    queryFn: ({ signal }) =>
      call<{ searches: BatchSearchView[] }>('GET', `/runs/${run!.id}/searches`, undefined, signal),
    enabled: run !== null,
    refetchInterval: isBusy(run?.state) ? BUSY_MS : false,
  });
}

/** What there is to tell; asked for again and again, since it comes by itself. */
export function useNotices() {
  return useQuery({
    queryKey: ['notices'],
    queryFn: ({ signal }) => call<NoticesAnswer>('GET', '/notices', undefined, signal),
    refetchInterval: CALM_MS,
    retry: false,
  });
}

export function useWatches() {
  return useQuery({
    queryKey: ['watches'],
    queryFn: ({ signal }) =>
      call<{ watches: WatchView[] }>('GET', '/watches', undefined, signal).then(({ watches }) => watches),
  });
}

/** Has what is shown of runs asked for again. */
export function runsChanged(client: QueryClient): void {
  for (const queryKey of [['runs'], ['notices'], ['watches'], ['lists']])
    void client.invalidateQueries({ queryKey });
}

export function useRunsChanged(): () => void {
  const client = useQueryClient();
  return () => runsChanged(client);
}
