import { RELATED } from '../../core/fields/registry.ts';
import type { CompanyReference, RelatedRecord } from '../../core/records/related.ts';
import type { Db } from '../db/open.ts';
import { relatedWriter, type HeldParty, type Hold } from '../tables/related.ts';
import { CompanyFinder, type FoundBy } from './company-finder.ts';

/** Deals of one target so many days apart are taken for one, told by two sources. */
const SAME_DEAL_DAYS = 31;

/** Writes the rows of a file of sites, people, events or deals, each at the company that it names. */
export class RelatedLoad {
  /** How the companies of the rows were found. */
  readonly found: Record<FoundBy | 'not', number> = { key: 0, number: 0, domain: 0, name: 0, not: 0 };
  /** Deals that another source had already. */
  joined = 0;
  private readonly source: string;
  private readonly finder: CompanyFinder;
  private readonly writer;
  private readonly sameDeal;
  private readonly addDealSource;

  constructor(db: Db, source: string) {
    this.source = source;
    this.finder = new CompanyFinder(db);
    this.writer = relatedWriter(db);
    this.sameDeal = db
      .prepare<[number, number, string | null, string | null, number], number>(
        `SELECT d.id FROM deal d JOIN deal_party p ON p.deal_id = d.id AND p.role = 'target'
         WHERE p.company_id = ? AND abs(d.date_on - ?) <= ${SAME_DEAL_DAYS} AND (d.kind = ? OR d.kind IS NULL OR ? IS NULL)
           AND EXISTS (SELECT 1 FROM deal_source s WHERE s.deal_id = d.id)
         ORDER BY abs(d.date_on - ?), d.id LIMIT 1`,
      )
      .pluck();
    this.addDealSource = db.prepare('INSERT OR IGNORE INTO deal_source (deal_id, source) VALUES (?, ?)');
  }

  write(related: RelatedRecord): void {
    if ('company' in related) {
      const hold = this.hold(related.company);
      if (related.subject === 'sites') this.writer.site(this.source, hold, related.record);
      else if (related.subject === 'people') this.writer.person(this.source, hold, related.record);
      else this.writer.event(this.source, hold, related.record);
      return;
    }
    const parties = related.parties.map(({ role, reference }): HeldParty => ({
      role,
      ...this.hold(reference),
    }));
    if (related.subject === 'brands') {
      this.writer.brand(this.source, parties, related.record);
      return;
    }
    const { kind, date } = related.record;
    const target = parties.find(({ role }) => role === 'target')?.id ?? null;
    const same =
      target === null || date === null ? undefined : this.sameDeal.get(target, date, kind, kind, date);
    if (same === undefined) this.writer.deal([this.source], parties, related.record);
    else {
      this.addDealSource.run(same, this.source);
      this.joined++;
    }
  }

  private hold(reference: CompanyReference): Hold {
    const found = this.finder.find(reference);
    this.found[found?.by ?? 'not']++;
    const { number, domain, name, country, key } = reference;
    const told = [number, domain, name, country, ...(key === undefined ? [] : [key])];
    return { id: found?.id ?? null, reference: JSON.stringify(told) };
  }
}

/** Finds companies for what hangs on none yet, after companies came. Returns the subjects of which some were found. */
export function findAgain(db: Db): string[] {
  const finder = new CompanyFinder(db);
  const changed: string[] = [];
  for (const { id: subject, relation } of RELATED) {
    const { table } = relation;
    const set = db.prepare(`UPDATE ${table} SET company_id = ? WHERE rowid = ?`);
    let count = 0;
    const open = db
      .prepare<[], [number, string]>(
        `SELECT rowid, reference FROM ${table} WHERE company_id IS NULL AND reference IS NOT NULL`,
      )
      .raw()
      .all();
    for (const [row, text] of open) {
      const [number, domain, name, country, key] = JSON.parse(text) as (string | null)[];
      const found = finder.find({
        ...(key == null ? {} : { key }),
        number: number ?? null,
        domain: domain ?? null,
        name: name ?? null,
        country: country ?? null,
      });
      if (found) count += set.run(found.id, row).changes;
    }
    if (count > 0) changed.push(subject);
  }
  return changed;
}
