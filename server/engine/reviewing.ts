import { monthsBetween } from '../../core/dates.ts';
import { doubtOf, FEW_JUDGED, wordDoubts, type Doubts } from '../../core/lists/doubt.ts';
import { likenessToJudged } from '../../core/lists/likeness.ts';
import { traitsOf, type Traits } from '../../core/lists/traits.ts';
import { columnFields, subjectOf } from '../../core/fields/registry.ts';
import { hasBit, type Bits } from '../../core/tally/bits.ts';
import {
  NO_DAY,
  type Column,
  type DateColumn,
  type ListColumn,
  type Members,
} from '../../core/tally/columns.ts';
import type { Keys } from '../../core/tally/order.ts';
import { isBlock, isHas, isLive, VERDICTS, type Line, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { wordTape } from '../../core/tape/wording.ts';
import type { Engine } from './engine.ts';
import { KnownRecords } from './market/known-records.ts';
import type { ReviewColumns } from './review-columns.ts';
import type { WorkspaceFacts } from './workspace-facts.ts';

/** What says of a record where it comes from or what was done with it, and not what it is. */
const NOT_ITS_OWN: ReadonlySet<string> = new Set([
  'source',
  'checked',
  'checked-how',
  'handed-over',
  'joined',
  'corrected',
  'disputed',
]);
/** Figures of all records, of so many lists and tapes, are kept. */
const MOST_KEPT = 16;
const NOBODY_JUDGED: Doubts['misses'] = { out: 0, of: 0 };
/** By which fields members are of one kind. */
const KINDS: readonly string[] = ['industry', 'place', 'department', 'kind', 'category'];

/** What can be told of the members of a list before anybody has looked at them: what to look at first. */
export class Reviewing implements ReviewColumns {
  private readonly engine: Engine;
  private readonly known: KnownRecords;
  /** What was reckoned since lists and settings last changed. */
  private facts: WorkspaceFacts | undefined;
  private readonly found = new Map<string, unknown>();

  constructor(engine: Engine) {
    this.engine = engine;
    this.known = new KnownRecords(engine);
  }

  figures(tape: Pick<Tape, 'lines' | 'subject'>, list: string, part: 'likeness' | 'doubt'): Keys {
    return part === 'likeness'
      ? this.once(`likeness ${tape.subject} ${list}`, () => this.likeness(tape.subject, list))
      : this.once(`doubt ${JSON.stringify(tape.lines)} ${list}`, () => {
          const told = this.doubtsOf(tape, list);
          const keys = new Float64Array(this.engine.universeOf(tape.subject).size).fill(NaN);
          this.membersOf(tape.subject, list).records.forEach((r) => (keys[r] = doubtOf(told(r)) ?? NaN));
          return keys;
        });
  }

  doubts(tape: Pick<Tape, 'lines' | 'subject'>, list: string, records: Uint32Array): (string | null)[] {
    const told = this.doubtsOf(tape, list);
    const members = this.once(
      `members ${tape.subject} ${list}`,
      () => new Set(this.membersOf(tape.subject, list).records),
    );
    return Array.from(records, (r) => (members.has(r) ? wordDoubts(told(r)) : null));
  }

  private once<T>(name: string, make: () => T): T {
    if (this.facts !== this.engine.workspace) {
      this.facts = this.engine.workspace;
      this.found.clear();
    }
    let found = this.found.get(name) as T | undefined;
    if (found === undefined) {
      found = make();
      if (this.found.size >= MOST_KEPT) this.found.clear();
      this.found.set(name, found);
    }
    return found;
  }

  private membersOf(subject: string, list: string): Members {
    const { lists } = this.engine.universeOf(subject).columns.get('list') as ListColumn;
    return lists.get(list) ?? { records: new Uint32Array(0), verdicts: new Uint8Array(0) };
  }

  /** Members judged in or out on the list, and by spot checks of it where the list says nothing. */
  private judged(subject: string, list: string): { in: number[]; out: number[] } {
    return this.once(`judged ${subject} ${list}`, () => {
      const { records, verdicts } = this.membersOf(subject, list);
      const judged = { in: [] as number[], out: [] as number[] };
      const open = new Set<number>();
      records.forEach((record, i) => {
        const verdict = VERDICTS[verdicts[i]!];
        if (verdict === 'in' || verdict === 'out') judged[verdict].push(record);
        else open.add(record);
      });
      const checked = this.engine.workspace.cells.checked(list, subject);
      this.engine
        .subject(subject)
        .records.byKeys(checked.map(({ key }) => key))
        .forEach((record, i) => {
          if (open.delete(record)) judged[checked[i]!.verdict].push(record);
        });
      return judged;
    });
  }

  private likeness(subject: string, list: string): Keys {
    const { records } = this.membersOf(subject, list);
    const judged = this.judged(subject, list);
    const among = [...judged.in, ...judged.out];
    const fields = columnFields(subject).flatMap(({ id, yearsSince }) =>
      NOT_ITS_OWN.has(id) || yearsSince ? [] : (this.traits(subject, id, among) ?? []),
    );
    const keys = new Float64Array(this.engine.universeOf(subject).size).fill(NaN);
    likenessToJudged(fields, judged, records).forEach((odds, i) => (keys[records[i]!] = odds));
    return keys;
  }

  private traits(subject: string, field: string, among: readonly number[]): Traits | null {
    const column = this.engine.universeOf(subject).columns.get(field);
    return column ? traitsOf(column, among, (scheme) => this.engine.lookup.codes(scheme)) : null;
  }

  /** What there is to doubt of a member, as a function of its record. */
  private doubtsOf(tape: Pick<Tape, 'lines' | 'subject'>, list: string): (record: number) => Doubts {
    return this.once(`doubts ${JSON.stringify(tape.lines)} ${list}`, () => {
      const { subject } = tape;
      const { columns } = this.engine.universeOf(subject);
      const known = columnFields(subject).flatMap((field) =>
        NOT_ITS_OWN.has(field.id) ? [] : (this.known.columnOf(subject, field) ?? []),
      );
      const checked = columns.get('checked') as DateColumn | undefined;
      const lines = this.linesOf(tape, list);
      const misses = this.missesOfKind(subject, list);
      return (r) => ({
        blank: { unknown: known.reduce((n, bits) => n + Number(!hasBit(bits, r)), 0), of: known.length },
        months: this.monthsSince(checked, r),
        unsure: {
          lines: lines.filter(({ unsure }) => hasBit(unsure, r)).map(({ words }) => words),
          of: lines.length,
        },
        misses: misses(r),
      });
    });
  }

  private monthsSince(checked: Column | undefined, r: number): number | null {
    if (!checked || !('kind' in checked) || checked.kind !== 'date' || checked.days[r] === NO_DAY)
      return null;
    return monthsBetween(checked.days[r]!, this.engine.workspace.asOf);
  }

  /** Lines that put members on the list, and those beside it on the tape at hand, with the records that each is unsure of. */
  private linesOf({ subject, lines }: Pick<Tape, 'lines' | 'subject'>, list: string): LineDoubt[] {
    const { tally } = this.engine.subject(subject);
    const found = new Map<string, LineDoubt>();
    const add = (some: readonly Line[]) => {
      const words = wordTape(some, subject, this.engine.lookup);
      some.forEach((line, i) => {
        const onLists = !isBlock(line) && !isHas(line) && line.field === 'list';
        if (isLive(line) && !onLists)
          found.set(words[i]!, { words: words[i]!, unsure: tally.unsureOf(line) });
      });
    };
    for (const input of this.engine.workspace.cells.tapesOf(list)) {
      const tape = this.checked(input);
      if (tape?.subject === subject) add(tape.lines);
    }
    add(lines);
    return [...found.values()];
  }

  /** A tape kept with the list; null where it names what is there no longer. */
  private checked(input: unknown): Tape | null {
    try {
      return this.engine.checked(input);
    } catch (error) {
      if (error instanceof Problem) return null;
      throw error;
    }
  }

  /** How many of the judged of a record's kind are out, as a function of the record. */
  private missesOfKind(subject: string, list: string): (record: number) => Doubts['misses'] {
    const judged = this.judged(subject, list);
    const all = judged.in.length + judged.out.length;
    const kinds = KINDS.filter((id) => subjectOf(subject).fields.some((field) => field.id === id)).flatMap(
      (id) => {
        const traits = this.traits(subject, id, [...judged.in, ...judged.out]);
        if (!traits) return [];
        const counts = new Map<number, { out: number; of: number }>();
        const count = (records: readonly number[], out: number) => {
          for (const record of records)
            traits(record, (trait) => {
              const one = counts.get(trait) ?? { out: 0, of: 0 };
              counts.set(trait, { out: one.out + out, of: one.of + 1 });
            });
        };
        count(judged.in, 0);
        count(judged.out, 1);
        return [{ traits, counts }];
      },
    );
    return (record) => {
      // The narrowest kind of which some are judged.
      let narrowest = NOBODY_JUDGED;
      for (const { traits, counts } of kinds)
        traits(record, (trait) => {
          const one = counts.get(trait);
          // Of a kind that all are of, there is nothing to tell.
          if (one && one.of >= FEW_JUDGED && one.of < all && (narrowest.of === 0 || one.of < narrowest.of))
            narrowest = one;
        });
      return narrowest;
    };
  }
}

interface LineDoubt {
  words: string;
  unsure: Bits;
}
