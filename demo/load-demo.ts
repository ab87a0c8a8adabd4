import { dayOf } from '../core/dates.ts';
import type { Db } from '../server/db/open.ts';
import { feed } from '../server/feed.ts';
import { remakeCompanies } from '../server/load/remake.ts';
import { CompanyLoad } from '../server/load/write-companies.ts';
import { loadCodeTrees, loadGazetteer } from '../server/reference.ts';
import { jobLanded } from '../server/tables/landed-jobs.ts';
import { nextRevision } from '../server/tables/revision.ts';
import { technologyKey } from '../server/tables/company.ts';
import { addSource, allSources, setRows } from '../server/tables/source.ts';
import { DemoRelated } from './load-related.ts';
import type { DemoBatch, DemoWorkerData } from './rows-worker.ts';
import { DEMO_AS_OF, DEMO_SOURCES } from './sources.ts';
import { TECHNOLOGIES } from './technologies.ts';

const SEED = 20_260_930;

/**
 * Makes the demo universe and loads it, its three sources side by side, through the same path as a
 * user's file; in one transaction. The rows are made in a thread of their own. Where a job asks for it, it lands under its id.
 */
export async function loadDemo(
  db: Db,
  companies: number,
  progress: (done: number, total: number, message: string) => void,
  job?: string,
): Promise<{ asOf: string; rows: number }> {
  db.exec('BEGIN IMMEDIATE');
  try {
    if (allSources(db).some((source) => DEMO_SOURCES.some((demo) => demo.key === source.key)))
      throw new Error('The demo is loaded already. Remove its sources first to make it anew.');
    const revision = nextRevision(db, 'The demo was loaded', dayOf(DEMO_AS_OF)!);
    const addTechnology = db.prepare(
      'INSERT OR IGNORE INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)',
    );
    for (const { category, label, products } of TECHNOLOGIES)
      for (const product of products) addTechnology.run(technologyKey(product), product, category, label);
    const sources = DEMO_SOURCES.map(({ key, name, licence, header, mapping }) =>
      addSource(db, { name, fileName: null, licence, asOf: dayOf(DEMO_AS_OF)!, header, mapping }, key),
    );
    const related = new DemoRelated(db);
    const load = new CompanyLoad(db, revision);
    const data: DemoWorkerData = { companies, seed: SEED, sources };
    let rows: number[] = [];
    for await (const batch of feed<DemoBatch>('demo/rows-worker', data)) {
      load.write(batch.companies);
      related.write(batch.related);
      rows = batch.rows;
      progress(Math.min(batch.made, companies - 1), companies, 'loading records');
    }
    rows.forEach((count, nth) => setRows(db, sources[nth]!.id, count, 0));
    related.end(revision);
    remakeCompanies(db, revision, load.joined, loadCodeTrees(), loadGazetteer(), () => {}, null);
    const made = { asOf: DEMO_AS_OF, rows: rows.reduce((sum, count) => sum + count, 0) };
    if (job !== undefined) jobLanded(db, job, made);
    db.exec('COMMIT');
    progress(companies, companies, 'done');
    return made;
  } catch (error) {
    if (db.inTransaction) db.exec('ROLLBACK');
    throw error;
  }
}
