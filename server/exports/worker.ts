import { open } from 'node:fs/promises';
import { join } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { Row } from '../../core/cells.ts';
import { dayOf } from '../../core/dates.ts';
import type { ExportColumn } from '../../core/exports/field-columns.ts';
import { formatOf, type FormatId } from '../../core/exports/formats.ts';
import type { HowMade } from '../../core/exports/how-made.ts';
import { apart, fileName, machineNames } from '../../core/exports/names.ts';
import { Comparison, type Since } from '../../core/exports/since.ts';
import { openHandover } from '../db/open.ts';
import { feed } from '../feed.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadReferenceData } from '../reference.ts';
import { RecordKeys } from '../tables/keys.ts';
import { forgetHandover, readHandover, writeHandover } from '../tables/handover/ledger.ts';
import { csvMetadata, howFiles, meaningsOf } from './beside.ts';
import type { SheetChart } from './breakdown-sheet.ts';
import { csvText } from './csv-text.ts';
import type { CsvBatch, CsvWorkerData } from './csv-worker.ts';
import { PartFiles, type Split } from './parts.ts';
import { placeReader } from './places.ts';
import { columnsOf, exportedRows, ROWS_A_BATCH, rowsPreparer, type ExportedRows } from './prepare.ts';
import type { FileOptions, FileRow } from './writers/writer.ts';
import { WRITERS } from './writers/writers.ts';

/** The thread that writes an export, some rows at a time, so that memory does not grow with the list. */

export interface ExportWorkerData extends ExportedRows {
  export: string;
  /** The file, or the ZIP, that is to be. */
  path: string;
  format: FormatId;
  options: FileOptions;
  /** Whether what goes out stands in the ledger. */
  ledger: boolean;
  /** By a column as it is called in English, of the fields read for it. */
  split: (Split & { fields: string[] }) | null;
  /** Whether how it was made is put beside, where the format cannot hold it. */
  beside: boolean;
  /** An earlier export that this one repeats: all rows with what changed, or those alone that did. */
  since: { export: string; day: string; all: boolean } | null;
  receiver: { key: string; name: string };
  /** ISO day that stands in the names of files. */
  day: string;
  charts: SheetChart[];
  how: Omit<HowMade, 'columns'>;
}

export interface ExportResult extends Record<string, unknown> {
  count: number;
  roll: HowMade['roll'];
  files: number;
}

/** Threads that make CSV; one a core of the smallest machine meant. */
const CSV_THREADS = 2;

/** Rows that threads of their own would take longer to start for than to write. */
const FEW = 5000;

/** What is handed over, as the ledger keeps it. */
class Handed {
  readonly keys: string[] = [];
  private readonly prints: Uint32Array[] = [];

  add(keys: readonly string[], prints: Uint32Array): void {
    for (const key of keys) this.keys.push(key);
    this.prints.push(prints);
  }

  get all(): Uint32Array {
    const whole = new Uint32Array(this.prints.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const part of this.prints) {
      whole.set(part, at);
      at += part.length;
    }
    return whole;
  }
}

async function writeExport(data: ExportWorkerData): Promise<ExportResult> {
  const { format, path, how } = data;
  const { ending, carries } = formatOf(format);
  const columns = columnsOf(data);
  const since = data.since === null ? null : sinceOf(data, data.since, columns);
  const shown = since ? [...columns, changeColumn(data.since!.day)] : columns;
  const whole: HowMade = {
    ...how,
    roll: since ? [...how.roll, ...since.steps] : how.roll,
    count: since ? since.rows : how.count,
    columns: meaningsOf(data.subject, shown),
  };
  const title = fileName(how.name, data.day);
  const names = machineNames(shown);
  const handed = new Handed();
  let recorded = false;
  const parts = new PartFiles(
    `${path}.part`,
    await WRITERS[format](),
    {
      subject: data.subject,
      columns: shown,
      names,
      count: whole.count,
      how: whole,
      charts: data.charts,
      options: data.options,
      language: data.language,
    },
    title,
    ending,
  );
  try {
    const fast = format === 'csv' && data.split === null && since === null && data.ids.length > FEW;
    let files: string[];
    if (fast) {
      files = [`${title}.${ending}`];
      await writeCsv(join(`${path}.part`, files[0]!), data, columns, handed);
    } else {
      await writeRows(parts, data, since, handed);
      files = await parts.finish();
    }
    stopIfCancelled();
    const beside = carries || !data.beside ? [] : howFiles(whole, title);
    if (beside.length && format === 'csv')
      for (const file of files)
        beside.push({
          name: `${file}-metadata.json`,
          text: csvMetadata(file, shown, names, data.options, whole),
        });
    const made = await parts.whole(files, beside);
    // The ledger first: what stands in it without a file is taken out again at the next start, the other way round nobody would know.
    if (data.ledger) {
      record(data, names.slice(0, columns.length), handed);
      recorded = true;
    }
    parts.settle(made, path);
    tellProgress(whole.count, whole.count);
    return { count: whole.count, roll: whole.roll, files: files.length };
  } catch (error) {
    await parts.leave();
    if (recorded) forget(data);
    throw error;
  }
}

function forget({ dir, export: id }: ExportWorkerData): void {
  const db = openHandover(dir);
  forgetHandover(db, id);
  db.close();
}

function record(data: ExportWorkerData, columns: string[], handed: Handed): void {
  const db = openHandover(data.dir);
  try {
    const { subject, receiver } = data;
    writeHandover(
      db,
      {
        export: data.export,
        subject,
        receiver: receiver.key,
        day: dayOf(data.day)!,
        keys: handed.keys,
        columns,
        prints: handed.all,
      },
      receiver.name,
    );
  } finally {
    db.close();
  }
}

/** Writes what the CSV threads make, each every other batch, in order. */
async function writeCsv(
  path: string,
  data: ExportWorkerData,
  columns: readonly ExportColumn[],
  handed: Handed,
): Promise<void> {
  const { ids, options } = data;
  const file = await open(path, 'wx');
  const feeds = Array.from({ length: CSV_THREADS }, (_, part) =>
    feed<CsvBatch>('server/exports/csv-worker', {
      ...exportedRows(data),
      options,
      ...{ part, parts: CSV_THREADS },
    } satisfies CsvWorkerData),
  );
  try {
    await file.appendFile(csvText([apart(columns.map(({ heading }) => heading))], options));
    for (let batch = 0; batch * ROWS_A_BATCH < ids.length; batch++) {
      stopIfCancelled();
      tellProgress(batch * ROWS_A_BATCH, ids.length);
      const { value } = (await feeds[batch % CSV_THREADS]!.next()) as { value: CsvBatch };
      handed.add(value.keys, value.prints);
      await file.appendFile(value.text);
    }
  } finally {
    await Promise.all(feeds.map((one) => one.return(undefined)));
    await file.close();
  }
}

/** What changed since an earlier export, found before the first row is written, so that every count is known. */
interface FoundSince {
  rows: number;
  /** By place among the ids. */
  of(place: number): Since;
  gone: string[];
  steps: { label: string; delta: number; total: number; note: string }[];
  all: boolean;
}

function sinceOf(
  data: ExportWorkerData,
  { export: id, day, all }: NonNullable<ExportWorkerData['since']>,
  columns: readonly ExportColumn[],
): FoundSince {
  const db = openHandover(data.dir, { readonly: true });
  const earlier = readHandover(db, id);
  db.close();
  if (!earlier) throw new Error('The export that this one repeats is no longer in the ledger.');
  const comparison = new Comparison(earlier, machineNames(columns));
  const source = rowsPreparer(data);
  const found: Since[] = [];
  try {
    for (let at = 0; at < data.ids.length; at += ROWS_A_BATCH) {
      stopIfCancelled();
      tellProgress(at / 2, data.ids.length, 'Comparing');
      const { rows, prints } = source.at(at);
      rows.forEach(({ key }, i) => found.push(comparison.row(key, prints, i * columns.length)));
    }
  } finally {
    source.close();
  }
  const { needs, columns: asTable } = formatOf(data.format);
  // A row that only says that a record is gone has no address and no place.
  const gone = asTable && !needs ? comparison.gone() : [];
  const same = found.filter((one) => !one.fresh && one.changed.length === 0).length;
  const stays = all ? found.length : found.length - same;
  const steps = [
    ...(all || same === 0 ? [] : [{ label: 'The same', note: `as on ${day}`, delta: -same, total: stays }]),
    ...(gone.length
      ? [{ label: 'Gone', note: `since ${day}`, delta: gone.length, total: stays + gone.length }]
      : []),
  ];
  return { rows: stays + gone.length, of: (place) => found[place]!, gone, steps, all };
}

/** The column that says what became of a row since an earlier export. */
function changeColumn(day: string): ExportColumn {
  const heading = `Change since ${day}`;
  return {
    id: 'change',
    plain: heading,
    heading,
    kind: 'text',
    width: 30,
    value: (row) => (row.cells.change ?? null) as string | null,
  };
}

async function writeRows(
  parts: PartFiles,
  data: ExportWorkerData,
  since: FoundSince | null,
  handed: Handed,
): Promise<void> {
  const { ids, subject, split, format } = data;
  const columns = columnsOf(data);
  const source = rowsPreparer(data, split?.fields);
  const places = formatOf(format).subjects
    ? placeReader(source.db, subject, loadReferenceData().places)
    : null;
  const partOf = splitter(data);
  let nth = 0;
  const add = async (rows: FileRow[]) => {
    for (const [key, { label, rows: own }] of grouped(rows, (row) => partOf(row.row, nth++)))
      await parts.add(key, label, own);
  };
  try {
    for (let at = 0; at < ids.length; at += ROWS_A_BATCH) {
      stopIfCancelled();
      tellProgress(at, ids.length);
      const { rows, cells, prints } = source.at(at);
      const where = places?.(ids.subarray(at, at + ROWS_A_BATCH));
      handed.add(
        rows.map(({ key }) => key),
        prints,
      );
      const made = rows.map((row, i): FileRow => ({
        row,
        cells: cells[i]!,
        changed: null,
        place: where?.[i] ?? null,
      }));
      await add(since ? made.flatMap((row, i) => marked(row, since.of(at + i), columns, since.all)) : made);
    }
    if (since?.gone.length) await add(goneRows(data, since.gone, columns, source.db));
  } finally {
    source.close();
  }
}

/** A row with what changed of it; none where nothing did and only changes are wanted. */
function marked(row: FileRow, since: Since, columns: readonly ExportColumn[], all: boolean): FileRow[] {
  const changed = since.fresh ? [] : since.changed;
  if (!all && !since.fresh && changed.length === 0) return [];
  const words = since.fresh
    ? 'new'
    : changed.length
      ? `changed: ${changed.map((i) => columns[i]!.heading).join(', ')}`
      : null;
  row.row.cells.change = words;
  return [{ ...row, cells: [...row.cells, words], changed }];
}

/** Rows of records that were handed over and no longer pass: by their names as far as the universe still has them. */
function goneRows(
  { subject }: ExportWorkerData,
  keys: readonly string[],
  columns: readonly ExportColumn[],
  db: ReturnType<typeof rowsPreparer>['db'],
): FileRow[] {
  const records = new RecordKeys(db, subject);
  return keys.map((key) => {
    const name = records.find(key)?.name ?? null;
    const row: Row = { key, cells: { name, change: 'gone' } };
    const cells = columns.map(({ id, kind }) => (id === 'name' && kind === 'text' ? name : null));
    return { row, cells: [...cells, 'gone'], changed: [], place: null };
  });
}

/** Which file a row goes into. */
function splitter(data: ExportWorkerData) {
  const { split } = data;
  if (split === null) return () => ({ key: '', label: '' });
  if ('rows' in split)
    return (_row: Row, nth: number) => {
      const part = String(Math.floor(nth / split.rows) + 1);
      return { key: part, label: part };
    };
  const column = columnsOf({ ...data, fields: split.fields }).find(({ plain }) => plain === split.by)!;
  return (row: Row) => {
    const label = fileName(String(column.value(row) ?? 'unknown') || 'unknown', '');
    return { key: label, label };
  };
}

function grouped(rows: readonly FileRow[], partOf: (row: FileRow) => { key: string; label: string }) {
  const groups = new Map<string, { label: string; rows: FileRow[] }>();
  for (const row of rows) {
    const { key, label } = partOf(row);
    const group = groups.get(key);
    if (group) group.rows.push(row);
    else groups.set(key, { label, rows: [row] });
  }
  return groups;
}

void runJob(() => writeExport(workerData as ExportWorkerData));
