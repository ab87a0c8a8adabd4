import Database from 'better-sqlite3';
import { join } from 'node:path';
import type {
  AroundAnswer,
  GathererAnswer,
  GatherRunView,
  LookAnswer,
  PageAnswer,
} from '../contract/gather-views.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { inFolder, pause, Program } from './program.ts';

/** Kills the program while a gatherer reads pages, of which some fail: nothing may be lost, and nothing be there twice. */

/** Of so many firms of the universe the stand-in has one more. */
const EACH = 4;

async function taught(program: Program, firms: number): Promise<string> {
  const rows = Array.from(
    { length: firms },
    (_, i) => `Firm ${i} s.r.o.,${i + 1},CZ,Brno,Cejl ${i + 1},602 00,firm-${i}.example`,
  );
  const header = 'name,registration number,country,town,street,postcode,web';
  const load = await program.ended(await program.beginLoad('firms', `${header}\n${rows.join('\n')}\n`));
  hold(load.state === 'done', `The firms were not loaded: ${load.message}`);
  const asked = async <T>(method: string, path: string, body: object): Promise<T> => {
    const { status, body: answer } = await program.ask(method, path, body);
    hold(status < 300, `${method} ${path} answered ${status}: ${JSON.stringify(answer)}`);
    return answer as T;
  };
  const spec = { start: 'http://workshop-guide.example/find?what=&where=', pause: 0.1 };
  const made = await asked<GathererAnswer>('POST', '/gather/gatherers', { name: 'Guide', spec });
  const fetchPage = (address: string) =>
    asked<PageAnswer>('POST', `/gather/gatherers/${made.id}/pages`, { address });
  const { page } = await fetchPage(spec.start);
  const view = String((await program.ask('GET', `/gather/pages/${page.id}/view`)).body);
  const nodeOf = (tag: string) => Number(new RegExp(`<${tag} data-node="(\\d+)"`).exec(view)![1]);
  const around = (node: number, known: number[]) =>
    asked<AroundAnswer>('POST', '/gather/around', { page: page.id, node, rows: known });
  const exampleOf = ({ choices, best, fields }: AroundAnswer) => ({
    ...{ page: page.id, node: choices[best]!.node, as: 'row', fields },
  });
  const first = exampleOf(await around(nodeOf('h3'), []));
  const small = exampleOf(await around(nodeOf('strong'), [first.node]));
  const detail = (await fetchPage('http://workshop-guide.example/firm/0')).page.id;
  const { guess } = await asked<LookAnswer>('POST', '/gather/look', { page: detail, spec: made.spec });
  await asked('PUT', `/gather/gatherers/${made.id}`, {
    name: 'Guide',
    spec: { ...made.spec, examples: [first, small], detail: { page: detail, fields: guess } },
  });
  return (await asked<{ run: GatherRunView }>('POST', `/gather/gatherers/${made.id}/runs`, {})).run.id;
}

const runOf = async (program: Program, id: string) =>
  (await program.get<{ run: GatherRunView }>(`/gather/runs/${id}`)).run;

/** @param pages about how many are read; of fewer than 64 the stand-in would make more firms than there are */
export async function gather(harness: Harness, pages: number, kills: number, seed: number): Promise<void> {
  const random = randomFrom(seed);
  console.log('Pages read while the program is killed');
  // A page for each firm, and one of results for fifteen.
  const firms = Math.round(((pages / 16) * 15 * EACH) / (EACH + 1) / EACH) * EACH;
  const all = firms + firms / EACH;
  await harness.check(
    `${all} companies of about ${pages} pages are each there once over ${kills} kills`,
    () =>
      inFolder(async (dir) => {
        let program = await Program.started(dir);
        const id = await taught(program, firms);
        for (let kill = 1; kill <= kills; kill++) {
          const until = (pages * (kill - 0.5 + 0.4 * random())) / (kills + 1);
          for (let run = await runOf(program, id); run.pagesRead < until; run = await runOf(program, id)) {
            hold(run.state === 'running', `The run is ${run.state}: ${run.why}`);
            await pause(50);
          }
          await program.end('SIGKILL');
          program = await Program.started(dir);
        }
        let run = await runOf(program, id);
        for (; run.state === 'running'; run = await runOf(program, id)) await pause(200);
        hold(run.state === 'done', `The run ended ${run.state}: ${run.why}`);
        hold(run.roll.foot === all, `${run.roll.foot} records of ${all}: ${JSON.stringify(run.roll.steps)}`);
        hold(run.pagesFailed === 0, `${run.pagesFailed} pages were given up`);
        await program.end('SIGTERM');
        const db = new Database(join(dir, 'gather.sqlite'), { readonly: true });
        hold(db.pragma('integrity_check', { simple: true }) === 'ok', 'gather.sqlite is not whole');
        const found = db
          .prepare<[], { page: string; mail: string | null; web: string | null }>(
            "SELECT cells ->> '$.page' AS page, cells ->> '$.mail' AS mail, cells ->> '$.web' AS web FROM gathered",
          )
          .all();
        db.close();
        hold(new Set(found.map(({ page }) => page)).size === all, 'a company is there twice');
        const bare = found.filter(({ page, web }) => !page.includes('/members/') && web === null);
        hold(
          bare.length === 0,
          `${bare.length} companies lack what their own page says, such as ${bare[0]?.page}`,
        );
        harness.figure('pages read while killed', `${run.pagesRead}, ${kills} kills`);
      }),
  );
}
