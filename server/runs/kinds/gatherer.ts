import { setTimeout as sleep } from 'node:timers/promises';
import { Problem } from '../../../core/tape/problem.ts';
import { beginGathering } from '../../gather/begin-gathering.ts';
import type { GatherSpec } from '../../gather/spec.ts';
import { gathererById } from '../../tables/gather/gatherers.ts';
import { rollOfRun } from '../../tables/gather/gathered.ts';
import { runById, setState } from '../../tables/gather/runs.ts';
import { setRunRoll } from '../../tables/runs/runs.ts';
import { Left } from '../errand.ts';
import type { Carry, OwnErrand } from './carry.ts';

const LOOK_MS = 300;

/** Runs a gatherer as it was taught. */
export const runGatherer: Carry = async (errand) => {
  const records = await gathered(errand, {});
  return `${records.toLocaleString('en-GB')} records`;
};

/** Runs the gatherer of a plan, for some words and places where they are given, and waits for its end. Returns how many records it has. */
export async function gathered(
  { services, plan, run, say, carriedBy, left }: OwnErrand,
  wish: Partial<GatherSpec>,
): Promise<number> {
  const { db, runner } = services.gather;
  const gatherer = gathererById(db, plan.target.gatherer!);
  if (!gatherer)
    throw new Problem('unknown-gatherer', 'The gatherer that this runs is not there any more.', {
      field: 'target.gatherer',
      value: plan.target.gatherer,
    });
  const id = beginGathering(services, gatherer, wish);
  carriedBy({ gathered: id });
  for (;;) {
    const { state, why } = runById(db, id)!;
    if (state === 'done') break;
    if (state === 'stopped') throw new Left();
    if (state === 'asks')
      throw new Error(why ?? 'The pages are not as they were taught; open the gatherer and say what to do.');
    if (left()) {
      setState(db, id, 'stopped');
      await runner.idle(id);
      throw new Left();
    }
    await sleep(LOOK_MS);
  }
  const roll = rollOfRun(db, id);
  const { foot } = roll;
  setRunRoll(services.runs.db, run.id, roll, 'companies');
  say(`${gatherer.name}: ${foot.toLocaleString('en-GB')} records`);
  return foot;
}
