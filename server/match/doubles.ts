import { DOUBLES_JOB } from '../../contract/matches.ts';
import type { Job } from '../../contract/responses.ts';
import type { Db } from '../db/open.ts';
import type { Jobs } from '../jobs/jobs.ts';
import { readSettings } from '../tables/workspace.ts';
import type { DoublesJobData, DoublesResult } from './doubles-worker.ts';
import { followJoins, type ByKeys } from './follow-joins.ts';
import { countWithoutNumber } from './universe-firms.ts';

/** Companies without a number up to which doubles are looked for after each load: more take minutes, and are looked for when asked. */
const MOST_BY_ITSELF = 300_000;

interface Needed extends ByKeys {
  dir: string;
  universe: Db;
  jobs: Jobs;
}

/** The search for companies that the universe has twice: one at a time, by itself after a load, and when it is asked for. */
export class Doubles {
  private going: Job | null = null;
  /** Sources whose companies are to be joined with those of others once a search has found which surely are one. */
  private readonly across = new Set<string>();

  constructor(private readonly services: Needed) {}

  /** Starts the search, or gives the one that is going on. */
  look(): Job {
    if (this.going?.state === 'running') return this.going;
    const { dir, workspace, jobs } = this.services;
    const { person } = readSettings(workspace);
    const data: DoublesJobData = { dir, person, across: [...this.across] };
    this.going = jobs.start('match', DOUBLES_JOB, 'server/match/doubles-worker', data, async (result) => {
      // A search that was stopped just after it was kept says nothing of joins; lists follow them at the next start.
      const { joined = [], joinedAll = false } = result as Partial<DoublesResult>;
      if (joinedAll) for (const source of data.across) this.across.delete(source);
      if (joined.length > 0) await followJoins(this.services, joined);
    });
    return this.going;
  }

  /**
   * Starts the search after a load that brought companies beside others, of which one may be there under another name. Where one is
   * looking already, which does not know of them, another follows it.
   * @param join the source that was loaded, where its companies are to be joined; null where not
   */
  lookAfterLoad(join: string | null): void {
    const { universe, jobs } = this.services;
    const without = countWithoutNumber(universe);
    if (without === 0) return;
    if (join !== null) this.across.add(join);
    if (without > MOST_BY_ITSELF) return;
    if (this.going?.state !== 'running') this.look();
    else
      void jobs.ended(this.going.id).then((job) => {
        if (job?.state === 'done' && !jobs.stopped) this.look();
      });
  }
}
