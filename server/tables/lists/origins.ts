import type { OriginKind } from '../../../core/lists/roll.ts';
import type { Db } from '../../db/open.ts';
import { copyCarried } from './carried.ts';

/** Origins of members, and members put on another list with copies of theirs. */

export interface OriginWish {
  kind: OriginKind;
  what: string;
  tape: string | null;
  asOf: string | null;
  person: string;
}

/** Notes an origin of a list, or the copy of one of another list. Returns its number. */
export function addOrigin(
  db: Db,
  list: string,
  origin: OriginWish & { at?: number },
  copied: number | null,
): number {
  const { kind, what, tape, asOf, person, at } = origin;
  return Number(
    db
      .prepare(
        'INSERT INTO list_origin (list, kind, what, tape, as_of, person, at, copied) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      )
      .run(list, kind, what, tape, asOf, person, at ?? Date.now(), copied).lastInsertRowid,
  );
}

/** Copies to a list the origins that wanted members of another have. The copies by the number of the original; `again` uses copies made before. */
export function copyOrigins(db: Db, from: string, to: string, again: boolean): Map<number, number> {
  const used = new Set(
    db
      .prepare<[string], string>(
        'SELECT DISTINCT m.origins FROM list_member m WHERE m.list = ? AND m.key IN (SELECT key FROM wanted)',
      )
      .pluck()
      .all(from)
      .flatMap((origins) => origins.split(' ').map(Number)),
  );
  const rows = db
    .prepare<[string], OriginWish & { id: number; at: number; copied: number | null }>(
      'SELECT id, kind, what, tape, as_of AS asOf, person, at, copied FROM list_origin WHERE list = ? ORDER BY id',
    )
    .all(from)
    .filter(({ id }) => used.has(id));
  const earlier = db
    .prepare<[string, number], number>('SELECT id FROM list_origin WHERE list = ? AND copied = ?')
    .pluck();
  return new Map(
    rows.map((row) => [
      row.id,
      (again ? earlier.get(to, row.id) : undefined) ?? addOrigin(db, to, row, row.id),
    ]),
  );
}

/** Puts wanted members of one list on another, each with the copies of its origins and what their files say of it. */
export function insertCopies(db: Db, from: string, to: string, origins: ReadonlyMap<number, number>): void {
  const known = new Map<string, string>();
  db.function('copied_origins', { deterministic: true }, (text: unknown) => {
    const own = text as string;
    let copied = known.get(own);
    if (copied === undefined)
      known.set(
        own,
        (copied = own
          .split(' ')
          .map((id) => origins.get(Number(id))!)
          .join(' ')),
      );
    return copied;
  });
  db.prepare(
    `INSERT INTO list_member (list, key, origins, added_at)
     SELECT ?, m.key, copied_origins(m.origins), ? FROM list_member m WHERE m.list = ? AND m.key IN (SELECT key FROM wanted)
     ON CONFLICT (list, key) DO UPDATE SET origins = list_member.origins || ' ' || excluded.origins`,
  ).run(to, Date.now(), from);
  copyCarried(db, from, to, origins);
}
