import type { QueryClient } from '@tanstack/react-query';
import type { ExportView } from '../../contract/export-views.ts';
import { call } from '../api.ts';
import { did } from '../app/history.ts';

/** Everything that shows what was exported, or rests on it. */
export function exportsChanged(client: QueryClient): void {
  for (const queryKey of [['exports'], ['receivers'], ['going out'], ['tally'], ['programs'], ['handed']])
    void client.invalidateQueries({ queryKey });
}

/** Removes an export, which can be taken back. */
export async function removeExport(client: QueryClient, { id, name }: ExportView): Promise<void> {
  const remove = async () => {
    await call('DELETE', `/exports/${id}`);
    exportsChanged(client);
  };
  await remove();
  did(`Removed “${name}”`, {
    name: `remove “${name}”`,
    undo: () => restoreExport(client, id),
    redo: remove,
  });
}

export async function restoreExport(client: QueryClient, id: string): Promise<void> {
  await call('POST', `/exports/${id}/restore`);
  exportsChanged(client);
}
