import type { Tape } from '../../../core/tape/nodes.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { changeWords } from '../../../core/runs/telling.ts';
import { revisionOf } from '../../tables/revision.ts';
import { noteJoined } from '../../tables/runs/joined.ts';
import { membersOf, runBefore, writeFound, type RunRow } from '../../tables/runs/runs.ts';
import { savedTapeById } from '../../tables/saved-tapes.ts';
import type { Compared } from '../explain.ts';
import type { Services } from '../../services.ts';
import type { Carry } from './carry.ts';

/** Counts a saved tape, keeps who passes it, and says what is not as it was at the run before. */
export const runTape: Carry = async ({ services, plan, run, say }) => {
  const { workspace, universe, runs } = services;
  const saved = savedTapeById(workspace, plan.target.tape!);
  if (!saved)
    throw new Problem('unknown-tape', 'The saved tape that this runs is not there any more.', {
      field: 'target.tape',
      value: plan.target.tape,
    });
  const tape = JSON.parse(saved.body) as Tape;
  const { stamp } = revisionOf(universe);
  const last = runBefore(runs.db, plan.key, run.nth);
  const before = last?.universe === stamp ? comparedRun(services, last) : null;
  const at = Date.now();
  const counted = await runs.counting.call('count', tape, before, at);
  const { joinedKeys, leftKeys, ...found } = counted;
  runs.db.transaction(() => {
    writeFound(runs.db, run.id, {
      ...found,
      universe: stamp,
      comparedTo: before ? last!.id : null,
      before: before ? before.ids.length : null,
    });
    const of = { subject: found.subject, tape: plan.key, day: found.asOf, first: !last };
    noteJoined(runs.db, of, joinedKeys, leftKeys);
  })();
  const count = `${found.ids.length.toLocaleString('en-GB')} ${found.subject}`;
  if (!before) {
    say(`First run: ${count}`);
    return count;
  }
  const changes = changeWords(found)!;
  say(`${count}, before ${before.ids.length.toLocaleString('en-GB')}: ${changes}`);
  return `${count}; ${changes}`;
};

/** A run that is kept, as it is compared; null where it kept no members. */
export function comparedRun({ runs }: Pick<Services, 'runs'>, row: RunRow): Compared | null {
  const ids = membersOf(runs.db, row.id);
  if (!ids || row.revision === null || row.as_of === null || row.tape === null) return null;
  return { ids, revision: row.revision, asOf: row.as_of, at: row.started_at ?? row.due_at, tape: row.tape };
}
