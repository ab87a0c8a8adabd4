import type { PlanAnswer, RunView } from '../contract/runs.ts';
import type { SavedTapeView } from '../contract/responses.ts';
import { openRuns } from '../server/db/open.ts';
import { bytesOfMembers } from '../server/tables/runs/runs.ts';
import { Chance } from '../demo/random.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { TimingTable } from './figures.ts';
import { ServerProcess } from './server-process.ts';
import { anyLine, seededTapes } from './tapes.ts';

/** What two hundred runs that are due in one minute do to those who wait at a screen: edits alone, and while they run. */

const PLANS = 200;
const TAPES = 20;
const EDITS = 300;
const EVERYBODY: Tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
const UNTOLD = { success: false, failure: false, changes: null, rate: 'never', ways: [] };

export async function measureRuns(dir: string): Promise<void> {
  const server = await ServerProcess.start(dir);
  const withoutWords = (line: object) => !JSON.stringify(line).includes('"words"');
  const tapes = [
    EVERYBODY,
    ...seededTapes(TAPES - 1, 41).map((tape) => ({ ...tape, lines: tape.lines.filter(withoutWords) })),
  ];
  const keys: string[] = [];
  const ids: string[] = [];
  for (const [i, tape] of tapes.entries()) {
    const { tape: saved } = await server.post<{ tape: SavedTapeView }>('/tapes', {
      kind: 'tape',
      name: `Run ${i}`,
      tape,
    });
    ids.push(saved.id);
  }
  for (let i = 0; i < PLANS; i++) {
    const wish = {
      kind: 'tape',
      name: `Run ${i}`,
      target: { tape: ids[i % TAPES] },
      schedule: { how: 'hand' },
      tell: UNTOLD,
    };
    keys.push((await server.post<PlanAnswer>('/plans', wish)).plan.key);
  }
  const start = () => Promise.all(keys.map((key) => server.post(`/plans/${key}/run`, {})));
  const last = async (key: string) => (await server.get<PlanAnswer>(`/plans/${key}`)).runs[0]!;
  const ended = async (): Promise<RunView[]> => {
    for (;;) {
      const all = await Promise.all(keys.map(last));
      if (all.every(({ state }) => state !== 'waits' && state !== 'running')) return all;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  };
  // The first runs have nothing to compare with.
  await start();
  const first = await ended();

  const edits = seededTapes(30, 43).map((tape) => [...tape.lines].filter(withoutWords));
  const chance = new Chance(9);
  let edited = 0;
  const edit = async (): Promise<number> => {
    const lines = edits[++edited % edits.length]!;
    let line = anyLine(chance, `edit${edited}`);
    while (!withoutWords(line)) line = anyLine(chance, `edit${edited}`);
    lines[chance.whole(0, lines.length - 1)] = line as unknown as Tape['lines'][number];
    const began = performance.now();
    await server.post('/tally', { tape: { ...EVERYBODY, lines } });
    return performance.now() - began;
  };
  for (let i = 0; i < 100; i++) await edit();
  const alone: number[] = [];
  for (let i = 0; i < EDITS; i++) alone.push(await edit());
  await start();
  const beside: number[] = [];
  const began = performance.now();
  for (let i = 0; i < EDITS; i++) beside.push(await edit());
  const busy = (await last(keys.at(-1)!)).state;
  const second = await ended();
  const took = performance.now() - began;
  const table = new TimingTable('edits of a tape');
  table.add('alone', alone);
  table.add(`while ${PLANS} runs that were due at once are carried out`, beside);
  table.print();
  await server.stop();
  const p95 = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(0.95 * values.length)]!;
  console.log(
    `p95 ${(p95(beside) / p95(alone)).toFixed(2)} times that of edits alone; the last run was ${busy} when the edits ended; all ${PLANS} runs took ${(took / 1000).toFixed(1)} s`,
  );
  const failed = [...first, ...second].filter(({ state }) => state !== 'done');
  if (failed.length) throw new Error(`${failed.length} runs failed: ${failed[0]!.message}`);
  const db = openRuns(dir, { readonly: true });
  const largest = first.reduce((most, run) => (run.count! > most.count! ? run : most));
  const scattered = first
    .map(({ id, count }) => ({ bytes: bytesOfMembers(db, id), count: count! }))
    .sort((a, b) => b.bytes - a.bytes)[0]!;
  db.close();
  console.log(
    `members: ${largest.count!.toLocaleString('en-GB')} at most; the run that takes most has ${scattered.count.toLocaleString('en-GB')} members in ${(scattered.bytes / 1000).toFixed(1)} kB\n`,
  );
}
