import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ExportTemplateView } from '../../../contract/export-views.ts';
import { receiverOf } from '../../../core/exports/receiver.ts';
import { call } from '../../api.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { Chips } from './Chips.tsx';
import { fileWish, type ChosenFile } from './wish.ts';

export function useTemplates() {
  return useQuery({
    queryKey: ['export templates'],
    queryFn: ({ signal }) =>
      call<{ templates: ExportTemplateView[] }>('GET', '/export-templates', undefined, signal),
  });
}

const SHEET = 'sheet';

/** Saved choices of a file, and a way to save those made. */
export function TemplateChoice({
  subject,
  chosen,
  file,
  name,
  onSheet,
  onTemplate,
  onSaved,
}: {
  subject: string;
  /** Id of the template that was taken; null where the file is as the sheet. */
  chosen: string | null;
  file: ChosenFile;
  /** Of the export. */
  name: string;
  onSheet(): void;
  onTemplate(template: ExportTemplateView): void;
  onSaved(template: ExportTemplateView): void;
}) {
  const client = useQueryClient();
  const { data, error } = useTemplates();
  const [saving, setSaving] = useState<string | null>(null);
  const templates = (data?.templates ?? []).filter((one) => one.subject === subject);
  const own = templates.find(({ id, ready }) => id === chosen && !ready);
  const save = useMutation({
    mutationFn: (as: string) => {
      const body = {
        name: as.trim(),
        subject,
        fileName: name,
        file: fileWish(file, receiverOf(file.receiver).key),
      };
      return own && own.name === as.trim()
        ? call<{ template: ExportTemplateView }>('PUT', `/export-templates/${own.id}`, body)
        : call<{ template: ExportTemplateView }>('POST', '/export-templates', body);
    },
    onSuccess: ({ template }) => {
      setSaving(null);
      void client.invalidateQueries({ queryKey: ['export templates'] });
      onSaved(template);
    },
  });
  return (
    <div className="space-y-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        <Chips
          label="Template"
          value={chosen ?? SHEET}
          options={[
            { key: SHEET, label: 'as on the sheet' },
            ...templates.map(({ id, name: label, ready }) => ({
              key: id,
              label,
              title: ready ? 'Ships with the program' : 'Your own',
            })),
          ]}
          onChange={(id) => {
            const template = templates.find((one) => one.id === id);
            if (template) onTemplate(template);
            else onSheet();
          }}
        />
        {saving === null && (
          <Button look="quiet" className="text-[13px]" onClick={() => setSaving(own?.name ?? '')}>
            {own ? 'Save its changes' : 'Save as a template'}
          </Button>
        )}
      </div>
      {saving !== null && (
        <div className="flex items-center gap-1.5">
          <input
            autoFocus
            className="field w-56 py-1"
            aria-label="Name of the template"
            placeholder="Name of the template"
            maxLength={80}
            value={saving}
            onChange={(event) => setSaving(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter' || saving.trim() === '') return;
              event.preventDefault();
              save.mutate(saving);
            }}
          />
          <Button disabled={saving.trim() === '' || save.isPending} onClick={() => save.mutate(saving)}>
            Save
          </Button>
          <Button look="quiet" onClick={() => setSaving(null)}>
            Cancel
          </Button>
        </div>
      )}
      <Trouble error={error ?? save.error} />
    </div>
  );
}
