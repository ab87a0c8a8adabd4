import { workerData } from 'node:worker_threads';
import { type SiteCheck } from '../../core/records/own-values.ts';
import { SITE_STATES } from '../../core/records/record.ts';
import { openGather, openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { landOwnValues } from '../load/own-values.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { Fetcher } from './fetcher.ts';
import { trySite } from './try-site.ts';

/** The thread that tries the websites of companies, several hosts at once, and notes how each answered. */

export interface TrySitesData extends Record<string, unknown> {
  dir: string;
  /** Port of the stand-in web. */
  standIn: number;
  companies: { key: string; web: string }[];
  /** Companies that have no website. */
  without: number;
  /** Days since 1970. */
  today: number;
}

/** What came of it, as the job's result. */
export interface TriedSites extends Record<string, unknown> {
  /** Companies asked for. */
  companies: number;
  without: number;
  /** Not tried, since their hosts are not among those that pages may be read from. */
  notAllowed: number;
  works: number;
  moved: number;
  parked: number;
  dead: number;
}

/** Hosts that are asked at once. */
const AT_ONCE = 8;
/** How often it is tried to write while a load does, each time for as long as a database waits. */
const WRITES_TRIED = 360;

void runJob(async () => {
  const { dir, standIn, companies, without, today, job } = workerData as TrySitesData & { job: string };
  const hosts = openGather(dir, { readonly: true });
  const checks: (SiteCheck & { company: string })[] = [];
  let notAllowed = 0;
  try {
    const fetcher = new Fetcher({ db: hosts, standIn: () => standIn });
    let next = 0;
    let done = 0;
    const work = async () => {
      while (next < companies.length) {
        stopIfCancelled();
        const { key, web } = companies[next++]!;
        const { state, movedTo } = await trySite(
          fetcher,
          web,
          (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
        );
        if (state === null) notAllowed++;
        else checks.push({ company: key, web, state, movedTo, on: today });
        tellProgress(++done, companies.length, 'websites tried');
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
  } finally {
    hosts.close();
  }
  const of = (state: SiteCheck['state']) => checks.filter((check) => check.state === state).length;
  const result: TriedSites = {
    companies: companies.length + without,
    without,
    notAllowed,
    ...(Object.fromEntries(SITE_STATES.map((state) => [state, of(state)])) as Record<
      SiteCheck['state'],
      number
    >),
  };
  const db = openUniverse(dir);
  try {
    const tables = { trees: loadCodeTrees(), places: loadGazetteer() };
    const write = db.transaction(() => {
      landOwnValues(db, 'Websites were tried', { checks }, tables);
      jobLanded(db, job, result);
    });
    for (let nth = 1; ; nth++)
      try {
        write.immediate();
        return result;
      } catch (error) {
        if ((error as { code?: string }).code !== 'SQLITE_BUSY' || nth === WRITES_TRIED) throw error;
        stopIfCancelled();
        tellProgress(companies.length, companies.length, 'waiting for a load to end');
      }
  } finally {
    db.close();
  }
});
