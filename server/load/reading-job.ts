import { statSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import type { FileReadingAnswer } from '../../contract/readings.ts';
import { Census } from '../../core/records/census.ts';
import type { CellProblem } from '../../core/records/column-reader.ts';
import { readyFirm } from '../../core/match/firm.ts';
import { sameRow } from '../../core/match/same-row.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { firmReader } from '../../core/records/read-firm.ts';
import { relatedReader, type ReadSubject } from '../../core/records/read-related.ts';
import { rowReader } from '../../core/records/read-row.ts';
import { companyKey } from '../../core/records/company-key.ts';
import { isFreeMail } from '../free-mail.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { dataRows, type FileReading } from './read-file.ts';

/** The thread that reads a whole file as it would be loaded, and says what it comes to; nothing is written. */

export interface ReadingJobData extends Record<string, unknown> {
  path: string;
  reading: FileReading;
  header: string[];
  mapping: Mapping;
  subject: string;
  /** Whether the rows are looked for in the universe, which asks less of them. */
  matching: boolean;
  asOf: number;
}

/** Rows after which a reading looks whether it is to stop, and tells how far it is. */
const ROWS_A_LOOK = 2000;
/** Refused rows that are shown. */
const MOST_REFUSED = 50;

async function read(data: ReadingJobData): Promise<Record<string, unknown>> {
  const { path, reading, header, mapping, subject, matching, asOf } = data;
  const census = new Census(mapping.columns);
  const places = loadGazetteer();
  const companies =
    subject === 'companies' ? rowReader(header, mapping, loadCodeTrees(), places, asOf, census) : null;
  const related = companies
    ? null
    : relatedReader(subject as ReadSubject, header, mapping, places, census, isFreeMail);
  const firmOf = matching ? firmReader(header, mapping, places) : null;
  const keys = new Set<string>();
  const answer: FileReadingAnswer = {
    rows: 0,
    notData: 0,
    refused: 0,
    twice: 0,
    records: 0,
    columns: [],
    came: [],
    understood: [],
    refusals: [],
    notDataRows: [],
  };
  const total = statSync(path).size;
  let bytes = 0;
  for await (const block of dataRows(path, reading, header, (soFar) => (bytes = soFar)))
    for (const { row, cells, notData } of block) {
      if (answer.rows++ % ROWS_A_LOOK === 0) {
        stopIfCancelled();
        tellProgress(Math.min(bytes, total), total, `${answer.rows.toLocaleString('en-GB')} rows read`);
      }
      if (notData) {
        answer.notData++;
        if (answer.notDataRows.length < MOST_REFUSED)
          answer.notDataRows.push({
            row,
            why: notData,
            text: cells.filter(Boolean).join(' · ').slice(0, 200),
          });
        continue;
      }
      const at = answer.rows - answer.notData - 1;
      census.begin(at);
      if (at < census.shown) answer.came.push(header.map((_, i) => cells[i] ?? ''));
      const found = companies ? companies.read(cells) : related!.read(cells);
      if (firmOf) {
        const firm = firmOf(cells);
        const same = firm && sameRow(firm, readyFirm(firm, isFreeMail));
        if (!firm)
          refuse(answer, row, {
            column: 'row',
            value: '',
            rule: 'a name, number, domain, mail address or phone',
          });
        else if (same !== null && keys.has(same)) answer.twice++;
        else if (same !== null) keys.add(same);
      } else if ('problems' in found) {
        refuse(answer, row, ...found.problems);
      } else if ('record' in found) {
        const key = found.key ?? companyKey(found.record, cells);
        if (keys.has(key)) answer.twice++;
        else keys.add(key);
      }
    }
  answer.records = answer.rows - answer.notData - answer.refused - answer.twice;
  answer.columns = census.readings;
  answer.understood = census.understoodRows;
  tellProgress(total, total);
  return { ...answer };
}

function refuse(answer: FileReadingAnswer, row: number, ...problems: CellProblem[]): void {
  answer.refused++;
  for (const problem of problems)
    if (answer.refusals.length < MOST_REFUSED) answer.refusals.push({ row, ...problem });
}

void runJob(() => read(workerData as ReadingJobData));
