import { useQueries, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { RowsAnswer } from '../../../contract/responses.ts';
import type { Row } from '../../../core/cells.ts';
import { call } from '../../api.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

const PAGE = 100;
const MOST_A_CALL = 1000;

/**
 * Rows of the tape at hand by position, fetched a page at a time as they come into view. While the
 * thumb is dragged, places pass faster than their rows can come: one place is asked for at a time,
 * the newest next, and until any row of the place in view is there the last rows seen stay.
 */
export function useRows(first: number, count: number, columns: readonly string[]) {
  const tape = countedPart(useDesk((state) => state.tape));
  const sort = useDesk((state) => state.sort);
  const client = useQueryClient();
  const list = JSON.stringify([tape.lines, sort]);
  const [asked, setAsked] = useState({ list, first, count });
  const pages: number[] = [];
  for (
    let page = Math.floor(asked.first / PAGE);
    page * PAGE < asked.first + Math.max(1, asked.count);
    page++
  )
    pages.push(page);
  const key = (page: number) => ['rows', tape, sort, columns, page] as const;
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: key(page),
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        call<RowsAnswer>('POST', '/rows', { tape, sort, columns, offset: page * PAGE, limit: PAGE }, signal),
      staleTime: 60_000,
      retry: false,
    })),
  });
  const byPage = new Map(pages.map((page, i) => [page, results[i]!.data]));
  const row = (at: number): Row | undefined =>
    byPage.get(Math.floor(at / PAGE))?.rows[at % PAGE] ??
    client.getQueryData<RowsAnswer>(key(Math.floor(at / PAGE)))?.rows[at % PAGE];

  const answered = results.every((result) => !result.isPending);
  if (asked.list !== list || (answered && (asked.first !== first || asked.count !== count)))
    setAsked({ list, first, count });
  const [seen, setSeen] = useState(first);
  const anyThere = Array.from({ length: count }, (_, i) => row(first + i)).some(Boolean);
  if (anyThere && seen !== first) setSeen(first);

  /** Keys of a run of rows, whether they were fetched or not. */
  const keysBetween = async (from: number, to: number): Promise<string[]> => {
    const keys: string[] = [];
    for (let offset = from; offset <= to; offset += MOST_A_CALL) {
      const answer = await call<RowsAnswer>('POST', '/rows', {
        tape,
        sort,
        columns: [],
        offset,
        limit: Math.min(MOST_A_CALL, to - offset + 1),
      });
      keys.push(...answer.rows.map((one) => one.key));
    }
    return keys;
  };
  return {
    row,
    /** The first row to draw. */
    first: anyThere || row(seen) === undefined ? first : seen,
    keysBetween,
    total: results.find((result) => result.data)?.data?.total,
    error: results.find((result) => result.error)?.error ?? null,
  };
}
