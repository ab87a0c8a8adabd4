import type { ChangeRow, MoveFigure } from '../../contract/runs.ts';
import type { Roll } from '../../core/lists/roll.ts';
import { runRoll } from '../../core/runs/roll.ts';
import { isLive, type Line, type Tape } from '../../core/tape/nodes.ts';
import { Problem } from '../../core/tape/problem.ts';
import { wordTape } from '../../core/tape/wording.ts';
import type { Db } from '../db/open.ts';
import type { Engine } from '../engine/engine.ts';
import { Explanation, type Compared } from './explain.ts';

/** What the thread of runs is asked. */

export interface CountedRun {
  ids: Uint32Array;
  subject: string;
  tape: string;
  revision: number;
  asOf: number;
  joined: number;
  left: number;
  moved: number;
  roll: Roll;
  moves: MoveFigure[];
  changes: ChangeRow[];
  joinedKeys: string[];
  leftKeys: string[];
}

/** A search of a batch as it is found: its tape, in words, and the records that are taken. */
export interface FoundSearch {
  tape: Tape;
  words: string;
  found: number;
  ids: Uint32Array;
  keys: string[];
}

/** What a row of a batch asks: a typed line or the tape of a saved one, and typed lines of its other columns. */
export interface SearchWish {
  typed: string | null;
  tape: unknown;
  more: readonly string[];
}

export function runCalls({ engine, db, lists }: { engine: Engine; db: Db; lists: Db }) {
  const idsOf = (tape: Tape) => {
    const own = engine.subject(tape.subject);
    return { own, kept: engine.idsOf(tape, undefined) };
  };
  const search = ({ typed, tape, more }: SearchWish): Tape => {
    const base = tape === null ? null : engine.checked(tape);
    const subject = base?.subject ?? 'companies';
    const lines: Line[] = [
      ...(base?.lines ?? []),
      ...(typed === null ? [] : engine.typed(typed, 's', subject)),
      ...more.flatMap((text, i) => engine.typed(text, `m${i}-`, subject)),
    ];
    if (!lines.some(isLive))
      throw new Problem('empty-search', 'The row asks for nothing.', {
        field: 'search',
        rule: 'a typed line, or the name of a saved tape',
      });
    return engine.checked({ format: 'just-tally.tape', version: 1, ...base, subject, lines });
  };
  return {
    /** Counts a tape, and what is not as it was at the run before. @param before null at the first run */
    count(tape: unknown, before: Compared | null, at: number): CountedRun {
      const checked = engine.checked(tape);
      const ids = idsOf(checked).kept.slice().sort();
      const text = JSON.stringify(checked);
      const { revision } = engine;
      const asOf = engine.lookup.asOf;
      const own = { ids, subject: checked.subject, tape: text, revision, asOf };
      if (!before)
        return {
          ...own,
          ...{ joined: 0, left: 0, moved: 0, moves: [], changes: [], joinedKeys: [], leftKeys: [] },
          roll: runRoll(null, [], [], ids.length),
        };
      const now: Compared = { ids, revision, asOf, at, tape: text };
      return { ...own, ...new Explanation({ engine, db, lists }, checked, before, now).explain() };
    },

    /** What parts two runs that are kept. */
    compare(tape: unknown, first: Compared, second: Compared) {
      return new Explanation({ engine, db, lists }, engine.checked(tape), first, second).explain();
    },

    /** A search of a batch in words, and how many it finds; nothing is taken. */
    preview(wish: SearchWish): { words: string; found: number } {
      const tape = search(wish);
      return {
        words: wordTape(tape.lines, tape.subject, engine.lookup).join('; '),
        found: idsOf(tape).kept.length,
      };
    },

    /** The records of a search in its order, at most so many. */
    search(wish: SearchWish, most: number | null): FoundSearch {
      const tape = search(wish);
      const { own, kept } = idsOf(tape);
      const ids = most === null ? kept : kept.slice(0, most);
      const records = Uint32Array.from(ids, (id) => own.records.recordOf[id]!);
      return {
        ...{ tape, ids, found: kept.length, keys: own.keysOf(records) },
        words: wordTape(tape.lines, tape.subject, engine.lookup).join('; '),
      };
    },

    /** Words of a tape. */
    words(tape: unknown): string[] {
      return engine.wordsOf(tape);
    },
  };
}
export type RunCalls = ReturnType<typeof runCalls>;
