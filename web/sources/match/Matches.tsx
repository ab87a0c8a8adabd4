import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MatchView } from '../../../contract/matches.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { RemoveDialog } from '../../ui/RemoveDialog.tsx';
import { SortHead, useOrder } from '../../ui/SortHead.tsx';
import { useMatches } from './use-match.ts';

/** The files that were matched, with how much of each was found and what is left to settle. */
export function Matches() {
  const format = useFormat();
  const client = useQueryClient();
  const { data, error } = useMatches();
  const [removing, setRemoving] = useState<MatchView | null>(null);
  const { sorted, order, setOrder } = useOrder<'name' | 'madeAt' | 'toMatch' | 'doubtful', MatchView>(
    (data?.matches ?? []).filter(({ of }) => of === 'file'),
    { by: 'madeAt', descending: true },
  );
  const remove = useMutation({
    mutationFn: (id: string) => call('DELETE', `/matches/${encodeURIComponent(id)}`),
    onSettled: () => client.invalidateQueries({ queryKey: ['matches'] }),
  });
  if (!data || sorted.length === 0) return <Trouble error={error} />;
  return (
    <section className="mt-8">
      <h2 className="title border-b border-edge pb-1 text-[17px]">Matched files</h2>
      <Trouble error={error ?? remove.error} />
      <table className="w-full">
        <thead className="border-b border-edge text-[13px]">
          <tr>
            <SortHead by="name" label="File" order={order} onOrder={setOrder} />
            <SortHead by="toMatch" label="Rows to match" order={order} onOrder={setOrder} right />
            <th className="py-2 pr-6 text-left font-semibold">Found</th>
            <SortHead by="doubtful" label="To settle" order={order} onOrder={setOrder} right />
            <SortHead by="madeAt" label="Matched" order={order} onOrder={setOrder} />
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((match) => (
            <tr key={match.id} className="border-b border-rule align-top">
              <td className="py-2.5 pr-6">
                <Link
                  to={`/sources?match=${encodeURIComponent(match.id)}`}
                  className="font-semibold hover:underline"
                >
                  {match.name}
                </Link>
                <span className="block text-[12px] text-soft">{match.fileName}</span>
              </td>
              <td className="figure py-2.5 pr-6 text-right">{format.number(match.toMatch)}</td>
              <td className="py-2.5 pr-6">
                <Found match={match} />
              </td>
              <td className="figure py-2.5 pr-6 text-right">
                {match.doubtful > 0 ? (
                  <Link
                    to={`/sources?match=${encodeURIComponent(match.id)}`}
                    className="text-unsure underline underline-offset-4"
                  >
                    {format.number(match.doubtful)}
                  </Link>
                ) : (
                  <span className="text-soft">0</span>
                )}
              </td>
              <td className="py-2.5 pr-6 whitespace-nowrap">
                {format.date(match.madeAt.slice(0, 10))}
                {match.changed && (
                  <span className="block text-[12px] text-unsure">the universe has changed since</span>
                )}
              </td>
              <td className="py-2 text-right">
                <Button look="quiet" aria-label={`Remove ${match.name}`} onClick={() => setRemoving(match)}>
                  <Trash2 size={15} />
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <RemoveDialog
        name={removing?.name ?? null}
        onClose={() => setRemoving(null)}
        onRemove={() => remove.mutate(removing!.id)}
      >
        What was found for its <span className="figure">{format.number(removing?.toMatch ?? 0)}</span> rows
        goes, with the <span className="figure">{format.number(removing?.settled ?? 0)}</span> that were
        settled by hand. Lists that were made of it stay.
      </RemoveDialog>
    </section>
  );
}

/** How much of a file was found, as a bar: found, doubtful, none. */
function Found({ match: { found, doubtful, none, toMatch } }: { match: MatchView }) {
  const share = (count: number) => `${(100 * count) / Math.max(1, toMatch)}%`;
  return (
    <span className="flex items-center gap-3">
      <span className="flex h-2.5 w-36 border-b border-edge" aria-hidden="true">
        <span className="bg-kept" style={{ width: share(found) }} />
        <span className="unsure-bar" style={{ width: share(doubtful) }} />
        <span className="hatched" style={{ width: share(none) }} />
      </span>
      <span className="figure">{Math.round((100 * found) / Math.max(1, toMatch))} %</span>
    </span>
  );
}
