import type { Refreshed } from '../../contract/responses.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import type { Changes } from '../../core/records/changes.ts';
import { pairRecords, type Keyed } from '../../core/records/pair-records.ts';
import type { Db } from '../db/open.ts';
import { CAME, GONE, historyWriter } from '../tables/history.ts';
import { dropRelated, PARTS } from '../tables/related.ts';
import { keepIds } from '../tables/revision.ts';
import { forgetTitleReadings } from '../tables/title-readings.ts';
import { goneSource, noteRefresh, sourceByKey, type SourceRow } from '../tables/source.ts';
import { APART, type Apart } from './kept-apart.ts';

const RECORDS_A_LOOK = 2000;

interface Told {
  key: string;
  name: string | null;
  company: number | null;
  values: Readonly<Record<string, string | null>>;
}

/**
 * A newer file in place of that of a source of what hangs on companies. Its rows are loaded beside the old
 * ones; then what is the same record keeps its number, so that lists, messages and runs still mean it,
 * and takes the newer values.
 */
export class RelatedRefresh {
  private readonly db: Db;
  private readonly source: SourceRow;
  private readonly table: string;
  private readonly apart: Apart;
  private readonly before: ReadonlySet<number>;
  /** Deals that other sources have too: their values are not this source's alone to renew. */
  private readonly shared: ReadonlySet<number>;
  private readonly readTold;

  /** To be made before the new rows are loaded. */
  constructor(db: Db, source: SourceRow) {
    this.db = db;
    this.source = source;
    this.apart = APART[source.subject]!;
    const { told } = this.apart;
    const { table, relation } = subjectOf(source.subject);
    this.table = table;
    keepIds(db, table);
    // What is loaded is held against what was loaded; what we ourselves say comes back once the subject is related.
    if (source.subject === 'people') forgetTitleReadings(db);
    this.before = new Set(this.own());
    this.shared = new Set(
      source.subject === 'deals'
        ? db
            .prepare<[string, string], number>(
              'SELECT deal_id FROM deal_source WHERE source = ? AND deal_id IN (SELECT deal_id FROM deal_source WHERE source <> ?)',
            )
            .pluck()
            .all(source.key, source.key)
        : [],
    );
    // A deal without a source is no deal that the new rows could be taken for.
    if (source.subject === 'deals') db.prepare('DELETE FROM deal_source WHERE source = ?').run(source.key);
    const company = relation!.roles.length ? 'NULL' : 't.company_id';
    const columns = Object.values(told).map((sql, i) => `${sql} AS v${i}`);
    this.readTold = db.prepare<[number], Record<string, string | number | null>>(
      `SELECT t.key, t.name, ${company} AS company, ${columns.join(', ')} FROM ${table} t WHERE t.id = ?`,
    );
  }

  /** To be called once the new rows are loaded; the caller then relates the subject. */
  finish(
    revision: number,
    gone: 'removed' | 'kept',
    progress: (done: number, total: number) => void,
  ): Refreshed {
    const { db, source, before, shared, apart } = this;
    const now = this.own();
    // Deals that the newer file has again, as other sources have them.
    const again = new Set(source.subject === 'deals' ? now.filter((id) => before.has(id)) : []);
    const olds = [...before].filter((id) => !again.has(id) && !shared.has(id));
    const fresh = now.filter((id) => !before.has(id));
    const pairs = pairRecords(this.keyed(olds), this.keyed(fresh), apart.ways.length, apart.sole);
    const [paired, twins] = [new Set(pairs.map(([id]) => id)), new Set(pairs.map(([, id]) => id))];

    db.prepare('DELETE FROM source_change WHERE source = ?').run(source.key);
    const note = this.noter(revision);
    let changed = 0;
    pairs.forEach(([old, newer], i) => {
      if (i % RECORDS_A_LOOK === 0) progress(i, pairs.length);
      const [was, is] = [this.told(old), this.told(newer)];
      if (note.changed(old, was, is)) changed++;
    });
    const added = fresh.filter((id) => !twins.has(id));
    for (const id of added) note.came(id, this.told(id));
    const left = [...before].filter((id) => !again.has(id) && !paired.has(id));
    for (const id of left) note.gone(id, this.told(id));

    this.renew(pairs);
    const keptAs = left.length > 0 ? this.leave(left, gone) : null;
    const refreshed = {
      on: new Date().toISOString().slice(0, 10),
      ...{ before: before.size, added: added.length, gone: left.length },
      ...{ now: before.size + added.length - left.length, changed, keptAs },
    };
    noteRefresh(db, sourceByKey(db, source.key)!, refreshed);
    return refreshed;
  }

  /** Numbers of the records that the source has. */
  private own(): number[] {
    const { subject, key } = this.source;
    const text =
      subject === 'deals'
        ? 'SELECT deal_id FROM deal_source WHERE source = ? ORDER BY deal_id'
        : `SELECT id FROM ${this.table} WHERE source = ? ORDER BY id`;
    return this.db.prepare<[string], number>(text).pluck().all(key);
  }

  private keyed(ids: readonly number[]): Keyed[] {
    const { made, ways } = this.apart;
    const read = this.db
      .prepare<[number], (string | null)[]>(`SELECT ${made.join(', ')} FROM ${this.table} t WHERE t.id = ?`)
      .raw();
    return ids.map((id) => {
      const parts = read.get(id)!;
      const keys = ways.map((way) => {
        const told = way(...parts);
        return told.includes(null) ? null : JSON.stringify(told);
      });
      return { id, keys };
    });
  }

  private told(id: number): Told {
    const row = this.readTold.get(id)!;
    return {
      key: row.key as string,
      name: row.name as string | null,
      company: row.company as number | null,
      values: Object.fromEntries(
        Object.keys(this.apart.told).map((word, i) => [word, row[`v${i}`] as string | null]),
      ),
    };
  }

  /** Notes what became of records, for the refresh and for runs and watches. */
  private noter(revision: number) {
    const { db, source, apart } = this;
    const insert = db.prepare(
      'INSERT INTO source_change (source, key, name, what, changes) VALUES (?, ?, ?, ?, ?)',
    );
    const history = historyWriter(db, revision, source.subject);
    const [holder] = Object.keys(apart.told);
    const said = ({ name, key }: Told) => name ?? key;
    return {
      changed(id: number, was: Told, is: Told): boolean {
        const changes: Changes = {};
        for (const word of Object.keys(apart.told)) {
          const [one, other] = [was.values[word]!, is.values[word]!];
          if (one === other) continue;
          changes[word] = { was: one, is: other };
          const companies = word === 'company' ? ([was.company, is.company] as const) : undefined;
          history({ id, key: was.key, name: said(is) }, word, [one, other], companies);
        }
        if (Object.keys(changes).length === 0) return false;
        insert.run(source.key, was.key, said(is), 'changed', JSON.stringify(changes));
        return true;
      },
      came(id: number, is: Told): void {
        insert.run(source.key, is.key, said(is), 'new', '{}');
        const now = is.values.title ?? is.values[holder!] ?? null;
        history({ id, key: is.key, name: said(is) }, CAME, [null, now], [null, is.company]);
      },
      gone(id: number, was: Told): void {
        insert.run(source.key, was.key, said(was), 'gone', '{}');
        history(
          { id, key: was.key, name: said(was) },
          GONE,
          [was.values[holder!]!, null],
          [was.company, null],
        );
      },
    };
  }

  /** Gives the older of each pair what the newer has, and takes the newer away. */
  private renew(pairs: readonly [number, number][]): void {
    const { db, source, table } = this;
    const parts = PARTS[source.subject] ?? [];
    const columns = db
      .prepare<[], string>(`SELECT name FROM pragma_table_info('${table}')`)
      .pluck()
      .all()
      .filter((name) => name !== 'id' && name !== 'came_with')
      .join(', ');
    const copy = db.prepare(
      `UPDATE ${table} SET (${columns}) = (SELECT ${columns} FROM ${table} WHERE id = @now) WHERE id = @old`,
    );
    const empty = parts.map((part) => db.prepare(`DELETE FROM ${part} WHERE ${table}_id = @old`));
    const move = parts.map((part) =>
      db.prepare(`UPDATE ${part} SET ${table}_id = @old WHERE ${table}_id = @now`),
    );
    const drop = dropRelated(db, source.subject);
    for (const [old, now] of pairs) {
      copy.run({ old, now });
      for (const one of empty) one.run({ old });
      for (const one of move) one.run({ old, now });
      drop.renamed(old);
      drop.record(now);
    }
    if (source.subject === 'deals') {
      const add = db.prepare('INSERT OR IGNORE INTO deal_source (deal_id, source) VALUES (?, ?)');
      for (const [old] of pairs) add.run(old, source.key);
    }
  }

  /** Takes away what the newer file has no more, or keeps it as a source of its own. @returns key of that source */
  private leave(ids: readonly number[], gone: 'removed' | 'kept'): string | null {
    const { db, source, shared } = this;
    if (gone === 'removed') {
      const drop = dropRelated(db, source.subject);
      for (const id of ids) if (!shared.has(id)) drop.record(id);
      return null;
    }
    const { key } = goneSource(db, source);
    const keep =
      source.subject === 'deals'
        ? db.prepare('INSERT INTO deal_source (source, deal_id) VALUES (?, ?)')
        : db.prepare(`UPDATE ${this.table} SET source = ? WHERE id = ?`);
    for (const id of ids) keep.run(key, id);
    return key;
  }
}
