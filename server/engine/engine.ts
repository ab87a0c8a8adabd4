import type { Scheme } from '../../core/codes/tree.ts';
import type { Row } from '../../core/cells.ts';
import type {
  CitiesAnswer,
  JumpAnswer,
  PositionAnswer,
  ProfileAnswer,
  CodeAnswer,
  SqlAnswer,
  TownsAnswer,
  WordedTally,
} from '../../contract/responses.ts';
import { columnFields, fieldOf } from '../../core/fields/registry.ts';
import { ratePerEuro } from '../../core/money/rates.ts';
import { countBits, countBoth, noBits, recordsOf, type Bits } from '../../core/tally/bits.ts';
import type { CodesColumn, PlaceColumn, RangeColumn, Universe } from '../../core/tally/columns.ts';
import type { Keys } from '../../core/tally/order.ts';
import { plane, type Plane } from '../../core/tally/plane.ts';
import { Tally } from '../../core/tally/tally.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { isBlock, type Line, type SortKey, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { TapeCompiler, type Dialect } from '../../core/tape/sql/compile.ts';
import { written } from '../../core/tape/sql/statement.ts';
import { complete, type Completion } from '../../core/tape/typed/complete.ts';
import { parseTyped } from '../../core/tape/typed/parse.ts';
import { spellLine } from '../../core/tape/typed/spell.ts';
import { validateSort, validateTape } from '../../core/tape/validate.ts';
import { readTape } from '../../core/tape/reading.ts';
import { wordLine, wordTape } from '../../core/tape/wording.ts';
import { fold } from '../../core/text/fold.ts';
import type { Db } from '../db/open.ts';
import { Orders } from './orders.ts';
import { codeAnswer } from './code-answer.ts';
import type { CountsRequest } from './counts-request.ts';
import { countsOf, logEdges } from './picker-counts.ts';
import { readProfile } from './profile.ts';
import { RowSource } from './read-rows.ts';
import { recordsById, type StoredUniverse } from './stored-universe.ts';
import { universeLookup, type ReferenceData } from './universe-lookup.ts';
import type { WorkspaceFacts } from './workspace-facts.ts';
import { searchable } from './words.ts';

/** People from which a town is named on the map. */
const CITY_FROM = 90_000;

/** One universe, opened: counts, rows and typed lines over it. Runs in a worker thread. */
export class Engine {
  private readonly db: Db;
  private readonly universe: Universe;
  private readonly stored: StoredUniverse;
  private readonly asOf: number;
  private readonly ids: Uint32Array;
  /** Record of each company id, or -1. */
  private readonly recordOf: Int32Array;
  private readonly reference: ReferenceData;
  private readonly rowSource: RowSource;
  private tallier: Tally;
  lookup: Lookup;
  private readonly orders: Orders;

  /** `db` must go on showing the state that `stored` was built from. */
  constructor(db: Db, reference: ReferenceData, asOf: number, stored: StoredUniverse) {
    this.db = db;
    this.reference = reference;
    this.stored = stored;
    this.asOf = asOf;
    this.ids = stored.ids;
    this.recordOf = recordsById(stored.ids);
    this.universe = searchable(stored, db, this.recordOf);
    this.lookup = universeLookup(db, reference, asOf, stored);
    this.rowSource = new RowSource(db, this.lookup);
    this.tallier = new Tally(this.universe, 'companies', this.lookup);
    this.orders = new Orders(db, this.universe);
  }

  /** Takes over lists and groups of countries that changed; what was counted with the old ones is forgotten. */
  useFacts(facts: WorkspaceFacts): void {
    this.lookup = universeLookup(this.db, this.reference, this.asOf, this.stored, facts);
    const columns = new Map(this.universe.columns).set('list', { kind: 'list', lists: facts.members });
    this.tallier = new Tally({ size: this.size, columns }, 'companies', this.lookup);
    this.orders.forgetLists();
  }

  /** The record of a company by key, if the universe has it. */
  recordByKey(): (key: string) => number | undefined {
    const find = this.db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    return (key) => {
      const id = find.get(key);
      return id === undefined ? undefined : this.recordOf[id];
    };
  }

  get size(): number {
    return this.universe.size;
  }

  tally(input: unknown): Omit<WordedTally, 'generation'> {
    const tape = validateTape(input, this.lookup);
    const answer = this.tallier.tally(tape);
    return {
      ...answer,
      reads: readTape(tape, this.lookup),
      lines: answer.lines.map((figures, i) => ({ ...figures, ...this.worded(tape.lines[i]!, tape.subject) })),
    };
  }

  private worded(line: Line, subject: string) {
    return { words: wordLine(line, subject, this.lookup), typed: spellLine(line, subject, this.lookup) };
  }

  /** Reads typed lines. Ids begin with the given stem. */
  typed(text: string, stem: string): Line[] {
    let n = 0;
    return parseTyped(text, 'companies', this.lookup, () => `${stem}${++n}`);
  }

  /** Completions of the last typed line, each with what would be left with it. */
  complete(text: string, input: unknown): (Completion & { count: number })[] {
    const tape = validateTape(input, this.lookup);
    const context = this.tallier.kept(tape);
    const counted = complete(text, 'companies', this.lookup).map((completion) => {
      const lines = parseTyped(completion.typed, 'companies', this.lookup, counter());
      const kept = this.tallier.kept({ ...tape, lines });
      for (let w = 0; w < kept.length; w++) kept[w]! &= context[w]!;
      return { ...completion, count: countBits(kept) };
    });
    return [...counted.filter(({ count }) => count > 0), ...counted.filter(({ count }) => count === 0)];
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
  ): { total: number; rows: Row[] } {
    const tape = validateTape(input, this.lookup);
    for (const column of columns)
      if (!fieldOf(tape.subject, column)?.column)
        throw new Problem('unknown-column', `There is no column "${column}".`, {
          field: 'columns',
          value: column,
          rule: `one of ${columnFields(tape.subject)
            .map((field) => field.id)
            .join(', ')}`,
        });
    const records = this.listed(tape, validateSort(sort ?? [], tape.subject));
    return {
      total: records.length,
      rows: this.rowSource.rows(
        records.subarray(offset, offset + limit).map((r) => this.ids[r]!),
        columns,
      ),
    };
  }

  /** Takes sort keys of a label, such as the name, that another thread has made. */
  takeLabelKeys(by: string, keys: Keys): void {
    this.orders.takeLabelKeys(by, keys);
  }

  /** The records of a tape in an order. */
  private listed(tape: Tape, sort: readonly SortKey[]): Uint32Array {
    return this.orders.list(JSON.stringify(tape.lines), sort, () => this.tallier.kept(tape));
  }

  /** Ids of the companies of a tape in order: all of them, only those picked, or all but some. */
  idsOf(
    input: unknown,
    sort: unknown,
    picks: { keys?: readonly string[]; except?: readonly string[] } = {},
  ): Uint32Array {
    const tape = validateTape(input, this.lookup);
    const order = validateSort(sort ?? tape.sort ?? [], tape.subject);
    let records = this.listed(tape, order);
    if (picks.keys ?? picks.except) {
      const kept = picks.keys ? this.bitsOf(picks.keys) : this.tallier.kept(tape);
      const left = this.bitsOf(picks.except ?? []);
      for (let w = 0; w < kept.length; w++) kept[w]! &= ~left[w]!;
      records = this.orders.list(`picked ${JSON.stringify([tape.lines, picks])}`, order, () => kept);
    }
    return records.subarray(0, tape.first ?? records.length).map((r) => this.ids[r]!);
  }

  /** Keys of the same companies. */
  keysOf(
    input: unknown,
    sort: unknown,
    picks: { keys?: readonly string[]; except?: readonly string[] },
  ): string[] {
    const find = this.db
      .prepare<[string], string>(
        'SELECT c.key FROM json_each(?) i JOIN company c ON c.id = i.value ORDER BY i.rowid',
      )
      .pluck();
    const ids = this.idsOf(input, sort, picks);
    const keys: string[] = [];
    for (let at = 0; at < ids.length; at += 10_000)
      for (const key of find.all(JSON.stringify([...ids.subarray(at, at + 10_000)]))) keys.push(key);
    return keys;
  }

  /** Position of a company within a tape's order, with its neighbours; null where it is not among the kept. */
  position(input: unknown, sort: unknown, key: string): PositionAnswer['position'] {
    const tape = validateTape(input, this.lookup);
    const order = this.listed(tape, validateSort(sort ?? [], tape.subject));
    const id = this.db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck().get(key);
    const at = id === undefined ? -1 : order.indexOf(this.recordOf[id] ?? -1);
    if (at < 0) return null;
    const keyOf = this.db.prepare<[number], string>('SELECT key FROM company WHERE id = ?').pluck();
    const keyAt = (i: number) => (order[i] === undefined ? null : keyOf.get(this.ids[order[i]]!)!);
    return { at, total: order.length, previous: keyAt(at - 1), next: keyAt(at + 1) };
  }

  private bitsOf(keys: readonly string[]): Bits {
    const bits = noBits(this.size);
    const find = this.db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    for (const key of keys) {
      const id = find.get(key);
      if (id === undefined)
        throw new Problem('unknown-company', `There is no company "${key}".`, {
          field: 'keys',
          value: key,
          rule: 'keys of companies in this universe',
        });
      const r = this.recordOf[id]!;
      bits[r >> 5]! |= 1 << (r & 31);
    }
    return bits;
  }

  counts(request: CountsRequest): Record<string, unknown> {
    const tape = validateTape(request.tape, this.lookup);
    const field = fieldOf(tape.subject, request.field);
    if (!field || field.openers.length === 0)
      throw new Problem('unknown-field', `There is no condition on "${request.field}".`, {
        field: 'field',
        value: request.field,
        rule: 'a field that can be a line',
      });
    return countsOf(this.tallier.universe, this.lookup, field, request, this.tallier.kept(tape, request.at));
  }

  /** What the tape would leave if one of its lines asked each of some tests instead. */
  alternatives(input: unknown, at: string, tests: readonly unknown[]): number[] {
    const tape = validateTape(input, this.lookup);
    const context = this.tallier.kept(tape, at);
    const line = tape.lines.find((one) => one.id === at);
    if (!line || isBlock(line))
      throw new Problem('unknown-line', `The tape has no line "${at}" whose test can be changed.`, {
        field: 'at',
        value: at,
        rule: 'the id of a line that is no either-block',
      });
    const { parked: _, ...live } = line;
    return tests.map((test) => {
      const changed = validateTape({ ...tape, lines: [{ ...live, test }] }, this.lookup);
      return countBoth(this.tallier.kept(changed), context);
    });
  }

  /** Headcount by revenue of the companies that all lines but those on either let through. */
  plane(input: unknown, currency: string): Plane {
    const tape = validateTape(input, this.lookup);
    const others = tape.lines.filter(
      (line) => isBlock(line) || (line.field !== 'headcount' && line.field !== 'revenue'),
    );
    return plane(
      this.universe.columns.get('headcount') as RangeColumn,
      this.universe.columns.get('revenue') as RangeColumn,
      this.tallier.kept({ ...tape, lines: others }),
      logEdges(0, 4),
      logEdges(4, 9),
      (year) => (currency === 'EUR' ? 1 : (ratePerEuro(currency, year) ?? NaN)),
    );
  }

  /** A code with its note, its kin in other schemes and the codes often filed together with it. */
  code(scheme: Scheme, code: string): CodeAnswer | null {
    return codeAnswer(this.reference, this.universe, scheme, code);
  }

  /** Points of the kept companies for a map: at most `limit`, evenly taken from all; the full number beside. */
  points(input: unknown, at: string | undefined, limit: number): { points: number[]; located: number } {
    const tape = validateTape(input, this.lookup);
    const { lat, lon } = this.universe.columns.get('place') as PlaceColumn;
    const located = recordsOf(this.tallier.kept(tape, at)).filter((r) => !Number.isNaN(lat[r]!));
    const step = Math.max(1, located.length / limit);
    const points: number[] = [];
    for (let i = 0; i < located.length; i += step) {
      const r = located[Math.floor(i)]!;
      points.push(lon[r]!, lat[r]!);
    }
    return { points, located: located.length };
  }

  /** The large towns, for the labels of a map, the largest first. */
  cities(): CitiesAnswer['cities'] {
    return this.lookup.places.towns
      .filter((town) => town.population >= CITY_FROM)
      .sort((a, b) => b.population - a.population)
      .map(({ name, lat, lon, population }) => ({ name, lat, lon, population }));
  }

  towns(text: string, limit: number): TownsAnswer['towns'] {
    return this.lookup.places.townsBeginning(text, limit).map((town) => ({
      ...town,
      regionName: this.lookup.places.region(town.region)?.english ?? town.country,
    }));
  }

  /** Companies whose name holds words that begin with those typed, codes and towns, for the jump box. */
  jump(text: string): Omit<JumpAnswer, 'tapes' | 'lists'> {
    const words = fold(text).match(/[a-z0-9]+/g) ?? [];
    const query = words.map((word) => `"${word}"*`).join(' AND ');
    const companies =
      query === ''
        ? []
        : this.db
            .prepare<[string], { key: string; name: string; town: string | null; country: string | null }>(
              'SELECT c.key, c.name, c.town, c.country FROM company_words w JOIN company c ON c.id = w.rowid WHERE company_words MATCH ? LIMIT 8',
            )
            .all(`{name} : (${query})`);
    const codes =
      text.trim().length < 2
        ? []
        : this.reference.searches
            .of('nace-2.1')
            .find(text, 5)
            .map((hit) => ({ code: hit.code, title: hit.title, scheme: 'nace-2.1' as const }));
    const towns = this.lookup.places
      .townsBeginning(text, 4)
      .map(({ key, name, lat, lon }) => ({ key, name, lat, lon }));
    return { companies, codes, towns };
  }

  profile(key: string): ProfileAnswer | null {
    return readProfile(this.db, this.reference, this.rowSource, key);
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
      technologies: this.lookup.choices('technology').length,
    };
  }
}

function counter(): () => string {
  let n = 0;
  return () => `c${++n}`;
}
