import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { ExportView } from '../../contract/export-views.ts';
import { formatOf } from '../../core/exports/formats.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { fold } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { exportsChanged, removeExport, restoreExport } from './acts.ts';
import { AgainDialog } from './AgainDialog.tsx';
import { ExportRoll } from './ExportRoll.tsx';

type By = 'name' | 'receiver' | 'count' | 'bytes' | 'madeAt';

/** Every export with whom it went to; the roll says how the selected one came to its rows. */
export function HandedOver({ head }: { head: React.ReactNode }) {
  const format = useFormat();
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ['exports'],
    queryFn: ({ signal }) => call<{ exports: ExportView[] }>('GET', '/exports', undefined, signal),
  });
  const [query] = useSearchParams();
  const [search, setSearch] = useState(query.get('find') ?? '');
  const [selected, setSelected] = useState<string | null>(null);
  const [again, setAgain] = useState<ExportView | null>(null);
  const [forgetting, setForgetting] = useState<ExportView | null>(null);
  const remove = useMutation({ mutationFn: (one: ExportView) => removeExport(client, one) });
  const restore = useMutation({ mutationFn: (id: string) => restoreExport(client, id) });
  const forget = useMutation({
    mutationFn: (id: string) => call('DELETE', `/exports/${id}?forget=true`),
    onSuccess: () => exportsChanged(client),
  });
  const all = data?.exports ?? [];
  const removed = all.filter(({ removedAt }) => removedAt !== null);
  const wanted = fold(search.trim());
  const shown = all.filter(
    ({ removedAt, name, receiver, template, wording }) =>
      removedAt === null && fold([name, receiver, template ?? '', ...wording].join(' ')).includes(wanted),
  );
  const { sorted, order, setOrder } = useOrder<By, ExportView>(shown, { by: 'madeAt', descending: true });
  const current = sorted.find(({ id }) => id === selected) ?? sorted[0] ?? null;
  const none = data && all.length === removed.length;
  return (
    <div className="flex min-h-0 flex-1">
      <main className="min-h-0 min-w-0 flex-1 overflow-auto px-5 pt-4 pb-6">
        {head}
        <Trouble error={error ?? remove.error ?? restore.error ?? forget.error} />
        {none ? (
          <div className="mt-8 rounded-lg border border-dashed border-edge p-8 text-center text-soft">
            Nothing was exported yet. On the{' '}
            <Link to="/desk" className="text-ink underline">
              Desk
            </Link>
            , Export or the key x writes the companies that are left.
          </div>
        ) : (
          <>
            <input
              type="search"
              className="field mt-3 w-80"
              placeholder="Find by name, receiver, template or line"
              aria-label="Find an export"
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
            <table className="mt-2 w-full" aria-label="Exports">
              <thead className="border-b border-edge text-[13px]">
                <tr>
                  <SortHead by="name" label="Name" order={order} onOrder={setOrder} />
                  <SortHead by="receiver" label="For" order={order} onOrder={setOrder} />
                  <SortHead by="count" label="Rows" order={order} onOrder={setOrder} right />
                  <SortHead by="madeAt" label="Made" order={order} onOrder={setOrder} />
                  <SortHead by="bytes" label="File" order={order} onOrder={setOrder} />
                </tr>
              </thead>
              <tbody>
                {sorted.map((one) => (
                  <tr
                    key={one.id}
                    className={
                      one === current
                        ? 'border-b border-rule bg-picked align-top'
                        : 'border-b border-rule align-top hover:bg-ground'
                    }
                    onClick={() => setSelected(one.id)}
                  >
                    <td className="max-w-72 py-2 pr-4 pl-1">
                      <button
                        type="button"
                        className="text-left font-semibold break-words"
                        aria-pressed={one === current}
                        onClick={() => setSelected(one.id)}
                      >
                        {one.name}
                      </button>
                      <p className="truncate text-[13px] text-soft" title={one.wording.join('; ')}>
                        {one.wording.join('; ') || `all ${subjectOf(one.subject).many}`}
                      </p>
                    </td>
                    <td className="max-w-36 py-2 pr-4">
                      <span className="block truncate">
                        {one.receiver || <span className="text-soft">not said</span>}
                      </span>
                      <span className="block truncate text-[13px] text-soft">{one.template}</span>
                    </td>
                    <td className="figure py-2 pr-5 text-right">
                      {one.count === null ? '–' : format.number(one.count)}
                    </td>
                    <td className="py-2 pr-4 text-[13px] whitespace-nowrap">
                      {format.date(one.madeAt.slice(0, 10))}{' '}
                      <span className="figure text-soft">
                        {new Date(one.madeAt).toTimeString().slice(0, 5)}
                      </span>
                      <span className="block text-soft">{one.person}</span>
                    </td>
                    <td className="w-36 py-2 pr-1 text-[13px]">
                      {one.bytes !== null ? (
                        <a href={`/api/exports/${one.id}/file`} className="underline">
                          {formatOf(one.format).label}
                          {one.ending === 'zip' && ', ZIP'}{' '}
                          <span className="figure block text-[12px] text-soft">
                            {format.bytes(one.bytes)}
                          </span>
                        </a>
                      ) : one.job ? (
                        <JobProgress id={one.job.id} onDone={() => exportsChanged(client)} />
                      ) : null}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {data && sorted.length === 0 && <p className="mt-4 text-soft">No export with these words.</p>}
          </>
        )}
        {removed.length > 0 && (
          <details className="mt-6">
            <summary className="cursor-pointer text-soft">Lately removed: {removed.length}</summary>
            <ul aria-label="Lately removed" className="mt-2">
              {removed.map((one) => (
                <li key={one.id} className="flex items-center gap-3 border-b border-rule py-1.5">
                  <span className="min-w-0 flex-1 truncate">
                    {one.name}{' '}
                    <span className="text-[13px] text-soft">
                      removed {format.date(one.removedAt!.slice(0, 10))}; kept for 30 days
                    </span>
                  </span>
                  <Button onClick={() => restore.mutate(one.id)}>Bring back</Button>
                </li>
              ))}
            </ul>
          </details>
        )}
      </main>
      <ExportRoll
        one={current}
        onAgain={setAgain}
        onRemove={(one) => remove.mutate(one)}
        onForget={setForgetting}
      />
      {again && <AgainDialog one={again} onClose={() => setAgain(null)} />}
      <RemoveDialog
        name={forgetting?.name ?? null}
        onClose={() => setForgetting(null)}
        onRemove={() => forget.mutate(forgetting!.id)}
      >
        It goes from the ledger, as if nobody had been given it: what it held counts as handed over no longer,
        and that cannot be undone. The file can be brought back for 30 days.
      </RemoveDialog>
    </div>
  );
}
