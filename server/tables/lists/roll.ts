import type { ListRollAnswer } from '../../../contract/lists.ts';
import { listRoll, originFigures, type OriginFigures, type TakenFigures } from '../../../core/lists/roll.ts';
import type { Db } from '../../db/open.ts';
import { knownList } from './list-rows.ts';

const dayOf = (ms: number) => new Date(ms).toISOString().slice(0, 10);

/** The roll of a list, and what its members were judged. */
export function rollOf(db: Db, key: string): ListRollAnswer {
  const list = knownList(db, key);
  const figures = originFigures(
    db
      .prepare<[string, string], { origins: string; count: number }>(
        `SELECT origins, count(*) AS count FROM (SELECT origins FROM list_member WHERE list = ?
         UNION ALL SELECT origins FROM list_taken_member WHERE list = ?) GROUP BY origins`,
      )
      .all(key, key),
  );
  const origins = db
    .prepare<[string], Omit<OriginFigures, 'day' | 'named' | 'fresh'> & { at: number }>(
      'SELECT id, kind, what, person, at FROM list_origin WHERE list = ? ORDER BY id',
    )
    .all(key)
    .map(({ at, ...one }) => ({
      ...one,
      day: dayOf(at),
      ...(figures.get(one.id) ?? { named: 0, fresh: 0 }),
    }));
  const taken = db
    .prepare<[string], Omit<TakenFigures, 'day'> & { at: number }>(
      `SELECT id, how, person, at, (SELECT count(*) FROM list_taken_member m WHERE m.taken = t.id) AS count
       FROM list_taken t WHERE list = ? ORDER BY id`,
    )
    .all(key)
    .map(({ at, ...one }) => ({ ...one, day: dayOf(at) }));
  const reasons = db
    .prepare<[string], { reason: string; count: number }>(
      `SELECT reason, count(*) AS count FROM list_member WHERE list = ? AND verdict = 'out' AND reason IS NOT NULL
       GROUP BY reason ORDER BY count DESC, reason`,
    )
    .all(key);
  return { list, roll: listRoll(origins, taken), reasons };
}

/** When the last verdicts of a list were given, the latest first; the pace of judging is read off them. */
export function paceOf(db: Db, key: string): { verdict: string; at: number }[] {
  return db
    .prepare<[string, number], { verdict: string; at: number }>(
      'SELECT verdict, at FROM list_judgement WHERE list = ? AND at >= ? GROUP BY batch ORDER BY batch DESC LIMIT 60',
    )
    .all(key, Date.now() - 12 * 3_600_000);
}
