import { createWriteStream } from 'node:fs';
import { mkdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import { stringify } from 'csv-stringify';
import { isoOf } from '../../../core/dates.ts';
import { safeText } from '../../../core/exports/safe-text.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { rowsOfRun, typedOf } from '../../../core/runs/batch.ts';
import { fold } from '../../../core/text/fold.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { rolled } from '../../../core/lists/roll.ts';
import { asOfDay } from '../../days.ts';
import type { Services } from '../../services.ts';
import { allLists } from '../../tables/lists/list-rows.ts';
import {
  addBatchResult,
  batchById,
  batchResults,
  setBatchAt,
  type Batch,
  type BatchResult,
} from '../../tables/runs/batches.ts';
import { addFresh, changedKeys, noteSince, runBefore, setRunRoll } from '../../tables/runs/runs.ts';
import { allSavedTapes } from '../../tables/saved-tapes.ts';
import { readSettings } from '../../tables/workspace.ts';
import type { FoundSearch, SearchWish } from '../calls.ts';
import { stopIfLeft } from '../errand.ts';
import type { Carry, OwnErrand } from './carry.ts';
import { gathered } from './gatherer.ts';

/** Runs the searches of a sheet one after another, into a list, a list each, or a file, without anybody twice. */
export const runBatch: Carry = async (errand) => {
  const { services, plan } = errand;
  const batch = batchById(services.runs.db, plan.target.batch!);
  if (!batch)
    throw new Problem('unknown-batch', 'The sheet of searches is not there any more.', {
      field: 'target.batch',
    });
  if (plan.target.gatherer !== undefined) return wordsToGatherer(errand, batch);
  const { rows, next } = rowsOfRun(batch.rows.length, batch.at, plan.target.searchesEach ?? null);
  const results = new Results(errand);
  await results.begin();
  for (const row of rows) {
    stopIfLeft(errand);
    await results.search(batch, row);
  }
  const said = await results.end();
  setBatchAt(services.runs.db, batch.id, next);
  return said;
};

/** What a row asks, as the thread of runs is told it. */
export function searchOf(
  services: Pick<Services, 'workspace'>,
  batch: Batch,
  row: number,
  target: OwnErrand['plan']['target'],
): SearchWish & { text: string } {
  const cells = batch.rows[row]!;
  const text = (cells[target.search ?? 0] ?? '').trim();
  const more = typedOf(target.fields ?? [], cells);
  const saved = allSavedTapes(services.workspace).find(({ name }) => fold(name) === fold(text));
  return saved
    ? { text, typed: null, tape: JSON.parse(saved.body), more }
    : { text, typed: text === '' ? null : text, tape: null, more };
}

/** Words of a sheet, and places where a column holds them, to a gatherer; each pair of a row is a search of its own. */
async function wordsToGatherer(errand: OwnErrand, batch: Batch): Promise<string> {
  const { services, plan } = errand;
  const { search = 0, fields = [], searchesEach } = plan.target;
  const { rows, next } = rowsOfRun(batch.rows.length, batch.at, searchesEach ?? null);
  const place = fields[0]?.column;
  let total = 0;
  const byPlace = new Map<string, string[]>();
  for (const row of rows) {
    const cells = batch.rows[row]!;
    const [word, where] = [
      (cells[search] ?? '').trim(),
      place === undefined ? '' : (cells[place] ?? '').trim(),
    ];
    const result = {
      row,
      search: [word, where].filter(Boolean).join(', '),
      taken: null,
      added: null,
      tape: null,
    };
    if (word === '') {
      addBatchResult(services.runs.db, errand.run.id, {
        ...result,
        state: 'refused',
        found: null,
        said: 'The row has no word.',
      });
      continue;
    }
    byPlace.set(where, [...(byPlace.get(where) ?? []), word]);
    addBatchResult(services.runs.db, errand.run.id, {
      ...result,
      state: 'done',
      found: null,
      said: 'given to the gatherer',
    });
  }
  for (const [where, words] of byPlace)
    total += await gathered(errand, { words: [...new Set(words)], places: where ? [where] : [] });
  setBatchAt(services.runs.db, batch.id, next);
  return `${total.toLocaleString('en-GB')} records`;
}

/** Where what is found goes. */
class Results {
  private readonly errand: OwnErrand;
  private readonly seen = new Set<string>();
  private readonly steps: { step: string; label: string; note: string; delta: number }[] = [];
  private refused = 0;
  private subject = 'companies';
  private searches = 0;
  private list: string | null = null;
  private file: ReturnType<typeof stringify> | null = null;
  private written: Promise<void> | null = null;

  constructor(errand: OwnErrand) {
    this.errand = errand;
  }

  private get into() {
    return this.errand.plan.target.into ?? 'one-list';
  }

  private get name() {
    return (this.errand.plan.target.results || this.errand.plan.name).trim();
  }

  private get path() {
    return batchFile(this.errand.services.dir, this.errand.run.id);
  }

  async begin(): Promise<void> {
    if (this.into !== 'file') return;
    await mkdir(join(this.errand.services.dir, 'batches'), { recursive: true });
    this.file = stringify({
      header: true,
      columns: ['search', 'key', 'name', 'country', 'town', 'web', 'mail', 'phone'],
      bom: true,
    });
    const out = createWriteStream(`${this.path}.part`);
    this.file.pipe(out);
    this.written = finished(out);
    // What goes wrong is told at the end.
    this.written.catch(() => {});
  }

  async search(batch: Batch, row: number): Promise<void> {
    const { services, plan, run } = this.errand;
    const wish = searchOf(services, batch, row, plan.target);
    const note = (one: Omit<BatchResult, 'row' | 'search'>) =>
      addBatchResult(services.runs.db, run.id, { row, search: wish.text, ...one });
    let found: FoundSearch;
    try {
      found = await services.runs.counting.call('search', wish, plan.target.rowsEach ?? null);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      this.refused++;
      this.errand.say(`Row ${row + 2}, “${wish.text}”: ${error.message}`);
      return note({
        state: 'refused',
        found: null,
        taken: null,
        added: null,
        said: error.message,
        tape: null,
      });
    }
    this.searches++;
    this.subject = found.tape.subject;
    const fresh = found.keys.filter((key) => !this.seen.has(`${found.tape.subject} ${key}`));
    for (const key of fresh) this.seen.add(`${found.tape.subject} ${key}`);
    const added = found.keys.length === 0 ? 0 : await this.put(wish.text || found.words, found, fresh);
    addFresh(services.runs.db, run.id, `search ${row}`, fresh);
    this.steps.push({
      step: `joined search ${row}`,
      label: wish.text || found.words,
      note: this.noteOf(found, fresh.length),
      delta: fresh.length,
    });
    note({
      ...{ state: found.keys.length ? 'done' : 'empty', found: found.found, taken: found.keys.length, added },
      ...{ said: found.words, tape: JSON.stringify(found.tape) },
    });
  }

  private noteOf({ found, keys }: FoundSearch, fresh: number): string {
    const parts = [`${found.toLocaleString('en-GB')} found`];
    if (keys.length < found) parts.push(`the first ${keys.length.toLocaleString('en-GB')} taken`);
    if (fresh < keys.length) parts.push(`${(keys.length - fresh).toLocaleString('en-GB')} found before`);
    return parts.join(', ');
  }

  private async put(
    search: string,
    { tape, keys, words }: FoundSearch,
    fresh: readonly string[],
  ): Promise<number> {
    if (this.into === 'file') return this.write(search, tape.subject, fresh);
    const { services } = this.errand;
    const { lists, workspace } = services;
    const settings = readSettings(workspace);
    const name = this.into === 'one-list' ? this.name : `${this.name}: ${search}`;
    const list =
      this.into === 'one-list' && this.list
        ? this.list
        : await this.listNamed(name.slice(0, 120), tape.subject);
    if (this.into === 'one-list') this.list = list;
    const origin = {
      ...{ kind: 'tape' as const, what: search || words, tape: JSON.stringify(tape) },
      ...{ asOf: isoOf(asOfDay(settings)), person: settings.person },
    };
    return (await lists.change('addMembers', list, origin, { keys: [...keys] })).added;
  }

  /** A list of a name that takes members, made where there is none. */
  private async listNamed(name: string, subject: string): Promise<string> {
    const { lists, listsDb, workspace } = this.errand.services;
    const there = allLists(listsDb).find((one) => fold(one.name) === fold(name));
    if (there && there.subject !== subject)
      throw new Error(
        `The list ${there.name} holds ${there.subject}, and these searches find ${subject}. Name another list.`,
      );
    if (there) return there.key;
    const { key } = await lists.change('add', {
      name,
      subject,
      owner: readSettings(workspace).person,
      suppression: null,
    });
    return key;
  }

  private async write(search: string, subject: string, keys: readonly string[]): Promise<number> {
    if (subject !== 'companies')
      throw new Error(`A file of searches holds companies; “${search}” finds ${subject}.`);
    const find = this.errand.services.universe.prepare<[string], Record<string, string | null>>(
      `SELECT c.key, c.name, c.country, c.town, c.web, c.mail, c.phone FROM json_each(?) j CROSS JOIN company c ON c.key = j.value`,
    );
    for (let from = 0; from < keys.length; from += ROWS_A_WRITE) {
      const rows = find.all(JSON.stringify(keys.slice(from, from + ROWS_A_WRITE)));
      for (const row of rows)
        this.file!.write([search, ...Object.values(row)].map((cell) => safeText(cell ?? '')));
      if (this.file!.writableNeedDrain) await new Promise((resolve) => this.file!.once('drain', resolve));
    }
    return keys.length;
  }

  /** What is not as at the run before, where that asked the same: another stretch of the sheet finds others. */
  private sinceBefore(): void {
    const { run, plan, services } = this.errand;
    const { db } = services.runs;
    const last = runBefore(db, plan.key, run.nth);
    if (!last || searchesOf(batchResults(db, last.id)) !== searchesOf(batchResults(db, run.id))) return;
    const was = new Set(changedKeys(db, last.id, 'joined', null));
    const now = new Set(changedKeys(db, run.id, 'joined', null));
    const without = (some: ReadonlySet<string>, others: ReadonlySet<string>) =>
      [...some].filter((key) => !others.has(key));
    noteSince(db, run.id, { id: last.id, count: was.size }, without(now, was), without(was, now));
  }

  async end(): Promise<string> {
    const { run, services, carriedBy } = this.errand;
    if (this.file) {
      this.file.end();
      await this.written;
      await rename(`${this.path}.part`, this.path);
    }
    const roll = rolled(this.steps);
    setRunRoll(services.runs.db, run.id, roll, this.subject);
    this.sinceBefore();
    if (this.list) carriedBy({ list: this.list });
    const parts = [
      `${this.searches} searches`,
      `${roll.foot.toLocaleString('en-GB')} ${subjectOf(this.subject).many}`,
    ];
    if (this.refused) parts.push(`${this.refused} refused`);
    this.errand.say(parts.join(', '));
    return parts.join(', ');
  }
}

/** What each of a run's searches was, by row. */
const searchesOf = (results: readonly BatchResult[]) =>
  JSON.stringify(results.map(({ row, search }) => [row, search]));

const ROWS_A_WRITE = 1000;

/** Where the file of a batch's run lies. */
export function batchFile(dir: string, run: string): string {
  return join(dir, 'batches', `${run}.csv`);
}
