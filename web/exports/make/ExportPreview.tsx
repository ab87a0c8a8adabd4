import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { RowsAnswer } from '../../../contract/responses.ts';
import { exportColumns } from '../../../core/exports/columns.ts';
import type { SortKey, Tape } from '../../../core/tape/nodes.ts';
import { isOwnColumn } from '../../../core/tape/own-columns.ts';
import { readFor } from '../../../core/exports/computed.ts';
import { call } from '../../api.ts';
import { Trouble } from '../../ui/controls.tsx';
import { useTally } from '../../desk/queries.ts';
import { columnOf } from '../../desk/sheet/columns.ts';
import type { ChosenFile } from './wish.ts';

const ROWS = 3;

/** The first rows of an export as they will stand in the file. */
export function ExportPreview({
  wish,
  file,
}: {
  wish: { tape: Tape; sort: readonly SortKey[]; keys?: string[]; ranges?: unknown; except?: string[] };
  file: ChosenFile;
}) {
  const { columns: chosen, currency, ownCurrency, language, headings: custom = {}, computed = [] } = file;
  const columns = readFor(chosen, computed);
  const { data: tally } = useTally();
  const { data, error } = useQuery({
    queryKey: ['rows', 'preview', wish, columns],
    queryFn: ({ signal }) =>
      call<RowsAnswer>('POST', '/rows', { ...wish, columns, offset: 0, limit: ROWS }, signal),
    enabled: columns.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (error) return <Trouble error={error} />;
  if (!data || columns.length === 0) return null;
  const headings = Object.fromEntries(
    columns.filter(isOwnColumn).map((id) => [id, columnOf(wish.tape, id, tally)?.heading ?? id]),
  );
  const made = exportColumns(wish.tape.subject, chosen, currency, headings, {
    ...{ custom, language, computed, ownCurrency },
  });
  const rows = data.rows.filter((row) => columns.every((id) => id in row.cells));
  return (
    <div
      className="mt-2 overflow-x-auto rounded-md border border-rule"
      tabIndex={0}
      aria-label="The first rows"
    >
      <table className="text-[12px]">
        <thead>
          <tr className="border-b border-rule text-left">
            {made.map(({ heading }, i) => (
              <th key={i} className="px-2 py-1 font-semibold whitespace-nowrap">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key} className="border-b border-rule last:border-0">
              {made.map((column, i) => {
                const value = column.value(row);
                return (
                  <td
                    key={i}
                    className={
                      column.kind === 'text'
                        ? 'max-w-48 truncate px-2 py-1'
                        : 'figure px-2 py-1 text-right whitespace-nowrap'
                    }
                  >
                    {value}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
