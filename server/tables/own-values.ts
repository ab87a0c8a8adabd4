import type { Correctable, SiteCheck } from '../../core/records/own-values.ts';
import type { SiteState } from '../../core/records/record.ts';
import { USUAL_PRECEDENCE, type Precedence, type PrecedenceRule } from '../../core/records/precedence.ts';
import type { Db } from '../db/open.ts';

/** What we ourselves say of companies, and which source wins; in the universe, by the keys of companies. */

export interface Correction {
  field: Correctable;
  /** As typed; empty where the value is wrong and no other is known. */
  value: string;
  reason: string;
  person: string;
  at: string;
}

/** Reads what we say of a company under its key, or under one that was joined to it; what its own key has goes before. */
export class OwnValues {
  private readonly corrections;
  private readonly check;
  /** Keys of which we say anything; nearly all others need not be asked for. */
  private readonly keys: ReadonlySet<string>;

  constructor(db: Db) {
    const keys = '(company = @key OR company IN (SELECT gone FROM company_join WHERE key = @key))';
    this.corrections = db.prepare<[{ key: string }], Correction>(
      `SELECT field, value, reason, person, at FROM correction WHERE ${keys} ORDER BY company = @key, at`,
    );
    this.check = db.prepare<[{ key: string }], SiteCheck>(
      `SELECT web, state, moved_to AS movedTo, checked_on AS "on" FROM site_check WHERE ${keys} ORDER BY checked_on DESC, company = @key DESC LIMIT 1`,
    );
    this.keys = new Set(
      db
        .prepare<[], string>(
          `WITH own (key) AS (SELECT company FROM correction UNION SELECT company FROM site_check)
           SELECT key FROM own UNION SELECT key FROM company_join WHERE gone IN (SELECT key FROM own)`,
        )
        .pluck()
        .all(),
    );
  }

  /** Corrections by field. */
  correctionsOf(key: string): ReadonlyMap<Correctable, Correction> {
    return new Map(this.keys.has(key) ? this.corrections.all({ key }).map((one) => [one.field, one]) : []);
  }

  checkOf(key: string): SiteCheck | null {
    return this.keys.has(key) ? (this.check.get({ key }) ?? null) : null;
  }
}

/** Keys of which we say anything. */
export function keysWithOwnValues(db: Db): ReadonlySet<string> {
  return new Set(
    db
      .prepare<[], string>('SELECT company FROM correction UNION SELECT company FROM site_check')
      .pluck()
      .all(),
  );
}

/** Puts a correction in the place of the one before; null takes it back. */
export function writeCorrection(
  db: Db,
  company: string,
  field: Correctable,
  said: Omit<Correction, 'field'> | null,
): void {
  db.prepare(
    `DELETE FROM correction WHERE field = @field
      AND (company = @company OR company IN (SELECT gone FROM company_join WHERE key = @company))`,
  ).run({ company, field });
  if (said)
    db.prepare(
      'INSERT INTO correction (company, field, value, reason, person, at) VALUES (?, ?, ?, ?, ?, ?)',
    ).run(company, field, said.value, said.reason, said.person, said.at);
}

export function writeSiteCheck(db: Db, company: string, check: SiteCheck): void {
  db.prepare(
    'INSERT OR REPLACE INTO site_check (company, web, state, moved_to, checked_on) VALUES (?, ?, ?, ?, ?)',
  ).run(company, check.web, check.state satisfies SiteState, check.movedTo, check.on);
}

export function readPrecedence(db: Db): Precedence {
  const own = db
    .prepare<[], { part: string; rule: string }>('SELECT part, rule FROM precedence')
    .all()
    .map(({ part, rule }) => [part, JSON.parse(rule) as PrecedenceRule]);
  return { ...USUAL_PRECEDENCE, ...(Object.fromEntries(own) as Partial<Precedence>) };
}

export function writePrecedence(db: Db, precedence: Precedence): void {
  db.prepare('DELETE FROM precedence').run();
  const put = db.prepare('INSERT INTO precedence (part, rule) VALUES (?, ?)');
  for (const [part, rule] of Object.entries(precedence)) put.run(part, JSON.stringify(rule));
}
