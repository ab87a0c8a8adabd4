import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ExportTemplateView } from '../../contract/export-views.ts';
import { formatOf } from '../../core/exports/formats.ts';
import { columnFields, subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { useReceivers } from './make/ForWhom.tsx';
import { useTemplates } from './make/TemplateChoice.tsx';

type Row = ExportTemplateView & { kind: string };

/** Saved choices of files, and whom files went to. */
export function Templates({ head }: { head: React.ReactNode }) {
  const client = useQueryClient();
  const format = useFormat();
  const { data, error } = useTemplates();
  const { data: receivers } = useReceivers();
  const changed = () => client.invalidateQueries({ queryKey: ['export templates'] });
  const remove = useMutation({
    mutationFn: async (template: ExportTemplateView) => {
      let { id } = template;
      const { name, subject, fileName, file } = template;
      const go = async () => {
        await call('DELETE', `/export-templates/${id}`);
        await changed();
      };
      await go();
      did(`Removed the template “${name}”`, {
        name: `remove the template “${name}”`,
        undo: async () => {
          const made = await call<{ template: ExportTemplateView }>('POST', '/export-templates', {
            ...{ name, subject, fileName, file },
          });
          ({ id } = made.template);
          await changed();
        },
        redo: go,
      });
    },
  });
  const rows = (data?.templates ?? []).map((one): Row => ({ ...one, kind: one.ready ? 'ready' : 'own' }));
  const { sorted, order, setOrder } = useOrder<'name' | 'subject' | 'kind', Row>(rows, {
    by: 'kind',
    descending: false,
  });
  const [shown, setShown] = useState<string | null>(null);
  const headings = ({ subject, file }: ExportTemplateView) =>
    file.columns
      .map(
        (id) =>
          (file.headings?.[id] || file.computed?.find((one) => one.id === id)?.heading) ??
          columnFields(subject).find((field) => field.id === id)?.column?.heading ??
          id,
      )
      .join(', ');
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      {head}
      <p className="mt-3 text-soft">
        A template keeps columns, headings, file and whom it is for. It is chosen, and saved, where something
        is exported.
      </p>
      <Trouble error={error ?? remove.error} />
      <table className="mt-3 w-full" aria-label="Templates">
        <thead className="border-b border-edge text-[13px]">
          <tr>
            <SortHead by="name" label="Template" order={order} onOrder={setOrder} />
            <SortHead by="subject" label="Of" order={order} onOrder={setOrder} />
            <th className="py-2 pr-5 text-left font-semibold">File</th>
            <th className="py-2 pr-5 text-left font-semibold">Columns</th>
            <SortHead by="kind" label="Whose" order={order} onOrder={setOrder} />
            <th>
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((one) => (
            <tr key={one.id} className="border-b border-rule align-top">
              <td className="py-2 pr-5 font-semibold">{one.name}</td>
              <td className="py-2 pr-5">{subjectOf(one.subject).many}</td>
              <td className="py-2 pr-5 whitespace-nowrap">{formatOf(one.file.format).label}</td>
              <td className="max-w-md py-2 pr-5 text-[13px]">
                <button
                  type="button"
                  className={shown === one.id ? 'text-left' : 'line-clamp-1 text-left'}
                  onClick={() => setShown(shown === one.id ? null : one.id)}
                >
                  {headings(one)}
                </button>
                {one.file.needs && one.file.needs.length > 0 && (
                  <p className="text-soft">every row must have: {one.file.needs.join(', ')}</p>
                )}
              </td>
              <td className="py-2 pr-5 text-[13px] text-soft">
                {one.ready
                  ? 'ships with the program'
                  : `your own, ${format.date(one.changedAt!.slice(0, 10))}`}
              </td>
              <td className="py-1.5 text-right">
                {!one.ready && (
                  <Button look="quiet" aria-label={`Remove ${one.name}`} onClick={() => remove.mutate(one)}>
                    Remove
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="title mt-8 text-[18px]">Whom files went to</h2>
      {receivers && receivers.receivers.length === 0 && (
        <p className="mt-1 text-soft">Nobody yet. Whom a file is for is said where it is exported.</p>
      )}
      <ul aria-label="Whom files went to" className="mt-1">
        {(receivers?.receivers ?? []).map(({ key, name, exports, records, last }) => (
          <li key={key} className="flex gap-4 border-b border-rule py-1.5">
            <span className="min-w-0 flex-1 truncate font-semibold">{name}</span>
            <span>
              <span className="figure">{format.number(records)}</span> records in{' '}
              <span className="figure">{format.number(exports)}</span> {exports === 1 ? 'export' : 'exports'}
            </span>
            <span className="w-32 text-right text-soft">{format.date(last)}</span>
          </li>
        ))}
      </ul>
    </main>
  );
}
