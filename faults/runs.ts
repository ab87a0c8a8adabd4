import type { ListView } from '../contract/lists.ts';
import type { BatchView, PlanAnswer, RunView } from '../contract/runs.ts';
import { checkDatabases } from './databases.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { companiesCsv, inFolder, pause, Program, tape } from './program.ts';

/** Kills the program while plans run; each run says what became of it, and what is kept is whole. */

const COMPANIES = 4000;
const PLANS = 12;
const SEARCHES = 30;

const withStaff = (from: number) => tape([{ id: 'l1', field: 'headcount', test: { from } }]);
const TOLD = { success: false, failure: true, changes: null, rate: 'at-once', ways: ['bell'] };

export async function runs(harness: Harness, kills: number, seed: number): Promise<void> {
  const random = randomFrom(seed ^ 0x51);
  let [done, failed] = [0, 0];
  await harness.check(
    `${PLANS} tapes and a sheet of ${SEARCHES} searches run while killed ${kills} times: each says what became of it, and can run again`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        const loaded = await program.ended(await program.beginLoad('Firms', companiesCsv('Firm', COMPANIES)));
        hold(loaded.state === 'done', 'The firms were not loaded');
        const counts = new Map<string, number>();
        for (let i = 0; i < PLANS; i++) {
          const lines = withStaff(i * 30);
          const key = await planned(program, {
            kind: 'tape',
            target: { tape: await saved(program, `T${i}`, lines) },
          });
          const { body } = await program.ask('POST', '/tally', { tape: lines });
          counts.set(key, (body as { tally: number }).tally);
        }
        const batch = await searches(program);
        for (let k = 0; k < kills; k++) {
          for (const key of [...counts.keys(), batch]) await program.ask('POST', `/plans/${key}/run`);
          await pause(random() * 700);
          await program.end('SIGKILL');
          checkDatabases(dir);
          program = await Program.started(dir);
          for (const key of [...counts.keys(), batch]) await atRest(program, key);
        }
        for (const [key, count] of counts) {
          await program.ask('POST', `/plans/${key}/run`);
          const all = await atRest(program, key);
          hold(new Set(all.map(({ nth }) => nth)).size === all.length, `${key}: two runs have one number`);
          hold(all[0]!.state === 'done', `${key}: the last run is ${all[0]!.state}, ${all[0]!.message}`);
          for (const one of all) checkRun(one, count);
          done += all.filter(({ state }) => state === 'done').length;
          failed += all.filter(({ state }) => state === 'failed').length;
        }
        await program.ask('POST', `/plans/${batch}/run`);
        const [last] = await atRest(program, batch);
        hold(last!.state === 'done', `The last run of the sheet is ${last!.state}: ${last!.message}`);
        const { lists } = await program.get<{ lists: ListView[] }>('/lists');
        const list = lists.find(({ name }) => name === 'Found');
        hold(list?.members === last!.count, `The list has ${list?.members}, the sheet found ${last!.count}`);
        await program.end('SIGTERM');
      }),
  );
  harness.figure('runs while killed', `${done} done, ${failed} stopped and say so`);
}

/** @throws Error where a run says what is not so */
function checkRun(run: RunView, count: number): void {
  const { id, state, message } = run;
  if (state === 'done') {
    hold(run.count === count, `Run ${id} counted ${run.count}, not ${count}`);
    hold(run.roll?.foot === count, `The roll of run ${id} does not come to its count`);
    hold(run.comparedTo === null || (run.joined === 0 && run.left === 0), `Run ${id} tells of changes`);
  } else
    hold(
      state === 'failed' && message === 'The program was stopped while this ran.',
      `Run ${id} is ${state}: ${message}`,
    );
}

async function saved(program: Program, name: string, lines: object): Promise<string> {
  const { body } = await program.ask('POST', '/tapes', { kind: 'tape', name, tape: lines });
  return (body as { tape: { id: string } }).tape.id;
}

async function planned(program: Program, wish: object): Promise<string> {
  const { status, body } = await program.ask('POST', '/plans', {
    ...{ name: 'Plan', schedule: { how: 'hand' }, tell: TOLD },
    ...wish,
  });
  hold(status === 201, `The plan was refused: ${JSON.stringify(body)}`);
  return (body as PlanAnswer).plan.key;
}

/** A sheet whose searches find more and more, into one list. */
async function searches(program: Program): Promise<string> {
  const rows = Array.from({ length: SEARCHES }, (_, i) => `${(SEARCHES - i) * 10} staff\tGB`);
  const { body } = await program.ask('POST', '/batches/pasted', {
    text: ['Search\tNote', ...rows].join('\n'),
  });
  const { batch } = body as { batch: BatchView };
  const target = { batch: batch.id, search: 0, into: 'one-list', results: 'Found' };
  return planned(program, { kind: 'batch', target });
}

/** The runs of a plan once none is under way. */
async function atRest(program: Program, key: string): Promise<RunView[]> {
  for (;;) {
    const { runs: all } = await program.get<PlanAnswer>(`/plans/${key}`);
    if (all.every(({ state }) => state !== 'waits' && state !== 'running')) return all;
    await pause(50);
  }
}
