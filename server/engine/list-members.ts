import { bisect } from '../../core/bisect.ts';
import type { ListView } from '../../contract/lists.ts';
import { listAtHand } from '../../core/lists/at-hand.ts';
import { VERDICTS, type ListTest, type ListVerdict, type Tape } from '../../core/tape/nodes.ts';
import type { MemberPart } from '../../core/tape/own-columns.ts';
import { listMembers, unsureMembers } from '../../core/tape/sql/list-members.ts';
import type { Sql } from '../../core/tape/sql/statement.ts';
import { dropBits, noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { Members, Said } from '../../core/tally/columns.ts';
import type { Keys } from '../../core/tally/order.ts';
import type { Db } from '../db/open.ts';
import { carriedKeys, carriedTexts, cellsSaid } from './carried-cells.ts';
import { changedSince } from '../tables/lists/changes.ts';
import type { Revision } from '../tables/revision.ts';
import type { Records } from './records.ts';

/** What lists say of their members, looked up when it is asked for. */
export interface MemberCells {
  /** The members of lists of a subject that meet a test, and those of whom nothing is said that it asks for. */
  find(subject: string, test: ListTest, asOf: number): { yes: Bits; unknown: Bits };
  /** What files say under a heading of the members that meet a test. */
  said(subject: string, test: ListTest, heading: string, asOf: number): Said[];
  /** What files say of some members under a heading; null where they say nothing. */
  carried(list: string, column: string, keys: readonly string[]): (string | null)[];
  /** The same of all members as sort keys, by record: numbers by size, texts by the alphabet. */
  carriedKeys(subject: string, list: string, column: string): Keys;
  /** What a list says of some records, by their keys; null where it says nothing. */
  texts(list: string, part: MemberPart, keys: readonly string[]): (string | null)[];
  /** The same of all members as sort keys, by record. */
  keys(subject: string, list: string, part: MemberPart): Keys;
  /** The tapes that put members on a list, as they were kept. */
  tapesOf(list: string): readonly unknown[];
  /** What spot checks of a list say of records by key, whether they fit. */
  checked(list: string, subject: string): { key: string; verdict: 'in' | 'out' }[];
}

export const NO_MEMBERS: MemberCells = {
  find: () => ({ yes: noBits(0), unknown: noBits(0) }),
  said: () => [],
  carried: (_list, _column, keys) => keys.map(() => null),
  carriedKeys: () => new Float64Array(0),
  texts: (_list, _part, keys) => keys.map(() => null),
  keys: () => new Float64Array(0),
  tapesOf: () => [],
  checked: () => [],
};

/** How each part stands in SQL, beside a member `m`. Times are shown as days. */
const PARTS: Record<MemberPart, string> = {
  verdict: `replace(m.verdict, '-', ' ')`,
  reason: 'm.reason',
  note: 'm.note',
  tags: `(SELECT group_concat(tag, ', ') FROM (SELECT tag FROM list_tag t WHERE t.list = m.list AND t.key = m.key ORDER BY tag))`,
  assigned: 'm.assigned',
  added: `date(m.added_at / 1000, 'unixepoch')`,
  origins: `(SELECT group_concat(o.what, '; ') FROM list_origin o WHERE ' ' || m.origins || ' ' LIKE '% ' || o.id || ' %')`,
  carried: `(SELECT group_concat(v.key || ': ' || v.value, '; ') FROM list_carried f, json_each(f.cells) v WHERE f.list = m.list AND f.key = m.key)`,
};

/** Verdicts as they stand in order, those to act on first. */
const VERDICT_RANKS = new Map<string, number>(
  ['in', 'unsure', 'not judged', 'out'].map((verdict, rank) => [verdict, rank]),
);

interface Held {
  revision: number;
  members: Members;
}

/** The members of all lists that the universe has, brought up to date by what changed of each. */
export class ListMembers implements MemberCells {
  private readonly db: Db;
  private readonly records: ReadonlyMap<string, Records>;
  private readonly shown: Revision | null;
  private held = new Map<string, Held>();

  /** `shown` says of which universe the records are, where `db` has its database attached as `u`. */
  constructor(db: Db, records: ReadonlyMap<string, Records>, shown: Revision | null = null) {
    this.db = db;
    this.records = records;
    this.shown = shown;
  }

  /** The members of some lists as they are now; a list that did not change is the same object as before. */
  of(lists: readonly Pick<ListView, 'key' | 'subject' | 'revision'>[]): ReadonlyMap<string, Members> {
    const now = new Map<string, Held>();
    for (const { key, subject, revision } of lists) {
      const records = this.records.get(subject);
      if (records) now.set(key, this.heldAt(key, records, revision));
    }
    this.held = now;
    return new Map([...now].map(([key, { members }]) => [key, members]));
  }

  private heldAt(list: string, records: Records, revision: number): Held {
    const before = this.held.get(list);
    if (before?.revision === revision) return before;
    const touched = before && changedSince(this.db, list, before.revision, revision);
    return {
      revision,
      members: touched ? this.mended(list, records, before.members, touched) : this.read(list, records),
    };
  }

  private read(list: string, records: Records): Members {
    const verdicts = new Uint8Array(records.ids.length).fill(ABSENT);
    if (records.subject === 'companies' && this.readJoined(list, records, verdicts)) return packed(verdicts);
    const rows = this.db
      .prepare<[string], [string, ListVerdict]>('SELECT key, verdict FROM list_member WHERE list = ?')
      .raw();
    let some: [string, ListVerdict][] = [];
    const flush = () => {
      const found = records.byKeys(some.map(([key]) => key));
      for (let i = 0; i < some.length; i++)
        if (found[i]! >= 0) verdicts[found[i]!] = VERDICTS.indexOf(some[i]![1]);
      some = [];
    };
    for (const row of rows.iterate(list)) if (some.push(row) === ROWS_A_READ) flush();
    flush();
    return packed(verdicts);
  }

  /**
   * Reads a list of companies where the database of the universe, beside the lists as `u`, is still the one that the records are
   * of: each verdict as one text of ids, since a million rows cost far more than the text of a million.
   */
  private readJoined(list: string, records: Records, verdicts: Uint8Array): boolean {
    if (this.shown === null) return false;
    const joined = this.db
      .prepare<[string, string], string | null>(
        `SELECT group_concat(c.id) FROM list_member m CROSS JOIN u.company c ON c.key = m.key
         WHERE m.list = ? AND m.verdict = ?`,
      )
      .pluck();
    return this.db.transaction(() => {
      const { stamp, revision } = revisionIn(this.db);
      if (stamp !== this.shown!.stamp || revision !== this.shown!.revision) return false;
      VERDICTS.forEach((verdict, place) => {
        for (const id of idsIn(joined.get(list, verdict) ?? '')) {
          const record = records.recordOf[id] ?? -1;
          if (record >= 0) verdicts[record] = place;
        }
      });
      return true;
    })();
  }

  /** Members with those of some keys as they are now. */
  private mended(list: string, records: Records, before: Members, keys: readonly string[]): Members {
    const found = records.byKeys(keys);
    const now = new Map(
      this.db
        .prepare<[string, string], [string, ListVerdict]>(
          'SELECT m.key, m.verdict FROM json_each(?) j CROSS JOIN list_member m ON m.list = ? AND m.key = j.value',
        )
        .raw()
        .all(JSON.stringify(keys), list),
    );
    const touched = new Map<number, number>();
    keys.forEach((key, i) => {
      const verdict = now.get(key);
      if (found[i]! >= 0) touched.set(found[i]!, verdict === undefined ? ABSENT : VERDICTS.indexOf(verdict));
    });
    return rejudged(before, touched) ?? merged(before, touched);
  }

  find(subject: string, test: ListTest, asOf: number): { yes: Bits; unknown: Bits } {
    const records = this.records.get(subject)!;
    const found = (statement: Sql | null) => {
      const bits = noBits(records.ids.length);
      if (!statement) return bits;
      const keys = this.db
        .prepare<unknown[], string>(statement.text)
        .pluck()
        .all(...statement.values);
      for (const record of records.byKeys(keys)) if (record >= 0) setBit(bits, record);
      return bits;
    };
    const yes = found(listMembers(test, asOf));
    const unknown = found(unsureMembers(test, asOf));
    // Of several lists one may say what another does not.
    dropBits(unknown, yes);
    return { yes, unknown };
  }

  said(subject: string, test: ListTest, heading: string, asOf: number): Said[] {
    return cellsSaid(this.db, this.records.get(subject)!, test, heading, asOf);
  }

  carried(list: string, column: string, keys: readonly string[]): (string | null)[] {
    return carriedTexts(this.db, list, column, keys);
  }

  carriedKeys(subject: string, list: string, column: string): Keys {
    return carriedKeys(this.db, this.records.get(subject)!, list, column);
  }

  texts(list: string, part: MemberPart, keys: readonly string[]): (string | null)[] {
    const rows = this.db
      .prepare<[string, string], [string, string | null]>(
        `SELECT m.key, ${PARTS[part]} FROM json_each(?) j CROSS JOIN list_member m ON m.list = ? AND m.key = j.value`,
      )
      .raw();
    const texts = new Map(rows.all(JSON.stringify(keys), list));
    return keys.map((key) => texts.get(key) ?? null);
  }

  keys(subject: string, list: string, part: MemberPart): Keys {
    const records = this.records.get(subject)!;
    const keys = new Float64Array(records.ids.length).fill(NaN);
    const rows = this.db
      .prepare<[string], [string, string | null]>(
        `SELECT m.key, ${PARTS[part]} AS shown FROM list_member m WHERE m.list = ? AND shown IS NOT NULL ORDER BY shown COLLATE NOCASE`,
      )
      .raw()
      .all(list);
    const found = records.byKeys(rows.map(([key]) => key));
    let rank = -1;
    let last: string | null = null;
    rows.forEach(([, shown], i) => {
      if (shown !== last) rank++;
      last = shown;
      if (found[i]! >= 0) keys[found[i]!] = part === 'verdict' ? VERDICT_RANKS.get(shown!)! : rank;
    });
    return keys;
  }

  tapesOf(list: string): readonly unknown[] {
    return this.db
      .prepare<[string], string>('SELECT DISTINCT tape FROM list_origin WHERE list = ? AND tape IS NOT NULL')
      .pluck()
      .all(list)
      .map((tape) => JSON.parse(tape) as unknown);
  }

  checked(list: string, subject: string): { key: string; verdict: 'in' | 'out' }[] {
    const rows = this.db
      .prepare<[string], { tape: string; key: string; verdict: 'in' | 'out' }>(
        `SELECT c.tape, m.key, m.verdict FROM spot_check c JOIN spot_member m ON m.spot_check = c.id
         WHERE c.subject = ? AND m.verdict IN ('in', 'out') ORDER BY c.drawn_at DESC, c.id`,
      )
      .all(subject);
    return rows.filter(({ tape }) => listAtHand(JSON.parse(tape) as Tape)?.list === list);
  }
}

function revisionIn(db: Db): Revision {
  return db.prepare<[], Revision>('SELECT stamp, revision FROM u.universe').get()!;
}

const ZERO = 48;
const COMMA = 44;

/** The whole numbers in a text, with commas between. */
function* idsIn(text: string): Generator<number> {
  let id = 0;
  for (let i = 0; i <= text.length; i++) {
    const code = i < text.length ? text.charCodeAt(i) : COMMA;
    if (code !== COMMA) id = 10 * id + code - ZERO;
    else if (i > 0) {
      yield id;
      id = 0;
    }
  }
}

const ROWS_A_READ = 20_000;
/** Beside the places of VERDICTS: not on the list. */
const ABSENT = 255;

/** Members from what each record of the universe is. */
function packed(verdicts: Uint8Array): Members {
  let size = 0;
  for (const verdict of verdicts) if (verdict !== ABSENT) size++;
  const members = { records: new Uint32Array(size), verdicts: new Uint8Array(size) };
  for (let r = 0, at = 0; r < verdicts.length; r++)
    if (verdicts[r] !== ABSENT) {
      members.records[at] = r;
      members.verdicts[at++] = verdicts[r]!;
    }
  return members;
}

/** Members with other verdicts: the records stay the same array. Null where one of them is new, or gone. */
function rejudged({ records, verdicts }: Members, touched: ReadonlyMap<number, number>): Members | null {
  const now = verdicts.slice();
  for (const [record, verdict] of touched) {
    const at = bisect(records, record);
    if (records[at] !== record || verdict === ABSENT) return null;
    now[at] = verdict;
  }
  return { records, verdicts: now };
}

/** Members with some records changed, added, or, where they are absent now, left out. */
function merged(before: Members, touched: ReadonlyMap<number, number>): Members {
  const changes = [...touched].sort(([a], [b]) => a - b);
  const records = new Uint32Array(before.records.length + changes.length);
  const verdicts = new Uint8Array(records.length);
  let size = 0;
  let from = 0;
  const put = (record: number, verdict: number) => {
    records[size] = record;
    verdicts[size++] = verdict;
  };
  for (const [record, verdict] of changes) {
    while (from < before.records.length && before.records[from]! < record)
      put(before.records[from]!, before.verdicts[from++]!);
    if (before.records[from] === record) from++;
    if (verdict !== ABSENT) put(record, verdict);
  }
  while (from < before.records.length) put(before.records[from]!, before.verdicts[from++]!);
  return { records: records.slice(0, size), verdicts: verdicts.slice(0, size) };
}
