import type { Row } from '../../core/cells.ts';
import { columnFields, fieldOf } from '../../core/fields/registry.ts';
import { dropBits, hasBit, keepBits, noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import { distanceKm, KM_A_MILE } from '../../core/geo/distance.ts';
import { groupSums } from '../../core/tally/group-sums.ts';
import type {
  CategoryColumn,
  KeyedColumn,
  KnownColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
} from '../../core/tally/columns.ts';
import { keyedValues } from '../../core/tally/test-keyed.ts';
import type { RelatedCounts } from '../../core/tally/links.ts';
import type { Keys } from '../../core/tally/order.ts';
import { Tally } from '../../core/tally/tally.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { emptyTape, type PeersTest, type PlaceTest, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { likenessShown } from '../../core/lists/likeness.ts';
import { isOwnColumn, isSortable, ownColumnOf, type OwnColumn } from '../../core/tape/own-columns.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import { fold } from '../../core/text/fold.ts';
import { namedBy } from './rows/named-by.ts';
import { KNOWN, ownCell, type OwnColumns } from './rows/own-cells.ts';
import { Orders, type OwnKeys } from './rows/orders.ts';
import type { MemberCells } from './list-members.ts';
import type { Peers } from './peers/peers.ts';
import type { ReviewColumns } from './review-columns.ts';
import { RowSource } from './rows/read-rows.ts';
import { rightCells, rightKeys } from './rows/right-columns.ts';
import type { Records } from './records.ts';

const MOST_FOUND = 1000;

/** Which records of a tape: all of them, or those picked by key and as runs of the order, less those let go. */
export interface Picks {
  keys?: readonly string[];
  ranges?: readonly (readonly [from: number, to: number])[];
  except?: readonly string[];
}

/** The records of one subject: counted, listed in order, and read as rows. */
export class SubjectEngine {
  readonly records: Records;
  readonly tally: Tally;
  private readonly db: Db;
  private readonly lookup: Lookup;
  private readonly rowSource: RowSource;
  private readonly orders: Orders;
  private readonly peers: Peers | null;
  private readonly cells: MemberCells;
  private readonly review: ReviewColumns | null;

  /** Orders are taken over from an earlier engine over the same records, but for lists whose tapes mean others now. */
  constructor(
    db: Db,
    lookup: Lookup,
    records: Records,
    tally: Tally,
    peers: Peers | null,
    cells: MemberCells,
    review: ReviewColumns | null,
    earlier?: { engine: SubjectEngine; forget(name: string): boolean },
  ) {
    this.cells = cells;
    this.review = review;
    this.db = db;
    this.lookup = lookup;
    this.peers = peers;
    this.records = records;
    this.tally = tally;
    this.rowSource = new RowSource(db, lookup, records.subject);
    this.orders = earlier?.engine.orders ?? new Orders(db, tally.universe, records.subject);
    if (earlier) this.orders.forgetLists((name) => earlier.forget(name));
  }

  get size(): number {
    return this.tally.universe.size;
  }

  /** @throws Problem naming a column that the subject or the tape does not have */
  checkColumns(tape: Tape, columns: readonly string[]): void {
    for (const column of columns)
      if (!(isOwnColumn(column) ? ownColumnOf(tape, column) : fieldOf(tape.subject, column)?.column))
        throw new Problem('unknown-column', `There is no column "${column}".`, {
          field: 'columns',
          value: column,
          rule: `one of ${columnFields(tape.subject)
            .map((field) => field.id)
            .join(
              ', ',
            )}, or count: and the id of a has-line, or score: or why: and the id of a line of peers`,
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
      const found = ownColumnOf(this.own(tape), column);
      if (found?.kind === 'count') {
        const { sure, possible, known } = this.tally.relatedCounts(found.line);
        const known64 = (counts: Uint32Array) =>
          Float64Array.from(records, (r) => (hasBit(known, r) ? counts[r]! : NaN));
        own[column] = { low: known64(sure), high: known64(possible) };
      } else if (found?.kind === 'score') {
        own[column] = this.peers!.scores(found.line.test as PeersTest, records);
      } else if (found?.kind === 'member') {
        own[column] = { texts: this.cells.texts(found.list, found.part, this.keysOf(records)) };
      } else if (found?.kind === 'carried') {
        own[column] = { texts: this.cells.carried(found.list, found.column, this.keysOf(records)) };
      } else if (found?.kind === 'review' && found.part === 'doubts') {
        own[column] = { texts: this.review!.doubts(this.own(tape), found.list, records) };
      } else if (found?.kind === 'right') {
        own[column] = rightCells(
          this.db,
          records.map((r) => this.records.ids[r]!),
          found,
        );
      } else if (found?.kind === 'why') {
        const { test } = found.line;
        own[column] = { texts: Array.from(records, (r) => this.peers!.why(test as PeersTest, r)) };
      } else if (found) {
        const keys = this.keysOfOwn(found, this.own(tape));
        const isLikeness = found.kind === 'review' && found.part === 'likeness';
        const low = Float64Array.from(records, (r) => (isLikeness ? likenessShown(keys[r]!) : keys[r]!));
        own[column] = { low, high: low };
      } else if (column === KNOWN) {
        const { known } = this.tally.universe.columns.get(KNOWN) as KnownColumn;
        const low = Float64Array.from(records, (r) => Number(hasBit(known, r)));
        own[column] = { low, high: low };
      } else if (LEDGERS.has(column)) {
        const handed = this.tally.universe.columns.get(column) as ManyColumn;
        const names = new Map(
          this.lookup
            .choices({ subject: this.records.subject, id: column })
            .map(({ key, label }) => [key, label]),
        );
        own[column] = { lists: Array.from(records, (r) => namesOf(handed, r, names)) };
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

  /** Records of a tape in order: those picked alone that pass it. */
  picked(tape: Tape, order: readonly SortKey[], picks: Picks): Uint32Array {
    const { keys, ranges, except } = picks;
    let records = this.listed(tape, order);
    if (keys ?? ranges ?? except) {
      const kept = this.tally.kept(tape).slice();
      if (keys ?? ranges) {
        const wanted = this.bitsOf(keys ?? []);
        for (const [from, to] of ranges ?? [])
          for (let at = from; at <= to && at < records.length; at++) setBit(wanted, records[at]!);
        keepBits(kept, wanted);
      }
      dropBits(kept, this.bitsOf(except ?? []));
      const name = `picked ${JSON.stringify([tape.lines, order, picks])}`;
      records = this.orders.list(name, order, () => kept, this.ownKeys(tape));
    }
    return records.subarray(0, tape.first ?? records.length);
  }

  /** Positions, in a tape's order, of records whose name holds words that begin with those of a text: how many, and some of them from one on. */
  find(
    tape: Tape,
    sort: readonly SortKey[],
    text: string,
    from: number,
  ): { total: number; positions: number[] } {
    const words = fold(text).match(/[a-z0-9]+/g) ?? [];
    if (words.length === 0) return { total: 0, positions: [] };
    const found = noBits(this.size);
    for (const id of namedBy(this.db, this.records.subject, words)) {
      const r = this.records.recordOf[id] ?? -1;
      if (r >= 0) setBit(found, r);
    }
    const order = this.listed(tape, sort);
    const positions: number[] = [];
    let total = 0;
    for (let at = 0; at < order.length; at++) {
      if (!hasBit(found, order[at]!)) continue;
      if (total >= from && positions.length < MOST_FOUND) positions.push(at);
      total++;
    }
    return { total, positions };
  }

  private own({ lines }: Pick<Tape, 'lines'>): Pick<Tape, 'lines' | 'subject'> {
    return { lines, subject: this.records.subject };
  }

  private ownKeys(tape: Tape): OwnKeys {
    return (by) => {
      const found = ownColumnOf(tape, by);
      return found && isSortable(found) ? () => this.keysOfOwn(found, tape) : null;
    };
  }

  /** Figures of a column of a tape's own by record, NaN where unknown. */
  private keysOfOwn(column: OwnColumn, tape: Pick<Tape, 'lines' | 'subject'>): Keys {
    const { columns } = this.tally.universe;
    switch (column.kind) {
      case 'count':
        return countKeys(this.tally.relatedCounts(column.line), this.size);
      case 'member':
        return this.cells.keys(this.records.subject, column.list, column.part);
      case 'carried':
        return this.cells.carriedKeys(this.records.subject, column.list, column.column);
      case 'right':
        return rightKeys(this.db, this.records, column);
      case 'review':
        return this.review!.figures(tape, column.list, column.part as 'likeness' | 'doubt');
      case 'score':
      case 'why':
        return new Float64Array(this.peers!.all(column.line.test as PeersTest));
      case 'km': {
        const near = (column.line.test as PlaceTest).near!;
        const { lat, lon } = columns.get('place') as PlaceColumn;
        const unit = near.miles === undefined ? 1 : KM_A_MILE;
        return lat.map(
          (one, r) => Math.round((10 * distanceKm(near.lat, near.lon, one, lon[r]!)) / unit) / 10,
        );
      }
      case 'group': {
        const { values } = columns.get('group') as CategoryColumn;
        const scale = column.of === 'revenue' ? 1000 : 1;
        return groupSums(values, columns.get(column.of) as RangeColumn).map((sum) => Math.round(sum / scale));
      }
      case 'key': {
        const { absent } = fieldOf(this.records.subject, column.field)!.store as { absent: 0 | null };
        return keyedValues(columns.get(column.field) as KeyedColumn, column.key, absent, this.size);
      }
    }
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

/** Columns of ledgers: who was handed a record, and which saved tapes it joined. */
const LEDGERS: ReadonlySet<string> = new Set(['handed-over', 'joined']);

/** The values of a record by their names, in alphabetical order. */
function namesOf({ dictionary, offsets, values }: ManyColumn, r: number, names: ReadonlyMap<string, string>) {
  const own: string[] = [];
  for (let i = offsets[r]!; i < offsets[r + 1]!; i++) {
    const key = dictionary[values[i]!]!;
    own.push(names.get(key) ?? key);
  }
  return own.sort();
}

/** Counts as sort keys: those that are sure; unknown where no source covers the subject. */
function countKeys({ sure, known }: RelatedCounts & { known: Bits }, size: number): Keys {
  const keys = new Float64Array(size).fill(NaN);
  for (let r = 0; r < size; r++) if (hasBit(known, r)) keys[r] = sure[r]!;
  return keys;
}
