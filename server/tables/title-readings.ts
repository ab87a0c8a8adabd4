import type { TitleReadingView, TitleView } from '../../contract/people.ts';
import { wordsColumn } from '../../core/tape/sql/words-column.ts';
import type { Db } from '../db/open.ts';

/** How we ourselves read titles: the department and level of everybody who has one, over what sources and the table of words say. */

interface ReadingRow {
  words: string;
  department: string | null;
  level: string | null;
  person: string;
  at: string;
}

/** The title as its readings are kept by: case, accents and punctuation do not matter. Null where it has no letters or figures. */
export function titleWords(title: string): string | null {
  const words = wordsColumn(title)!;
  return words.trim() === '' ? null : words;
}

/** What we ourselves say of a title; undefined where that is nothing. */
export function titleReading(db: Db, title: string): TitleReadingView | undefined {
  const row = db
    .prepare<[string], ReadingRow>('SELECT * FROM title_reading WHERE words = ?')
    .get(titleWords(title) ?? '');
  return row && viewOf(row);
}

const viewOf = ({ department, level, person, at }: ReadingRow): TitleReadingView => ({
  ...{ department, level, person, at },
});

/** Puts what was loaded in place of what we ourselves say of titles, of all people or of those with one. */
export function forgetTitleReadings(db: Db, words?: string): void {
  db.prepare(
    `UPDATE person SET department = loaded_department, level = loaded_level,
       read_here = NULL, loaded_department = NULL, loaded_level = NULL
     WHERE read_here = 1 ${words === undefined ? '' : 'AND title_words = ?'}`,
  ).run(...(words === undefined ? [] : [words]));
}

/** Gives the people whose titles we ourselves read the department and level that we say. Returns how many they are. */
export function takeTitleReadings(db: Db): number {
  if (db.prepare('SELECT 1 FROM title_reading').get() === undefined) return 0;
  return db
    .prepare(
      `UPDATE person SET loaded_department = department, loaded_level = level, read_here = 1,
         (department, level) = (SELECT r.department, r.level FROM title_reading r WHERE r.words = person.title_words)
       WHERE read_here IS NULL AND title_words IN (SELECT words FROM title_reading)`,
    )
    .run().changes;
}

/** Says how a title is read from now on, or for null that it is read as it was loaded. Returns how many people have it. */
export function readTitleAs(db: Db, title: string, reading: Omit<ReadingRow, 'words'> | null): number {
  const words = titleWords(title)!;
  forgetTitleReadings(db, words);
  if (reading)
    db.prepare('INSERT OR REPLACE INTO title_reading VALUES (@words, @department, @level, @person, @at)').run(
      {
        words,
        ...reading,
      },
    );
  else db.prepare('DELETE FROM title_reading WHERE words = ?').run(words);
  takeTitleReadings(db);
  return db
    .prepare<[string], number>('SELECT count(*) FROM person WHERE title_words = ?')
    .pluck()
    .get(words)!;
}

interface CountedTitle {
  words: string;
  title: string;
  department: string | null;
  level: string | null;
  people: number;
}

export const TITLE_ORDERS = ['title', 'people', 'department', 'level', 'read'] as const;
export type TitleOrder = (typeof TITLE_ORDERS)[number];
const MOST_SHOWN = 500;

/**
 * The titles that people have, with what most of those who have one are read as: the first 500 in an order that hold all words of a
 * text, and how many there are.
 */
export function titlesLike(
  db: Db,
  { text, by, descending }: { text: string; by: TitleOrder; descending: boolean },
): { titles: TitleView[]; total: number } {
  const wanted = (titleWords(text) ?? '').trim().split(' ').filter(Boolean);
  const like = wanted.map(() => `AND instr(title_words, ' ' || ?) > 0`).join(' ');
  const counted = db
    .prepare<string[], CountedTitle>(
      `SELECT title_words AS words, min(title) AS title, department, level, count(*) AS people FROM person
       WHERE title_words IS NOT NULL ${like} GROUP BY 1, 3, 4`,
    )
    .all(...wanted);
  const own = new Map(
    db
      .prepare<[], ReadingRow>('SELECT * FROM title_reading')
      .all()
      .map((row) => [row.words, viewOf(row)]),
  );
  const found = new Map<string, TitleView & { most: number }>();
  for (const { words, title, department, level, people } of counted) {
    const known = found.get(words);
    const before = known ?? {
      title,
      department,
      level,
      people: 0,
      readings: 0,
      most: 0,
      own: own.get(words) ?? null,
    };
    const leads = people > before.most;
    found.set(words, {
      ...before,
      ...(leads ? { department, level, most: people, title } : {}),
      people: before.people + people,
      readings: before.readings + 1,
    });
  }
  const titles = [...found.values()].map(({ most: _, ...title }): TitleView => title);
  const keyOf = (one: TitleView) => (by === 'read' ? (one.own?.at ?? null) : one[by]);
  titles.sort((a, b) => {
    const [x, y] = [keyOf(a), keyOf(b)];
    if (x === y) return b.people - a.people || (a.title < b.title ? -1 : 1);
    // What is not known comes last in either direction.
    if (x === null || y === null) return x === null ? 1 : -1;
    return (x < y ? -1 : 1) * (descending ? -1 : 1);
  });
  return { titles: titles.slice(0, MOST_SHOWN), total: titles.length };
}
