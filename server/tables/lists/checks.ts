import { nanoid } from 'nanoid';
import type { CheckedMember, CheckView } from '../../../contract/checks.ts';
import { accuracyOf, type Accuracy, type Stratum } from '../../../core/stats/accuracy.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';
import { noteListsChange } from './changes.ts';

/** Spot checks: samples of tapes with what was judged of them. */

export interface DrawnKeys {
  population: number;
  members: { key: string; stratum: string }[];
  strata: { key: string; label: string; size: number }[];
}

interface CheckRow extends Omit<CheckView, 'tape' | 'drawnAt'> {
  tape: string;
  drawnAt: number;
}

const COLUMNS = `id, tape, subject, seed, by_field AS "by", population, at_least AS atLeast, as_of AS asOf, person, drawn_at AS drawnAt,
  (SELECT count(*) FROM spot_member m WHERE m.spot_check = c.id) AS size,
  (SELECT count(*) FROM spot_member m WHERE m.spot_check = c.id AND verdict = 'in') AS fit,
  (SELECT count(*) FROM spot_member m WHERE m.spot_check = c.id AND verdict = 'out') AS misses,
  (SELECT count(*) FROM spot_member m WHERE m.spot_check = c.id AND verdict = 'unsure') AS unsure`;

const viewOf = (row: CheckRow): CheckView => ({
  ...row,
  tape: JSON.parse(row.tape) as Tape,
  drawnAt: new Date(row.drawnAt).toISOString(),
});

/** What a tape counts, by which its checks are found: name, order and marks play no part. */
function linesOf({ subject, lines }: Tape): string {
  return JSON.stringify([subject, lines]);
}

export function checkById(db: Db, id: string): CheckView {
  const row = db.prepare<[string], CheckRow>(`SELECT ${COLUMNS} FROM spot_check c WHERE id = ?`).get(id);
  if (!row) throw new Problem('unknown-check', `There is no spot check "${id}".`, { field: 'id', value: id });
  return viewOf(row);
}

/** The checks of a tape, the latest first. */
export function checksOf(db: Db, tape: Tape): CheckView[] {
  return db
    .prepare<[string], CheckRow>(
      `SELECT ${COLUMNS} FROM spot_check c WHERE lines = ? ORDER BY drawn_at DESC, id`,
    )
    .all(linesOf(tape))
    .map(viewOf);
}

export function addCheck(
  db: Db,
  wish: Pick<CheckView, 'tape' | 'seed' | 'by' | 'atLeast' | 'asOf' | 'person'>,
  drawn: DrawnKeys,
): string {
  const id = nanoid(10);
  const { tape, seed, by, atLeast, asOf, person } = wish;
  db.prepare(
    `INSERT INTO spot_check (id, tape, lines, subject, seed, by_field, population, at_least, as_of, person, drawn_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    id,
    JSON.stringify(tape),
    linesOf(tape),
    tape.subject,
    seed,
    by,
    drawn.population,
    atLeast,
    asOf,
    person,
    Date.now(),
  );
  putMembers(db, id, drawn);
  return id;
}

/** Adds to a check what is drawn beyond it; what it has stays, whatever the tape keeps now. */
export function addToCheck(db: Db, id: string, drawn: DrawnKeys): void {
  checkById(db, id);
  const has = new Set(checkMembers(db, id).map(({ key }) => key));
  putMembers(db, id, { ...drawn, members: drawn.members.filter(({ key }) => !has.has(key)) });
  db.prepare('UPDATE spot_check SET population = ? WHERE id = ?').run(drawn.population, id);
}

function putMembers(db: Db, id: string, { members, strata }: DrawnKeys): void {
  const stratum = db.prepare(
    'INSERT OR REPLACE INTO spot_stratum (spot_check, key, label, size) VALUES (?, ?, ?, ?)',
  );
  for (const { key, label, size } of strata) stratum.run(id, key, label, size);
  let place = db
    .prepare<[string], number>('SELECT count(*) FROM spot_member WHERE spot_check = ?')
    .pluck()
    .get(id)!;
  const add = db.prepare('INSERT INTO spot_member (spot_check, place, key, stratum) VALUES (?, ?, ?, ?)');
  for (const { key, stratum: own } of members) add.run(id, place++, key, own);
}

export function checkMembers(db: Db, id: string): CheckedMember[] {
  return db
    .prepare<[string], CheckedMember>(
      'SELECT key, stratum, verdict, note FROM spot_member WHERE spot_check = ? ORDER BY place',
    )
    .all(id);
}

export function checkStrata(db: Db, id: string): DrawnKeys['strata'] {
  return db
    .prepare<[string], DrawnKeys['strata'][number]>(
      'SELECT key, label, size FROM spot_stratum WHERE spot_check = ? ORDER BY size DESC, label',
    )
    .all(id);
}

/** Says of one record of a check whether it fits; `note` stays where it is left out. @throws Problem where it is not in the sample */
export function judgeChecked(
  db: Db,
  id: string,
  key: string,
  verdict: CheckedMember['verdict'],
  note: string | null | undefined,
  person: string,
): void {
  const { changes } = db
    .prepare(
      `UPDATE spot_member SET verdict = ?, note = CASE WHEN ? THEN ? ELSE note END, person = ?, at = ?
       WHERE spot_check = ? AND key = ?`,
    )
    .run(verdict, Number(note !== undefined), note ?? null, person, Date.now(), id, key);
  if (changes === 0)
    throw new Problem('unknown-key', `The sample has no "${key}".`, {
      field: 'key',
      value: key,
      rule: 'the key of a record of the sample',
    });
  noteListsChange(db);
}

export function setAtLeast(db: Db, id: string, atLeast: number): void {
  db.prepare('UPDATE spot_check SET at_least = ? WHERE id = ?').run(atLeast, checkById(db, id).id);
}

export function removeCheck(db: Db, id: string): void {
  db.prepare('DELETE FROM spot_check WHERE id = ?').run(checkById(db, id).id);
  noteListsChange(db);
}

/** The judged of a check by stratum. */
function judgedStrata(db: Db, id: string): Stratum[] {
  return db
    .prepare<[string], Stratum>(
      `SELECT s.size, count(m.verdict) FILTER (WHERE m.verdict IN ('in', 'out')) AS judged,
         count(m.verdict) FILTER (WHERE m.verdict = 'in') AS fit
       FROM spot_stratum s LEFT JOIN spot_member m ON m.spot_check = s.spot_check AND m.stratum = s.key
       WHERE s.spot_check = ? GROUP BY s.key`,
    )
    .all(id);
}

/** How many of all fit, by a check; null before anything is judged. */
export function accuracyOfCheck(db: Db, id: string): Accuracy | null {
  return accuracyOf(judgedStrata(db, id));
}
