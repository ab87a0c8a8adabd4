import { workerData } from 'node:worker_threads';
import type { FilePart } from '../../contract/matches.ts';
import type { Row } from '../../core/cells.ts';
import { SURE_BY_WORDS } from '../../core/match/outcome.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import { openMatches, openUniverse, type Db } from '../db/open.ts';
import { csvText } from '../exports/csv-text.ts';
import { exportSource, ROWS_A_BATCH } from '../exports/export-rows.ts';
import { runFeed } from '../feed.ts';
import { keyUnder } from '../tables/company-joins.ts';
import { rowsOfMatch, type RowsWish, type StoredRow } from '../tables/matches/rows.ts';
import { modelOfMatch, type MatchModel } from '../tables/matches/views.ts';

/** The thread that writes a file as it came with columns of the universe beside: how each row was found, how sure that is, and what was asked for. */

const PARTS: Record<FilePart, RowsWish['states']> = {
  all: ['sure', 'settled', 'doubtful', 'none', 'twice', 'unreadable'],
  found: ['sure', 'settled'],
  left: ['doubtful', 'none', 'unreadable'],
  fill: ['sure', 'settled', 'twice'],
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

/** A piece of the file; before the first, how many of the rows found are left out since their company is not there any more. */
export type EnrichedPiece = { leftOut: number } | { text: string };

/** Reads companies by their ids, at most ROWS_A_BATCH at a time, in the order of the ids. */
function companiesOf(universe: Db, asOf: number, fields: readonly string[]): (ids: number[]) => Row[] {
  const source = exportSource(universe, 'companies', asOf);
  return (ids) => (ids.length ? source.rows(Uint32Array.from(ids), [...fields]) : []);
}

const FOUND_AS = 'Company key';
/** The heading of names that a file without any is given, so that its rows can be loaded. */
const NAME_AS = 'Company';

/** Headings that are told apart from those that the file has itself. */
const apart = (headings: readonly string[], header: readonly string[]): string[] =>
  headings.map((heading) => (header.includes(heading) ? `${heading} (universe)` : heading));

const places = (header: readonly string[]): ReadonlyMap<string, number> =>
  new Map(header.map((heading, at) => [heading, at]));

/**
 * The headings of a file that fills in what it knows of the companies found, and its cells: those that came, with the key of each
 * company, and its name where the file has none.
 */
function filling({ header, mapping }: MatchModel) {
  const own = places(header);
  const nameAt = mapping.columns.indexOf('name');
  const nameOf = nameAt < 0 ? (own.get(NAME_AS) ?? null) : nameAt;
  const more = [...(nameOf === null ? [NAME_AS] : []), ...(own.has(FOUND_AS) ? [] : [FOUND_AS])];
  const at = places([...header, ...more]);
  return {
    header: [...header, ...more],
    cells(row: StoredRow, key: string, name: string): string[] {
      const cells = [...header.map((_, c) => row.cells[c] ?? ''), ...more.map(() => '')];
      const named = nameOf ?? at.get(NAME_AS)!;
      if (cells[named]!.trim() === '') cells[named] = name;
      cells[at.get(FOUND_AS)!] = key;
      return cells;
    },
  };
}

void runFeed<EnrichedPiece>((hand) => {
  const { dir, match, part, fields, currency, asOf } = workerData as EnrichedData;
  const matches = openMatches(dir, { readonly: true });
  const universe = openUniverse(dir, { readonly: true });
  const model = modelOfMatch(matches, match);
  const { header } = model;
  const columns = exportColumns('companies', fields, currency);
  const found = part === 'left' ? [] : [FOUND_AS, ...columns.map(({ heading }) => heading)];
  const fill = part === 'fill' ? filling(model) : null;
  const headings = fill ? fill.header : [...header, ...apart(['Match', 'Certainty', ...found], header)];
  const put = (text: string) => hand({ text });
  const companyUnder = universe.prepare<[string], { id: number; name: string }>(
    'SELECT id, name FROM company WHERE key = ?',
  );
  const keyNow = keyUnder(universe);
  // A row that is there twice has the company of the first; one that was joined to another is that one now.
  const companyOf = new Map(
    rowsOfMatch(matches, match, { states: ['sure', 'settled'], by: null }, 0, -1).map(({ row, key }) => [
      row,
      keyNow(key!) ?? key!,
    ]),
  );
  const keyOf = ({ row, twiceOf }: StoredRow) => companyOf.get(twiceOf ?? row) ?? null;
  /** The rows of the file, some at a time: a match may have very many. */
  const batches = function* () {
    for (let at = 0; ; at += ROWS_A_BATCH) {
      const rows = rowsOfMatch(matches, match, { states: PARTS[part], by: null }, at, ROWS_A_BATCH);
      if (rows.length === 0) return;
      yield rows;
    }
  };
  if (fill) {
    let leftOut = 0;
    for (const rows of batches())
      for (const row of rows) if (companyUnder.get(keyOf(row) ?? '') === undefined) leftOut++;
    hand({ leftOut });
  }
  put(csvText([headings], { delimiter: ',', bom: true }));
  const companies = companiesOf(universe, asOf, fields);
  for (const rows of batches()) {
    const keys = rows.map(keyOf);
    const known = keys.map((key) => (key === null ? undefined : companyUnder.get(key)));
    if (fill) {
      const filled = rows.flatMap((row, i) => (known[i] ? [fill.cells(row, keys[i]!, known[i].name)] : []));
      put(csvText(filled, { delimiter: ',' }));
      continue;
    }
    const shown = companies(known.flatMap((one) => (one ? [one.id] : [])));
    let nth = 0;
    put(
      csvText(
        rows.map((row, i) => {
          const own = known[i] === undefined ? null : shown[nth++]!;
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
