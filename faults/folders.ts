import Database from 'better-sqlite3';
import { execFileSync } from 'node:child_process';
import { chmodSync, existsSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import type { HealthAnswer, JobAnswer } from '../contract/responses.ts';
import { hold, randomFrom, Skipped, type Harness } from './harness.ts';
import { companiesCsv, inFolder, Program, tape, type Refused } from './program.ts';

/** Folders as they are found on a bad day: full, read-only, damaged, newer, in use. */

/** How a start that must fail failed: a sentence for people, and never the insides of the program. */
function checkWords(refused: Program | Refused, expected: RegExp): void {
  hold(!(refused instanceof Program), 'It started where it should not have');
  hold(refused.code === 1, `It ended with ${refused.code}`);
  hold(
    !/\n {4}at |node:internal|program made a mistake/.test(refused.said),
    `It shows its insides: ${refused.said}`,
  );
  hold(expected.test(refused.said), `It said “${refused.said}”`);
}

async function filled(dir: string, rows = 500): Promise<void> {
  const program = await Program.started(dir);
  await program.ended(await program.beginLoad('First', companiesCsv('A', rows)));
  await program.end('SIGTERM');
}

async function universeOf(dir: string): Promise<number> {
  const program = await Program.started(dir);
  try {
    return (await program.get<HealthAnswer>('/health')).universe;
  } finally {
    await program.end('SIGTERM');
  }
}

export async function folders(
  harness: Harness,
  damages: number,
  fillings: number,
  seed: number,
): Promise<void> {
  await harness.check('a second start on the same folder is refused by name, and the first goes on', () =>
    inFolder(async (dir) => {
      const first = await Program.started(dir);
      try {
        const job = await first.beginLoad('First', companiesCsv('A', 20_000));
        checkWords(await Program.start(dir), /in use by another Just Tally \(process \d+, since/);
        hold((await first.ended(job)).state === 'done', 'the load of the first was disturbed');
      } finally {
        await first.end('SIGKILL');
      }
      // A kill leaves no lock behind.
      hold((await universeOf(dir)) === 20_000, 'it does not start again');
    }),
  );

  await harness.check('SIGTERM and SIGINT stop it at once and in order, also within a load', () =>
    inFolder(async (dir) => {
      for (const signal of ['SIGTERM', 'SIGINT'] as const) {
        const program = await Program.started(dir);
        await program.beginLoad(signal, companiesCsv(signal, 30_000));
        const start = Date.now();
        hold((await program.end(signal)) === 0, `it ended with another code after ${signal}`);
        hold(Date.now() - start < 10_000, `it took ${Date.now() - start} ms to stop`);
        hold(!existsSync(join(dir, 'lock.json')), 'the lock is left');
      }
    }),
  );

  await harness.check('damaged columns are built again; the count is the same', () =>
    inFolder(async (dir) => {
      await filled(dir);
      const random = randomFrom(seed);
      const path = join(dir, 'universe.columns');
      const whole = readFileSync(path);
      for (let round = 0; round < damages; round++) {
        const damaged = Buffer.from(whole);
        if (round % 4 === 3) truncateSync(path, Math.floor(random() * whole.length));
        else {
          damaged[Math.floor(random() * damaged.length)]! ^= 1 << Math.floor(random() * 8);
          writeFileSync(path, damaged);
        }
        hold((await universeOf(dir)) === 500, `another count after damage ${round}`);
        writeFileSync(path, whole);
      }
    }),
  );

  await harness.check('a damaged database, a file of another kind and a newer one are said to be that', () =>
    inFolder(async (dir) => {
      await filled(dir);
      const path = join(dir, 'workspace.sqlite');
      const whole = readFileSync(path);
      writeFileSync(
        path,
        'This is no database at all, whatever it is called, and it is long enough to be one.'.repeat(20),
      );
      checkWords(await Program.start(dir), /damaged or none of ours/);
      writeFileSync(path, whole);
      const db = new Database(path);
      db.pragma('user_version = 999');
      db.close();
      checkWords(await Program.start(dir), /newer Just Tally/);
    }),
  );

  await harness.check('a folder that is a file, and a port that is none or taken, are said to be that', () =>
    inFolder(async (dir) => {
      const file = join(dir, 'file');
      writeFileSync(file, '');
      checkWords(await Program.start(file), /cannot be used as a folder of data/);
      for (const port of ['70000', 'x', '-1', ''])
        checkWords(await Program.start(dir, ['--port', port]), /--port|port/i);
      const taken = createServer().listen(0, '127.0.0.1');
      await new Promise((resolve) => taken.once('listening', resolve));
      const { port } = taken.address() as { port: number };
      checkWords(await Program.start(dir, ['--port', String(port)]), /is taken by another program/);
      taken.close();
      checkWords(await Program.start(dir, ['--what', '1']), /--what/);
    }),
  );

  await harness.check('a folder that cannot be written is said to be that', () =>
    inFolder(async (dir) => {
      if (process.getuid?.() === 0) throw new Skipped('as root every folder can be written');
      chmodSync(dir, 0o500);
      checkWords(await Program.start(dir), /read-only for this user/);
      chmodSync(dir, 0o700);
    }),
  );

  await harness.check(
    'on a full disk nothing is lost, jobs say what became of them, and it starts again',
    () =>
      inFolder(async (dir) => {
        if (process.getuid?.() !== 0) throw new Skipped('only root can mount a small disk');
        try {
          execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=9m', 'tmpfs', dir], { stdio: 'ignore' });
        } catch {
          throw new Skipped('no small disk can be mounted here');
        }
        try {
          let program = await Program.started(dir);
          await program.ended(await program.beginLoad('First', companiesCsv('A', 1000)));
          let refused = 0;
          for (let round = 0; round < fillings; round++) {
            const before = (await program.get<HealthAnswer>('/health')).universe;
            const rows = 12_000;
            const upload = await program.upload('big.csv', companiesCsv(`R${round}x`, rows));
            if (upload.status !== 201) {
              refused++;
              hold(
                upload.status === 507,
                `an upload on a full disk is answered ${upload.status}: ${JSON.stringify(upload.body)}`,
              );
              continue;
            }
            const {
              upload: id,
              encoding,
              delimiter,
              hasHeader,
              mapping,
            } = upload.body as Record<string, unknown>;
            const load = await program.ask('POST', '/sources', {
              ...{
                upload: id,
                name: `Round ${round}`,
                asOf: '2026-09-30',
                read: { encoding, delimiter, hasHeader },
                mapping,
              },
            });
            hold([202, 507].includes(load.status), `a load on a full disk is answered ${load.status}`);
            if (load.status !== 202) continue;
            const job = await program.ended((load.body as JobAnswer).job.id);
            const after = (await program.get<HealthAnswer>('/health')).universe;
            hold(after === before || after === before + rows, `${after} companies after ${before}`);
            // Where it is not counted yet, the job says that it is done and what to do.
            if (after === before && job.state === 'done')
              hold(job.message !== null, 'a job is done, is not counted, and says nothing of it');
            if (job.state !== 'done') refused++;
          }
          hold(refused > 0, 'the disk never was full');
          const note = await program.ask('PUT', '/notes/companies/GB-A1', { text: 'x'.repeat(3000) });
          hold([200, 507].includes(note.status), `a note on a full disk is answered ${note.status}`);
          hold(
            (await program.ask('POST', '/tally', { tape: tape() })).status === 200,
            'it does not count on a full disk',
          );
          await program.end('SIGKILL');
          program = await Program.started(dir);
          hold((await program.get<HealthAnswer>('/health')).universe >= 1000, 'companies are gone');
          await program.end('SIGTERM');
        } finally {
          execFileSync('umount', ['-l', dir], { stdio: 'ignore' });
        }
      }),
  );
}
