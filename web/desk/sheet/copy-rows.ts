import type { RowsAnswer } from '../../../contract/responses.ts';
import type { Row } from '../../../core/cells.ts';
import { exportColumns } from '../../../core/exports/columns.ts';
import { safeText } from '../../../core/exports/safe-text.ts';
import { isOwnColumn } from '../../../core/tape/own-columns.ts';
import { call } from '../../api.ts';
import { countedPart } from '../queries.ts';
import { isPicked, pickedCount } from '../picks.ts';
import { useDesk } from '../store.ts';
import type { ShownColumn } from './columns.ts';

/** Rows that fit on a clipboard without holding up the page; longer ones are for an export. */
export const MOST_COPIED = 20_000;
const ROWS_A_CALL = 1000;

/** The picked rows, or the row of the cursor where none is picked, as a table: a heading, then rows, cells by tabs. */
export async function rowsAsTable(
  columns: readonly ShownColumn[],
  currency: string,
  wanted: number,
): Promise<string> {
  const { tape, sort, picks, cursor } = useDesk.getState();
  const ids = columns.map(({ id }) => id);
  const read = (offset: number, limit: number) =>
    call<RowsAnswer>('POST', '/rows', { tape: countedPart(tape), sort, columns: ids, offset, limit });
  const rows: Row[] = [];
  const none = picks.mode === 'some' && pickedCount(picks, Infinity) === 0;
  if (none) rows.push(...(await read(cursor, 1)).rows);
  else
    for (let offset = 0; rows.length < wanted; offset += ROWS_A_CALL) {
      const page = await read(offset, ROWS_A_CALL);
      rows.push(...page.rows.filter(({ key }, i) => isPicked(picks, key, offset + i)));
      if (offset + ROWS_A_CALL >= page.total) break;
    }
  const headings = Object.fromEntries(
    columns.filter(({ id }) => isOwnColumn(id)).map(({ id, heading }) => [id, heading]),
  );
  const made = exportColumns(tape.subject, ids, currency, headings);
  const cell = (value: string | number | null) =>
    value === null ? '' : typeof value === 'number' ? String(value) : quoted(safeText(value));
  return [
    made.map(({ heading }) => heading),
    ...rows.map((row) => made.map((column) => cell(column.value(row)))),
  ]
    .map((cells) => cells.join('\t'))
    .join('\r\n');
}

/** A cell as spreadsheets read it from the clipboard: between quotes where it has breaks, tabs or quotes of its own. */
function quoted(text: string): string {
  return /["\t\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
