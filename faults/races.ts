import type { ListView } from '../contract/lists.ts';
import type { HealthAnswer, JobAnswer, SavedTapeView } from '../contract/responses.ts';
import { hold, type Harness } from './harness.ts';
import { companiesCsv, inFolder, pause, Program, tape, type Answer } from './program.ts';

/** Two that change one thing at once: no 500, nothing half done, nobody overwritten in silence. */

type Act = (program: Program) => Promise<Answer>;

/** Does both at once, again and again; every answer must be one that says something. */
async function race(
  program: Program,
  rounds: number,
  prepare: () => Promise<readonly [Act, Act]>,
  after: (answers: readonly [Answer, Answer]) => Promise<void> | void = () => {},
): Promise<void> {
  for (let round = 0; round < rounds; round++) {
    const [one, other] = await prepare();
    // Every other time the second is a hair later, so that it falls within the first.
    const answers = await Promise.all([
      one(program),
      pause(round % 2 ? 3 * (round % 5) : 0).then(() => other(program)),
    ]);
    for (const { status, body } of answers)
      hold(status < 500, `answered ${status}: ${JSON.stringify(body).slice(0, 300)}`);
    hold(program.running, 'the server has ended');
    await after(answers);
  }
}

export async function races(harness: Harness, rounds: number): Promise<void> {
  await inFolder(async (dir) => {
    const program = await Program.started(dir);
    const made = async <T>(path: string, body: object): Promise<T> =>
      (await program.ask('POST', path, body)).body as T;
    try {
      await program.ended(await program.beginLoad('First', companiesCsv('A', 4000)));
      const exported = async (): Promise<string> => {
        const { export: id, job } = await made<{ export: string; job: { id: string } }>('/exports', {
          ...{ tape: tape(), columns: ['name'], format: 'csv', name: 'Race' },
        });
        await program.ended(job.id);
        return id;
      };

      await harness.check('an export’s file is had while it is removed', () =>
        race(program, rounds, async () => {
          const id = await exported();
          return [(p) => p.ask('GET', `/exports/${id}/file`), (p) => p.ask('DELETE', `/exports/${id}`)];
        }),
      );
      await harness.check('a download that is given up leaves no file open and does no harm', async () => {
        const id = await exported();
        for (let round = 0; round < rounds; round++) {
          const gone = new AbortController();
          const asked = program.ask('GET', `/exports/${id}/file`, undefined, { signal: gone.signal });
          setTimeout(() => gone.abort(), round % 3);
          await asked.catch(() => {});
        }
        hold(
          (await program.ask('GET', `/exports/${id}/file`)).status === 200,
          'the file cannot be had any more',
        );
      });
      await harness.check('two loads begin at once: one is refused, the other lands whole', async () => {
        for (let round = 0; round < Math.ceil(rounds / 6); round++) {
          const before = (await program.get<HealthAnswer>('/health')).universe;
          const begun = await Promise.allSettled([
            program.beginLoad(`A${round}`, companiesCsv(`A${round}x`, 300)),
            program.beginLoad(`B${round}`, companiesCsv(`B${round}x`, 300)),
          ]);
          const ids = begun.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
          const why = begun.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : []));
          hold(
            why.every((text) => text.includes('busy')),
            `refused for another reason: ${why.join()}`,
          );
          for (const id of ids) hold((await program.ended(id)).state === 'done', 'a load did not land');
          const { universe } = await program.get<HealthAnswer>('/health');
          hold(
            universe === before + 300 * ids.length,
            `${universe} companies after ${before} and ${ids.length} loads`,
          );
        }
      });
      await harness.check(
        'a list is removed while members are put on it, and while it is renamed',
        async () => {
          const list = async () =>
            (await made<{ list: ListView }>('/lists', { name: `Race ${Math.random()}` })).list.key;
          await race(program, rounds, async () => {
            const key = await list();
            return [
              (p) => p.ask('POST', `/lists/${key}/members`, { tape: tape() }),
              (p) => p.ask('DELETE', `/lists/${key}`),
            ];
          });
          await race(program, rounds, async () => {
            const key = await list();
            return [
              (p) => p.ask('PUT', `/lists/${key}`, { name: `Other ${Math.random()}` }),
              (p) => p.ask('DELETE', `/lists/${key}`),
            ];
          });
          await race(
            program,
            Math.min(rounds, 10),
            async () => {
              const key = await list();
              const add: Act = (p) => p.ask('POST', `/lists/${key}/members`, { tape: tape() });
              return [add, add];
            },
            async (answers) => {
              const added = answers.map(({ body }) => (body as { added: number }).added);
              const { universe } = await program.get<HealthAnswer>('/health');
              hold(added[0]! + added[1]! === universe, `${added.join(' and ')} were added of ${universe}`);
            },
          );
        },
      );
      await harness.check('a saved tape that is removed while it is written does not come back', () => {
        let id = '';
        return race(
          program,
          rounds,
          async () => {
            const body = { tape: tape(), kind: 'tape', name: 'Race' };
            id = (await made<{ tape: SavedTapeView }>('/tapes', body)).tape.id;
            return [(p) => p.ask('PUT', `/tapes/${id}`, body), (p) => p.ask('DELETE', `/tapes/${id}`)];
          },
          async () => {
            const { tapes } = await program.get<{ tapes: SavedTapeView[] }>('/tapes');
            hold(!tapes.some((one) => one.id === id), 'it came back');
          },
        );
      });
      await harness.check(
        'of two windows that write one note or tape over the same state, one is told of the other',
        async () => {
          for (const thing of ['note', 'tape'] as const) {
            const body = { tape: tape(), kind: 'tape', name: 'Versions' };
            const path =
              thing === 'note'
                ? '/notes/companies/GB-A1'
                : `/tapes/${(await made<{ tape: SavedTapeView }>('/tapes', body)).tape.id}`;
            for (let round = 0; round < Math.min(rounds, 10); round++) {
              const now = await program.get<{ changedAt: string | null; tape: SavedTapeView }>(path);
              const seen = thing === 'note' ? (now.changedAt ?? 'none') : now.tape.savedAt;
              const write = (text: string) =>
                program.ask('PUT', path, thing === 'note' ? { text } : body, {
                  headers: { 'if-match': `"${seen}"` },
                });
              const answers = await Promise.all([write(`one ${round}`), write(`two ${round}`)]);
              const statuses = answers.map(({ status }) => status).sort();
              hold(statuses.join() === '200,409', `answered ${statuses.join()}`);
              const clash = answers.find(({ status }) => status === 409)!.body as {
                error: { current?: unknown };
              };
              hold(clash.error.current !== undefined, 'the clash does not say what is there now');
            }
          }
        },
      );
      await harness.check('two windows that change different settings keep both', async () => {
        for (let round = 0; round < Math.min(rounds, 10); round++) {
          const currency = ['EUR', 'CZK', 'GBP'][round % 3]!;
          const numbers = ['comma', 'point', 'space'][round % 3]!;
          await Promise.all([
            program.ask('PATCH', '/settings', { currency }),
            program.ask('PATCH', '/settings', { numbers }),
          ]);
          const settings = await program.get<Record<string, unknown>>('/settings');
          hold(settings.currency === currency && settings.numbers === numbers, JSON.stringify(settings));
        }
      });
      await harness.check('sources are removed twice at once, and while they are loaded', async () => {
        for (let round = 0; round < Math.ceil(rounds / 6); round++) {
          await program.ended(await program.beginLoad('Twice', companiesCsv(`T${round}x`, 200)));
          const { sources } = await program.get<{ sources: { key: string; name: string }[] }>('/sources');
          const { key } = sources.find(({ name }) => name === 'Twice')!;
          const answers = await Promise.all([
            program.ask('DELETE', `/sources/${key}`),
            program.ask('DELETE', `/sources/${key}`),
          ]);
          const statuses = answers.map(({ status }) => status).sort();
          hold(statuses.join() === '202,409', `answered ${statuses.join()}`);
          const job = answers.find(({ status }) => status === 202)!.body as JobAnswer;
          hold((await program.ended(job.job.id)).state === 'done', 'the removal failed');
        }
      });
    } finally {
      await program.end('SIGKILL');
    }
  });
}
