import type { Bits } from '../../core/tally/bits.ts';
import { withGroups } from '../../core/tally/kept-off.ts';
import type { Db } from '../db/open.ts';
import { isFreeMail } from '../free-mail.ts';
import type { Records } from './records.ts';

/** Companies beyond which a domain is that of a portal or a host, and nobody's own. */
const MOST_MATES = 50;

/** Who has the web domain of some companies. Looked up once, when it is first asked for. */
export class DomainMates {
  private readonly db: Db;
  private readonly companies: Records;
  private groups: Uint32Array | undefined;

  constructor(db: Db, companies: Records) {
    this.db = db;
    this.companies = companies;
  }

  /** Some companies with all others of the same web domain, but for domains of portals. */
  of(companies: Bits): Bits {
    this.groups ??= this.readGroups();
    return withGroups(companies, this.groups);
  }

  private readGroups(): Uint32Array {
    const { ids, recordOf } = this.companies;
    const groups = new Uint32Array(ids.length);
    const shared = this.db
      .prepare<[number], [string, string]>(
        `SELECT domain, group_concat(id) FROM company WHERE domain IS NOT NULL
         GROUP BY domain HAVING count(*) BETWEEN 2 AND ?`,
      )
      .raw();
    let group = 0;
    for (const [domain, mates] of shared.iterate(MOST_MATES)) {
      if (isFreeMail(domain)) continue;
      group++;
      for (const id of mates.split(',')) {
        const record = recordOf[Number(id)] ?? -1;
        if (record >= 0) groups[record] = group;
      }
    }
    return groups;
  }
}
