import { wordsFor, type Bits } from '../../../core/tally/bits.ts';
import type { CategoryColumn, PlaceColumn, RangeColumn } from '../../../core/tally/columns.ts';
import type { UnindexedRange } from '../../../core/tally/range-index.ts';
import { sharedFloat64, sharedInt32, sharedUint16, sharedUint32, sharedUint8 } from './shared-arrays.ts';

export type UnindexedCategory = Omit<CategoryColumn, 'postings'>;

export interface UnindexedPlace extends Omit<
  PlaceColumn,
  'grid' | 'located' | 'country' | 'region' | 'town' | 'postcode'
> {
  country: UnindexedCategory;
  region: UnindexedCategory;
  town: UnindexedCategory;
  postcode: UnindexedCategory;
}

/** Fresh arrays for columns, filled with what an earlier universe had of the same companies. */
export class ColumnCopier {
  private readonly size: number;
  private readonly from: Int32Array | null;

  /** `from` has the earlier record of each record, or -1; null where there is no earlier universe. */
  constructor(size: number, from: Int32Array | null) {
    this.size = size;
    this.from = from;
  }

  private filled<T extends { length: number; [r: number]: number }>(
    target: T,
    before: ArrayLike<number> | undefined,
  ): T {
    if (this.from && before)
      for (let r = 0; r < this.size; r++) if (this.from[r]! >= 0) target[r] = before[this.from[r]!]!;
    return target;
  }

  int32(before?: Int32Array): Int32Array {
    return this.filled(sharedInt32(this.size), before);
  }

  float64(before?: Float64Array): Float64Array {
    return this.filled(sharedFloat64(this.size), before);
  }

  bits(before?: Bits): Bits {
    const bits = sharedUint32(wordsFor(this.size));
    if (this.from && before)
      for (let r = 0; r < this.size; r++) {
        const from = this.from[r]!;
        if (from >= 0 && (before[from >> 5]! >>> (from & 31)) & 1) bits[r >> 5]! |= 1 << (r & 31);
      }
    return bits;
  }

  /** Wide until all values are known. */
  category(before?: CategoryColumn): UnindexedCategory {
    return {
      kind: 'category',
      dictionary: before ? [...before.dictionary] : [],
      values: this.filled(new Uint32Array(this.size), before?.values),
    };
  }

  range(before?: RangeColumn): UnindexedRange {
    return {
      ...this.exactNumbers(before),
      rangeLow: this.float64(before?.rangeLow),
      rangeHigh: this.float64(before?.rangeHigh),
    };
  }

  money(before?: RangeColumn): UnindexedRange {
    return {
      ...this.range(before),
      currency: this.filled(sharedUint8(this.size), before?.currency ?? undefined),
      currencies: before ? [...before.currencies] : [],
    };
  }

  /** Without ranges of their own, which only estimates have. */
  exactNumbers(before?: RangeColumn): UnindexedRange {
    const low = this.float64(before?.low);
    const high = this.float64(before?.high);
    return {
      kind: 'range',
      low,
      high,
      rangeLow: low,
      rangeHigh: high,
      basis: this.filled(sharedUint8(this.size), before?.basis),
      why: this.filled(sharedUint8(this.size), before?.why),
      year: this.filled(sharedUint16(this.size), before?.year),
      currency: null,
      currencies: [],
    };
  }

  place(before?: PlaceColumn): UnindexedPlace {
    return {
      kind: 'place',
      country: this.category(before?.country),
      region: this.category(before?.region),
      town: this.category(before?.town),
      postcode: this.category(before?.postcode),
      lat: this.float64(before?.lat),
      lon: this.float64(before?.lon),
    };
  }
}
