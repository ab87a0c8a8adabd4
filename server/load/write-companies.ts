import type { Db } from '../db/open.ts';
import { companyWriter } from '../tables/company.ts';
import { nextId } from '../tables/revision.ts';
import { keysWithOwnValues } from '../tables/own-values.ts';
import { joinsOf } from '../tables/company-joins.ts';
import type { ReadyCompany } from './company-batcher.ts';

/**
 * Writes the companies of a load with their records. Runs inside a transaction that the caller
 * opens, so that a source lands whole or not at all.
 */
export class CompanyLoad {
  /** Companies that were there before a row of theirs came, or of which we say something; they are to be remade from all their records. */
  readonly joined = new Set<number>();
  private readonly writer;
  private readonly addRecord;
  private readonly joinedTo;
  private readonly ownValues: ReadonlySet<string>;
  /** Companies that came without a registration number beside others, and may be there under another name. */
  mayBeTwice = 0;
  /** Companies that came beside others. */
  came = 0;
  private last: number;
  private readonly isFirst: boolean;

  constructor(db: Db, revision: number) {
    this.writer = companyWriter(db, revision);
    this.addRecord = db.prepare(
      'INSERT INTO record (source_id, company_id, row, cells, own_key) VALUES (?, ?, ?, ?, ?)',
    );
    this.joinedTo = joinsOf(db);
    this.ownValues = keysWithOwnValues(db);
    this.last = nextId(db, 'company') - 1;
    this.isFirst = db.prepare('SELECT 1 FROM company LIMIT 1').get() === undefined;
  }

  write(companies: readonly ReadyCompany[]): void {
    for (const company of companies) {
      const key = this.joinedTo.get(company.key) ?? company.key;
      let id = this.writer.find(key);
      if (id === null) {
        this.writer.insert((id = ++this.last), key, company, company.sources);
        if (!this.isFirst) {
          this.came++;
          if (!company.hasNumber) this.mayBeTwice++;
        }
      } else this.joined.add(id);
      // Of what we ourselves say of it a file knows nothing.
      if (this.ownValues.has(company.key)) this.joined.add(id);
      const own = key === company.key ? null : company.key;
      for (const [source, row, cells] of company.records) this.addRecord.run(source, id, row, cells, own);
    }
  }
}
