import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ExportView } from '../../contract/responses.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { addressOf } from '../desk/address.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';

/** What was exported, with the tape that made it; each file can be had again. */
export function Exports() {
  const format = useFormat();
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ['exports'],
    queryFn: ({ signal }) => call<{ exports: ExportView[] }>('GET', '/exports', undefined, signal),
  });
  const remove = useMutation({
    mutationFn: (id: string) => call('DELETE', `/exports/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['exports'] }),
  });
  const [removing, setRemoving] = useState<ExportView | null>(null);
  const {
    sorted: exports,
    order,
    setOrder,
  } = useOrder<'name' | 'count' | 'madeAt', ExportView>(data?.exports ?? [], {
    by: 'madeAt',
    descending: true,
  });
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      <h1 className="title text-[25px]">Exports</h1>
      <p className="mt-1 text-soft">
        Every file with the tape that made it. Opening the tape shows what it would give now.
      </p>
      <Trouble error={error ?? remove.error} />
      {data && exports.length === 0 && (
        <div className="mt-8 rounded-lg border border-dashed border-edge p-8 text-center text-soft">
          Nothing was exported yet. On the{' '}
          <Link to="/desk" className="text-ink underline">
            Desk
          </Link>
          , Export or the key x writes the companies that are left.
        </div>
      )}
      {exports.length > 0 && (
        <table className="mt-5 w-full">
          <thead className="border-b border-edge text-[13px]">
            <tr>
              <SortHead by="name" label="Name" order={order} onOrder={setOrder} />
              <SortHead by="count" label="Companies" order={order} onOrder={setOrder} right />
              <th className="py-2 pr-4 text-left font-semibold">How it was made</th>
              <SortHead by="madeAt" label="Made" order={order} onOrder={setOrder} />
              <th className="py-2 text-left font-semibold">File</th>
              <th>
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {exports.map((one) => (
              <tr key={one.id} className="border-b border-rule align-top">
                <td className="max-w-60 py-2.5 pr-4 font-semibold break-words">{one.name}</td>
                <td className="figure py-2.5 pr-4 text-right">
                  {one.count === null ? '–' : format.number(one.count)}
                </td>
                <td className="max-w-md py-2.5 pr-4 text-[13px]">
                  <ul>
                    {one.wording.map((line, i) => (
                      <li key={i}>{line}</li>
                    ))}
                    {one.wording.length === 0 && <li>the whole universe</li>}
                  </ul>
                  <p className="text-soft">
                    {one.picked !== null && `${format.number(one.picked)} picked by hand · `}
                    {one.columns
                      .map(
                        (id) =>
                          fieldOf((one.tape as { subject?: string }).subject ?? 'companies', id)?.column
                            ?.heading ?? 'count',
                      )
                      .join(', ')}
                  </p>
                  <Link
                    to={addressOf({
                      tape: { format: 'just-tally.tape', version: 1, ...(one.tape as object) } as Tape,
                      sort: [],
                      openLine: null,
                      company: null,
                    })}
                    className="underline"
                  >
                    Open the tape
                  </Link>
                </td>
                <td className="py-2.5 pr-4 text-[13px] whitespace-nowrap">
                  {format.date(one.madeAt.slice(0, 10))}{' '}
                  <span className="figure text-soft">{new Date(one.madeAt).toTimeString().slice(0, 5)}</span>
                </td>
                <td className="w-52 py-2.5">
                  {one.bytes !== null ? (
                    <a
                      href={`/api/exports/${one.id}/file`}
                      className="inline-flex items-center gap-1.5 rounded-md border border-edge bg-paper px-2.5 py-1 hover:border-ink"
                    >
                      <Download size={14} /> {one.format.toUpperCase()}{' '}
                      <span className="figure text-[12px] text-soft">{format.bytes(one.bytes)}</span>
                    </a>
                  ) : one.job ? (
                    <JobProgress
                      id={one.job.id}
                      onDone={() => void client.invalidateQueries({ queryKey: ['exports'] })}
                    />
                  ) : null}
                </td>
                <td className="py-2 text-right">
                  <Button
                    look="quiet"
                    aria-label={`Remove ${one.name}`}
                    title="Remove the file and its entry"
                    onClick={() => setRemoving(one)}
                  >
                    <Trash2 size={15} />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <RemoveDialog
        name={removing?.name ?? null}
        onClose={() => setRemoving(null)}
        onRemove={() => remove.mutate(removing!.id)}
      >
        Its file and its entry here go; this cannot be undone. The tape that made it can still be opened and
        exported again.
      </RemoveDialog>
    </main>
  );
}
