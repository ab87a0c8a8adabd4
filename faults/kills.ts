import Database from 'better-sqlite3';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { formatOf } from '../core/exports/formats.ts';
import type { ListView } from '../contract/lists.ts';
import type { DoublesAnswer } from '../contract/matches.ts';
import type { HealthAnswer, Job, JobAnswer, SourceView } from '../contract/responses.ts';
import { checkDatabases } from './databases.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { killedDuring } from './killed-during.ts';
import { companiesCsv, inFolder, pause, Program, tape } from './program.ts';

/** Kills the program at random moments of every kind of job and write; what it said was kept must be there, and its words true. */

const FIRST = 3000;
const SECOND = 6000;

/** Kinds of file that are killed while they are written, in turn. */
const WRITTEN = ['csv', 'xlsx', 'parquet', 'ods', 'sqlite', 'jsonl', 'vcard', 'pdf', 'dossiers'] as const;

function isInLedger(dir: string, id: string): boolean {
  const db = new Database(join(dir, 'handover.sqlite'), { readonly: true });
  const found = db.prepare('SELECT 1 FROM handover WHERE export = ?').get(id) !== undefined;
  db.close();
  return found;
}

const universe = async (program: Program) => (await program.get<HealthAnswer>('/health')).universe;
const sources = async (program: Program) =>
  (await program.get<{ sources: SourceView[] }>('/sources')).sources;
const jobOf = (answer: unknown) => (answer as JobAnswer).job.id;

/** Companies of rare names, as a register has them, or as a directory does that has no numbers. */
function firmsCsv(numbered: boolean): string {
  const rows = Array.from({ length: FIRST }, (_, i) => {
    const name = `Kolm${i}stad Works`;
    const phone = `+441632${String(900_000 + i)}`;
    return numbered ? `${name} Ltd,K${i},GB,Leeds,${phone}` : `${name.toUpperCase()},GB,Leeds,${phone}`;
  });
  return `${numbered ? 'name,registration number' : 'name'},country,town,phone\n${rows.join('\n')}\n`;
}

export async function kills(harness: Harness, rounds: number, seed: number): Promise<void> {
  const random = randomFrom(seed);
  let kept = 0;
  let lost = 0;
  const note = (job: Job) => (job.state === 'done' ? kept++ : lost++);

  await harness.check(
    `killed ${rounds} times while loading: the load is there whole or not at all, as its job says`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        try {
          await program.ended(await program.beginLoad('First', companiesCsv('A', FIRST)));
          for (let round = 0; round < rounds; round++) {
            const before = await universe(program);
            const killed = await killedDuring(
              program,
              () => program.beginLoad(`Round ${round}`, companiesCsv(`R${round}x`, SECOND)),
              // Some moments lie within the load, some at its end, and some just after it.
              random() * 3500,
            );
            program = killed.program;
            const there = (await sources(program)).some(({ name }) => name === `Round ${round}`);
            const after = await universe(program);
            note(killed.job);
            hold(
              killed.job.state === (there ? 'done' : 'failed'),
              `The job says ${killed.job.state} (“${killed.job.message}”), and the source is ${there ? '' : 'not '}there`,
            );
            hold(
              after === before + (there ? SECOND : 0),
              `${after} companies after ${before}, source ${there ? '' : 'not '}there`,
            );
          }
        } finally {
          await program.end('SIGKILL');
        }
      }),
  );

  await harness.check(`killed ${rounds} times while removing a source: likewise`, () =>
    inFolder(async (dir) => {
      let program = await Program.started(dir);
      try {
        for (let round = 0; round < rounds; round++) {
          if (!(await sources(program)).some(({ name }) => name === 'Gone'))
            await program.ended(await program.beginLoad('Gone', companiesCsv('G', FIRST)));
          const { key } = (await sources(program)).find(({ name }) => name === 'Gone')!;
          const killed = await killedDuring(
            program,
            async () => jobOf((await program.ask('DELETE', `/sources/${key}`)).body),
            random() * 2500,
          );
          program = killed.program;
          const there = (await sources(program)).some(({ name }) => name === 'Gone');
          note(killed.job);
          hold(
            killed.job.state === (there ? 'failed' : 'done'),
            `${killed.job.state}, and the source is ${there ? '' : 'not '}there`,
          );
          hold((await universe(program)) === (there ? FIRST : 0), 'a part of the source is left');
        }
      } finally {
        await program.end('SIGKILL');
      }
    }),
  );

  await harness.check(`killed ${rounds} times while exporting: no half file under the real name`, () =>
    inFolder(async (dir) => {
      let program = await Program.started(dir);
      try {
        await program.ended(await program.beginLoad('First', companiesCsv('A', SECOND)));
        for (let round = 0; round < rounds; round++) {
          let id = '';
          const killed = await killedDuring(
            program,
            async () => {
              const format = WRITTEN[round % WRITTEN.length]!;
              const { body } = await program.ask('POST', '/exports', {
                ...{ tape: tape(), columns: ['name', 'headcount'], format, name: `Round ${round}` },
                ...{ receiver: `Receiver ${round}` },
              });
              id = (body as { export: string }).export;
              return jobOf(body);
            },
            random() * 1500,
          );
          program = killed.program;
          const { ending } = formatOf(WRITTEN[round % WRITTEN.length]!);
          const path = join(dir, 'exports', `${id}.${ending}`);
          note(killed.job);
          hold(!existsSync(`${path}.part`), 'a half file is left');
          hold(
            existsSync(path) === (killed.job.state === 'done'),
            `${killed.job.state}, and the file is ${existsSync(path) ? '' : 'not '}there`,
          );
          hold(isInLedger(dir, id) === existsSync(path), 'the ledger and the file say other things');
          if (existsSync(path) && path.endsWith('csv')) {
            const rows = readFileSync(path, 'utf8').trimEnd().split('\n').length;
            hold(rows === SECOND + 1, `the file has ${rows} rows`);
          }
        }
      } finally {
        await program.end('SIGKILL');
      }
    }),
  );

  await harness.check(
    `killed ${rounds} times while a list is filled: all of an addition or none; what was acknowledged stays`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        try {
          await program.ended(await program.beginLoad('First', companiesCsv('A', SECOND)));
          for (let round = 0; round < rounds; round++) {
            const name = `List ${round}`;
            const { body } = await program.ask('POST', '/lists', { name });
            const { key } = (body as { list: ListView }).list;
            const noted = await program.ask('PUT', `/notes/companies/GB-A${round}`, {
              text: `note ${round}`,
            });
            hold(noted.status === 200, `the note was answered ${noted.status}`);
            const adding = program.ask('POST', `/lists/${key}/members`, { tape: tape() }).catch(() => null);
            await pause(random() * 120);
            await program.end('SIGKILL');
            const acknowledged = (await adding)?.status === 200;
            checkDatabases(dir);
            program = await Program.started(dir);
            const { lists } = await program.get<{ lists: ListView[] }>('/lists');
            const members = lists.find((list) => list.key === key)?.members;
            hold(members === 0 || members === SECOND, `${members} of ${SECOND} members are there`);
            hold(!acknowledged || members === SECOND, 'an addition that was acknowledged is gone');
            const { text } = await program.get<{ text: string }>(`/notes/companies/GB-A${round}`);
            hold(text === `note ${round}`, 'a note that was acknowledged is gone');
          }
        } finally {
          await program.end('SIGKILL');
        }
      }),
  );
  await harness.check(
    `killed ${rounds} times while doubles are joined, and while a newer version is put in place: all of it or nothing`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        try {
          await program.ended(await program.beginLoad('Register', firmsCsv(true)));
          await program.ended(await program.beginLoad('Directory', firmsCsv(false), { joinSure: false }));
          await program.ended(jobOf((await program.ask('POST', '/doubles')).body));
          hold((await program.get<DoublesAnswer>('/doubles')).match!.found > 0, 'no doubles are found');
          for (let round = 0; round < rounds; round++) {
            const before = await universe(program);
            const { match } = await program.get<DoublesAnswer>('/doubles');
            if (match!.found === 0) break;
            const joining = await killedDuring(
              program,
              async () => jobOf((await program.ask('POST', '/doubles/join')).body),
              random() * 2500,
            );
            program = joining.program;
            note(joining.job);
            const { joined } = await program.get<DoublesAnswer>('/doubles');
            const done = joining.job.state === 'done';
            hold(done === joined > 0, `${joining.job.state}, and ${joined} are joined`);
            hold((await universe(program)) === before - joined, `${joined} joined of ${before}`);
          }
          for (let round = 0; round < rounds; round++) {
            const newer = companiesCsv(round % 2 ? 'A' : 'B', SECOND);
            const was = (await sources(program)).find(({ key }) => key === 'register')!.rowsRead;
            const refreshing = await killedDuring(
              program,
              () => program.beginLoad('Register', newer, { refreshes: 'register' }),
              random() * 3500,
            );
            program = refreshing.program;
            note(refreshing.job);
            const { rowsRead } = (await sources(program)).find(({ key }) => key === 'register')!;
            hold(
              rowsRead === (refreshing.job.state === 'done' ? SECOND : was),
              `${refreshing.job.state}, and the source has ${rowsRead} rows`,
            );
          }
        } finally {
          await program.end('SIGKILL');
        }
      }),
  );
  await harness.check(
    `killed ${rounds} times while a load joins what it brought: each company is joined or not, and the rest is joined when asked`,
    async () => {
      for (let round = 0; round < rounds; round++)
        await inFolder(async (dir) => {
          let program = await Program.started(dir);
          try {
            await program.ended(await program.beginLoad('Register', firmsCsv(true)));
            const registered = await universe(program);
            await program.ended(await program.beginLoad('Directory', firmsCsv(false)));
            await pause(random() * 4000);
            await program.end('SIGKILL');
            checkDatabases(dir);
            program = await Program.started(dir);
            const first = await program.get<DoublesAnswer>('/doubles');
            hold(
              (await universe(program)) === registered + first.withoutNumber,
              `${first.joined} are joined, ${first.withoutNumber} are not, beside ${registered}`,
            );
            await program.ended(jobOf((await program.ask('POST', '/doubles')).body));
            const { match } = await program.get<DoublesAnswer>('/doubles');
            if (match!.found > 0)
              await program.ended(jobOf((await program.ask('POST', '/doubles/join')).body));
            const last = await program.get<DoublesAnswer>('/doubles');
            hold(last.joined >= first.joined, 'what was joined is not any more');
            hold(
              (await universe(program)) === registered + last.withoutNumber && last.joined > 0,
              `${last.joined} are joined, ${last.withoutNumber} are not, beside ${registered}`,
            );
          } finally {
            await program.end('SIGKILL');
          }
        });
    },
  );
  harness.figure('kills', `${kept + lost} jobs: ${kept} had landed and say so, ${lost} had not and say so`);
}
