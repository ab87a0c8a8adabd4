import { workerData } from 'node:worker_threads';
import type { FilePart } from '../../contract/matches.ts';
import type { Row } from '../../core/cells.ts';
import { SURE_BY_WORDS } from '../../core/match/outcome.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import { openMatches, openUniverse, type Db } from '../db/open.ts';
import { csvText } from '../exports/csv-text.ts';
import { exportSource, ROWS_A_BATCH } from '../exports/export-rows.ts';
import { runFeed } from '../feed.ts';
import { rowsOfMatch, type RowsWish, type StoredRow } from '../tables/matches/rows.ts';
import { modelOfMatch } from '../tables/matches/views.ts';

/** The thread that writes a file as it came with columns of the universe beside: how each row was found, how sure that is, and what was asked for. */

const PARTS: Record<FilePart, RowsWish['states']> = {
  all: ['sure', 'settled', 'doubtful', 'none', 'twice', 'unreadable'],
  found: ['sure', 'settled'],
  left: ['doubtful', 'none', 'unreadable'],
};

/** How a row came to its company, in words. */
function wayOf({ state, by, twiceOf }: StoredRow): string {
  if (state === 'sure') return `sure, by ${SURE_BY_WORDS[by!]}`;
  if (state === 'settled') return 'settled by hand';
  if (state === 'twice') return `as row ${twiceOf}`;
  return state;
}

export interface EnrichedData extends Record<string, unknown> {
  dir: string;
  match: string;
  part: FilePart;
  fields: readonly string[];
  currency: string;
  asOf: number;
}

/** Reads companies by their ids, at most ROWS_A_BATCH at a time, in the order of the ids. */
function companiesOf(universe: Db, asOf: number, fields: readonly string[]): (ids: number[]) => Row[] {
  const source = exportSource(universe, 'companies', asOf);
  return (ids) => (ids.length ? source.rows(Uint32Array.from(ids), [...fields]) : []);
}

const FOUND_AS = 'Company key';

/** Headings that are told apart from those that the file has itself. */
const apart = (headings: readonly string[], header: readonly string[]): string[] =>
  headings.map((heading) => (header.includes(heading) ? `${heading} (universe)` : heading));

void runFeed<string>((put) => {
  const { dir, match, part, fields, currency, asOf } = workerData as EnrichedData;
  const matches = openMatches(dir, { readonly: true });
  const universe = openUniverse(dir, { readonly: true });
  const { header } = modelOfMatch(matches, match);
  const columns = exportColumns('companies', fields, currency);
  const found = part === 'left' ? [] : [FOUND_AS, ...columns.map(({ heading }) => heading)];
  put(
    csvText([[...header, ...apart(['Match', 'Certainty', ...found], header)]], { delimiter: ',', bom: true }),
  );
  const idOf = universe.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  // A row that is there twice has the company of the first.
  const companyOf = new Map(
    rowsOfMatch(matches, match, { states: ['sure', 'settled'], by: null }, 0, -1).map(({ row, key }) => [
      row,
      key!,
    ]),
  );
  const companies = companiesOf(universe, asOf, fields);
  for (let at = 0; ; at += ROWS_A_BATCH) {
    const rows = rowsOfMatch(matches, match, { states: PARTS[part], by: null }, at, ROWS_A_BATCH);
    if (rows.length === 0) break;
    const keys = rows.map(({ row, twiceOf }) => companyOf.get(twiceOf ?? row) ?? null);
    const ids = keys.map((key) => (key === null ? undefined : idOf.get(key)));
    const known = companies(ids.filter((one) => one !== undefined));
    let nth = 0;
    put(
      csvText(
        rows.map((row, i) => {
          const own = ids[i] === undefined ? null : known[nth++]!;
          const certainty = row.state === 'settled' ? 1 : row.chance;
          return [
            ...header.map((_, c) => row.cells[c] ?? ''),
            wayOf(row),
            certainty === null ? '' : Number(certainty.toFixed(3)),
            ...(part === 'left'
              ? []
              : [keys[i] ?? '', ...columns.map((column) => (own ? (column.value(own) ?? '') : ''))]),
          ];
        }),
        { delimiter: ',' },
      ),
    );
  }
  matches.close();
  universe.close();
});
