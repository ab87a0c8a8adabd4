import { SUBJECTS } from '../../core/fields/registry.ts';
import type { ManyColumn } from '../../core/tally/columns.ts';
import { lazyHanded, type HandedTo } from '../../core/tally/handed.ts';
import type { Db } from '../db/open.ts';
import type { Records } from './records.ts';

const ROWS_A_READ = 20_000;
const NEVER = -1;

/** A table of (subject, key of a record, by whom or what, day), and by whom or what it has rows. */
export interface Ledger {
  db: Db;
  /** The statement that gives key and day of each row of a subject under a key. */
  rows: string;
  /** The keys of the ledger, each with a number that grows when its rows change. */
  keys(): readonly { key: string; revision: number }[];
}

/** What a ledger has of the records of the universe, of each of its keys read again only when that changed. */
export class LedgerRecords {
  private readonly ledger: Ledger;
  private readonly records: ReadonlyMap<string, Records>;
  private readonly held = new Map<string, { revision: number; to: HandedTo }>();
  private made: { revision: number; columns: ReadonlyMap<string, ManyColumn> } | null = null;

  constructor(ledger: Ledger, records: ReadonlyMap<string, Records>) {
    this.ledger = ledger;
    this.records = records;
  }

  /** A column for each subject, the same as before where the ledger has not changed since. */
  columns(revision: number): ReadonlyMap<string, ManyColumn> {
    if (this.made?.revision === revision) return this.made.columns;
    const keys = this.ledger.keys();
    const columns = new Map<string, ManyColumn>();
    for (const subject of SUBJECTS.keys()) {
      const records = this.records.get(subject);
      if (records)
        columns.set(
          subject,
          lazyHanded(
            keys.map(({ key }) => key),
            records.ids.length,
            () => keys.map(({ key, revision: own }) => this.heldBy(records, key, own)),
          ),
        );
    }
    this.made = { revision, columns };
    return columns;
  }

  private heldBy(records: Records, receiver: string, revision: number): HandedTo {
    const name = `${records.subject} ${receiver}`;
    const before = this.held.get(name);
    if (before?.revision === revision) return before.to;
    const to = this.read(records, receiver);
    this.held.set(name, { revision, to });
    return to;
  }

  private read(records: Records, receiver: string): HandedTo {
    const last = new Int32Array(records.ids.length).fill(NEVER);
    let size = 0;
    const rows = this.ledger.db.prepare<[string, string], [string, number]>(this.ledger.rows).raw();
    let some: [string, number][] = [];
    const flush = () => {
      const found = records.byKeys(some.map(([key]) => key));
      for (let i = 0; i < some.length; i++) {
        const r = found[i]!;
        if (r < 0) continue;
        if (last[r] === NEVER) size++;
        last[r] = Math.max(last[r]!, some[i]![1]);
      }
      some = [];
    };
    for (const row of rows.iterate(records.subject, receiver)) if (some.push(row) === ROWS_A_READ) flush();
    flush();
    const to: HandedTo = { receiver, records: new Uint32Array(size), days: new Int32Array(size) };
    for (let r = 0, at = 0; at < size; r++)
      if (last[r] !== NEVER) {
        to.records[at] = r;
        to.days[at++] = last[r]!;
      }
    return to;
  }
}
