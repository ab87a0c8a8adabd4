import type { Scheme } from '../../core/codes/tree.ts';
import type { Row } from '../../core/cells.ts';
import type {
  FoundAnswer,
  PositionAnswer,
  ProfileAnswer,
  RecordAnswer,
  CodeAnswer,
  SqlAnswer,
  WordedTally,
} from '../../contract/responses.ts';
import { fieldOf, relationsOf } from '../../core/fields/registry.ts';
import { countBits, countBoth, keepBits, type Bits } from '../../core/tally/bits.ts';
import { freshRecords } from '../../core/tally/evaluate.ts';
import { TallyCache } from '../../core/tally/tally.ts';
import type { CodesColumn, PlaceColumn, Universe } from '../../core/tally/columns.ts';
import type { Keys } from '../../core/tally/order.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { putLines } from '../../core/tape/also.ts';
import { isBlock, isHas, type Line, type Tape } from '../../core/tape/nodes.ts';
import { ownColumnOf } from '../../core/tape/own-columns.ts';
import { Problem } from '../../core/tape/problem.ts';
import { TapeCompiler, type Dialect } from '../../core/tape/sql/compile.ts';
import { written } from '../../core/tape/sql/statement.ts';
import { complete, type Completion } from '../../core/tape/typed/complete.ts';
import { parseTyped } from '../../core/tape/typed/parse.ts';
import { spellLine } from '../../core/tape/typed/spell.ts';
import { checkFresh, validateSort, validateTape } from '../../core/tape/validate.ts';
import { readTape } from '../../core/tape/reading.ts';
import { wordLine, wordTape, type Wording } from '../../core/tape/wording.ts';
import type { Db } from '../db/open.ts';
import { codeAnswer } from './pickers/code-answer.ts';
import { jumpTo, type UniverseHits } from './pickers/jump.ts';
import type { CountsRequest } from './pickers/counts-request.ts';
import { ownHeading } from './rows/own-heading.ts';
import { DomainMates } from './domain-mates.ts';
import { KeptOff } from './kept-off.ts';
import { Peers } from './peers/peers.ts';
import { countsOf } from './pickers/picker-counts.ts';
import { checkCorrections, type CheckedCorrections, type CorrectionWish } from './rows/corrections.ts';
import { readProfile } from './rows/profile.ts';
import { readRecord } from './rows/record.ts';
import type { StoredUniverse } from './opening/stored-universe.ts';
import type { ReviewColumns } from './review-columns.ts';
import type { OwnColumns } from './rows/own-cells.ts';
import { SubjectEngine, type Picks } from './subject-engine.ts';
import { universeLookup, type ReferenceData } from './universe-lookup.ts';
import { recordsOfAll, type Records } from './records.ts';
import { openTallies, openUniverses } from './universes.ts';
import { isSameButMembers, namesLists, type WorkspaceFacts } from './workspace-facts.ts';

/** One universe, opened: counts, rows and typed lines over it. Runs in a worker thread. */
export class Engine {
  readonly db: Db;
  private readonly stored: StoredUniverse;
  private readonly reference: ReferenceData;
  private readonly records: ReadonlyMap<string, Records>;
  private subjects: ReadonlyMap<string, SubjectEngine> | undefined;
  lookup: Lookup;
  private readonly peers: Peers;
  private readonly mates: DomainMates;
  private readonly cache = new TallyCache();
  private facts: WorkspaceFacts;
  /** What is reckoned of members of lists; set before anything is asked. */
  private review: ReviewColumns | null = null;
  /** What suppression lists keep off exports. */
  keptOff!: KeptOff;

  /** `db` must go on showing the state that `stored` was built from; `records` are those of `stored`. */
  constructor(
    db: Db,
    reference: ReferenceData,
    stored: StoredUniverse,
    facts: WorkspaceFacts,
    records = recordsOfAll(stored, db),
  ) {
    this.db = db;
    this.reference = reference;
    this.stored = stored;
    this.records = records;
    this.peers = new Peers(db, reference, this.records.get('companies')!);
    this.mates = new DomainMates(db, this.records.get('companies')!);
    this.facts = facts;
    this.lookup = this.lookupWith(facts);
    this.subjects = this.open(facts);
  }

  private lookupWith(facts: WorkspaceFacts): Lookup {
    return universeLookup(this.db, this.reference, this.stored, facts, (test) => this.peers.sets(test));
  }

  private open(
    facts: WorkspaceFacts,
    forget: (text: string) => boolean = () => true,
  ): ReadonlyMap<string, SubjectEngine> {
    const universes = openUniverses(this.stored, this.db, this.records, facts);
    this.peers.universe = universes.get('companies')!;
    const tallies = openTallies(universes, this.lookup, this.cache);
    this.keptOff = new KeptOff(facts, universes, this.mates, this.keptOff);
    return new Map(
      [...tallies].map(([subject, tally]) => {
        const earlier = this.subjects?.get(subject);
        return [
          subject,
          new SubjectEngine(
            this.db,
            this.lookup,
            this.records.get(subject)!,
            tally,
            subject === 'companies' ? this.peers : null,
            facts.cells,
            this.review,
            earlier && { engine: earlier, forget },
          ),
        ];
      }),
    );
  }

  /**
   * Takes over settings, lists, contacts and groups of countries that changed. What was counted with the old ones is forgotten;
   * where nothing but members of lists changed, of lines on lists alone.
   */
  useFacts(facts: WorkspaceFacts): void {
    const listsAlone = isSameButMembers(facts, this.facts);
    const forget = listsAlone ? namesLists : () => true;
    this.facts = facts;
    this.cache.forget(forget);
    if (!listsAlone) this.lookup = this.lookupWith(facts);
    this.subjects = this.open(facts, forget);
  }

  /** Takes sort keys of a label of companies, such as the name, that another thread has made. */
  takeLabelKeys(by: string, keys: Keys): void {
    this.companies.takeLabelKeys(by, keys);
  }

  /** Who reckons what the columns for going through lists say; it counts by this engine itself. */
  useReview(review: ReviewColumns): void {
    this.review = review;
    this.subjects = this.open(this.facts, () => false);
  }

  /** The user's own, as tapes rest on it now; another object once any of it changed. */
  get workspace(): WorkspaceFacts {
    return this.facts;
  }

  private get companies(): SubjectEngine {
    return this.subjects!.get('companies')!;
  }

  private get universe(): Universe {
    return this.companies.tally.universe;
  }

  private of(tape: Pick<Tape, 'subject'>): SubjectEngine {
    return this.subjects!.get(tape.subject)!;
  }

  get size(): number {
    return this.universe.size;
  }

  /** A tape from outside, checked. @throws Problem */
  checked(input: unknown): Tape {
    return validateTape(input, this.lookup);
  }

  /** The records that pass a checked tape. */
  kept(tape: Tape): Bits {
    return this.of(tape).tally.kept(tape);
  }

  /** The records that all lines but one let through, of the subject of that line, with their places. */
  context(input: unknown, at: string | undefined): { kept: Bits; place: PlaceColumn | undefined } {
    const tape = this.checked(input);
    const inner = at === undefined ? null : this.of(tape).tally.innerContext(tape, at);
    const tally = inner?.tally ?? this.of(tape).tally;
    return {
      kept: inner?.kept ?? tally.kept(tape, at),
      place: tally.universe.columns.get('place') as PlaceColumn | undefined,
    };
  }

  universeOf(subject: string): Universe {
    return this.of({ subject }).tally.universe;
  }

  /** The change of the universe that the columns are of. */
  get revision(): number {
    return this.stored.revision;
  }

  /** The records of one subject. */
  subject(id: string): SubjectEngine {
    return this.of({ subject: id });
  }

  tally(input: unknown): Omit<WordedTally, 'generation'> {
    const tape = validateTape(input, this.lookup);
    const answer = this.of(tape).tally.tally(tape);
    const off = this.keptOff.of(tape.subject);
    return {
      ...answer,
      suppressed: off ? countBoth(off, this.of(tape).tally.kept(tape)) : 0,
      reads: readTape(tape, this.lookup),
      lines: answer.lines.map((figures, i) => ({ ...figures, ...this.worded(tape.lines[i]!, tape.subject) })),
    };
  }

  private worded(
    line: Line,
    subject: string,
  ): { words: Wording; typed: string; inner?: WordedTally['lines'][number]['inner'] } {
    const words = wordLine(line, subject, this.lookup);
    const typed = spellLine(line, subject, this.lookup);
    const inner = isBlock(line) ? line.either : isHas(line) ? line.lines : [];
    if (inner.length === 0) return { words, typed };
    const of = isHas(line) ? relationsOf(subject).get(line.has)!.id : subject;
    return { words, typed, inner: inner.map((one) => ({ id: one.id, ...this.worded(one, of) })) };
  }

  /** Reads typed lines. Ids begin with the given stem. */
  typed(text: string, stem: string, subject: string): Line[] {
    let n = 0;
    return parseTyped(text, subject, this.lookup, () => `${stem}${++n}`);
  }

  /** Completions of the last typed line, each with what would be left with it; those that leave nothing come after the others. */
  complete(text: string, input: unknown): (Completion & { count: number })[] {
    const tape = validateTape(input, this.lookup);
    const { tally } = this.of(tape);
    const context = tally.kept(tape);
    const counted = complete(text, tape, this.lookup).map((completion) => {
      const lines = parseTyped(completion.typed, tape.subject, this.lookup, counter());
      if (completion.also)
        return { ...completion, count: countBits(tally.kept(putLines(tape, lines, 'also'))) };
      return { ...completion, count: countBoth(tally.kept({ ...tape, lines }), context) };
    });
    const place = ({ alike, count }: { alike?: true; count: number }) => (alike ? 2 : count > 0 ? 0 : 1);
    return counted.sort((a, b) => place(a) - place(b));
  }

  /** The tape as SQL: with placeholders and their values, and with the values written in. */
  sql(input: unknown, dialect: Dialect): SqlAnswer {
    const compiler = new TapeCompiler(dialect, this.lookup);
    const statement = compiler.kept(validateTape(input, this.lookup));
    return { dialect, ...compiler.prepared(statement), statement: written(statement) };
  }

  rows(
    input: unknown,
    columns: readonly string[],
    sort: unknown,
    offset: number,
    limit: number,
    picks: Picks = {},
  ): { total: number; rows: Row[] } {
    const tape = validateTape(input, this.lookup);
    const subject = this.of(tape);
    subject.checkColumns(tape, columns);
    const order = validateSort(sort ?? [], tape);
    const { first: _, ...whole } = tape;
    const records = Object.keys(picks).length
      ? subject.picked(whole, order, picks)
      : subject.listed(tape, order);
    return {
      total: records.length,
      rows: subject.rows(tape, records.subarray(offset, offset + limit), columns),
    };
  }

  /** Ids of the records of a tape in order: all of them, only those picked, or all but some. */
  idsOf(input: unknown, sort: unknown, picks: Picks = {}): Uint32Array {
    const tape = validateTape(input, this.lookup);
    const subject = this.of(tape);
    const records = subject.picked(tape, validateSort(sort ?? tape.sort ?? [], tape), picks);
    return records.map((r) => subject.records.ids[r]!);
  }

  /** How many of the records picked pass the tape. */
  pickedCount(input: unknown, sort: unknown, picks: Picks): number {
    return this.idsOf(input, sort, picks).length;
  }

  /** Values of columns that no table has, for some records of a tape by id. */
  ownColumns(input: unknown, ids: Uint32Array, columns: readonly string[]): OwnColumns {
    const tape = validateTape(input, this.lookup);
    const subject = this.of(tape);
    return subject.ownColumns(
      tape,
      ids.map((id) => subject.records.recordOf[id]!),
      columns,
    );
  }

  /** The subject of a tape, and the headings of columns that no field has. @throws Problem naming a column there is not */
  exportHeadings(
    input: unknown,
    columns: readonly string[],
  ): { subject: string; headings: Record<string, string> } {
    const tape = validateTape(input, this.lookup);
    this.of(tape).checkColumns(tape, columns);
    const counted = columns.flatMap((column) => {
      const found = ownColumnOf(tape, column);
      return found ? [[column, ownHeading(found, tape.subject, this.lookup)]] : [];
    });
    return { subject: tape.subject, headings: Object.fromEntries(counted) as Record<string, string> };
  }

  /** Position of a record within a tape's order, with its neighbours; null where it is not among the kept. */
  position(input: unknown, sort: unknown, key: string): PositionAnswer['position'] {
    const tape = validateTape(input, this.lookup);
    const subject = this.of(tape);
    const order = subject.listed(tape, validateSort(sort ?? [], tape));
    const record = subject.records.byKey(key);
    const at = record === undefined ? -1 : order.indexOf(record);
    if (at < 0) return null;
    const keyAt = (i: number) =>
      order[i] === undefined ? null : subject.keysOf(order.subarray(i, i + 1))[0]!;
    return { at, total: order.length, previous: keyAt(at - 1), next: keyAt(at + 1) };
  }

  /** Where the names of a tape's records hold some words. */
  find(input: unknown, sort: unknown, text: string, from: number): FoundAnswer {
    const tape = validateTape(input, this.lookup);
    return this.of(tape).find(tape, validateSort(sort ?? [], tape), text, from);
  }

  counts(request: CountsRequest): Record<string, unknown> {
    const tape = validateTape(request.tape, this.lookup);
    const inner = request.at === undefined ? null : this.of(tape).tally.innerContext(tape, request.at);
    const tally = inner?.tally ?? this.of(tape).tally;
    const field = fieldOf(tally.subject, request.field);
    if (!field || field.openers.length === 0)
      throw new Problem('unknown-field', `There is no condition on "${request.field}".`, {
        field: 'field',
        value: request.field,
        rule: 'a field that can be a line',
      });
    const context = inner?.kept ?? tally.kept(tape, request.at);
    if (request.fresh === undefined) return countsOf(tally.universe, this.lookup, field, request, context);
    const fresh = checkFresh(field, request.fresh, 'fresh');
    const recent = freshRecords(tally.universe, field, fresh, this.lookup.asOf);
    keepBits(recent, context);
    const counts = countsOf(tally.universe, this.lookup, field, request, recent);
    const total = countBits(context);
    return { ...counts, total, unknown: Number(counts.unknown ?? 0) + total - countBits(recent) };
  }

  /** A code with its note, its kin in other schemes and the codes often filed together with it. */
  code(scheme: Scheme, code: string): CodeAnswer | null {
    return codeAnswer(this.reference, this.universe, scheme, code);
  }

  /** What the jump box finds of a text in the universe. */
  jump(text: string): UniverseHits {
    return jumpTo(this.db, text);
  }

  checkCorrections(key: string, corrections: readonly CorrectionWish[]): CheckedCorrections | null {
    return checkCorrections(this.db, this.reference, key, corrections);
  }

  profile(key: string): ProfileAnswer | null {
    return readProfile(this.db, this.reference, this.companies, key);
  }

  /** One person, site, brand, deal or event with the companies it hangs on; null where there is none of this key. */
  record(subject: string, key: string): RecordAnswer | null {
    const own = this.subjects!.get(subject);
    return own && subject !== 'companies' ? readRecord(this.db, own, key) : null;
  }

  /** The tape in words, a line each. */
  wordsOf(input: unknown): string[] {
    const tape = validateTape(input, this.lookup);
    return wordTape(tape.lines, tape.subject, this.lookup);
  }

  describe() {
    return {
      universe: this.size,
      schemes: [...(this.universe.columns.get('industry') as Map<Scheme, CodesColumn>).keys()],
      technologies: this.lookup.choices({ subject: 'companies', id: 'technology' }).length,
      related: Object.fromEntries([...this.stored.related].map(([id, one]) => [id, one.size])),
    };
  }
}

function counter(): () => string {
  let n = 0;
  return () => `c${++n}`;
}
