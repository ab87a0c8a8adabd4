import { ExportBody } from '../../contract/exports.ts';
import type { Job } from '../../contract/responses.ts';
import { checked, HttpProblem } from '../http/check.ts';
import { stillThere } from '../programs/deliver.ts';
import type { Services } from '../services.ts';
import type { ExportRow } from '../tables/exports.ts';
import { handedExports } from '../tables/handover/ledger.ts';
import { startExport } from './make-export.ts';

/**
 * Makes an export again: plainly, all of it with what changed since, or only what changed.
 * @throws HttpProblem where what was asked, or what went out, is not kept
 */
export async function exportAgain(
  services: Services,
  row: ExportRow,
  rows: 'plain' | 'all' | 'changes',
): Promise<{ export: string; job: Job }> {
  const { handover } = services;
  if (row.wish === null)
    throw new HttpProblem(
      409,
      'no-wish',
      'This export was made before the program kept what was asked. Open its tape and export that.',
      { field: 'id', value: row.id },
    );
  const wish = checked(ExportBody, JSON.parse(row.wish) as object);
  if (rows !== 'plain' && !handedExports(handover).includes(row.id))
    throw new HttpProblem(
      409,
      'not-in-ledger',
      'What this export handed over is not in the ledger, so nothing can be compared.',
      {
        field: 'rows',
        value: rows,
        rule: 'plain',
      },
    );
  const { handed, deliver = {}, ...rest } = wish;
  const asked = Object.assign(new ExportBody(), {
    ...rest,
    // What went out before goes out again where the very point is what became of it.
    ...(rows === 'plain' && handed ? { handed } : {}),
    deliver: stillThere(handover, deliver),
  });
  const since = rows === 'plain' ? null : { day: row.made_at.slice(0, 10), all: rows === 'all' };
  return startExport(services, asked, { export: row.id, since });
}
