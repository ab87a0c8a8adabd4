import { statSync } from 'node:fs';
import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { nextRevision } from '../tables/revision.ts';
import { technologyKey } from '../tables/company.ts';
import { addSource, renewSource, setRows, sourceByKey, type SourceRow } from '../tables/source.ts';
import type { Landed, LoadWorkerData } from './load-data.ts';
import { loadRelated } from './load-related.ts';
import { relate } from './relate.ts';
import { findAgain } from './related-load.ts';
import { CompanyLoad } from './write-companies.ts';
import { remakeCompanies } from './remake.ts';
import { feed } from '../feed.ts';
import type { RowsBatch, RowsWorkerData } from './rows-worker.ts';
import { Refresh } from './refresh.ts';
import { RelatedRefresh } from './refresh-related.ts';
import { Refusals, type RefusedRow } from './refusals.ts';

/**
 * Loads a file as a source, of companies or of what hangs on them, or in the place of one, inside the transaction that the caller
 * opened. Returns what became of its rows. @throws Problem where none could be read, or not all where that is asked
 */
export async function loadFile(db: Db, data: LoadWorkerData): Promise<Record<string, unknown>> {
  const total = statSync(data.path).size;
  const refusals = new Refusals(data.dir, data.job, data.header, data.reading.delimiter);
  try {
    const { name, fileName, licence, asOf, header, mapping, subject, refreshes, fingerprint } = data;
    const revision = nextRevision(db, `${name} was ${refreshes ? 'refreshed' : 'loaded'}`, asOf);
    const wish = { name, fileName, licence, asOf, header, mapping, subject, fingerprint };
    const tables = { trees: loadCodeTrees(), places: loadGazetteer() };
    const old = refreshes && sourceByKey(db, refreshes.key)!;
    const refresh =
      old && (data.subject === 'companies' ? new Refresh(db, old, tables) : new RelatedRefresh(db, old));
    if (old) renewSource(db, old.id, wish);
    const source = old ? sourceByKey(db, old.key)! : addSource(db, wish, technologyKey(name));
    const refuse = (row: RefusedRow) => refusals.add(row);
    let landed: Landed & Record<string, unknown>;
    if (data.subject === 'companies')
      landed = await loadCompanies(db, revision, source, data, refuse, tables);
    else landed = await loadRelated(db, source.key, data, refuse);
    setRows(db, source.id, landed.read, landed.refused);
    await refusals.end();
    const { shown } = refusals;
    const summary = { ...landed, refusedCells: refusals.cells, refusals: shown };
    if (landed.read === landed.refused)
      throw new Problem(
        'all-refused',
        `None of the ${landed.read.toLocaleString('en-GB')} rows could be read; nothing was loaded. First: row ${shown[0]?.row}, ${shown[0]?.column}: expected ${shown[0]?.rule}.`,
      );
    if (data.allOrNothing && landed.refused > 0)
      throw new Problem(
        'some-refused',
        `${landed.refused} of ${landed.read} rows could not be read and all or nothing was asked for; nothing was loaded. First: row ${shown[0]!.row}, ${shown[0]!.column} “${shown[0]!.value}”: expected ${shown[0]!.rule}.`,
      );
    const refreshed = refresh?.finish(revision, refreshes!.gone, (done, all) => {
      stopIfCancelled();
      tellProgress(
        total,
        total,
        `${done.toLocaleString('en-GB')} of ${all.toLocaleString('en-GB')} compared with what they were`,
      );
    });
    if (data.subject !== 'companies') relate(db, revision, [data.subject]);
    return { source: source.key, ...summary, ...(refreshed && { refreshed }) };
  } finally {
    refusals.abandon();
  }
}

/** Reads a file of companies and writes them, inside the transaction that is open. */
async function loadCompanies(
  db: Db,
  revision: number,
  source: SourceRow,
  data: LoadWorkerData,
  refuse: (row: RefusedRow) => void,
  { trees, places }: { trees: ReadonlyMap<Scheme, CodeTree>; places: Gazetteer },
): Promise<Landed & Record<string, unknown>> {
  const total = statSync(data.path).size;
  const companies = new CompanyLoad(db, revision);
  let landed: Landed = { read: 0, refused: 0, left: 0, notData: 0 };
  const rows: RowsWorkerData = { dir: data.dir, path: data.path, reading: data.reading, source };
  for await (const batch of feed<RowsBatch>('server/load/rows-worker', rows)) {
    stopIfCancelled();
    companies.write(batch.companies);
    batch.refusals.forEach(refuse);
    const { read, refused, left, notData } = batch;
    landed = { read, refused, left, notData };
    tellProgress(Math.min(batch.bytes, total), total, `${landed.read.toLocaleString('en-GB')} rows read`);
  }
  stopIfCancelled();
  // What a newer version touches is remade once it is known what it has no more.
  const joined = data.refreshes ? new Set<number>() : companies.joined;
  remakeCompanies(
    db,
    revision,
    joined,
    trees,
    places,
    (done, all) => {
      stopIfCancelled();
      tellProgress(
        total,
        total,
        `lining up ${done.toLocaleString('en-GB')} of ${all.toLocaleString('en-GB')}`,
      );
    },
    'replaced',
  );
  // A company that came, or came to a web site, may give people who were there before an address.
  const people = db.prepare('SELECT 1 FROM person LIMIT 1').get() === undefined ? [] : ['people'];
  relate(db, revision, [...new Set([...findAgain(db), ...people])]);
  const { joined: there, mayBeTwice, came } = companies;
  return { ...landed, joined: there.size, mayBeTwice, came };
}
