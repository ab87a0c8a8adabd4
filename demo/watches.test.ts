import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { NoticesAnswer, WatchView } from '../contract/runs.ts';
import { MailWell } from '../server/testing/mail-well.ts';
import { openUniverse } from '../server/db/open.ts';
import { RunsDesk } from './runs-desk.ts';
import { type Answered, type Wrong } from '../server/testing/answered.ts';
import { until } from '../server/testing/until.ts';

/** What is watched as a month goes by, and how one is told: under the bell, by mail, by webhook, in a feed. */

const desk = new RunsDesk();
const well = new MailWell();
let hook: string;

const notices = async () => (await desk.api.get('/api/notices')).body as NoticesAnswer;
const watch = async (wish: object): Promise<WatchView> => {
  const { status, body } = (await desk.api
    .put('/api/watches')
    .send({ rate: 'at-once', ways: ['bell', 'feed'], growth: 10, ...wish })) as Answered<unknown>;
  if (status !== 200) throw new Error(JSON.stringify(body));
  return (body as { watch: WatchView }).watch;
};
/** One value of the universe. */
const value = (sql: string, ...values: unknown[]) => {
  const db = openUniverse(desk.server.dir, { readonly: true });
  try {
    return db
      .prepare(sql)
      .pluck()
      .get(...values) as string;
  } finally {
    db.close();
  }
};

beforeAll(async () => {
  await desk.start(1500);
  await well.start();
  await desk.api
    .put('/api/outreach/server')
    .send({ host: '127.0.0.1', port: well.port, secure: false, user: '', password: '' });
  await desk.api.put('/api/notices/settings').send({ mail: 'ilona@ternhollow.example', hour: 7 }).expect(200);
  const made = await desk.api.post('/api/hooks').send({ name: 'Our hook', url: 'stand-in', batch: 100 });
  hook = (made.body as { hook: { id: string } }).hook.id;
});
afterAll(async () => {
  await desk.stop();
  await well.stop();
});

test('only what can happen to something is watched, and only what is there', async () => {
  const wrong = await desk.api
    .put('/api/watches')
    .send({ subject: 'people', key: 'person-1', kinds: ['deal'], rate: 'daily', ways: [] });
  expect([wrong.status, (wrong.body as Wrong).error.field]).toEqual([400, 'kinds']);
  const none = await desk.api
    .put('/api/watches')
    .send({ subject: 'companies', key: 'nobody', kinds: ['deal'], rate: 'daily', ways: [] });
  expect(none.status).toBe(404);
});

test('a month tells of a company that grew, a person who moved and of whom a list has, each with why', async () => {
  const every = [
    'appointment',
    'departure',
    'move',
    'opening',
    'deal',
    'court',
    'technology',
    'growth',
    'record',
  ];
  const made = await desk.api.post('/api/lists').send({ name: 'Watched', subject: 'companies' });
  const companies = (made.body as { list: { key: string } }).list.key;
  const tape = {
    format: 'just-tally.tape',
    version: 1,
    subject: 'companies',
    lines: [{ id: 'l1', field: 'place', test: { countries: ['CZ'] } }],
  };
  await desk.api.post(`/api/lists/${companies}/members`).send({ tape });
  await watch({
    subject: 'lists',
    key: companies,
    kinds: [...every, 'list'],
    ways: ['bell', 'feed', 'mail', hook],
  });
  const quiet = value("SELECT key FROM company WHERE country = 'CZ' LIMIT 1");
  await watch({ subject: 'companies', key: quiet, kinds: every, rate: 'never' });
  await desk.nextMonth();
  const mover = value("SELECT key FROM history WHERE subject = 'people' AND field = 'company' LIMIT 1");
  desk.server.runs.wake();
  await desk.server.runs.idle();
  const { notices: told, unread } = await notices();
  expect(unread).toBe(told.length);
  const ofList = told.find(({ title }) => title.startsWith('Watched'))!;
  expect(ofList).toMatchObject({ kind: 'watch', why: 'you watch it', trouble: null });
  expect(ofList.items.length).toBeGreaterThan(3);
  expect(ofList.items.join('\n')).toMatch(/headcount: \d+ → \d+ \([+−]\d+ %\)/);
  expect(told.filter(({ link }) => link.includes(encodeURIComponent(quiet)))).toEqual([]);
  // From here on the person who moved is watched; the next month may leave them where they are, and then nothing is told.
  await watch({ subject: 'people', key: mover, kinds: ['move', 'departure', 'record'] });
});

test('one mail and one post have all of it', async () => {
  const [mail] = await well.mails(1);
  expect(mail).toContain('ilona@ternhollow.example');
  expect(mail).toContain('Just Tally: Watched');
  expect(mail).toContain('you watch it');
  const { deliveries } = await until(
    async () =>
      (await desk.api.get('/api/programs')).body as { deliveries: { state: string; rows: number }[] },
    (answer) => (answer.deliveries[0]?.state ?? 'waiting') !== 'waiting',
  );
  expect(deliveries[0]).toMatchObject({ state: 'delivered', rows: 1 });
});

test('readers of feeds find it under an address that nobody guesses, as XML that holds any text', async () => {
  const { feed, notices: told } = await notices();
  const { status, text, headers } = await desk.api
    .get(feed)
    .buffer(true)
    .parse((response, done) => {
      let all = '';
      response.setEncoding('utf8');
      response.on('data', (part: string) => (all += part));
      response.on('end', () => done(null, all));
    })
    .then((response) => ({
      ...response,
      status: response.status,
      text: response.body as string,
      headers: response.headers,
    }));
  expect([status, headers['content-type']]).toEqual([200, 'application/atom+xml; charset=utf-8']);
  expect(text.match(/<entry>/g)).toHaveLength(told.length);
  expect(text).not.toMatch(/&(?!amp;|lt;|gt;|quot;|apos;)/);
  await desk.api.get('/api/notices/another.atom').expect(404);
});

test('a list tells who joined it and who was taken off', async () => {
  const list = (
    (await desk.api.get('/api/lists')).body as { lists: { key: string; name: string }[] }
  ).lists.find(({ name }) => name === 'Watched')!.key;
  const member = value("SELECT key FROM company WHERE country = 'DE' LIMIT 1");
  const tape = {
    format: 'just-tally.tape',
    version: 1,
    subject: 'companies',
    lines: [{ id: 'l1', field: 'company', test: { any: [member] } }],
  };
  await desk.api.post(`/api/lists/${list}/members`).send({ tape });
  desk.server.runs.wake();
  await desk.server.runs.idle();
  const [newest] = (await notices()).notices;
  expect(newest!.items).toEqual([expect.stringMatching(/ joined the list$/)]);
});

test('what was read is not counted any more; a watch that is taken away tells nothing', async () => {
  const before = await notices();
  await desk.api.post('/api/notices/read').send({ ids: [before.notices[0]!.id] });
  expect((await notices()).unread).toBe(before.unread - 1);
  await desk.api.post('/api/notices/read').send({});
  expect((await notices()).unread).toBe(0);
  const { watches } = (await desk.api.get('/api/watches')).body as { watches: WatchView[] };
  for (const { id } of watches) await desk.api.delete(`/api/watches/${id}`).expect(204);
  await desk.nextMonth();
  desk.server.runs.wake();
  await desk.server.runs.idle();
  expect((await notices()).unread).toBe(0);
});

test('runs are told as asked: failures, and more changes than a limit', async () => {
  const tape = await desk.saved('Everybody', []);
  const tell = { success: false, failure: true, changes: 0, rate: 'at-once', ways: ['bell'] };
  const plan = await desk.plan({ kind: 'tape', name: 'Everybody', target: { tape }, tell });
  await desk.ran(plan.key);
  await desk.nextMonth();
  await desk.ran(plan.key);
  await desk.api.delete(`/api/tapes/${tape}`);
  await desk.ran(plan.key);
  const told = (await notices()).notices.filter(({ title }) => title.startsWith('Everybody'));
  expect(told.map(({ kind }) => kind)).toEqual(['failure', 'changes']);
  expect(told[1]!.title).toMatch(/^Everybody: .*joined.*left.*moved$/);
});
