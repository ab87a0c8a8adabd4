import type { ManyColumn } from './columns.ts';
import { allBits } from './bits.ts';

/** The records that one receiver was handed, ascending, each with the day it last was. */
export interface HandedTo {
  receiver: string;
  records: Uint32Array;
  days: Int32Array;
}

/** Whom each record was handed over to, and when last. Every record is known: one that was never handed over is a no. */
export function handedColumn(receivers: readonly HandedTo[], size: number): ManyColumn {
  const offsets = new Uint32Array(size + 1);
  const starts = new Uint32Array(receivers.length + 1);
  receivers.forEach(({ records }, value) => {
    starts[value + 1] = starts[value]! + records.length;
    for (const r of records) offsets[r + 1]!++;
  });
  for (let r = 0; r < size; r++) offsets[r + 1]! += offsets[r]!;
  const total = starts[receivers.length]!;
  const values = new Uint32Array(total);
  const records = new Uint32Array(total);
  const seen = new Int32Array(total);
  const next = offsets.slice();
  receivers.forEach((one, value) => {
    records.set(one.records, starts[value]);
    seen.set(one.days, starts[value]);
    for (const r of one.records) values[next[r]!++] = value;
  });
  return {
    kind: 'many',
    dictionary: receivers.map(({ receiver }) => receiver),
    offsets,
    values,
    postings: { starts, records },
    seen,
    known: allBits(size),
  };
}

/** The same, found out when it is first looked into: few tapes ask, and reading who was handed a million records takes its time. */
export function lazyHanded(
  receivers: readonly string[],
  size: number,
  read: () => readonly HandedTo[],
): ManyColumn {
  let made: ManyColumn | null = null;
  const whole = () => (made ??= handedColumn(read(), size));
  return {
    kind: 'many',
    dictionary: [...receivers],
    known: allBits(size),
    get offsets() {
      return whole().offsets;
    },
    get values() {
      return whole().values;
    },
    get postings() {
      return whole().postings;
    },
    get seen() {
      return whole().seen;
    },
  };
}
