import { countBits, type Bits } from '../tally/bits.ts';
import type { CategoryColumn } from '../tally/columns.ts';
import type { Figures } from '../tally/figures.ts';
import { orderBy } from '../tally/order.ts';
import { concentrationOfSorted, type Concentration } from './concentration.ts';

/** How concentrated some companies are, those of one group as one. */
export interface GroupedConcentration {
  /** Null where nobody has a figure above 0. */
  found: Concentration | null;
  companies: number;
  groups: number;
  /** Companies without a single figure. */
  unknown: number;
  /** Percent of the total that rests on estimates. */
  estimated: number;
}

/** Records that have a figure, the largest first, with their figures beside them. */
interface Descending {
  records: Uint32Array;
  values: Float64Array;
}

/** Concentrations of many contexts over the same figures, which are sorted once. */
export class Concentrations {
  private readonly orders = new WeakMap<Figures, Descending>();

  /** Of the records of a context, those of one group as one; `groups` has 0 where there is none. */
  of(context: Bits, figures: Figures, groups: CategoryColumn | undefined): GroupedConcentration {
    const estimates = figures.column?.index.estimated;
    const byGroup = new Float64Array((groups?.dictionary.length ?? 0) + 1);
    const { records, values } = this.descending(figures);
    const alone = new Float64Array(records.length);
    let single = 0;
    let known = 0;
    let estimated = 0;
    let total = 0;
    for (let i = 0; i < records.length; i++) {
      const r = records[i]!;
      if (!((context[r >> 5]! >>> (r & 31)) & 1)) continue;
      const value = values[i]!;
      known++;
      total += value;
      if (estimates && (estimates[r >> 5]! >>> (r & 31)) & 1) estimated += value;
      const group = groups ? groups.values[r]! : 0;
      if (group === 0) alone[single++] = value;
      else byGroup[group]! += value;
    }
    const joined = byGroup
      .filter((value) => value > 0)
      .sort()
      .reverse();
    const companies = countBits(context);
    return {
      found: concentrationOfSorted(merged(alone.subarray(0, single), joined)),
      companies,
      groups: joined.length,
      unknown: companies - known,
      estimated: total > 0 ? (100 * estimated) / total : 0,
    };
  }

  /** The records that have a figure, the largest first; sorted once. */
  private descending(figures: Figures): Descending {
    let order = this.orders.get(figures);
    if (!order) {
      const { values } = figures;
      const all = orderBy([{ keys: values, descending: true }], values.length);
      let known = all.length;
      while (known > 0 && Number.isNaN(values[all[known - 1]!]!)) known--;
      const records = all.slice(0, known);
      this.orders.set(figures, (order = { records, values: Float64Array.from(records, (r) => values[r]!) }));
    }
    return order;
  }
}

/** Two lists of amounts that descend, as one. */
function merged(one: Float64Array, other: Float64Array): Float64Array {
  const all = new Float64Array(one.length + other.length);
  for (let i = 0, a = 0, b = 0; i < all.length; i++)
    all[i] = b === other.length || (a < one.length && one[a]! >= other[b]!) ? one[a++]! : other[b++]!;
  return all;
}
