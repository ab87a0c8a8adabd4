import { noBits, setBit, hasBit, type Bits } from '../../core/tally/bits.ts';
import { withGroups } from '../../core/tally/kept-off.ts';
import type { Db } from '../db/open.ts';
import { isFreeMail } from '../free-mail.ts';
import type { Records } from './records.ts';

/** Companies beyond which a domain is that of a portal or a host, and nobody's own. */
const MOST_MATES = 50;

/** Who has the web or mail domain of some companies. Looked up once, when it is first asked for. */
export class DomainMates {
  private readonly db: Db;
  private readonly records: ReadonlyMap<string, Records>;
  private groups: Uint32Array | undefined;
  private staff: { people: Uint32Array; companies: Uint32Array } | undefined;

  constructor(db: Db, records: ReadonlyMap<string, Records>) {
    this.db = db;
    this.records = records;
  }

  /** Some companies with all others of the same web domain, but for domains of portals. */
  ofCompanies(companies: Bits): Bits {
    this.groups ??= this.readGroups();
    return withGroups(companies, this.groups);
  }

  /** People with a mail at the domain of one of some companies, wherever they work. */
  people(companies: Bits): Bits {
    const { ids } = this.records.get('people')!;
    const found = noBits(ids.length);
    this.staff ??= this.readStaff();
    this.staff.people.forEach((person, i) => {
      if (hasBit(companies, this.staff!.companies[i]!)) setBit(found, person);
    });
    return found;
  }

  private readGroups(): Uint32Array {
    const { ids, recordOf } = this.records.get('companies')!;
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

  private readStaff() {
    const people: number[] = [];
    const companies: number[] = [];
    const rows = this.db
      .prepare<[number], [number, number, string]>(
        `SELECT p.id, c.id, c.domain FROM person p
         CROSS JOIN company c ON c.domain = lower(substr(p.mail, instr(p.mail, '@') + 1))
         WHERE p.mail IS NOT NULL AND c.id IS NOT p.company_id
           AND c.domain NOT IN (SELECT domain FROM company WHERE domain IS NOT NULL GROUP BY domain HAVING count(*) > ?)`,
      )
      .raw();
    const persons = this.records.get('people')!.recordOf;
    const firms = this.records.get('companies')!.recordOf;
    for (const [person, company, domain] of rows.iterate(MOST_MATES)) {
      const [p, c] = [persons[person] ?? -1, firms[company] ?? -1];
      if (p < 0 || c < 0 || isFreeMail(domain)) continue;
      people.push(p);
      companies.push(c);
    }
    return { people: Uint32Array.from(people), companies: Uint32Array.from(companies) };
  }
}
