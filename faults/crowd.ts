import type { WordedTally } from '../contract/responses.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { companiesCsv, inFolder, Program, tape } from './program.ts';

/** Many at once for a while: every answer right, health always quick, memory that does not grow without end. */
export async function crowd(harness: Harness, clients: number, seconds: number, seed: number): Promise<void> {
  await harness.check(
    `${clients} clients for ${seconds} seconds beside loads: every count right, no 500, health under a second`,
    () =>
      inFolder(async (dir) => {
        const program = await Program.started(dir);
        try {
          await program.ended(await program.beginLoad('First', companiesCsv('A', 4000)));
          const until = Date.now() + seconds * 1000;
          let answered = 0;
          let slowestHealth = 0;
          const client = async (n: number) => {
            const random = randomFrom(seed + n);
            while (Date.now() < until) {
              const from = Math.floor(random() * 400);
              const lines = [{ id: 'a', field: 'headcount', test: { from } }];
              const ways = [
                async () => {
                  const { status, body } = await program.ask('POST', '/tally', { tape: tape(lines) });
                  hold(status === 200, `a count is answered ${status}: ${JSON.stringify(body)}`);
                  const { tally, universe } = body as WordedTally;
                  // Headcounts of the files go round from 0 to 399, so that each value has as many.
                  const expected = (universe / 400) * (400 - from);
                  hold(
                    Math.abs(tally - expected) <= universe / 400,
                    `${tally} of ${universe} have ${from} or more`,
                  );
                },
                async () => {
                  const { status } = await program.ask('POST', '/rows', {
                    tape: tape(lines),
                    columns: ['name'],
                    limit: 50,
                  });
                  hold(status === 200, `rows are answered ${status}`);
                },
                async () => {
                  const { status, ms } = await program.ask('GET', '/health');
                  slowestHealth = Math.max(slowestHealth, ms);
                  hold(status === 200, `health is answered ${status}`);
                },
                async () => {
                  const gone = new AbortController();
                  const asked = program.ask('POST', '/tally', { tape: tape(lines) }, { signal: gone.signal });
                  gone.abort();
                  await asked.catch(() => {});
                },
              ];
              await ways[Math.floor(random() * ways.length)]!();
              answered++;
            }
          };
          const loads = (async () => {
            for (let n = 0; Date.now() < until; n++)
              await program.ended(await program.beginLoad(`L${n}`, companiesCsv(`L${n}x`, 400)));
          })();
          await Promise.all([loads, ...Array.from({ length: clients }, (_, n) => client(n))]);
          const metrics = (await program.ask('GET', '/metrics')).body as string;
          const bytes = Number(/^process_resident_memory_bytes (\S+)/m.exec(metrics)?.[1]);
          harness.figure(
            'crowd',
            `${answered.toLocaleString('en-GB')} calls, slowest health ${slowestHealth.toFixed(0)} ms, ${Math.round(bytes / 2 ** 20)} MB at the end`,
          );
          hold(slowestHealth < 1000, `health took ${slowestHealth.toFixed(0)} ms`);
          hold(bytes < 1.5 * 2 ** 30, `it has ${Math.round(bytes / 2 ** 20)} MB`);
          hold(!/"level":50/.test(program.said), `it wrote errors: ${program.said.slice(0, 500)}`);
        } finally {
          await program.end('SIGKILL');
        }
      }),
  );
}
