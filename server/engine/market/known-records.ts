import type { Field } from '../../../core/fields/field.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { addBits, countBoth, noBits, notBits, setBit, type Bits } from '../../../core/tally/bits.ts';
import {
  Basis,
  type CodesColumn,
  type Column,
  type KeyedColumn,
  type RangeColumn,
} from '../../../core/tally/columns.ts';
import { addRecords } from '../../../core/tally/sorted.ts';
import type { Engine } from '../engine.ts';

/** Of which records each field is known. */
export class KnownRecords {
  private readonly engine: Engine;
  private readonly sets = new WeakMap<Column, Bits>();
  private readonly bands = new WeakMap<Column, Bits>();
  private readonly keyed = new Map<string, { column: Column; known: Bits }>();
  private readonly labels = new Map<string, Labels>();

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

  /** The records of which a field in a column of its own is known; null for other fields. */
  columnOf(subject: string, field: Field): Bits | null {
    const { columns } = this.engine.universeOf(subject);
    return columns.has(field.yearsSince ?? field.id) ? this.of(subject, field) : null;
  }

  private of(subject: string, field: Field): Bits | null {
    const { columns, size } = this.engine.universeOf(subject);
    const column = columns.get(field.yearsSince ?? field.id);
    if (!column)
      return field.kind === 'label' && field.store.at === 'column'
        ? this.ofLabel(subject, field.store.column, size)
        : null;
    const key = field.column?.key;
    if (key !== undefined && 'kind' in column && column.kind === 'keyed') {
      const name = `${subject} ${field.id}`;
      let own = this.keyed.get(name);
      if (own?.column !== column)
        this.keyed.set(name, (own = { column, known: knownUnder(column, key, field, size) }));
      return own.known;
    }
    let known = this.sets.get(column);
    if (!known) {
      const found = knownIn(column, size);
      if (!found) return null;
      this.sets.set(column, (known = found));
    }
    return known;
  }

  /**
   * Labels are in no column, so that the table says where there is one: of all labels in one pass. Of many records it is asked for
   * some at a time while nothing else is to do; until all are read, nothing is said.
   */
  private ofLabel(subject: string, column: string, size: number): Bits | null {
    let own = this.labels.get(subject);
    if (!own) {
      const columns = labelColumns(subject);
      own = { columns, known: columns.map(() => noBits(size)), done: false };
      this.labels.set(subject, own);
      this.read(subject, own, 0, size > AT_ONCE ? CHUNK : Infinity);
    }
    return own.done ? own.known[own.columns.indexOf(column)]! : null;
  }

  private read(subject: string, own: Labels, from: number, chunk: number): void {
    const { table } = subjectOf(subject);
    const { recordOf, ids } = this.engine.subject(subject).records;
    const last = ids.at(-1) ?? 0;
    const to = Math.min(last, from + chunk - 1);
    const which = own.columns.map((column, i) => `((${column} IS NOT NULL) << ${i})`).join(' | ');
    const rows = this.engine.db
      .prepare<[number, number], [id: number, which: number]>(
        `SELECT id, ${which} FROM ${table} WHERE id BETWEEN ? AND ?`,
      )
      .raw()
      .all(from, to);
    for (const [id, labels] of rows) {
      const r = recordOf[id] ?? -1;
      if (r < 0) continue;
      for (let i = 0; i < own.known.length; i++) if ((labels >> i) & 1) setBit(own.known[i]!, r);
    }
    own.done = to === last;
    if (!own.done) setTimeout(() => this.read(subject, own, to + 1, chunk), PAUSE_MS).unref();
  }
}

/** Labels of a subject, and of which records each is known. */
interface Labels {
  columns: readonly string[];
  known: Bits[];
  done: boolean;
}

function labelColumns(subject: string): string[] {
  return subjectOf(subject).fields.flatMap(({ kind, store }) =>
    kind === 'label' && store.at === 'column' ? [store.column] : [],
  );
}

/** Records up to which labels are read at once; beyond it so many ids at a time, which no call has to wait for, with a pause for other calls. */
const AT_ONCE = 100_000;
const CHUNK = 2000;
const PAUSE_MS = 2;

/** Records of which the figure under one key is known; none there means 0 for some fields. */
function knownUnder(column: KeyedColumn, key: string, { store }: Field, size: number): Bits {
  if ((store as { absent: 0 | null }).absent !== null) return column.known;
  const known = noBits(size);
  const k = column.keys.indexOf(key);
  if (k >= 0) addRecords(known, column.records, column.starts[k]!, column.starts[k + 1]!);
  return known;
}

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
    case 'known':
    case 'key':
      return null;
  }
}
