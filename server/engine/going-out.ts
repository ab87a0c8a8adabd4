import { MOST_NAMED } from '../../core/tape/naming.ts';
import { parseSpan, spanStart } from '../../core/dates.ts';
import type { GoingFigures } from '../../core/exports/roll.ts';
import { canBeAsked } from '../../core/fields/field.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import { drawSample } from '../../core/stats/draw.ts';
import {
  countBits,
  countBoth,
  dropBits,
  hasBit,
  keepBits,
  noBits,
  notBits,
  recordsOf,
  setBit,
  type Bits,
} from '../../core/tally/bits.ts';
import type { ManyColumn } from '../../core/tally/columns.ts';
import { testMany } from '../../core/tally/test-category.ts';
import { Problem } from '../../core/tape/problem.ts';
import { validateSort } from '../../core/tape/validate.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import type { Engine } from './engine.ts';
import { knownIn, reachable } from './rows/known-in.ts';
import type { Picks } from './subject-engine.ts';

/** What keeps records off an export, beside suppression lists. */
export interface GoingWish {
  /** Suppression lists that keep nothing off this time. */
  along: readonly string[];
  /** Off those that a receiver, or any, was handed within so many days, or ever. */
  handed: { receiver: string | null; days: number | null } | null;
  /** Fields that every row must have a value of. */
  needs: readonly string[];
  /** What the kind of file needs of each record. */
  reach: 'address' | 'point' | null;
  sample: { size: number; seed: number } | null;
}

/** The ids that go out, in order, and what keeps the others off. */
export interface GoingOut {
  ids: Uint32Array;
  figures: GoingFigures;
}

interface Left {
  /** All of the tape, or what was picked, in order. */
  records: Uint32Array;
  left: Bits;
  figures: GoingFigures;
  /** By step, the records that it took off. */
  taken: Map<string, Bits>;
  tape: Tape;
}

export function goingOut(
  engine: Engine,
  input: unknown,
  sort: unknown,
  picks: Picks,
  wish: GoingWish,
): GoingOut {
  const { records, left, figures, tape } = sorted(engine, input, sort, picks, wish);
  const { ids } = engine.subject(tape.subject).records;
  const going = countBits(left) === records.length ? records : records.filter((r) => hasBit(left, r));
  return { ids: going.map((r) => ids[r]!), figures };
}

/** Keys of the records that one step of an export's roll took off, at most so many; null where there are more. */
export function stayingOff(
  engine: Engine,
  input: unknown,
  sort: unknown,
  picks: Picks,
  wish: GoingWish,
  step: string,
): string[] | null {
  const { taken, tape } = sorted(engine, input, sort, picks, wish);
  const bits = taken.get(step);
  if (!bits)
    throw new Problem('unknown-step', `There is no step "${step}" on this roll.`, {
      field: 'step',
      value: step,
    });
  const records = recordsOf(bits);
  return records.length > MOST_NAMED ? null : engine.subject(tape.subject).keysOf(records);
}

function sorted(engine: Engine, input: unknown, sort: unknown, picks: Picks, wish: GoingWish): Left {
  const tape = engine.checked(input);
  const own = engine.subject(tape.subject);
  const records = own.picked(tape, validateSort(sort ?? tape.sort ?? [], tape), picks);
  const left = noBits(own.size);
  for (const r of records) setBit(left, r);
  const taken = new Map<string, Bits>();
  /** Takes some off, each of those still there; returns how many. */
  const take = (step: string, some: Bits): number => {
    const bits = left.slice();
    keepBits(bits, some);
    dropBits(left, some);
    taken.set(step, bits);
    return countBits(bits);
  };
  const off = engine.keptOff.byList(tape.subject).flatMap(({ list, bits }) => {
    const { key, label: name } = list;
    const along = wish.along.includes(key);
    const count = along ? countBoth(left, bits) : take(`off-${key}`, bits);
    return count ? [{ list: key, name, count, along }] : [];
  });
  const handed = wish.handed && {
    ...{ to: receiverName(engine, tape.subject, wish.handed.receiver), days: wish.handed.days },
    count: take('handed', handedBits(engine, tape.subject, wish.handed)),
  };
  const { db } = engine;
  const lacking = wish.needs.map((id) => {
    const field = fieldOf(tape.subject, id);
    if (!field || !canBeAsked(field))
      throw new Problem('unknown-field', `No value of "${id}" can be asked of ${tape.subject}.`, {
        field: 'needs',
        value: id,
        rule: `a column of ${tape.subject} that files bring`,
      });
    return {
      field: id,
      label: field.label,
      count: take(`lacking-${id}`, notBits(knownIn(db, own.records, field), own.size)),
    };
  });
  const unreachable = wish.reach && {
    what: wish.reach,
    count: take('unreachable', notBits(reachable(db, own.records, wish.reach), own.size)),
  };
  let notDrawn: GoingFigures['notDrawn'] = null;
  if (wish.sample) {
    const { size, seed } = wish.sample;
    const drawn = noBits(own.size);
    for (const { record } of drawSample(left, own.records.ids, size, seed, () => 0, [
      { key: '', label: 'all' },
    ]).records)
      setBit(drawn, record);
    notDrawn = { size, count: take('not-drawn', notBits(drawn, own.size)) };
  }
  const picked = Object.keys(picks).length > 0;
  return {
    ...{ records, left, taken, tape },
    figures: { of: records.length, picked, off, handed, lacking, unreachable, notDrawn },
  };
}

/** The records that a receiver, or anybody, was handed within a span: the very ones that a line on it keeps. */
function handedBits(
  engine: Engine,
  subject: string,
  { receiver, days }: NonNullable<GoingWish['handed']>,
): Bits {
  const column = engine.universeOf(subject).columns.get('handed-over') as ManyColumn;
  const any = receiver === null ? column.dictionary : [receiver];
  const since = days === null ? null : spanStart(engine.lookup.asOf, parseSpan(`${days} days`)!);
  return testMany(column, { any }, new Map(), engine.subject(subject).size, since).yes;
}

function receiverName(engine: Engine, subject: string, receiver: string | null): string | null {
  if (receiver === null) return null;
  const choices = engine.lookup.choices({ subject, id: 'handed-over' });
  return choices.find(({ key }) => key === receiver)?.label ?? receiver;
}
