import { Basis } from '../tally/columns.ts';
import type { Figures } from '../tally/figures.ts';
import { quantilesOf } from '../stats/quantiles.ts';
import type { Buckets } from './buckets.ts';
import { MOST_GROUPS, MOST_PARTS, type Measure } from './chart.ts';

/** What a slot of a chart stands for: a group, all smaller groups together, bands that no group holds, or unknown. */
export type SlotKind = 'group' | 'rest' | 'banded' | 'unknown';

/** What is told of one slot, or of one part of it. */
export interface Told {
  /** Records. */
  count: number;
  /** The measure; null where no record has a figure. */
  value: number | null;
  /** Records that the value rests on: all for a count, those with a figure for a sum, mean or median. */
  valued: number;
  /** How much of the value rests on estimates: records of a count, an amount of a sum, a number of figures of a mean or median. */
  estimated: number;
}

export interface Slot extends Told {
  kind: SlotKind;
  /** Key of a group; null for the others. */
  key: string | null;
  /** How many groups stand together in the rest; 1 otherwise. */
  groups: number;
  /** The same of what is compared with. */
  base?: Told;
  /** By the slots of the split. */
  parts?: Told[];
  /** Strips: the least figure, the 10th, 25th, 50th, 75th and 90th percentile, and the largest. */
  strip?: number[];
}

export interface ChartFigures {
  /** Records of the context. */
  total: number;
  slots: Slot[];
  /** The slots of the split, in the order of every slot's `parts`. */
  split: { kind: SlotKind; key: string | null; groups: number }[] | null;
}

export interface Wish {
  by: Buckets;
  split: Buckets | null;
  measure: Measure;
  /** Figures of the measure; null for counts. */
  figures: Figures | null;
  /** Whether a group is told by an estimate: the column that the axis is of, where it is of figures. */
  axisFigures: Figures | null;
  most?: number;
  strips: boolean;
}

/** The figures of a chart over some records, and beside them those of `base`. */
export function chartFigures(wish: Wish, records: Uint32Array, base: Uint32Array | null): ChartFigures {
  const slots = slotsOf(
    wish.by,
    records,
    wish.most ?? MOST_GROUPS,
    'most' in wish && wish.most !== undefined,
  );
  const parts = wish.split ? slotsOf(wish.split, records, MOST_PARTS, true) : null;
  const cells = tell(wish, slots, parts, records);
  const compared = base ? tell(wish, slots, null, base).whole : null;
  return {
    total: records.length,
    slots: slots.slots
      .map((slot, s): Slot => {
        const one: Slot = { ...slot, ...cells.whole[s]! };
        if (compared) one.base = compared[s]!;
        if (parts) one.parts = cells.parts[s]!;
        if (wish.strips) one.strip = cells.strips[s]!;
        return one;
      })
      .filter((slot) => slot.kind === 'group' || slot.count > 0 || (slot.base?.count ?? 0) > 0),
    split: parts?.slots ?? null,
  };
}

interface Slots {
  slots: { kind: SlotKind; key: string | null; groups: number }[];
  /** By number of a group as buckets have it (0 unknown, then groups, then banded), its slot. */
  slotOf: Int32Array;
}

/** Which groups are shown by themselves: all in their own order where it means something, else the largest. */
function slotsOf(buckets: Buckets, records: Uint32Array, most: number, capped: boolean): Slots {
  const n = buckets.keys.length;
  const counts = countGroups(buckets, records);
  let shown = [...buckets.keys.keys()].filter((g) => counts[g + 1]! > 0);
  if (buckets.ordered && shown.length) shown = trimmed(shown);
  if (!buckets.ordered || (capped && shown.length > Math.max(most, 24))) {
    shown.sort((a, b) => counts[b + 1]! - counts[a + 1]! || a - b);
    shown = shown.slice(0, most);
    if (buckets.ordered) shown.sort((a, b) => a - b);
  }
  const slots: Slots['slots'] = shown.map((g) => ({ kind: 'group', key: buckets.keys[g]!, groups: 1 }));
  const slotOf = new Int32Array(n + 2);
  const place = (kind: SlotKind, groups: number) => slots.push({ kind, key: null, groups }) - 1;
  const others =
    [...buckets.keys.keys()].filter((g) => counts[g + 1]! > 0).length -
    shown.filter((g) => counts[g + 1]! > 0).length;
  slotOf.fill(others > 0 ? place('rest', others) : -1);
  shown.forEach((g, s) => (slotOf[g + 1] = s));
  slotOf[n + 1] = counts[n + 1]! > 0 ? place('banded', 1) : -1;
  slotOf[0] = place('unknown', 1);
  return { slots, slotOf };
}

/** How many groups lie between the first and the last that a record is in. */
export function spanOf(buckets: Buckets, records: Uint32Array): number {
  const counts = countGroups(buckets, records);
  const shown = [...buckets.keys.keys()].filter((g) => counts[g + 1]! > 0);
  return shown.length ? shown.at(-1)! - shown[0]! + 1 : 0;
}

/** Groups from the first to the last that anybody is in, with those between. */
function trimmed(shown: readonly number[]): number[] {
  const [first, last] = [shown[0]!, shown.at(-1)!];
  return Array.from({ length: last - first + 1 }, (_, i) => first + i);
}

/** Records by number of the group: 0 unknown, then groups, then banded. */
function countGroups({ keys, single, many }: Buckets, records: Uint32Array): Uint32Array {
  const counts = new Uint32Array(keys.length + 2);
  if (single) for (let i = 0; i < records.length; i++) counts[single[records[i]!]!]!++;
  else
    for (let i = 0; i < records.length; i++) {
      const r = records[i]!;
      const { offsets, values, known } = many!;
      if (!((known[r >> 5]! >>> (r & 31)) & 1)) counts[0]!++;
      for (let at = offsets[r]!; at < offsets[r + 1]!; at++) counts[values[at]! + 1]!++;
    }
  return counts;
}

/** Finds the slots of a record, each once; returns how many were written to `into`. */
type SlotReader = (r: number, into: Int32Array) => number;

function readerOf({ single, many }: Buckets, { slotOf }: Slots): SlotReader {
  if (single)
    return (r, into) => {
      into[0] = slotOf[single[r]!]!;
      return into[0] < 0 ? 0 : 1;
    };
  const { offsets, values, known } = many!;
  return (r, into) => {
    if (!((known[r >> 5]! >>> (r & 31)) & 1)) {
      into[0] = slotOf[0]!;
      return 1;
    }
    let n = 0;
    for (let at = offsets[r]!; at < offsets[r + 1]!; at++) {
      const slot = slotOf[values[at]! + 1]!;
      if (slot < 0) continue;
      let seen = false;
      for (let i = 0; i < n && !seen; i++) seen = into[i] === slot;
      if (!seen) into[n++] = slot;
    }
    return n;
  };
}

/** Most values of one record that are looked at; a survey finds far fewer. */
const MOST_VALUES = 4096;

interface Cells {
  whole: Told[];
  parts: Told[][];
  strips: number[][];
}

/** Records by slot where nothing but their number is told, each in one group: most charts of a ready page. */
function tellCounts(
  { by, measure, axisFigures }: Wish,
  { slots, slotOf }: Slots,
  records: Uint32Array,
): Cells {
  const counts = new Uint32Array(slots.length + 1);
  const estimated = new Uint32Array(slots.length + 1);
  const single = by.single!;
  const basis = axisFigures?.column?.basis;
  // Groups that are not shown fall beside the last slot.
  const at = slotOf.map((slot) => (slot < 0 ? slots.length : slot));
  for (let i = 0; i < records.length; i++) {
    const r = records[i]!;
    const slot = at[single[r]!]!;
    counts[slot]!++;
    if (basis !== undefined && basis[r] === Basis.Estimate) estimated[slot]!++;
  }
  const known = records.length - counts[slotOf[0]!]!;
  const whole = slots.map(({ kind }, s): Told => {
    const count = counts[s]!;
    const value = valueOf(measure, count, count, 0, NONE, known);
    return ofSlot(kind, measure, { count, value, valued: count, estimated: estimated[s]! });
  });
  return { whole, parts: [], strips: [] };
}

/** Walks the records once and adds up by slot and part. */
function tell(wish: Wish, slots: Slots, parts: Slots | null, records: Uint32Array): Cells {
  const { measure, figures, axisFigures } = wish;
  if (!figures && !parts && wish.by.single) return tellCounts(wish, slots, records);
  const width = 1 + (parts?.slots.length ?? 0);
  const size = slots.slots.length * width;
  const counts = new Uint32Array(size);
  const valued = new Uint32Array(size);
  const sums = new Float64Array(size);
  const estimated = new Float64Array(size);
  const keep = wish.strips || measure.of === 'median';
  const kept = keep ? new Kept(size) : null;
  const bySlot = readerOf(wish.by, slots);
  const byPart = parts ? readerOf(wish.split!, parts) : null;
  const of = new Int32Array(MOST_VALUES);
  const within = new Int32Array(MOST_VALUES);
  const values = figures?.values;
  const basis = figures ? figures.column?.basis : axisFigures?.column?.basis;
  const amounts = measure.of === 'sum';
  for (let i = 0; i < records.length; i++) {
    const r = records[i]!;
    const slotsHere = bySlot(r, of);
    const partsHere = byPart ? byPart(r, within) : 0;
    const value = values ? values[r]! : 0;
    const isEstimate = basis !== undefined && basis[r] === Basis.Estimate;
    for (let s = 0; s < slotsHere; s++) {
      const row = of[s]! * width;
      for (let p = 0; p <= partsHere; p++) {
        const cell = p === 0 ? row : row + 1 + within[p - 1]!;
        counts[cell]!++;
        if (value !== value) continue;
        valued[cell]!++;
        sums[cell]! += value;
        if (isEstimate) estimated[cell]! += amounts ? value : 1;
        kept?.add(cell, value);
      }
    }
  }
  const unknown = slots.slotOf[0]! * width;
  const known = records.length - counts[unknown]!;
  const told = (cell: number): Told => ({
    count: counts[cell]!,
    value: valueOf(measure, counts[cell]!, valued[cell]!, sums[cell]!, kept?.of(cell) ?? NONE, known),
    valued: valued[cell]!,
    estimated: estimated[cell]!,
  });
  return {
    whole: slots.slots.map(({ kind }, s) => ofSlot(kind, measure, told(s * width))),
    parts: parts ? slots.slots.map((_, s) => parts.slots.map((__, p) => told(s * width + 1 + p))) : [],
    strips: wish.strips ? slots.slots.map((_, s) => quantilesOf(kept!.of(s * width), STRIP)) : [],
  };
}

const NONE = new Float64Array();

/** Shares are of those known, so that the unknown have none. */
function ofSlot(kind: SlotKind, { of }: Measure, told: Told): Told {
  return kind === 'unknown' && of === 'share' ? { ...told, value: null } : told;
}

/** Growing lists of figures by cell, without a box for each figure. */
class Kept {
  private readonly lists: Float64Array[];
  private readonly counts: Uint32Array;

  constructor(cells: number) {
    this.lists = Array.from({ length: cells }, () => new Float64Array(16));
    this.counts = new Uint32Array(cells);
  }

  add(cell: number, value: number): void {
    let list = this.lists[cell]!;
    const at = this.counts[cell]!++;
    if (at === list.length) {
      const longer = new Float64Array(2 * at);
      longer.set(list);
      this.lists[cell] = list = longer;
    }
    list[at] = value;
  }

  of(cell: number): Float64Array {
    return this.lists[cell]!.subarray(0, this.counts[cell]);
  }
}

const STRIP = [0, 0.1, 0.25, 0.5, 0.75, 0.9, 1];

/** A share is in percent of the records whose group is known. */
function valueOf(
  { of }: Measure,
  count: number,
  valued: number,
  sum: number,
  kept: Float64Array,
  known: number,
): number | null {
  switch (of) {
    case 'count':
      return count;
    case 'share':
      return known === 0 ? null : (100 * count) / known;
    case 'sum':
      return valued === 0 ? null : sum;
    case 'mean':
      return valued === 0 ? null : sum / valued;
    case 'median':
      return quantilesOf(kept, [0.5])[0] ?? null;
  }
}

/** Dots of a scatter: x, y and 1 where either rests on an estimate, in turn; at most `most`, evenly taken from all that have both. */
export function scatterOf(
  x: Figures,
  y: Figures,
  records: Uint32Array,
  most: number,
): { dots: number[]; records: number[]; placed: number } {
  const both = new Uint32Array(records.length);
  let placed = 0;
  for (let i = 0; i < records.length; i++) {
    const r = records[i]!;
    if (x.values[r] === x.values[r] && y.values[r] === y.values[r]) both[placed++] = r;
  }
  const step = Math.max(1, placed / most);
  const count = Math.min(most, placed);
  const dots: number[] = [];
  const shown: number[] = [];
  for (let i = 0; i < count; i++) {
    const r = both[Math.floor(i * step)]!;
    const isEstimate = x.column?.basis[r] === Basis.Estimate || y.column?.basis[r] === Basis.Estimate;
    dots.push(x.values[r]!, y.values[r]!, Number(isEstimate));
    shown.push(r);
  }
  return { dots, records: shown, placed };
}
