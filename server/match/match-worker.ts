import { statSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import { readyFirm, type Firm } from '../../core/match/firm.ts';
import { sameRow } from '../../core/match/same-row.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { firmReader } from '../../core/records/read-firm.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { dataRows, type FileReading } from '../load/read-file.ts';
import { loadGazetteer } from '../reference.ts';
import { keepMatch, tellMatching } from './keep-match.ts';
import { matchUniverse } from './match-universe.ts';
import { isFreeMail } from '../free-mail.ts';

/** The thread that lines a file up with the universe; what it comes to is written at once, at its end. */

export interface MatchJobData extends Record<string, unknown> {
  dir: string;
  path: string;
  reading: FileReading;
  header: string[];
  mapping: Mapping;
  name: string;
  fileName: string;
  person: string;
  precision: number;
}

/** Rows that can be matched at once: all are held in memory. */
const MOST_ROWS = 500_000;
const ROWS_A_LOOK = 2000;

interface ReadRow {
  row: number;
  cells: string[];
  firm: Firm | null;
  twiceOf: number | null;
}

async function readRows({ path, reading, header, mapping }: MatchJobData) {
  const firmOf = firmReader(header, mapping, loadGazetteer());
  const seen = new Map<string, number>();
  const rows: ReadRow[] = [];
  const total = statSync(path).size;
  let [bytes, all, none] = [0, 0, 0];
  for await (const block of dataRows(path, reading, header, (soFar) => (bytes = soFar)))
    for (const { row, cells, notData } of block) {
      if (all++ % ROWS_A_LOOK === 0) {
        stopIfCancelled();
        tellProgress(Math.min(bytes, total), total, 'rows read');
      }
      if (notData) {
        none++;
        continue;
      }
      if (rows.length >= MOST_ROWS)
        throw new Problem(
          'too-many-rows',
          `The file has more than ${MOST_ROWS.toLocaleString('en-GB')} rows. Match it in parts, or load it as a source.`,
          { field: 'file', rule: `at most ${MOST_ROWS.toLocaleString('en-GB')} rows` },
        );
      const firm = firmOf(cells);
      const same = firm && sameRow(firm, readyFirm(firm, isFreeMail));
      const twiceOf = same === null ? null : (seen.get(same) ?? null);
      if (same !== null && twiceOf === null) seen.set(same, row);
      rows.push({ row, cells: header.map((_, i) => cells[i] ?? ''), firm, twiceOf });
    }
  return { rows, all, notData: none };
}

async function match(data: MatchJobData & { job: string }): Promise<Record<string, unknown>> {
  const { dir, job, header, mapping, name, fileName, person, precision } = data;
  const { rows, all, notData } = await readRows(data);
  const universe = openUniverse(dir, { readonly: true });
  // One state of the universe from the first company to the last.
  universe.exec('BEGIN');
  const matched = rows.filter(({ firm, twiceOf }) => firm !== null && twiceOf === null);
  const matching = matchUniverse(
    { dir, universe, told: tellMatching },
    matched.map(({ firm }) => firm!),
    precision,
  );
  const outcomes = new Map(matched.map(({ row }, i) => [row, matching.rows[i]!]));
  keepMatch(
    dir,
    universe,
    { ...{ id: job, of: 'file', name, fileName, header, mapping, person, rows: all, notData, precision } },
    matching,
    rows.map((row) => ({ ...row, found: outcomes.get(row.row) ?? null })),
  );
  universe.close();
  return { match: job };
}

void runJob(() => match(workerData as MatchJobData & { job: string }));
