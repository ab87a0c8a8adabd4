import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListView, OverlapAnswer } from '../../contract/lists.ts';
import { combinedCount, isWithin, type CombineWay } from '../../core/lists/combine.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { said } from '../app/history.ts';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { combineLists } from './acts.ts';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { NewListName } from './NewListName.tsx';

/** What a region is sorted by: its members, or whether those of a list are on it. */
type RegionOrder = 'count' | `list-${number}`;

/** Two to six lists made one: what they share is drawn and counted before. */
export function CombineDialog({
  lists: chosen,
  onClose,
  onMade,
}: {
  lists: readonly ListView[];
  onClose(): void;
  onMade(list: ListView): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const [lists, setLists] = useState(chosen);
  const [way, setWay] = useState<CombineWay>('without');
  const [judged, setJudged] = useState<'all' | 'in'>('all');
  const [stays, setStays] = useState<'true' | 'fixed'>('fixed');
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const parts = lists.map(({ key }, i) => ({
    list: key,
    ...(judged === 'in' && (i === 0 || way !== 'without') ? { verdict: ['in' as const] } : {}),
  }));
  const overlap = useQuery({
    queryKey: ['lists', 'overlap', parts],
    queryFn: ({ signal }) => call<OverlapAnswer>('POST', '/lists/overlap', { parts }, signal),
    retry: false,
  });
  const regions = overlap.data?.regions ?? [];
  const { sorted, order, setOrder } = useOrder<RegionOrder, Record<RegionOrder | 'at', number>>(
    regions.map((region, at) => ({
      ...Object.fromEntries(lists.map((_, i) => [`list-${i}` as const, Number(region.lists.includes(i))])),
      count: region.count,
      at,
    })),
    { by: 'count', descending: true },
  );
  const count = overlap.data ? combinedCount(way, regions, lists.length) : null;
  const most = Math.max(1, ...regions.map((region) => region.count));
  const names: Record<CombineWay, string> = {
    both: lists.length === 2 ? 'in both' : 'in all of them',
    either: 'in any',
    without: `${lists[0]!.name} without the other${lists.length > 2 ? 's' : ''}`,
    one: 'in exactly one',
  };
  const make = async () => {
    try {
      const list = await combineLists(client, { parts, way, name: name.trim(), stays: stays === 'true' });
      said(`${format.number(list.members)} on ${list.name}`);
      onMade(list);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <Dialog open title="Combine lists" description={`${lists.length} lists`} onClose={onClose} width={640}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '') void make();
        }}
      >
        <Segments
          label="Who is on it"
          value={way}
          onChange={setWay}
          options={(['both', 'either', 'without', 'one'] as const).map((key) => ({
            key,
            label: key === 'without' ? 'one without the other' : names[key],
          }))}
        />
        {way === 'without' && (
          <p className="flex items-center gap-2 text-[13px]">
            {names.without}
            <Button onClick={() => setLists([...lists.slice(1), lists[0]!])}>Begin with the next</Button>
          </p>
        )}
        <div className="overflow-x-auto">
          <table className="w-full" aria-label="Overlap">
            <thead>
              <tr className="border-b border-edge text-[12px]">
                {lists.map((list, i) => (
                  <SortHead
                    key={list.key}
                    by={`list-${i}`}
                    label={list.name}
                    order={order}
                    onOrder={setOrder}
                    short
                  />
                ))}
                <SortHead by="count" label="Members" order={order} onOrder={setOrder} right />
                <th>
                  <span className="sr-only">Drawn</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sorted.map(({ at }) => {
                const region = regions[at]!;
                const within = isWithin(way, region, lists.length);
                return (
                  <tr key={region.lists.join()} className="border-b border-rule">
                    {lists.map((list, i) => (
                      <td key={list.key} className="py-1 text-[13px]">
                        {region.lists.includes(i) ? 'on it' : <span className="text-soft">–</span>}
                      </td>
                    ))}
                    <td className="figure pr-5 text-right font-semibold">{format.number(region.count)}</td>
                    <td className="w-44 pl-3">
                      <span
                        className={`block h-2.5 ${within ? 'bg-kept' : 'border border-edge'}`}
                        style={{ width: `${(100 * region.count) / most}%` }}
                        title={within ? 'on the new list' : 'left out'}
                      />
                    </td>
                  </tr>
                );
              })}
              {overlap.data && regions.length === 0 && (
                <tr>
                  <td className="py-2 text-soft" colSpan={lists.length + 2}>
                    None of them has a member{judged === 'in' ? ' judged in' : ''}.
                  </td>
                </tr>
              )}
            </tbody>
          </table>
        </div>
        <div className="flex flex-wrap gap-3">
          <Segments
            label="Which members"
            value={judged}
            onChange={setJudged}
            options={[
              { key: 'all', label: 'all members' },
              { key: 'in', label: 'those judged in' },
            ]}
          />
          <Segments
            label="Whether it follows them"
            value={stays}
            onChange={setStays}
            options={[
              { key: 'fixed', label: 'as it is now' },
              { key: 'true', label: 'stays true' },
            ]}
          />
        </div>
        <p className="text-[13px] text-soft">
          {stays === 'true'
            ? 'Members come and go with those lists. Verdicts given here stay here.'
            : 'A list of its own from now on. Members keep all of their origins.'}
        </p>
        <NewListName name={name} off={count === null} onName={setName}>
          Make it of {count === null ? '…' : format.number(count)}
        </NewListName>
        <Trouble error={error ?? overlap.error} />
      </form>
    </Dialog>
  );
}
