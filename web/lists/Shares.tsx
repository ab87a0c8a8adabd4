import { useQuery } from '@tanstack/react-query';
import type { ListShare, ListView } from '../../contract/lists.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { SortHead, useOrder } from '../ui/SortHead.tsx';

/** With how many are only on the list at hand, and only on the other. */
type Share = ListShare & { here: number; only: number };

/** Other lists that have some of the members of one: only here, both, only there, drawn to one scale. */
export function Shares({ list, onList }: { list: ListView; onList(key: string): void }) {
  const format = useFormat();
  const { data } = useQuery({
    queryKey: ['lists', 'shares', list.key],
    queryFn: ({ signal }) =>
      call<{ shares: ListShare[] }>(
        'GET',
        `/lists/${encodeURIComponent(list.key)}/shares`,
        undefined,
        signal,
      ).then(({ shares }) => shares),
    retry: false,
  });
  const { sorted, order, setOrder } = useOrder<'name' | 'here' | 'both' | 'only', Share>(
    (data ?? []).map((one) => ({ ...one, here: list.members - one.both, only: one.there - one.both })),
    { by: 'both', descending: true },
  );
  if (!data?.length) return null;
  const widest = Math.max(...data.map(({ both, there }) => list.members + there - both));
  const percent = (count: number) => `${(100 * count) / widest}%`;
  return (
    <section className="pt-5">
      <div className="flex items-baseline justify-between border-b border-edge pb-1">
        <h2 className="title text-[16px]">Lists that share its members</h2>
        <span className="text-[12px] text-soft">counted both ways, drawn to one scale</span>
      </div>
      <table className="w-full text-[13px]">
        <thead>
          <tr className="text-[12px] text-soft">
            <SortHead by="name" label="list" order={order} onOrder={setOrder} />
            <SortHead by="here" label="only here" right order={order} onOrder={setOrder} />
            <SortHead by="both" label="both" right order={order} onOrder={setOrder} />
            <SortHead by="only" label="only there" right order={order} onOrder={setOrder} />
            <th className="w-2/5">
              <span className="sr-only">drawn</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map(({ list: key, name, both, here, only }) => (
            <tr key={key} className="border-t border-rule">
              <td className="py-1">
                <button type="button" className="text-left hover:underline" onClick={() => onList(key)}>
                  {name}
                </button>
              </td>
              <td className="figure pr-5 text-right">{format.number(here)}</td>
              <td className="figure pr-5 text-right font-semibold">{format.number(both)}</td>
              <td className="figure pr-5 text-right">{format.number(only)}</td>
              <td className="pl-4">
                <span className="relative block h-4" aria-hidden="true">
                  <span
                    className="absolute top-1 h-1.5 border border-edge"
                    style={{ left: 0, width: percent(here) }}
                  />
                  <span
                    className="absolute top-0.5 h-3 bg-ink"
                    style={{ left: percent(here), width: percent(both), minWidth: 2 }}
                  />
                  <span
                    className="absolute top-2 h-1.5 border border-edge"
                    style={{ left: percent(list.members), width: percent(only) }}
                  />
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
