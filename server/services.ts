import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { lockFolder, type FolderLock } from './db/lock.ts';
import { carryLists } from './db/carry-lists.ts';
import {
  openHandover,
  openLists,
  openMatches,
  openRuns,
  openUniverse,
  openWorkspace,
  type Db,
} from './db/open.ts';
import { Gather, type GatherTuning } from './gather/gather.ts';
import { EngineHost } from './engine/host.ts';
import { Jobs } from './jobs/jobs.ts';
import { Doubles } from './match/doubles.ts';
import { ListsHost } from './lists/host.ts';
import { Outreach } from './outreach/outreach.ts';
import { Runs } from './runs/runs.ts';
import { Programs } from './programs/programs.ts';
import { NO_LOG, type Log } from './log.ts';
import { forgetLanded, landedResult } from './tables/landed-jobs.ts';
import { followHandovers, forgetHandover } from './tables/handover/ledger.ts';
import { joinsOf } from './tables/company-joins.ts';
import { followKeys } from './tables/lists/follow-keys.ts';
import { purgeLists } from './tables/lists/list-rows.ts';
import { matchOfJob } from './tables/matches/views.ts';
import { moveNotes } from './tables/notes.ts';
import { exportOfJob, failedExports, purgeExports, storedName } from './tables/exports.ts';

/** What the routes work with: the databases, the counting threads, the lists, and the jobs. */
export interface Services {
  dir: string;
  universe: Db;
  workspace: Db;
  /** The lists, for reading alone; `lists` changes them. */
  listsDb: Db;
  lists: ListsHost;
  /** Files lined up with the universe. */
  matches: Db;
  /** What was handed over to whom, and what other programs are given. */
  handover: Db;
  /** Webhooks and what they are posted. */
  programs: Programs;
  /** What is written to people. */
  outreach: Outreach;
  /** Gatherers and their runs, and the stand-in web. */
  gather: Gather;
  /** What runs when, and what is watched. */
  runs: Runs;
  engine: EngineHost;
  jobs: Jobs;
  /** The search for companies that the universe has twice. */
  doubles: Doubles;
  log: Log;
  lock: FolderLock;
  /** Largest upload in MB. */
  uploadLimit: number;
}

/** Opens a folder of data, which is then this process's alone. @throws TroubleAtStart where another holds it */
export async function openServices(
  dir: string,
  uploadLimit = 150,
  log: Log = NO_LOG,
  gathering: GatherTuning = {},
  now: () => number = Date.now,
): Promise<Services> {
  const lock = lockFolder(dir);
  try {
    // The first opening applies migrations; the readers come after it.
    openUniverse(dir).close();
    const workspace = openWorkspace(dir);
    const handover = openHandover(dir);
    prepareLists(dir, workspace, handover);
    const listsDb = openLists(dir, { readonly: true });
    const universe = openUniverse(dir, { readonly: true });
    const matches = openMatches(dir);
    sweep(dir);
    const wroteFile = (job: string) => {
      const row = exportOfJob(workspace, job);
      return row !== undefined && existsSync(join(dir, 'exports', storedName(row)));
    };
    const landed = (job: string) => landedResult(universe, job) ?? resultOf(matchOfJob(matches, job));
    const lists = new ListsHost(dir);
    const outreach = await Outreach.open({ dir, universe, workspace, listsDb, lists, log });
    const programs = await Programs.open({ dir, handover, workspace, log });
    const gather = await Gather.open({ dir, universe, log }, gathering);
    const engine = new EngineHost(dir, log);
    const jobs = new Jobs(workspace, landed, log, wroteFile);
    forgetLandedJobs(dir);
    const runs = new Runs(openRuns(dir), { dir, universe, listsDb, engine, jobs, log }, now);
    const doubles = new Doubles({ dir, universe, workspace, handover, lists, engine, jobs });
    const services: Services = {
      dir,
      doubles,
      programs,
      gather,
      outreach,
      workspace,
      universe,
      handover,
      listsDb,
      lists,
      matches,
      uploadLimit,
      log,
      lock,
      engine,
      jobs,
      runs,
    };
    settleExports(services);
    await services.engine.ready();
    engine.onReload = () => runs.wake();
    return services;
  } catch (error) {
    lock.release();
    throw error;
  }
}

const resultOf = (match: string | null) => (match === null ? null : { match });

function prepareLists(dir: string, workspace: Db, handover: Db): void {
  const lists = openLists(dir);
  carryLists(workspace, lists);
  purgeLists(lists);
  // The program may have been stopped between joining companies and what follows of it.
  const universe = openUniverse(dir, { readonly: true });
  const joined = [...joinsOf(universe)].map(([gone, key]) => ({ gone, key }));
  universe.close();
  lists.transaction(() => followKeys(lists, joined))();
  moveNotes(workspace, 'companies', joined);
  followHandovers(handover, joined);
  lists.close();
}

/** Files removed long ago go for good, and what the ledger has of exports that came to nothing does not count. */
function settleExports({ dir, workspace, handover }: Services): void {
  for (const row of purgeExports(workspace, new Date()))
    rmSync(join(dir, 'exports', storedName(row)), { force: true });
  for (const id of failedExports(workspace)) forgetHandover(handover, id);
}

/** To be called once it is known what became of the jobs of an earlier process. */
function forgetLandedJobs(dir: string): void {
  const universe = openUniverse(dir);
  try {
    forgetLanded(universe);
  } catch {
    // Without room to write, another start does it.
  } finally {
    universe.close();
  }
}

/** Closes a folder of data: jobs leave their work, and what is being written is written. */
export async function closeServices(services: Services): Promise<void> {
  await services.runs.stop();
  await services.gather.stop();
  await services.outreach.stop();
  await services.programs.stop();
  await services.jobs.stop();
  await services.lists.stop();
  await services.engine.stop();
  services.listsDb.close();
  services.matches.close();
  services.handover.close();
  services.universe.close();
  services.workspace.close();
  services.lock.release();
}

/** Takes away what an earlier process left unfinished: uploads that nobody names any more, and files half written. */
function sweep(dir: string): void {
  rmSync(join(dir, 'uploads'), { recursive: true, force: true });
  for (const folder of [dir, join(dir, 'exports'), join(dir, 'feeds')])
    if (existsSync(folder))
      for (const file of readdirSync(folder))
        if (file.endsWith('.part')) rmSync(join(folder, file), { recursive: true });
}
