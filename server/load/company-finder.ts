import { plainName } from '../../core/records/company-key.ts';
import type { CompanyReference } from '../../core/records/related.ts';
import { registrationKey } from '../../core/records/record.ts';
import { domainOf } from '../../core/text/domain.ts';
import type { Db } from '../db/open.ts';
import { companyUnder } from '../tables/company-joins.ts';

/** What a company was found by. */
export type FoundBy = 'key' | 'number' | 'domain' | 'name';

/**
 * Finds the company that a source names: by its key here, where the file was written here, by registration number, then by domain, then by a name that only one company has. Names
 * are not keys, so that one that several have finds none.
 */
export class CompanyFinder {
  private readonly db: Db;
  private readonly byKey;
  private idUnder: ((key: string) => number | undefined) | null = null;
  private domains: Map<string, number> | null = null;
  private numbers: Map<string, number> | null = null;
  private names: Map<string, number> | null = null;

  constructor(db: Db) {
    this.db = db;
    this.byKey = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  }

  find({ key: given, number, domain, name, country }: CompanyReference): { id: number; by: FoundBy } | null {
    if (given !== undefined) {
      this.idUnder ??= companyUnder(this.db);
      const id = this.idUnder(given);
      if (id !== undefined) return { id, by: 'key' };
    }
    if (number !== null) {
      const key = registrationKey({ country, registration: number });
      const id = key ? this.byKey.get(key) : this.ofNumber(number);
      if (id !== undefined && id >= 0) return { id, by: 'number' };
    }
    if (domain !== null) {
      const id = this.ofDomain(domain);
      if (id !== undefined && id >= 0) return { id, by: 'domain' };
    }
    if (name !== null) {
      const id = this.ofName(name, country);
      if (id !== undefined && id >= 0) return { id, by: 'name' };
    }
    return null;
  }

  private ofNumber(number: string): number | undefined {
    this.numbers ??= this.index('registration', (text) => text.toUpperCase().replace(/[^A-Z0-9]/g, ''));
    return this.numbers.get(number.toUpperCase().replace(/[^A-Z0-9]/g, ''));
  }

  private ofDomain(domain: string): number | undefined {
    this.domains ??= this.index('web', (text) => domainOf(text) ?? '');
    return this.domains.get(domainOf(domain) ?? domain);
  }

  private ofName(name: string, country: string | null): number | undefined {
    if (!this.names) {
      this.names = new Map();
      const all = this.db
        .prepare<[], [number, string, string | null]>('SELECT id, name, country FROM company')
        .raw();
      for (const [id, text, where] of all.iterate()) {
        const plain = plainName(text);
        for (const key of [plain, `${plain} ${where ?? ''}`])
          this.names.set(key, this.names.has(key) ? -1 : id);
      }
    }
    const plain = plainName(name);
    return this.names.get(country === null ? plain : `${plain} ${country}`);
  }

  /** Ids by a text that only one company has; -1 where several do. */
  private index(column: string, plain: (text: string) => string): Map<string, number> {
    const found = new Map<string, number>();
    const all = this.db
      .prepare<[], [number, string]>(`SELECT id, ${column} FROM company WHERE ${column} IS NOT NULL`)
      .raw();
    for (const [id, text] of all.iterate()) {
      const key = plain(text);
      if (key !== '') found.set(key, found.has(key) ? -1 : id);
    }
    return found;
  }
}
