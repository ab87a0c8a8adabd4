import Database from 'better-sqlite3';
import { join } from 'node:path';
import type { AddedAnswer, JudgedAnswer, ListView } from '../contract/lists.ts';
import type { RowsAnswer, WordedTally } from '../contract/responses.ts';
import { emptyTape, type Tape } from '../core/tape/nodes.ts';
import { TimingTable } from './figures.ts';
import { ServerProcess } from './server-process.ts';

/** What lists cost over HTTP: all of a universe put on one, verdicts, counts with them; beside the same count as plain SQL. */

/** Small lists beside the large ones, for the Lists place. */
const MANY = 500;
const VERDICTS = 40;
const EDITS = 40;

export async function measureLists(dir: string): Promise<void> {
  const server = await ServerProcess.start(dir);
  const table = new TimingTable('lists, over HTTP');
  const timed = async <T>(ask: () => Promise<T>): Promise<[took: number, answer: T]> => {
    const start = performance.now();
    const answer = await ask();
    return [performance.now() - start, answer];
  };
  const made: string[] = [];
  const list = async (name: string) => {
    const { list: own } = await server.post<{ list: ListView }>('/lists', { name: `${name} ${process.pid}` });
    made.push(own.key);
    return own.key;
  };
  const put = (key: string, tape: Tape) => server.post<AddedAnswer>(`/lists/${key}/members`, { tape });
  const everybody = emptyTape();
  const grown: Tape = {
    ...everybody,
    lines: [{ id: 'a', field: 'founded', test: { from: 1996 }, unknown: 'keep' }],
  };
  try {
    const all = await list('All');
    const [waits, stop] = healthMeanwhile(server);
    const [took, { added }] = await timed(() => put(all, everybody));
    stop();
    table.add(`${added.toLocaleString('en-GB')} put on a list`, [took]);
    table.add('health meanwhile', await waits);
    const half = await list('Half');
    const [tookHalf, { added: some }] = await timed(() => put(half, grown));
    table.add(`${some.toLocaleString('en-GB')} put on another`, [tookHalf]);
    const [again, { origins }] = await timed(() => put(all, grown));
    table.add('of these put on the first, where they are already', [again]);
    const undone = () =>
      fetch(`${server.address}/api/lists/${all}/origins/${origins.join()}`, { method: 'DELETE' }).then(
        (reply) => reply.json(),
      );
    table.add('and taken back', [(await timed(undone))[0]]);
    table.add('the roll of a list', [(await timed(() => server.get(`/lists/${all}`)))[0]]);
    const parts = { parts: [{ list: all }, { list: half }] };
    table.add('overlap of the two', [(await timed(() => server.post('/lists/overlap', parts)))[0]]);

    const tape = (test: object, from: number): Tape => ({
      ...everybody,
      lines: [
        { id: 'l', field: 'list', test: { any: [half], ...test } },
        { id: 'h', field: 'headcount', test: { from, to: 249 } },
        { id: 'p', field: 'place', test: { countries: ['DE', 'PL', 'CZ'] } },
      ],
    });
    const tally = (of: Tape) => server.post<WordedTally>('/tally', { tape: of });
    table.add('first tally with it', [(await timed(() => tally(tape({}, 1))))[0]]);
    const edits: number[] = [];
    for (let i = 0; i < EDITS; i++) edits.push((await timed(() => tally(tape({}, 2 + i))))[0]);
    table.add('tally after an edit beside it', edits);
    const { rows } = await server.post<RowsAnswer>('/rows', {
      tape: tape({}, 1),
      columns: ['name'],
      limit: VERDICTS,
    });
    const verdicts: number[] = [];
    const counted: number[] = [];
    for (const [i, { key }] of rows.entries()) {
      const verdict = { members: [key], verdict: i % 3 ? 'in' : 'out' };
      verdicts.push((await timed(() => server.post<JudgedAnswer>(`/lists/${half}/verdicts`, verdict)))[0]);
      const [until, { tally: judged }] = await timed(() => tally(tape({ verdict: ['in', 'out'] }, 1)));
      if (judged !== i + 1) throw new Error(`${i + 1} are judged, and ${judged} counted.`);
      counted.push(until);
    }
    table.add('a verdict', verdicts);
    table.add('the tally that shows it', counted);
    const peer = new Database(join(dir, 'universe.sqlite'), { readonly: true });
    peer.prepare('ATTACH ? AS l').run(join(dir, 'lists.sqlite'));
    const count = peer
      .prepare(
        `SELECT count(*) FROM company c WHERE c.key IN (SELECT key FROM l.list_member WHERE list = ? AND verdict IN ('in', 'out'))
         AND c.headcount_low >= 1 AND c.headcount_high <= 249 AND c.country IN ('DE', 'PL', 'CZ')`,
      )
      .pluck();
    const plain: number[] = [];
    for (let i = 0; i < 5; i++) plain.push((await timed(() => Promise.resolve(count.get(half))))[0]);
    peer.close();
    table.add('peer: the last tally as plain SQL of SQLite', plain);

    const near: number[] = [];
    for (const target of [300, 5000, 50_000])
      near.push((await timed(() => server.post('/near', { tape: tape({}, 20), target })))[0]);
    table.add('about so many, please', near);
    const draw = { tape: tape({}, 1), size: 60, by: 'place', seed: 7 };
    table.add('a sample drawn by country', [(await timed(() => server.post('/checks', draw)))[0]]);
    for (let i = 0; i < MANY; i++) await list(`Small ${i}`);
    const places: number[] = [];
    for (let i = 0; i < 10; i++) places.push((await timed(() => server.get('/lists')))[0]);
    table.add(`the Lists place with ${MANY + 2} lists`, places);
    table.print();
  } finally {
    for (const key of made) await fetch(`${server.address}/api/lists/${key}`, { method: 'DELETE' });
    await server.stop();
  }
}

/** How long the server takes to say that it is well, asked again and again until told to stop. */
function healthMeanwhile(server: ServerProcess): [waits: Promise<number[]>, stop: () => void] {
  let going = true;
  const asked = async () => {
    const waits: number[] = [];
    while (going) {
      const start = performance.now();
      await server.get('/health');
      waits.push(performance.now() - start);
    }
    return waits;
  };
  return [asked(), () => (going = false)];
}
