import { setTimeout as wait } from 'node:timers/promises';
import type { RowsAnswer, WordedTally } from '../contract/responses.ts';
import { Chance } from '../demo/random.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { megabytes, TimingTable } from './figures.ts';
import { ServerProcess } from './server-process.ts';
import { anyHasLine, anyLine, seededHasTapes, seededTapes } from './tapes.ts';

/** What a user waits for: answers over HTTP to edits of a tape, windows of rows, sorts and counts. */

const EMPTY: Tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
const COLUMNS = ['name', 'industry', 'headcount', 'revenue', 'checked', 'web'];
const SORTS = ['headcount', 'revenue', 'founded', 'checked', 'industry', 'place', 'name'];
/** Words that many descriptions have, each asked for once. */
const WORDS = ['steel', 'own', 'family', 'wood', 'metal', 'parts', 'small', 'made', 'windows', 'service'];

/** What is typed into the entry and the jump box, each as it stands after some key. */
const TYPED =
  `p pa pai paint painters j jo joinery joiner stair staircase br brno in_c in_cz in_czech steel metal wood 25.5 25 50 50-249
  20-249_staff headcount_50 revenue_2m near_b near_brno_60 uses_rut ruta accounting active listed vienna wien hamb carp roof glass
  boat print printing coating powder dust machine_tools wholes restaurant growth_loan has_deal has_person_(purch age_5-20
  founded_19 checked_past_12_months online_shop quote software transport bakery doors windows`
    .split(/\s+/)
    .map((text) => text.replaceAll('_', ' '));

export async function measureServing(dir: string): Promise<void> {
  const server = await ServerProcess.start(dir);
  const timed = async <T>(path: string, body: unknown): Promise<{ took: number; answer: T }> => {
    const start = performance.now();
    const answer = await server.post<T>(path, body);
    return { took: performance.now() - start, answer };
  };
  const table = new TimingTable('over HTTP');

  const chance = new Chance(7);
  const withoutWords = (line: object) => !JSON.stringify(line).includes('"words"');
  const edits: number[] = [];
  for (const tape of seededTapes(80, 11)) {
    const lines = [...tape.lines].filter(withoutWords);
    await server.post('/tally', { tape: { ...tape, lines } });
    for (let i = 0; i < 5; i++) {
      let line = anyLine(chance, `edit${i}`);
      while (!withoutWords(line)) line = anyLine(chance, `edit${i}`);
      lines[chance.whole(0, lines.length - 1)] = line as unknown as Tape['lines'][number];
      edits.push((await timed('/tally', { tape: { ...tape, lines } })).took);
    }
  }
  // The first hundred are asked before the server's code is compiled for speed.
  table.add('tally after an edit of one line, at first', edits.slice(0, 100));
  table.add('tally after an edit of one line, then', edits.slice(100));

  const hasEdits: number[] = [];
  for (const tape of seededHasTapes(40, 17)) {
    const lines = [...tape.lines].filter(withoutWords);
    await server.post('/tally', { tape: { ...tape, lines } });
    for (let i = 0; i < 5; i++) {
      lines[lines.length - 1] = anyHasLine(chance, `edit${i}`) as unknown as Tape['lines'][number];
      hasEdits.push((await timed('/tally', { tape: { ...tape, lines } })).took);
    }
  }
  table.add('tally after an edit of one has-line', hasEdits);

  const words: number[] = [];
  for (const text of WORDS) {
    const tape = {
      ...seededTapes(1, 3)[0]!,
      lines: [{ id: 'w', field: 'words', test: { text } }],
    };
    const { took, answer } = await timed<WordedTally>('/tally', { tape });
    // Of a word that few have, the time is not that of its matches.
    if (answer.tally > answer.universe / 50) words.push((took / answer.tally) * 100_000);
  }
  table.add('a new line of words, per 100,000 found', words);

  const completions: number[] = [];
  const jumps: number[] = [];
  for (const tape of [{ lines: [] }, ...seededTapes(3, 23)]) {
    const lines = [...tape.lines].filter(withoutWords);
    for (const text of TYPED)
      completions.push((await timed('/complete', { tape: { ...EMPTY, lines }, text })).took);
  }
  for (const text of TYPED) {
    const start = performance.now();
    await server.get(`/jump?text=${encodeURIComponent(text)}`);
    jumps.push(performance.now() - start);
  }
  table.add('completions of a typed line, with counts', completions);
  table.add('jump box', jumps);

  // As a user who looks at the companies for a while before sorting them.
  await wait(8000);
  for (const by of SORTS) {
    const sort = [{ by, descending: by !== 'name' }];
    table.add(`first sort by ${by}`, [
      (await timed('/rows', { tape: EMPTY, sort, columns: COLUMNS, offset: 0, limit: 100 })).took,
    ]);
  }

  const windows: number[] = [];
  for (let i = 0; i < 200; i++) {
    const sort = [{ by: chance.pick(SORTS), descending: true }];
    const body = { tape: EMPTY, sort, columns: COLUMNS, limit: 100 };
    const { total } = await server.post<RowsAnswer>('/rows', { ...body, offset: 0 });
    windows.push((await timed('/rows', { ...body, offset: chance.whole(0, total - 100) })).took);
  }
  table.add('100 rows anywhere in a sort', windows);

  const tapes = seededTapes(60, 13);
  const counts = async (body: object) => {
    const took: number[] = [];
    for (const tape of tapes) took.push((await timed('/counts', { tape, ...body })).took);
    return took;
  };
  table.add('counts of the code tree', await counts({ field: 'industry', scheme: 'nace-2.1' }));
  table.add('counts of technologies', await counts({ field: 'technology' }));
  table.print();
  console.log(`Peak memory of the server: ${megabytes(server.peak())}\n`);
  await server.stop();
}
