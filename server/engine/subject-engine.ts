import type { Cell, Row } from '../../core/cells.ts';
import { columnFields, fieldOf } from '../../core/fields/registry.ts';
import { hasBit, noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { ListColumn } from '../../core/tally/columns.ts';
import type { RelatedCounts } from '../../core/tally/links.ts';
import type { Keys } from '../../core/tally/order.ts';
import { Tally } from '../../core/tally/tally.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { COUNT_COLUMN, countedLine, emptyTape, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { Orders, type OwnKeys } from './orders.ts';
import { RowSource } from './read-rows.ts';
import type { Records } from './universes.ts';

/** Which records of a tape: all of them, only those picked, or all but some. */
export interface Picks {
  keys?: readonly string[];
  except?: readonly string[];
}

/** The records of one subject: counted, listed in order, and read as rows. */
export class SubjectEngine {
  readonly records: Records;
  readonly tally: Tally;
  private readonly db: Db;
  private readonly rowSource: RowSource;
  private readonly orders: Orders;

  /** Orders are taken over from an earlier engine over the same records. */
  constructor(db: Db, lookup: Lookup, records: Records, tally: Tally, earlier?: SubjectEngine) {
    this.db = db;
    this.records = records;
    this.tally = tally;
    this.rowSource = new RowSource(db, lookup, records.subject);
    this.orders = earlier?.orders ?? new Orders(db, tally.universe, records.subject);
    if (earlier) this.orders.forgetLists();
  }

  get size(): number {
    return this.tally.universe.size;
  }

  /** @throws Problem naming a column that the subject or the tape does not have */
  checkColumns(tape: Tape, columns: readonly string[]): void {
    for (const column of columns)
      if (
        !(column.startsWith(COUNT_COLUMN) ? countedLine(tape, column) : fieldOf(tape.subject, column)?.column)
      )
        throw new Problem('unknown-column', `There is no column "${column}".`, {
          field: 'columns',
          value: column,
          rule: `one of ${columnFields(tape.subject)
            .map((field) => field.id)
            .join(', ')}, or count: and the id of a has-line`,
        });
  }

  /** Rows of some records; columns of the tape's own and of the workspace are filled in from what is counted. */
  rows(tape: Tape, records: Uint32Array, columns: readonly string[]): Row[] {
    const own = this.ownColumns(tape, records, columns);
    const rows = this.rowSource.rows(
      records.map((r) => this.records.ids[r]!),
      columns.filter((column) => own[column] === undefined),
    );
    for (const [column, values] of Object.entries(own))
      rows.forEach((row, i) => (row.cells[column] = ownCell(column, values, i)));
    return rows;
  }

  /** Rows of the records under some ids. */
  rowsOf(ids: readonly number[], columns: readonly string[]): Row[] {
    const records = Uint32Array.from(ids, (id) => this.records.recordOf[id]!);
    return this.rows(emptyTape(this.records.subject), records, columns);
  }

  /** Values of those columns that no table has, for some records. */
  ownColumns(tape: Pick<Tape, 'lines'>, records: Uint32Array, columns: readonly string[]): OwnColumns {
    const own: OwnColumns = {};
    for (const column of columns) {
      const line = countedLine(tape, column);
      if (line) {
        const { sure, possible, known } = this.tally.relatedCounts(line);
        const known64 = (counts: Uint32Array) =>
          Float64Array.from(records, (r) => (hasBit(known, r) ? counts[r]! : NaN));
        own[column] = { low: known64(sure), high: known64(possible) };
      } else if (column === KNOWN) {
        const { lists } = this.tally.universe.columns.get(KNOWN) as ListColumn;
        const low = Float64Array.from(records, (r) => Number(hasBit(lists.get('')!.in, r)));
        own[column] = { low, high: low };
      }
    }
    return own;
  }

  /** Takes sort keys of a label, such as the name, that another thread has made. */
  takeLabelKeys(by: string, keys: Keys): void {
    this.orders.takeLabelKeys(by, keys);
  }

  /** The records of a tape in an order. */
  listed(tape: Tape, sort: readonly SortKey[]): Uint32Array {
    return this.orders.list(
      JSON.stringify(tape.lines),
      sort,
      () => this.tally.kept(tape),
      this.ownKeys(tape),
    );
  }

  /** Records of a tape in order, those picked alone. */
  picked(tape: Tape, order: readonly SortKey[], picks: Picks): Uint32Array {
    let records = this.listed(tape, order);
    if (picks.keys ?? picks.except) {
      const kept = picks.keys ? this.bitsOf(picks.keys) : this.tally.kept(tape);
      const left = this.bitsOf(picks.except ?? []);
      for (let w = 0; w < kept.length; w++) kept[w]! &= ~left[w]!;
      const name = `picked ${JSON.stringify([tape.lines, picks])}`;
      records = this.orders.list(name, order, () => kept, this.ownKeys(tape));
    }
    return records.subarray(0, tape.first ?? records.length);
  }

  private ownKeys(tape: Tape): OwnKeys {
    return (by) => {
      const line = countedLine(tape, by);
      return line ? () => countKeys(this.tally.relatedCounts(line), this.size) : null;
    };
  }

  /** Keys of records, in their order. */
  keysOf(records: Uint32Array): string[] {
    const find = this.db
      .prepare<[string], string>(
        `SELECT t.key FROM json_each(?) i JOIN ${this.records.table} t ON t.id = i.value ORDER BY i.rowid`,
      )
      .pluck();
    const keys: string[] = [];
    for (let at = 0; at < records.length; at += 10_000) {
      const ids = records.subarray(at, at + 10_000).map((r) => this.records.ids[r]!);
      for (const key of find.all(JSON.stringify([...ids]))) keys.push(key);
    }
    return keys;
  }

  private bitsOf(keys: readonly string[]): Bits {
    const bits = noBits(this.size);
    for (const key of keys) {
      const r = this.records.byKey(key);
      if (r === undefined)
        throw new Problem(
          'unknown-key',
          `There is nothing under the key "${key}" among the ${this.records.subject}.`,
          {
            field: 'keys',
            value: key,
            rule: `keys of ${this.records.subject} in this universe`,
          },
        );
      setBit(bits, r);
    }
    return bits;
  }
}

/** Values of columns that no table has, beside some ids: from how much to how much; NaN where unknown. */
export type OwnColumns = Record<string, { low: Float64Array; high: Float64Array }>;

const KNOWN = 'whom-we-know';

/** The cell of a column that no table has. */
export function ownCell(column: string, { low, high }: OwnColumns[string], i: number): Cell {
  if (Number.isNaN(low[i]!)) return null;
  if (column === KNOWN) return low[i] === 1 ? 'yes' : 'no';
  if (low[i] === high[i]) return low[i]!;
  return { basis: 'band', low: low[i]!, high: high[i]!, amount: null, year: null };
}

/** Counts as sort keys: those that are sure; unknown where no source covers the subject. */
function countKeys({ sure, known }: RelatedCounts & { known: Bits }, size: number): Keys {
  const keys = new Float64Array(size).fill(NaN);
  for (let r = 0; r < size; r++) if (hasBit(known, r)) keys[r] = sure[r]!;
  return keys;
}
