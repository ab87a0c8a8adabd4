import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import type { GatherSpecBody } from '../../contract/gather.ts';
import type {
  GatherAnswer,
  GatheredAnswer,
  GathererAnswer,
  GatherRunAnswer,
  LookAnswer,
  RunPart,
} from '../../contract/gather-views.ts';
import { call } from '../api.ts';
import { record } from '../app/history.ts';

export const useGatherers = () =>
  useQuery({
    queryKey: ['gather'],
    queryFn: ({ signal }) => call<GatherAnswer>('GET', '/gather', undefined, signal),
    refetchInterval: ({ state }) =>
      state.data?.gatherers.some(({ run }) => run?.state === 'running') ? 1500 : false,
  });

export const useGatherer = (id: string) =>
  useQuery({
    queryKey: ['gatherer', id],
    queryFn: ({ signal }) => call<GathererAnswer>('GET', `/gather/gatherers/${id}`, undefined, signal),
  });

/** A run as it is now, asked for while it goes on. */
export const useRun = (id: string | null) =>
  useQuery({
    queryKey: ['gather run', id],
    queryFn: ({ signal }) => call<GatherRunAnswer>('GET', `/gather/runs/${id}`, undefined, signal),
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data?.run.state === 'running' ? 700 : false),
  });

/** Rows that are asked for at once. */
export const ROWS_AT_ONCE = 500;

export const useRunRows = (id: string, part: RunPart, search: number | null, running: boolean) =>
  useInfiniteQuery({
    queryKey: ['gathered', id, part, search],
    queryFn: ({ signal, pageParam }) =>
      call<GatheredAnswer>(
        'GET',
        `/gather/runs/${id}/rows?part=${part}&offset=${pageParam}&limit=${ROWS_AT_ONCE}${search === null ? '' : `&search=${search}`}`,
        undefined,
        signal,
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, { rows }) => sum + rows.length, 0);
      return shown < last.total ? shown : undefined;
    },
    placeholderData: (before) => before,
    refetchInterval: running ? 1000 : false,
  });

/** What a page comes to with what is taught; the answer before stays until the next is there. */
export const useLook = (page: number | null, spec: GatherSpecBody | undefined) =>
  useQuery({
    queryKey: ['look', page, spec],
    queryFn: ({ signal }) => call<LookAnswer>('POST', '/gather/look', { page, spec }, signal),
    enabled: page !== null && spec !== undefined,
    placeholderData: (before) => before,
    staleTime: Infinity,
  });

/** Changes what a gatherer reads: kept at once, shown at once, and taken back with everything else. */
export function useChangeSpec({ id, name, spec }: Pick<GathererAnswer, 'id' | 'name' | 'spec'>) {
  const client = useQueryClient();
  const write = async (next: { name: string; spec: GatherSpecBody }) => {
    client.setQueryData<GathererAnswer>(['gatherer', id], (now) => now && { ...now, ...next });
    try {
      const kept = await call<GathererAnswer>('PUT', `/gather/gatherers/${id}`, next);
      client.setQueryData(['gatherer', id], kept);
      void client.invalidateQueries({ queryKey: ['gather'] });
    } catch (error) {
      void client.invalidateQueries({ queryKey: ['gatherer', id] });
      throw error;
    }
  };
  return async (what: string, next: GatherSpecBody, named = name) => {
    await write({ name: named, spec: next });
    record({ name: what, undo: () => write({ name, spec }), redo: () => write({ name: named, spec: next }) });
  };
}
