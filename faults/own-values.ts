import type { JobAnswer, WordedTally } from '../contract/responses.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { killedDuring } from './killed-during.ts';
import { inFolder, Program, tape } from './program.ts';

/** Kills the program while values are corrected and websites tried: all of it is there or nothing, and the job says which. */

const FIRMS = 400;
/** Longest that a correction, or trying the websites, is let run before the kill, in ms. */
const [CORRECTING, TRYING] = [900, 5000];

const jobOf = (answer: unknown) => (answer as JobAnswer).job.id;

function firms(): string {
  const rows = Array.from({ length: FIRMS }, (_, i) => `Firm ${i},F${i},GB,Leeds,firm-${i}.example,40`);
  return `name,registration number,country,town,web,employees\n${rows.join('\n')}\n`;
}

export async function ownValues(harness: Harness, rounds: number, seed: number): Promise<void> {
  const random = randomFrom(seed);
  let [landed, not] = [0, 0];
  await harness.check(
    `killed ${2 * rounds} times while values are corrected and websites tried: all of it or nothing, and the job says which`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        const count = async (line: object) =>
          ((await program.ask('POST', '/tally', { tape: tape([{ id: 'a', ...line }]) })).body as WordedTally)
            .tally;
        try {
          await program.ended(await program.beginLoad('Register', firms()));
          let tried = 0;
          for (let round = 0; round < rounds; round++) {
            const value = 1000 + round;
            const correcting = await killedDuring(
              program,
              async () =>
                jobOf(
                  (
                    await program.ask('POST', '/companies/GB-F7/corrections', {
                      corrections: [{ field: 'headcount', value: String(value) }],
                    })
                  ).body,
                ),
              random() * CORRECTING,
            );
            program = correcting.program;
            const corrected = await count({ field: 'headcount', test: { from: value, to: value } });
            hold(
              corrected === (correcting.job.state === 'done' ? 1 : 0),
              `${correcting.job.state}, and ${corrected} are corrected`,
            );
            const companies = Array.from({ length: FIRMS }, (_, i) => `GB-F${i}`);
            const trying = await killedDuring(
              program,
              async () => jobOf((await program.ask('POST', '/websites/try', { companies })).body),
              random() * TRYING,
            );
            program = trying.program;
            if (trying.job.state === 'done') tried = FIRMS;
            const known = await count({
              field: 'site-state',
              test: { any: ['works', 'moved', 'parked', 'dead'] },
            });
            hold(known === tried, `${trying.job.state}, and ${known} websites are known of ${tried}`);
            for (const { job } of [correcting, trying]) {
              if (job.state === 'done') landed++;
              else not++;
            }
          }
        } finally {
          await program.end('SIGKILL');
        }
      }),
  );
  harness.figure('corrected and tried', `${landed} jobs had landed and say so, ${not} had not and say so`);
}
