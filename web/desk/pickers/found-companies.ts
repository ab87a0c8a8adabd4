import { useQuery } from '@tanstack/react-query';
import type { JumpAnswer, RowsAnswer } from '../../../contract/responses.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { call } from '../../api.ts';

/** The names of some companies by key, as far as they have come. */
export function useNames(keys: readonly string[]): ReadonlyMap<string, string> {
  const { data } = useQuery({
    queryKey: ['named', keys],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        {
          tape: { ...emptyTape(), lines: [{ id: 'l1', field: 'company', test: { any: keys } }] },
          columns: ['name'],
          limit: 1000,
        },
        signal,
      ),
    enabled: keys.length > 0,
  });
  return new Map(data?.rows.map((row) => [row.key, row.cells.name as string]));
}

/** Companies, codes, towns and whatever else is found by words. */
export function useFound(text: string) {
  return useQuery({
    queryKey: ['jump', text],
    queryFn: ({ signal }) =>
      call<JumpAnswer>('GET', `/jump?text=${encodeURIComponent(text)}`, undefined, signal),
    enabled: text.trim() !== '',
  });
}
