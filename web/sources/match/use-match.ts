import { keepPreviousData, useInfiniteQuery, useQuery, type QueryClient } from '@tanstack/react-query';
import {
  LEFT_OUT,
  type FilePart,
  type MatchAnswer,
  type MatchesAnswer,
  type MatchListAnswer,
  type MatchPairAnswer,
  type MatchRowsAnswer,
  type MatchView,
  type RowSort,
  type RowState,
  type SettledAnswer,
} from '../../../contract/matches.ts';
import type { SureBy } from '../../../core/match/outcome.ts';
import { call } from '../../api.ts';
import { record } from '../../app/history.ts';
import type { Order } from '../../ui/SortHead.tsx';
import { listsChanged, noteMade } from '../../lists/acts.ts';

/** What is asked of matches, and what is done to them, each as a step that can be taken back. */

const path = (id: string) => `/matches/${encodeURIComponent(id)}`;

export function useMatches() {
  return useQuery({
    queryKey: ['matches'],
    queryFn: ({ signal }) => call<MatchesAnswer>('GET', '/matches', undefined, signal),
  });
}

export function useMatch(id: string) {
  return useQuery({
    queryKey: ['match', id],
    queryFn: ({ signal }) => call<MatchAnswer>('GET', path(id), undefined, signal),
    retry: false,
  });
}

/** A row with its candidates. */
export function usePair(id: string, row: number) {
  return useQuery({
    queryKey: ['match', id, 'pair', row],
    queryFn: ({ signal }) => call<MatchPairAnswer>('GET', `${path(id)}/rows/${row}`, undefined, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Rows of some states, as the roll's figures open them. */
export interface RowsShown {
  states: readonly RowState[];
  by: SureBy | null;
  /** Only those that moved when they were last matched again. */
  moved?: boolean;
}

const ROWS_A_PAGE = 200;

export function useMatchRows(
  id: string,
  { states, by, moved = false }: RowsShown,
  sort: Order<RowSort> = { by: 'row', descending: false },
) {
  return useInfiniteQuery({
    queryKey: ['match', id, 'rows', states, by, moved, sort],
    queryFn: ({ signal, pageParam }) =>
      call<MatchRowsAnswer>(
        'GET',
        `${path(id)}/rows?state=${states.join()}&by=${by ?? ''}&moved=${moved ? 1 : ''}&sort=${sort.by}&descending=${sort.descending ? 1 : ''}&offset=${pageParam}&limit=${ROWS_A_PAGE}`,
        undefined,
        signal,
      ),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, { rows }) => sum + rows.length, 0);
      return shown < last.total ? shown : undefined;
    },
  });
}

const changed = (client: QueryClient) =>
  Promise.all([
    client.invalidateQueries({ queryKey: ['match'] }),
    client.invalidateQueries({ queryKey: ['matches'] }),
  ]);

/** Settles rows; taking it back leaves them as they stood. */
export async function settle(
  client: QueryClient,
  match: MatchView,
  rows: SettledAnswer['before'],
  name: string,
): Promise<void> {
  const put = (list: SettledAnswer['before']) =>
    call<SettledAnswer>('PUT', `${path(match.id)}/rows`, { rows: list });
  const { before } = await put(rows);
  record({
    name,
    quiet: true,
    undo: async () => {
      await put(before);
      await changed(client);
    },
    redo: async () => {
      await put(rows);
      await changed(client);
    },
  });
  await changed(client);
}

/** Puts the companies found on a new list. */
export async function makeList(
  client: QueryClient,
  match: MatchView,
  name: string,
): Promise<MatchListAnswer> {
  const made = await call<MatchListAnswer>('POST', `${path(match.id)}/list`, { name });
  noteMade(client, made.list);
  await Promise.all([listsChanged(client), changed(client)]);
  return made;
}

/**
 * The file again: all of it, its rows that were found or those that were not, with columns of the universe beside; or, to fill in what
 * it knows, those found with the key of each company.
 */
export async function fileOf(
  match: MatchView,
  part: FilePart,
  columns: string[],
): Promise<{ file: Blob; leftOut: number }> {
  const response = await fetch(`/api${path(match.id)}/file`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ part, columns }),
  });
  if (!response.ok) {
    const { error } = (await response.json()) as { error: { message: string } };
    throw new Error(error.message);
  }
  return { file: await response.blob(), leftOut: Number(response.headers.get(LEFT_OUT) ?? 0) };
}

/** Hands a file to the browser to keep. */
export function keepFile(file: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
