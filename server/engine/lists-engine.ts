import type { AgainstListAnswer } from '../../contract/lists.ts';
import { countBits, countBoth, hasBit, noBits, recordsOf, setBit, type Bits } from '../../core/tally/bits.ts';
import type { ListColumn } from '../../core/tally/columns.ts';
import { drawSample } from '../../core/stats/draw.ts';
import type { DrawnKeys } from '../tables/lists/checks.ts';
import type { PersonFunction } from '../../core/people/functions.ts';
import { companiesOf } from '../../core/tally/links.ts';
import { addMembers } from '../../core/tally/members.ts';
import { isLive, VERDICTS, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { wordTape } from '../../core/tape/wording.ts';
import { validateSort } from '../../core/tape/validate.ts';
import type { Engine } from './engine.ts';
import { rightPeopleAmong, rightPeopleOf } from './rows/right-people.ts';
import type { Picks } from './subject-engine.ts';

/** Parts that a sample can be shared out by. */
const MOST_STRATA = 300;

/** Records found in one state of the universe. */
export interface FoundRecords {
  ids: Uint32Array;
  /** The change of the universe that it was found after. */
  revision: number;
  /** Companies, by id, where nobody holds any of the functions asked for. */
  without: Uint32Array;
}

/** What lists ask of the universe. */
export class ListsEngine {
  private readonly engine: Engine;

  constructor(engine: Engine) {
    this.engine = engine;
  }

  /**
   * Records of a tape that go on a list of a subject: they themselves, or those they hang on, or that hang on them. With
   * `functions` one person of each company, who holds the first of them that anybody holds: anybody there where the tape is on
   * companies, anybody of the tape where it is on people.
   */
  recordsFor(
    input: unknown,
    sort: unknown,
    picks: Picks,
    subject: string,
    functions?: readonly PersonFunction[],
  ): FoundRecords {
    const tape = this.engine.checked(input);
    const own = this.engine.subject(tape.subject);
    const picked = own.picked(tape, validateSort(sort ?? tape.sort ?? [], tape), picks);
    const { revision } = this.engine;
    if (functions)
      return {
        ...this.onePerCompany(
          tape.subject,
          picked.map((r) => own.records.ids[r]!),
          subject,
          functions,
        ),
        revision,
      };
    const records = tape.subject === subject ? picked : this.turned(tape.subject, picked, subject);
    const { ids } = this.engine.subject(subject).records;
    return { ids: records.map((r) => ids[r]!), revision, without: new Uint32Array() };
  }

  private onePerCompany(
    from: string,
    ids: Uint32Array,
    subject: string,
    functions: readonly PersonFunction[],
  ): Pick<FoundRecords, 'ids' | 'without'> {
    if (subject !== 'people' || (from !== 'companies' && from !== 'people'))
      throw new Problem('wrong-subject', `Nobody can be chosen by function of ${from} for ${subject}.`, {
        field: 'functions',
        value: subject,
        rule: 'people, of a tape on companies or people',
      });
    if (from === 'people') {
      const { chosen, without } = rightPeopleAmong(this.engine.db, ids, functions);
      return { ids: Uint32Array.from(chosen, ({ person }) => person.id), without: Uint32Array.from(without) };
    }
    const found = rightPeopleOf(this.engine.db, ids, functions);
    return {
      ids: Uint32Array.from(found.flatMap((one) => one?.person.id ?? [])),
      without: ids.filter((_, i) => found[i] === null),
    };
  }

  private turned(from: string, picked: Uint32Array, to: string): Uint32Array {
    const { relations, size } = this.engine.universeOf('companies');
    const bits = noBits(this.engine.universeOf(from).size);
    for (const r of picked) setBit(bits, r);
    const companies =
      from === 'companies' ? bits : companiesOf(bits, relations!.get(from)!.links.get('')!, size);
    if (to === 'companies') return recordsOf(companies);
    const { starts, records } = relations!.get(to)!.hanging.get('')!;
    const found = noBits(this.engine.universeOf(to).size);
    for (const c of recordsOf(companies))
      for (let i = starts[c]!; i < starts[c + 1]!; i++) setBit(found, records ? records[i]! : i);
    return recordsOf(found);
  }

  /** How many of some records suppression lists keep off. */
  keptOffOf(subject: string, ids: Uint32Array): number {
    const off = this.engine.keptOff.of(subject);
    if (!off) return 0;
    const { recordOf } = this.engine.subject(subject).records;
    let count = 0;
    for (const id of ids) if (hasBit(off, recordOf[id]!)) count++;
    return count;
  }

  /** Which of some records, by key, suppression lists keep off. */
  keptOffAmong(subject: string, keys: readonly string[]): string[] {
    const off = this.engine.keptOff.of(subject);
    if (!off) return [];
    const records = this.engine.subject(subject).records.byKeys(keys);
    return keys.filter((_, i) => records[i]! >= 0 && hasBit(off, records[i]!));
  }

  /** A sample of what a tape keeps, shared out by the values of a field where one is named. */
  drawSample(input: unknown, size: number, seed: number, by: string | null): DrawnKeys {
    const tape = this.engine.checked(input);
    const own = this.engine.subject(tape.subject);
    const kept = own.tally.kept(tape);
    const parts = by === null ? null : this.stratified(tape.subject, by);
    const { records, strata } = drawSample(
      kept,
      own.records.ids,
      size,
      seed,
      parts ? (r) => parts.values[r]! : () => 0,
      parts?.strata ?? [{ key: '', label: 'all' }],
    );
    const keys = own.keysOf(Uint32Array.from(records, ({ record }) => record));
    return {
      population: countBits(kept),
      members: records.map(({ stratum }, i) => ({ key: keys[i]!, stratum: strata[stratum]!.key })),
      strata: strata.filter((one) => one.size > 0),
    };
  }

  /** The values of a field that a sample can be shared out by. @throws Problem where it has not one of a fixed few each */
  private stratified(subject: string, id: string) {
    const column = this.engine.universeOf(subject).columns.get(id);
    const single = column && 'kind' in column && column.kind === 'place' ? column.country : column;
    if (
      !single ||
      !('kind' in single) ||
      single.kind !== 'category' ||
      single.dictionary.length > MOST_STRATA
    )
      throw new Problem('unknown-field', `A sample cannot be shared out by "${id}".`, {
        field: 'by',
        value: id,
        rule: `place, or a field with one of at most ${MOST_STRATA} values each`,
      });
    const labels = new Map(
      this.engine.lookup.choices({ subject, id }).map((choice) => [choice.key, choice.label]),
    );
    const label = (key: string) =>
      labels.get(key) ?? (id === 'place' ? this.engine.lookup.places.country(key)?.name : undefined) ?? key;
    const strata = single.dictionary.map((key) => ({ key, label: label(key) }));
    return { values: single.values, strata: [{ key: '', label: 'unknown' }, ...strata] };
  }

  /** A list held against a tape: who would join, who would leave, and by which line. */
  heldAgainst(input: unknown, key: string): AgainstListAnswer {
    const tape = this.engine.checked(input);
    const { tally } = this.engine.subject(tape.subject);
    const { lists } = tally.universe.columns.get('list') as ListColumn;
    const held = lists.get(key);
    if (!held)
      throw new Problem('unknown-list', `There is no list "${key}" of ${tape.subject} in this workspace.`, {
        field: 'key',
        value: key,
        rule: `the key of a list of ${tape.subject}`,
      });
    const members = noBits(tally.universe.size);
    addMembers(members, held, VERDICTS);
    const kept = tally.kept(tape);
    const both = countBoth(members, kept);
    const words = wordTape(tape.lines, tape.subject, this.engine.lookup);
    return {
      members: held.records.length,
      both,
      joining: countBits(kept) - both,
      leaving: held.records.length - both,
      lines: tape.lines.flatMap((line, i) =>
        isLive(line)
          ? [{ id: line.id, words: words[i]!, dropped: missing(members, tally.kept(alone(tape, i))) }]
          : [],
      ),
    };
  }
}

function alone(tape: Tape, at: number): Tape {
  return { ...tape, lines: [tape.lines[at]!] };
}

function missing(members: Bits, kept: Bits): number {
  return countBits(members) - countBoth(members, kept);
}
