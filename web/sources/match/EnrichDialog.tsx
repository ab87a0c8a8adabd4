import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { FilePart, MatchView } from '../../../contract/matches.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { isOwnColumn } from '../../../core/tape/own-columns.ts';
import { useFormat } from '../../app/format.ts';
import { ColumnChoice } from '../../desk/sheet/ColumnChoice.tsx';
import { useDesk } from '../../desk/store.ts';
import { Button, Dialog, Segments, Trouble } from '../../ui/controls.tsx';
import { fileOf, keepFile } from './use-match.ts';

/** The file as it was, with columns of the universe beside each row: which rows, and which columns. */
export function EnrichDialog({ match, onClose }: { match: MatchView; onClose(): void }) {
  const format = useFormat();
  const shown = useDesk((state) => state.columns.companies!);
  const [columns, setColumns] = useState<readonly string[]>(
    shown.filter((id) => !isOwnColumn(id) && id !== 'list'),
  );
  const [part, setPart] = useState<FilePart>('all');
  const make = useMutation({
    mutationFn: () => fileOf(match, part, [...columns]),
    onSuccess: ({ file }) => {
      keepFile(file, `${match.name}, with columns.csv`);
      onClose();
    },
  });
  const rows = match.rows - match.notData;
  return (
    <Dialog
      title="The file with columns"
      description="Your own columns as they came; then how each row was found, how sure that is, and what you choose here."
      open
      onClose={onClose}
    >
      <div className="space-y-3">
        <Segments
          label="Which rows"
          value={part}
          options={[
            { key: 'all', label: `All ${format.number(rows)} rows` },
            { key: 'found', label: `The ${format.number(match.found)} found` },
          ]}
          onChange={setPart}
        />
        <div className="rounded-md border border-edge">
          <ColumnChoice
            tape={emptyTape('companies')}
            columns={columns}
            tally={undefined}
            onColumns={(next) => setColumns(next.filter((id) => !isOwnColumn(id)))}
          />
        </div>
        <Trouble error={make.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave it</Button>
          <Button look="ink" disabled={make.isPending} onClick={() => make.mutate()}>
            {make.isPending
              ? 'Writing …'
              : `Write ${format.number(part === 'all' ? rows : match.found)} rows as CSV`}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
