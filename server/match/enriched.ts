import type { FilePart } from '../../contract/matches.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { csvText } from '../exports/csv-text.ts';
import { exportRows, ROWS_A_BATCH } from '../exports/export-rows.ts';
import type { Services } from '../services.ts';
import { modelOfMatch, rowsOfMatch, type RowsWish, type StoredRow } from '../tables/matches.ts';

/** A file as it came with columns of the universe beside: how each row was found, how sure that is, and what was asked for. */

const PARTS: Record<FilePart, RowsWish['states']> = {
  all: ['sure', 'settled', 'doubtful', 'none', 'twice', 'unreadable'],
  found: ['sure', 'settled'],
  left: ['doubtful', 'none', 'unreadable'],
};

/** How a row came to its company, in words. */
function wayOf({ state, by, twiceOf }: StoredRow): string {
  if (state === 'sure') return `sure, by ${by === 'name' ? 'name, place and phone' : by}`;
  if (state === 'settled') return 'settled by hand';
  if (state === 'twice') return `as row ${twiceOf}`;
  return state;
}

/**
 * The CSV, in pieces, some rows at a time.
 * @throws Problem before the first piece, where a column is none of companies
 */
export async function* enrichedCsv(
  { dir, matches }: Services,
  id: string,
  part: FilePart,
  fields: readonly string[],
  currency: string,
  asOf: number,
): AsyncGenerator<string> {
  for (const [i, field] of fields.entries())
    if (!fieldOf('companies', field)?.column)
      throw new Problem('unknown-column', `"${field}" is no column of companies.`, {
        field: `columns[${i}]`,
        value: field,
      });
  const { header } = modelOfMatch(matches, id);
  const columns = exportColumns('companies', fields, currency);
  const universe = openUniverse(dir, { readonly: true });
  try {
    const idOf = universe.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    const found = part === 'left' ? [] : [FOUND_AS, ...columns.map(({ heading }) => heading)];
    yield csvText([[...header, ...apart(['Match', 'Certainty', ...found], header)]], {
      delimiter: ',',
      bom: true,
    });
    // A row that is there twice has the company of the first.
    const companyOf = new Map<number, string>();
    for (let at = 0; ; at += ROWS_A_BATCH) {
      const rows = rowsOfMatch(matches, id, { states: PARTS[part], by: null }, at, ROWS_A_BATCH);
      if (rows.length === 0) break;
      for (const { row, state, key } of rows)
        if ((state === 'sure' || state === 'settled') && key !== null) companyOf.set(row, key);
      const keys = rows.map(({ row, twiceOf }) => companyOf.get(twiceOf ?? row) ?? null);
      const ids = keys.map((key) => (key === null ? undefined : idOf.get(key)));
      const known = Uint32Array.from(ids.filter((one) => one !== undefined));
      const cells = known.length ? exportRows(universe, 'companies', asOf, known, fields, {})(0) : [];
      if (known.length) universe.exec('COMMIT');
      let nth = 0;
      const lines = rows.map((row, i) => {
        const own = ids[i] === undefined ? null : cells[nth++]!;
        const certainty = row.state === 'settled' ? 1 : row.chance;
        return [
          ...header.map((_, c) => row.cells[c] ?? ''),
          wayOf(row),
          certainty === null ? '' : Number(certainty.toFixed(3)),
          ...(part === 'left'
            ? []
            : [keys[i] ?? '', ...columns.map((column) => (own ? (column.value(own) ?? '') : ''))]),
        ];
      });
      yield csvText(lines, { delimiter: ',' });
      await new Promise((resolve) => setImmediate(resolve));
    }
  } finally {
    universe.close();
  }
}

const FOUND_AS = 'Company key';

/** Headings that are told apart from those that the file has itself. */
const apart = (headings: readonly string[], header: readonly string[]): string[] =>
  headings.map((heading) => (header.includes(heading) ? `${heading} (universe)` : heading));
