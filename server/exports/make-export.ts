import { nanoid } from 'nanoid';
import { join } from 'node:path';
import type { ExportBody, HandedBody } from '../../contract/exports.ts';
import type { FileWish } from '../../contract/file-wish.ts';
import type { Job } from '../../contract/responses.ts';
import { isoOf } from '../../core/dates.ts';
import { columnFields, fieldOf, subjectOf } from '../../core/fields/registry.ts';
import { checkComputed, COMPUTED, readFor } from '../../core/exports/computed.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import { formatOf, formatsFor, type FormatId } from '../../core/exports/formats.ts';
import { receiverOf } from '../../core/exports/receiver.ts';
import { exportRoll } from '../../core/exports/roll.ts';
import type { Roll } from '../../core/lists/roll.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { isOwnColumn } from '../../core/tape/own-columns.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay, todayOf } from '../days.ts';
import { calls } from '../engine/calls.ts';
import type { StoredUniverse } from '../engine/opening/stored-universe.ts';
import type { GoingWish } from '../engine/going-out.ts';
import type { Picks } from '../engine/subject-engine.ts';
import type { Services } from '../services.ts';
import { addExport, setExportResult, storedName, type ExportRow } from '../tables/exports.ts';
import { accuracyOfCheck, checksOf } from '../tables/lists/checks.ts';
import { toldSources } from '../tables/source.ts';
import { readSettings } from '../tables/workspace.ts';
import { checkDeliver, deliver } from '../programs/deliver.ts';
import { sheetCharts, type SheetChart } from './breakdown-sheet.ts';
import type { InMemory } from './export-rows.ts';
import type { ExportResult, ExportWorkerData } from './worker.ts';
import type { FileOptions } from './writers/writer.ts';

/** Starts exports, whoever asks for them: the interface, a template, a webhook or the command line. */

/** An export that another repeats. */
export interface Repeats {
  export: string;
  /** ISO day of the earlier one, and whether rows that stayed the same are there too; null for a plain repeat. */
  since: { day: string; all: boolean } | null;
}

/** Starts an export, which is listed, stands in the ledger and goes where it is to be delivered. */
export async function startExport(
  services: Services,
  wish: ExportBody,
  repeats: Repeats | null = null,
): Promise<{ export: string; job: Job }> {
  const { workspace, jobs, handover, programs } = services;
  const target = wish.deliver ?? {};
  checkDeliver(handover, target, wish.format, isZipped(wish));
  const { row, data, roll } = await prepareExport(services, wish, repeats);
  const job = jobs.start(
    'export',
    `Export ${row.name}`,
    'server/exports/worker',
    { ...data },
    async (result) => {
      const { count, roll: made } = result as ExportResult;
      const steps = made.map((step, i) => ({ ...step, step: roll.steps[i]?.step ?? `since-${i}` }));
      setExportResult(workspace, row.id, count, { steps, foot: count });
      if (!target.folders?.length && !target.hooks?.length) return;
      const ending = row.ending ?? formatOf(row.format).ending;
      await deliver(handover, target, { id: row.id, name: row.name, ending, path: data.path, rows: count });
      programs.post.wake();
    },
  );
  addExport(workspace, { ...row, job_id: job.id });
  return { export: row.id, job };
}

/** An export as it will be listed and what its thread is told. */
export async function prepareExport(
  services: Services,
  wish: ExportBody,
  repeats: Repeats | null,
): Promise<{ row: ExportRow; data: ExportWorkerData; roll: Roll }> {
  const { dir, workspace, universe, engine } = services;
  const tape = wish.tape as Tape;
  const computed = wish.computed ?? [];
  const columns = readFor(wish.columns, computed);
  checkComputedNames(wish);
  const { subject, headings } = await engine.call(calls.exportHeadings, [tape, columns]);
  checkFile(wish, subject);
  const along = wish.along ?? [];
  const going = goingWishOf(
    wish,
    along.map(({ list }) => list),
  );
  const [{ ids, figures }, wording, tally] = await Promise.all([
    engine.call(calls.goingOut, [tape, wish.sort, picksOf(wish), going]),
    engine.call(calls.wordsOf, [tape]),
    engine.call(calls.tally, [tape]),
  ]);
  const split = splitOf(wish);
  const own = await engine.call(calls.ownColumns, [tape, ids, [...columns, ...(split?.fields ?? [])]]);
  const settings = readSettings(workspace);
  const now = new Date();
  const day = isoOf(todayOf(now));
  const asOf = isoOf(asOfDay(settings));
  const roll = exportRoll(figures);
  const row: ExportRow = {
    ...{ id: nanoid(12), job_id: '', subject, format: wish.format, removed_at: null },
    ...{ count: null, made_at: now.toISOString(), person: settings.person },
    name: wish.name.replaceAll('{date}', day),
    ending: isZipped(wish) ? 'zip' : null,
    tape: JSON.stringify(tape),
    wording: JSON.stringify(wording),
    columns: JSON.stringify(wish.columns),
    picked: figures.picked ? figures.of : null,
    receiver: wish.receiver.trim(),
    template: wish.template ?? null,
    wish: JSON.stringify(wish),
    roll: JSON.stringify(roll),
    repeats: repeats?.export ?? null,
  };
  const data: ExportWorkerData = {
    ...{ dir, subject, computed, own, headings, ids, day, split, asOf },
    export: row.id,
    ledger: true,
    inMemory: inMemoryOf(engine.stored, subject, wish.format, columns),
    path: join(dir, 'exports', storedName(row)),
    format: wish.format,
    fields: wish.columns,
    custom: wish.headings ?? {},
    language: wish.language,
    currency: wish.currency,
    ownCurrency: wish.ownCurrency ?? false,
    receiver: receiverOf(wish.receiver),
    beside: wish.beside,
    since: repeats?.since ? { export: repeats.export, ...repeats.since } : null,
    charts: await chartsOf(services, wish, tape),
    options: optionsOf(wish),
    how: {
      ...{
        name: row.name,
        madeAt: row.made_at,
        person: row.person,
        receiver: row.receiver,
        picked: row.picked,
      },
      ...{ asOf, wording, tape: row.tape },
      many: capital(subjectOf(subject).many),
      count: ids.length,
      universe: tally.universe,
      roll: roll.steps.map(({ label, delta, total, note }) => ({ label, delta, total, note })),
      along: figures.off.flatMap(({ list, name, count, along: gone }) =>
        gone ? [{ name, count, reason: along.find((one) => one.list === list)!.reason }] : [],
      ),
      check: lastCheck(services, tape),
      sources: toldSources(universe),
    },
  };
  return { row, data, roll };
}

/** The columns that cells can be taken from. JSON Lines are read from the tables alone, to say of the unknown just what the API says. */
function inMemoryOf(
  stored: StoredUniverse | null,
  subject: string,
  format: FormatId,
  fields: readonly string[],
): InMemory | null {
  const own = subject === 'companies' ? stored : stored?.related.get(subject);
  if (!stored || !own || format === 'jsonl') return null;
  // Only what is needed goes to the thread: the arrays are shared, but the words beside them are copied.
  const columns = new Map([...own.columns].filter(([id]) => fields.includes(id)));
  return { ids: own.ids, columns, stamp: stored.stamp, revision: stored.revision };
}

/** Whether the file is one of several, or has something beside. */
function isZipped({ split, beside, format }: ExportBody): boolean {
  return split !== undefined || (beside && !formatOf(format).carries);
}

/** The charts of the Breakdown, one's own among them, where a workbook is to have them. */
async function chartsOf({ engine }: Services, wish: ExportBody, tape: Tape): Promise<SheetChart[]> {
  if (!wish.breakdown || wish.format !== 'xlsx') return [];
  const { charts } = await engine.call(calls.breakdown, [tape, wish.currency, undefined]);
  const own = tape.charts?.length
    ? await engine.call(calls.charts, [tape, tape.charts, wish.currency, undefined])
    : [];
  return sheetCharts([...own, ...charts], tape.subject);
}

function optionsOf(wish: ExportBody): FileOptions {
  const { delimiter, bom, quoteAll, decimalComma, lineEnd, paper, areas, letter } = wish;
  return {
    ...{ delimiter, bom, quoteAll, decimalComma, lineEnd, paper, areas },
    letter: { sender: letter?.sender ?? '', text: letter?.text ?? '', from: letter?.from ?? null },
  };
}

/** What keeps records off, as the counting threads are asked. */
export function goingWishOf(
  wish: {
    format?: FormatId;
    handed?: HandedBody;
    needs?: string[];
    sample?: { size: number; seed: number };
  },
  along: readonly string[],
): GoingWish {
  return {
    along,
    handed: wish.handed ? { receiver: wish.handed.receiver ?? null, days: wish.handed.days ?? null } : null,
    needs: wish.needs ?? [],
    reach: (wish.format && formatOf(wish.format).needs) ?? null,
    sample: wish.sample ?? null,
  };
}

/** What of a wish says which records are picked. */
export function picksOf({ keys, ranges, except }: Picks): Picks {
  return { ...(keys ? { keys } : {}), ...(ranges ? { ranges } : {}), ...(except?.length ? { except } : {}) };
}

/** @throws Problem where the file cannot be made of records of the subject */
export function checkFile(
  { format, columns, computed = [], split }: Pick<FileWish, 'format' | 'columns' | 'computed' | 'split'>,
  subject: string,
): void {
  if (!formatsFor(subject).some(({ id }) => id === format))
    throw new Problem('wrong-format', `${formatOf(format).label} cannot be made of ${subject}.`, {
      field: 'format',
      value: format,
      rule: `one of ${formatsFor(subject)
        .map(({ id }) => id)
        .join(', ')}`,
    });
  for (const one of computed) checkComputed(one, subject);
  const unknown = columns.find(
    (id) => !isOwnColumn(id) && !columnFields(subject).some((field) => field.id === id),
  );
  if (unknown !== undefined)
    throw new Problem('unknown-column', `There is no column "${unknown}" of ${subject}.`, {
      field: 'columns',
      value: unknown,
      rule: 'a field of the subject',
    });
  checkComputedNames({ columns, computed });
  if (split) {
    const ways = [split.by !== undefined, split.rows !== undefined].filter(Boolean).length;
    const known =
      split.by === undefined ||
      (split.field !== undefined &&
        fieldOf(subject, split.field)?.column &&
        exportColumns(subject, [split.field], 'EUR').some(({ plain }) => plain === split.by));
    if (ways !== 1 || !known)
      throw new Problem('wrong-split', 'It does not say how rows are shared out to files.', {
        field: 'split',
        value: split.by ?? split.rows,
        rule: 'a column with its field, or a number of rows',
      });
  }
}

/** @throws Problem where a computed column is not said how to make */
function checkComputedNames({ columns, computed = [] }: Pick<FileWish, 'columns' | 'computed'>): void {
  const unmade = columns.find((id) => id.startsWith(COMPUTED) && !computed.some((one) => one.id === id));
  if (unmade !== undefined)
    throw new Problem('unknown-column', `Nothing says how the column "${unmade}" is computed.`, {
      field: 'columns',
      value: unmade,
      rule: 'one of the columns under computed',
    });
}

function splitOf({ split }: ExportBody): ExportWorkerData['split'] {
  if (!split) return null;
  return split.rows === undefined
    ? { by: split.by!, fields: [split.field!] }
    : { rows: split.rows, fields: [] };
}

/** What the last spot check of a tape said, in words; null where none was judged. */
function lastCheck({ listsDb }: Services, tape: Tape): string | null {
  const check = checksOf(listsDb, tape).find(({ fit, misses }) => fit + misses > 0);
  if (!check) return null;
  const { share, low, high } = accuracyOfCheck(listsDb, check.id)!;
  const percent = (part: number) => Math.round(100 * part);
  return `${check.fit} of ${check.fit + check.misses} judged fit, of ${check.size} drawn on ${check.drawnAt.slice(0, 10)} with seed ${check.seed}: ${percent(share)} %, ${percent(low)} to ${percent(high)} % 19 times in 20`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
