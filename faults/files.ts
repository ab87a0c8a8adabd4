import ExcelJS from 'exceljs';
import type { HealthAnswer, UploadAnswer } from '../contract/responses.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { companiesCsv, inFolder, pause, Program } from './program.ts';

/** Damaged, strange and hostile files: each upload ends, says what is wrong, and holds nobody up. */

async function workbook(rows: number): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Companies');
  for (const line of companiesCsv('W', rows).trimEnd().split('\n')) sheet.addRow(line.split(','));
  return Buffer.from(await book.xlsx.writeBuffer());
}

/** Asks for health all the while; returns how long its slowest answer took. */
function watchHealth(program: Program): () => Promise<number> {
  let watching = true;
  let slowest = 0;
  const ended = (async () => {
    while (watching) {
      slowest = Math.max(slowest, (await program.ask('GET', '/health')).ms);
      await pause(20);
    }
  })();
  return async () => {
    watching = false;
    await ended;
    return slowest;
  };
}

const HOSTILE: readonly [name: string, content: () => string | Uint8Array][] = [
  [
    '100,000 columns',
    () => `${Array.from({ length: 100_000 }, (_, i) => `c${i}`).join(',')}\n${'1,'.repeat(99_999)}1\n`,
  ],
  [
    '16,000 columns',
    () => `${Array.from({ length: 16_000 }, (_, i) => `heading ${i}`).join(',')}\n${'1,'.repeat(15_999)}1\n`,
  ],
  ['a cell of brackets', () => `name,town\n${'('.repeat(100_000)},Leeds\n`],
  ['a heading of brackets', () => `${'('.repeat(100_000)},name\na,b\n`],
  ['a cell of @', () => `name,mail\nA,${'a@'.repeat(50_000)}\n`],
  ['a cell of blanks', () => `name,employees\nA,${'1 '.repeat(50_000)}x\n`],
  ['quotation marks', () => `name,town\n${'"'.repeat(100_001)}\n`],
  ['one line of 3 MB', () => `name\n${'x'.repeat(3 * 2 ** 20)}\n`],
  ['zero bytes', () => new Uint8Array(5000)],
  ['noise', () => Uint8Array.from({ length: 50_000 }, (_, i) => (i * 7919) % 251)],
  ['400 nines', () => `name,employees\nA,${'9'.repeat(400)}\nB,5\n`],
];

export async function files(harness: Harness, damages: number, seed: number): Promise<void> {
  await inFolder(async (dir) => {
    const program = await Program.started(dir);
    try {
      const whole = await workbook(40);
      await harness.check(
        `a workbook damaged in ${damages} ways is never taken for whole, and every upload ends`,
        async () => {
          const random = randomFrom(seed);
          const seen = { refused: 0, same: 0 };
          const first = (await program.upload('w.xlsx', whole)).body as UploadAnswer;
          for (let n = 0; n < damages; n++) {
            const bytes =
              n % 4 === 3 ? whole.subarray(0, Math.floor(random() * whole.length)) : Buffer.from(whole);
            if (n % 4 !== 3) bytes[Math.floor(random() * bytes.length)]! ^= 1 << Math.floor(random() * 8);
            const { status, body } = await program.upload('w.xlsx', bytes);
            hold(status < 500, `damage ${n} is answered ${status}: ${JSON.stringify(body)}`);
            if (status === 201) {
              // A bit that nothing rests on may be turned; what is read must then be what was written.
              const { header, rows } = body as UploadAnswer;
              hold(
                JSON.stringify([header, rows]) === JSON.stringify([first.header, first.rows]),
                `damage ${n} is read as other values`,
              );
              seen.same++;
            } else seen.refused++;
          }
          harness.figure(
            'damaged workbooks',
            `${seen.refused} refused, ${seen.same} read as they were written`,
          );
        },
      );
      await harness.check(
        'hostile files end within the time that reading has, and health is answered meanwhile',
        async () => {
          let slowest = 0;
          for (const [name, content] of HOSTILE) {
            const watched = watchHealth(program);
            const { status, body, ms } = await program.upload(`${name}.csv`, content());
            const health = await watched();
            slowest = Math.max(slowest, health);
            hold(
              status === 201 || (status >= 400 && status < 500),
              `${name} is answered ${status}: ${JSON.stringify(body).slice(0, 300)}`,
            );
            hold(ms < 35_000, `${name} took ${(ms / 1000).toFixed(1)} s`);
            hold(health < 1000, `${name}: health took ${health.toFixed(0)} ms`);
          }
          harness.figure('health beside hostile files', `slowest ${slowest.toFixed(0)} ms`);
        },
      );
      await harness.check(
        'line ends of three kinds in one file, a line that names its separator, and no number without an end',
        async () => {
          const id = await program.beginLoad(
            'Mixed',
            'sep=;\r\nname;employees;country\r\nA;5;GB\nB;6;GB\rC;' + '9'.repeat(400) + ';GB\r\n',
          );
          const job = await program.ended(id);
          hold(job.state === 'done', `${job.state}: ${job.message}`);
          const { universe } = await program.get<HealthAnswer>('/health');
          hold(universe === 3, `${universe} companies: a number that cannot be counted with leaves its row`);
          hold(job.result?.left === 1, `${String(job.result?.left)} cells left empty: that number is one`);
        },
      );
    } finally {
      await program.end('SIGKILL');
    }
  });
}
