import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { ExportView } from '../../contract/export-views.ts';
import type { Job } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { JobProgress } from '../ui/JobProgress.tsx';
import { exportsChanged } from './acts.ts';

type Rows = 'all' | 'changes' | 'plain';

/** An export made again from its tape as it is now: with what changed since, or as it was asked then. */
export function AgainDialog({ one, onClose }: { one: ExportView; onClose(): void }) {
  const client = useQueryClient();
  const format = useFormat();
  const compared = one.again === 'changes';
  const [rows, setRows] = useState<Rows>(compared ? 'all' : 'plain');
  const start = useMutation({
    mutationFn: () => call<{ export: string; job: Job }>('POST', `/exports/${one.id}/again`, { rows }),
    onSuccess: () => void client.invalidateQueries({ queryKey: ['exports'] }),
  });
  const day = format.date(one.madeAt.slice(0, 10));
  const ways: [Rows, string, string][] = [
    [
      'all',
      'All rows',
      `a column says what is new, changed or gone since ${day}; changed cells are marked in workbooks`,
    ],
    ['changes', 'Only what changed', 'new, changed and gone rows alone'],
    [
      'plain',
      'As it was asked',
      'without a word on what changed; what a receiver has had stays off again where that was asked',
    ],
  ];
  return (
    <Dialog title={`Make “${one.name}” again`} open onClose={onClose} width={560}>
      {start.data ? (
        <div className="space-y-3">
          <JobProgress
            id={start.data.job.id}
            onDone={() => {
              exportsChanged(client);
              window.location.assign(`/api/exports/${start.data.export}/file`);
            }}
          />
          <Button look="ink" onClick={onClose}>
            Close
          </Button>
        </div>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            start.mutate();
          }}
        >
          <fieldset className="space-y-2">
            <legend className="sr-only">Which rows</legend>
            {ways.map(([key, label, says]) => (
              <label key={key} className="flex items-baseline gap-2">
                <input
                  type="radio"
                  name="rows"
                  checked={rows === key}
                  disabled={key !== 'plain' && !compared}
                  onChange={() => setRows(key)}
                />
                <span>
                  {label} <span className="block text-[13px] text-soft">{says}</span>
                </span>
              </label>
            ))}
          </fieldset>
          {!compared && (
            <p className="mt-2 text-[13px] text-soft">
              What it handed over is not in the ledger, so nothing can be compared.
            </p>
          )}
          <Trouble error={start.error} />
          <div className="mt-4 flex justify-end gap-2">
            <Button onClick={onClose}>Cancel</Button>
            <Button look="ink" type="submit" autoFocus disabled={start.isPending}>
              Make it again
            </Button>
          </div>
        </form>
      )}
    </Dialog>
  );
}
