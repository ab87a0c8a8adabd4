import type { ChangeRow, MoveFigure } from '../../contract/runs.ts';
import { isoOf } from '../../core/dates.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { changesOfMembers } from '../../core/runs/members.ts';
import {
  moves,
  reasonLine,
  together,
  whyJoined,
  whyLeft,
  type Between,
  type Happened,
  type Known,
  type Reason,
  type ReasonLine,
} from '../../core/runs/reasons.ts';
import { countedReasons, runRoll } from '../../core/runs/roll.ts';
import type { Roll } from '../../core/lists/roll.ts';
import { hasBit, type Bits } from '../../core/tally/bits.ts';
import { isLive, type Tape } from '../../core/tape/nodes.ts';
import { wordTape } from '../../core/tape/wording.ts';
import type { Db } from '../db/open.ts';
import type { Engine } from '../engine/engine.ts';
import { CAME, GONE, historyOf } from '../tables/history.ts';
import { revisionsBetween } from '../tables/revision.ts';

/** What parts two runs of a tape, record by record, with why. */

/** Changes of each kind that are kept one by one; figures are of all. */
export const MOST_KEPT = 20_000;
const RECORDS_A_READ = 10_000;
const MS_A_DAY = 86_400_000;

/** One run as it is compared. */
export interface Compared {
  ids: Uint32Array;
  revision: number;
  /** Day. */
  asOf: number;
  /** Ms since 1970: when it was counted. */
  at: number;
  /** JSON of the lines that it counted. */
  tape: string;
}

export interface Explained {
  joined: number;
  left: number;
  moved: number;
  roll: Roll;
  moves: MoveFigure[];
  changes: ChangeRow[];
  /** Keys of all that joined and left, as far as they are known. */
  joinedKeys: string[];
  leftKeys: string[];
}

/** What is known of a record by its number. */
interface Named {
  key: string;
  name: string;
  place: string | null;
}

export class Explanation {
  private readonly engine: Engine;
  private readonly db: Db;
  private readonly lists: Db;
  private readonly tape: Tape;
  private readonly before: Compared;
  private readonly after: Compared;
  private readonly lines: ReasonLine[];
  private readonly between: Between;
  private readonly keys: { joined: string[]; left: string[] } = { joined: [], left: [] };

  /** @param tape the later of the two, checked */
  constructor(on: { engine: Engine; db: Db; lists: Db }, tape: Tape, before: Compared, after: Compared) {
    this.engine = on.engine;
    this.db = on.db;
    this.lists = on.lists;
    this.tape = tape;
    this.before = before;
    this.after = after;
    const words = wordTape(tape.lines, tape.subject, this.engine.lookup);
    this.lines = tape.lines.flatMap((line, i) => (isLive(line) ? [reasonLine(line, words[i]!)] : []));
    this.between = {
      tapeChanged: linesOf(before.tape) !== linesOf(after.tape),
      asOfChanged: before.asOf !== after.asOf,
    };
  }

  explain(): Explained {
    const { joined, left, stayed } = changesOfMembers(this.before.ids, this.after.ids);
    const rows: ChangeRow[] = [];
    const joinedFigures = countedReasons(this.each(joined, 'joined', rows));
    const leftFigures = countedReasons(this.each(left, 'left', rows));
    const moved = this.moved(stayed, rows);
    const when = `${isoOf(Math.floor(this.before.at / MS_A_DAY))}, as of ${isoOf(this.before.asOf)}`;
    return {
      ...{ joined: joined.length, left: left.length, moved: moved.records, moves: moved.figures },
      roll: runRoll(
        { count: this.before.ids.length, when },
        joinedFigures,
        leftFigures,
        this.after.ids.length,
      ),
      changes: rows,
      joinedKeys: this.keys.joined,
      leftKeys: this.keys.left,
    };
  }

  /** Reasons of records that joined or left; the first of them go to `rows` as well. */
  private *each(ids: Uint32Array, what: 'joined' | 'left', rows: ChangeRow[]): Generator<Reason> {
    const failing = what === 'left' ? this.failing() : [];
    for (let from = 0; from < ids.length; from += RECORDS_A_READ) {
      const some = ids.subarray(from, from + RECORDS_A_READ);
      const named = this.named(some);
      const { happened, gone } = this.happened(some);
      const came = what === 'joined' ? this.came(some) : new Map<number, string>();
      const lists = this.listChanges(named);
      for (const id of some) {
        const one = named.get(id);
        const known: Known = {
          happened: happened.get(id) ?? [],
          came: came.get(id) ?? null,
          lists: (one && lists.get(one.key)) ?? new Map(),
          failing: one ? failing.flatMap((kept, i) => (hasBit(kept, this.recordOf(id)) ? [] : [i])) : [],
        };
        const left = gone.get(id);
        const key = (one ?? left)?.key;
        if (key !== undefined) this.keys[what].push(key);
        const reason: Reason =
          what === 'joined'
            ? whyJoined(this.lines, known, this.between)
            : one
              ? whyLeft(this.lines, known, this.between)
              : {
                  reason: 'gone',
                  why: left ? `gone: ${left.what}` : 'gone from the universe',
                  was: left?.was ?? null,
                  now: null,
                };
        if (from < MOST_KEPT) rows.push(this.row(what, id, one ?? left, one !== undefined, reason));
        yield reason;
      }
    }
  }

  private moved(stayed: Uint32Array, rows: ChangeRow[]): { records: number; figures: MoveFigure[] } {
    const figures = new Map<string, MoveFigure>();
    let records = 0;
    for (const some of this.touchedAmong(stayed)) {
      const named = this.named(some);
      const { happened } = this.happened(some);
      for (const id of some) {
        const reasons = moves(happened.get(id) ?? []);
        if (reasons.length === 0) continue;
        records++;
        for (const reason of reasons) {
          const figure = figures.get(reason.reason) ?? { reason: reason.reason, label: reason.why, count: 0 };
          figure.count++;
          figures.set(reason.reason, figure);
          if (records <= MOST_KEPT) rows.push(this.row('moved', id, named.get(id), true, reason));
        }
      }
    }
    return { records, figures: [...figures.values()].sort((a, b) => b.count - a.count) };
  }

  /** Of some records, those that have a history between the runs, so many at once. */
  private *touchedAmong(stayed: Uint32Array): Generator<Uint32Array> {
    const touched = this.db
      .prepare<[string, number, number], number>(
        'SELECT DISTINCT record FROM history WHERE subject = ? AND revision > ? AND revision <= ? ORDER BY record',
      )
      .pluck()
      .all(this.tape.subject, this.before.revision, this.after.revision);
    const there = new Set(touched);
    const found = stayed.filter((id) => there.has(id));
    for (let from = 0; from < found.length; from += RECORDS_A_READ)
      yield found.subarray(from, from + RECORDS_A_READ);
  }

  private row(
    what: ChangeRow['what'],
    id: number,
    one: (Omit<Named, 'place'> & { place?: string | null }) | undefined,
    there: boolean,
    { reason, why, was, now }: Reason,
  ): ChangeRow {
    return {
      ...{ what, reason, why, was, now, there },
      key: one?.key ?? `${subjectOf(this.tape.subject).table}-${id}`,
      name: one?.name ?? 'a record that is gone',
      place: one?.place ?? null,
    };
  }

  private recordOf(id: number): number {
    return this.engine.subject(this.tape.subject).records.recordOf[id] ?? -1;
  }

  /** What each line lets through now; none where the later run is of an earlier state of the universe. */
  private failing(): Bits[] {
    if (this.engine.revision !== this.after.revision) return [];
    const { tally } = this.engine.subject(this.tape.subject);
    return this.tape.lines.filter(isLive).map((line) => tally.kept({ ...this.tape, lines: [line] }));
  }

  private named(ids: Uint32Array): Map<number, Named> {
    const { table, relation } = subjectOf(this.tape.subject);
    const place =
      relation === null
        ? `NULLIF(concat_ws(', ', t.town, t.country), '')`
        : relation.roles.length
          ? 'NULL'
          : '(SELECT c.name FROM company c WHERE c.id = t.company_id)';
    const rows = this.db
      .prepare<[string], Named & { id: number }>(
        `SELECT t.id, t.key, t.name, ${place} AS place FROM json_each(?) j CROSS JOIN ${table} t ON t.id = j.value`,
      )
      .all(JSON.stringify([...ids]));
    return new Map(rows.map(({ id, ...one }) => [id, one]));
  }

  private happened(ids: Uint32Array) {
    const { revision: after } = this.before;
    const { revision: upTo } = this.after;
    const what = new Map(revisionsBetween(this.db, after, upTo).map((one) => [one.revision, one.what]));
    const happened = new Map<number, Happened[]>();
    const gone = new Map<number, { key: string; name: string; what: string; was: string | null }>();
    for (const row of historyOf(this.db, this.tape.subject, ids, after, upTo)) {
      if (row.field === GONE) {
        const { key, name, was } = row;
        gone.set(row.record, { key, name, was, what: what.get(row.revision) ?? 'removed' });
        continue;
      }
      if (row.field === CAME) continue;
      const { field, was, now, was_number: wasNumber, now_number: nowNumber } = row;
      const own = happened.get(row.record) ?? [];
      own.push({ field, was, now, wasNumber, nowNumber });
      happened.set(row.record, own);
    }
    for (const [id, own] of happened) happened.set(id, together(own));
    return { happened, gone };
  }

  /** Records that came into the universe between the runs, with what they came with. */
  private came(ids: Uint32Array): Map<number, string> {
    const { table } = subjectOf(this.tape.subject);
    const rows = this.db
      .prepare<[string, number, number], [number, string]>(
        `SELECT t.id, l.what FROM json_each(?) j CROSS JOIN ${table} t ON t.id = j.value JOIN revision_log l ON l.revision = t.came_with
         WHERE t.came_with > ? AND t.came_with <= ?`,
      )
      .raw()
      .all(JSON.stringify([...ids]), this.before.revision, this.after.revision);
    return new Map(rows);
  }

  /** What lists that the tape names took on and off between the runs, by key of the record. */
  private listChanges(named: ReadonlyMap<number, Named>): Map<string, Map<string, 'put on' | 'taken off'>> {
    const found = new Map<string, Map<string, 'put on' | 'taken off'>>();
    const lists = [...new Set(this.lines.flatMap((line) => line.lists))];
    if (lists.length === 0) return found;
    const keys = JSON.stringify([...named.values()].map(({ key }) => key));
    const note = (rows: [string, string][], what: 'put on' | 'taken off') => {
      for (const [key, list] of rows)
        found.set(key, (found.get(key) ?? new Map<string, 'put on' | 'taken off'>()).set(list, what));
    };
    const values = [keys, JSON.stringify(lists), this.before.at, this.after.at] as const;
    note(
      this.lists
        .prepare<[string, string, number, number], [string, string]>(
          `SELECT m.key, m.list FROM json_each(?) j CROSS JOIN list_taken_member m ON m.key = j.value JOIN list_taken t ON t.id = m.taken
           WHERE m.list IN (SELECT value FROM json_each(?)) AND t.at > ? AND t.at <= ?`,
        )
        .raw()
        .all(...values),
      'taken off',
    );
    note(
      this.lists
        .prepare<[string, string, number, number], [string, string]>(
          `SELECT m.key, m.list FROM json_each(?) j CROSS JOIN json_each(?) l CROSS JOIN list_member m ON m.list = l.value AND m.key = j.value
           WHERE m.added_at > ? AND m.added_at <= ?`,
        )
        .raw()
        .all(...values),
      'put on',
    );
    return found;
  }
}

/** The lines of a tape file as text, by which two tapes are the same. */
function linesOf(tape: string): string {
  return JSON.stringify((JSON.parse(tape) as { lines: unknown }).lines);
}
