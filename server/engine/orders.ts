import { Recent } from '../../core/recent.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { countBits, type Bits } from '../../core/tally/bits.ts';
import type { Universe } from '../../core/tally/columns.ts';
import { keptInOrder, keysOf, orderBy, textKeys, type Keys } from '../../core/tally/order.ts';
import type { SortKey } from '../../core/tape/nodes.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';

/** Orders and lists are kept up to this many bytes each, the oldest going first. */
const MOST_BYTES = 128 * 2 ** 20;

/** Sort orders of all companies, built once each, and the kept companies of the last tapes in such an order. */
export class Orders {
  private readonly db: Db;
  private readonly universe: Universe;
  private readonly orders = new Recent<Uint32Array>(MOST_BYTES, (order) => order.byteLength);
  private readonly lists = new Recent<Uint32Array>(MOST_BYTES, (list) => list.byteLength);

  constructor(db: Db, universe: Universe) {
    this.db = db;
    this.universe = universe;
  }

  /** Records of a set in an order. `name` says what the set is: the same name must mean the same set. */
  list(name: string, sort: readonly SortKey[], kept: () => Bits): Uint32Array {
    return this.lists.get(`${JSON.stringify(sort)} ${name}`, () => {
      const set = kept();
      return keptInOrder(this.order(sort), set, countBits(set));
    });
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
    const column = this.universe.columns.get(by);
    return column ? keysOf(column, this.universe.size) : this.labelKeys(by);
  }

  /** Labels, such as names, are no columns: their texts are read, folded and sorted once. */
  private labelKeys(by: string): Keys {
    const { store } = fieldOf('companies', by)!;
    if (store.at !== 'column') throw new Error(`${by} has no order.`);
    return textKeys(
      this.db
        .prepare<[], string | null>(`SELECT ${store.column} FROM company ORDER BY id`)
        .pluck()
        .all()
        .map((text) => (text === null ? null : fold(text))),
    );
  }
}
