import { Recent } from '../../../core/recent.ts';
import { countBits, recordsOf, type Bits } from '../../../core/tally/bits.ts';
import type { CategoryColumn, Universe } from '../../../core/tally/columns.ts';
import { keyedValues } from '../../../core/tally/test-keyed.ts';
import { keptInOrder, keysOf, orderBy, type Keys } from '../../../core/tally/order.ts';
import type { Field } from '../../../core/fields/field.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import type { SortKey } from '../../../core/tape/nodes.ts';
import type { Db } from '../../db/open.ts';
import { labelKeys } from './label-keys.ts';

/** Orders and lists are kept up to this many bytes each, the oldest going first. */
const MOST_BYTES = 128 * 2 ** 20;

/** Values that stand from the highest down order so, not by the alphabet. */
function orderedKeys({ dictionary, values }: CategoryColumn, field: Field, size: number): Keys {
  const ranks = dictionary.map((value) => field.values!.findIndex(({ key }) => key === value));
  return Float64Array.from({ length: size }, (_, r) => (values[r] === 0 ? NaN : ranks[values[r]! - 1]!));
}

/** Keys of a tape's own, such as the counts of its has-lines; null for columns. */
export type OwnKeys = (by: string) => (() => Keys) | null;

/** Sort orders of all records of a subject, built once each, and the kept records of the last tapes in such an order. */
export class Orders {
  private readonly db: Db;
  private readonly universe: Universe;
  private readonly subject: string;
  private readonly orders = new Recent<Uint32Array>(MOST_BYTES, (order) => order.byteLength);
  private readonly labels = new Map<string, Keys>();
  private readonly lists = new Recent<Uint32Array>(MOST_BYTES, (list) => list.byteLength);

  constructor(db: Db, universe: Universe, subject: string) {
    this.db = db;
    this.subject = subject;
    this.universe = universe;
  }

  /** Records of a set in an order. `name` says what the set is: the same name must mean the same set. */
  list(name: string, sort: readonly SortKey[], kept: () => Bits, own: OwnKeys = () => null): Uint32Array {
    return this.lists.get(`${JSON.stringify(sort)} ${name}`, () => {
      const set = kept();
      const keyed = sort.map(({ by, descending }) => ({ by, own: own(by), descending: descending === true }));
      if (!keyed.some((one) => one.own)) return keptInOrder(this.order(sort), set, countBits(set));
      // Keys of a tape's own are for its records alone, which may be few.
      const records = recordsOf(set);
      const among = keyed.map(({ by, own: keys, descending }) => {
        const all = keys?.() ?? this.keysFor(by);
        return { keys: keysAmong(all, records), descending };
      });
      return takenFrom(records, orderBy(among, records.length));
    });
  }

  /** Forgets the sets whose names may mean others now. */
  forgetLists(forget: (name: string) => boolean): void {
    this.lists.forget(forget);
  }

  private order(sort: readonly SortKey[]): Uint32Array {
    return this.orders.get(JSON.stringify(sort), () =>
      orderBy(
        sort.map(({ by, descending }) => ({ keys: this.keysFor(by), descending: descending === true })),
        this.universe.size,
      ),
    );
  }

  private keysFor(by: string): Keys {
    const field = fieldOf(this.subject, by)!;
    const column = this.universe.columns.get(field.yearsSince ?? by);
    if (!column || ('kind' in column && column.kind === 'text')) return this.labelKeys(by);
    if ('kind' in column && column.kind === 'keyed')
      return keyedValues(
        column,
        field.column!.key!,
        (field.store as { absent: 0 | null }).absent,
        this.universe.size,
      );
    const keys = field.ordered
      ? orderedKeys(column as CategoryColumn, field, this.universe.size)
      : keysOf(column, this.universe.size);
    return field.yearsSince ? keys.map((year) => -year) : keys;
  }

  private labelKeys(by: string): Keys {
    return this.labels.get(by) ?? labelKeys(this.db, this.subject, by);
  }

  /** Takes sort keys of a label that were made elsewhere. */
  takeLabelKeys(by: string, keys: Keys): void {
    this.labels.set(by, keys);
  }
}

/** Plain loops: `from` with a function takes ten times as long over as many records. */
function keysAmong(all: Keys, records: Uint32Array): Float64Array {
  const keys = new Float64Array(records.length);
  for (let i = 0; i < records.length; i++) keys[i] = all[records[i]!]!;
  return keys;
}

function takenFrom(records: Uint32Array, order: Uint32Array): Uint32Array {
  const taken = new Uint32Array(order.length);
  for (let i = 0; i < order.length; i++) taken[i] = records[order[i]!]!;
  return taken;
}
