import type { Field } from '../../core/fields/field.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { addBits, countBoth, noBits, notBits, setBit, type Bits } from '../../core/tally/bits.ts';
import { Basis, type CodesColumn, type Column, type RangeColumn } from '../../core/tally/columns.ts';
import { addRecords } from '../../core/tally/sorted.ts';
import type { Engine } from './engine.ts';

/** Of which records each field is known. */
export class KnownRecords {
  private readonly engine: Engine;
  private readonly sets = new WeakMap<Column, Bits>();
  private readonly bands = new WeakMap<Column, Bits>();
  private readonly labels = new Map<string, { known: Bits; done: boolean }>();

  constructor(engine: Engine) {
    this.engine = engine;
  }

  /** How many records of a context have a value; null for what is not recorded but made or kept elsewhere. */
  count(subject: string, field: Field, context: Bits): number | null {
    const known = this.of(subject, field);
    return known && countBoth(known, context);
  }

  /** Of the figures of a context, those that are estimates and those that are bands. */
  softer(subject: string, field: Field, context: Bits): { estimated: number; banded: number } {
    const column = this.engine.universeOf(subject).columns.get(field.id) as RangeColumn | undefined;
    if (column?.kind !== 'range') return { estimated: 0, banded: 0 };
    let banded = this.bands.get(column);
    if (!banded) {
      banded = noBits(column.basis.length);
      for (let r = 0; r < column.basis.length; r++) if (column.basis[r] === Basis.Band) setBit(banded, r);
      this.bands.set(column, banded);
    }
    return { estimated: countBoth(column.index.estimated, context), banded: countBoth(banded, context) };
  }

  private of(subject: string, field: Field): Bits | null {
    const { columns, size } = this.engine.universeOf(subject);
    const column = columns.get(field.id);
    if (!column)
      return field.kind === 'label' && field.store.at === 'column'
        ? this.ofLabel(subject, field.store.column, size)
        : null;
    let known = this.sets.get(column);
    if (!known) {
      const found = knownIn(column, size);
      if (!found) return null;
      this.sets.set(column, (known = found));
    }
    return known;
  }

  /**
   * Labels are in no column, so that the table says where there is one. Of many records it is asked for some thousand at a time
   * while nothing else is to do; until all are read, nothing is said.
   */
  private ofLabel(subject: string, column: string, size: number): Bits | null {
    const name = `${subject} ${column}`;
    let own = this.labels.get(name);
    if (!own) {
      own = { known: noBits(size), done: false };
      this.labels.set(name, own);
      this.read(subject, column, own, 0, size > AT_ONCE ? CHUNK : Infinity);
    }
    return own.done ? own.known : null;
  }

  private read(
    subject: string,
    column: string,
    own: { known: Bits; done: boolean },
    from: number,
    chunk: number,
  ): void {
    const { table } = subjectOf(subject);
    const { recordOf, ids } = this.engine.subject(subject).records;
    const last = ids.at(-1) ?? 0;
    const to = Math.min(last, from + chunk - 1);
    const found = this.engine.db
      .prepare<[number, number], number>(
        `SELECT id FROM ${table} WHERE id BETWEEN ? AND ? AND ${column} IS NOT NULL`,
      )
      .pluck()
      .all(from, to);
    for (const id of found) if ((recordOf[id] ?? -1) >= 0) setBit(own.known, recordOf[id]!);
    own.done = to === last;
    if (!own.done) setTimeout(() => this.read(subject, column, own, to + 1, chunk), PAUSE_MS).unref();
  }
}

/** Records up to which labels are read at once; beyond it so many ids at a time, with a pause for other calls. */
const AT_ONCE = 100_000;
const CHUNK = 20_000;
const PAUSE_MS = 5;

function knownIn(column: Column, size: number): Bits | null {
  if (column instanceof Map) {
    const known = noBits(size);
    for (const { coded } of (column as Map<unknown, CodesColumn>).values()) addBits(known, coded);
    return known;
  }
  switch (column.kind) {
    case 'category': {
      const known = noBits(size);
      addRecords(known, column.postings.records, column.postings.starts[1]!, column.postings.records.length);
      return known;
    }
    case 'many':
    case 'keyed':
      return column.known;
    case 'range':
      return notBits(column.index.unknown, size);
    case 'date':
      return notBits(column.undated, size);
    case 'place':
      return knownIn(column.country, size);
    case 'text':
    case 'list':
    case 'key':
      return null;
  }
}
