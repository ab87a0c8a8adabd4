import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  ErrorAnswer,
  HealthAnswer,
  NoteAnswer,
  SavedTapeView,
  UploadAnswer,
} from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What the server says of itself, and how it holds writers apart. */

const server = new TestServer();
beforeAll(async () => {
  await server.start(5);
  const file = Buffer.from('name,country,employees\nAlder,GB,5\nBirch,GB,50\n');
  await server.load((await server.upload('firms.csv', file)).body as UploadAnswer, {});
});
afterAll(() => server.stop());

const error = (response: { body: unknown }) => (response.body as ErrorAnswer).error;

describe('health', () => {
  test('says what is counted, by which threads, and what there is room for', async () => {
    const response = await server.api.get('/api/health');
    const health = response.body as HealthAnswer;
    expect(response.status).toBe(200);
    expect(health).toMatchObject({
      status: 'ok',
      universe: 2,
      revision: 1,
      threads: { first: true, deaths: 0 },
      jobs: 0,
    });
    expect(health.diskFree).toBeGreaterThan(0);
  });
  test('and figures are counted by route, without what stands in its place', async () => {
    await server.api.get('/api/companies/nobody');
    await server.api.get('/api/nowhere');
    const { text, headers } = await server.api.get('/api/metrics');
    expect(headers['content-type']).toMatch(/^text\/plain; version=0\.0\.4/);
    expect(text).toMatch(
      /^just_tally_requests_total\{method="GET",route="\/api\/companies\/:key",status="404"\} 1$/m,
    );
    expect(text).toMatch(/route="\/api \(unknown\)",status="404"\} \d+/);
    expect(text).toMatch(/^just_tally_threads_answering [12]$/m);
    expect(text).not.toContain('nobody');
  });
  test('every answer has an id of its own and the security headers, refused ones too', async () => {
    const answers = [
      await server.api.get('/api/health'),
      await server.api.get('/api/nowhere'),
      await server.api.get('/api/health').set('origin', 'http://elsewhere.example'),
      await server.api.get('/api/health').set('host', 'elsewhere.example'),
    ];
    expect(answers.map(({ status }) => status)).toEqual([200, 404, 403, 403]);
    for (const { headers } of answers)
      expect(headers['content-security-policy']).toMatch(/default-src 'none'/);
    expect(new Set(answers.map(({ headers }) => headers['x-request-id'] as unknown)).size).toBe(4);
  });
});

describe('two writers of one thing', () => {
  test('of a note: the later one is told of the earlier and what it wrote', async () => {
    const path = '/api/notes/companies/GB-1';
    const put = (text: string, seen?: string) => {
      const request = server.api.put(path).send({ text });
      return seen === undefined ? request : request.set('if-match', seen);
    };
    expect((await put('first', '"none"')).status).toBe(200);
    const { changedAt } = (await server.api.get(path)).body as NoteAnswer;
    expect((await put('second', `"${changedAt}"`)).status).toBe(200);
    const late = await put('third', `"${changedAt}"`);
    expect([late.status, error(late).code]).toEqual([409, 'changed-meanwhile']);
    expect(error(late).current).toMatchObject({ text: 'second' });
    expect((await server.api.get(path)).body).toMatchObject({ text: 'second' });
    // Who does not say what they saw writes as before.
    expect((await put('')).status).toBe(200);
    expect((await put('again', '"none"')).status).toBe(200);
  });
  test('of a saved tape likewise, with its lines as they are now', async () => {
    const body = (field: string) => ({
      ...{ kind: 'tape', name: 'Mine' },
      tape: tape([{ id: 'l1', field, test: { from: 1 } }]),
    });
    const made = (
      (await server.api.post('/api/tapes').send(body('headcount'))).body as { tape: SavedTapeView }
    ).tape;
    const path = `/api/tapes/${made.id}`;
    const first = await server.api.put(path).set('if-match', `"${made.savedAt}"`).send(body('founded'));
    expect(first.status).toBe(200);
    const late = await server.api.put(path).set('if-match', `"${made.savedAt}"`).send(body('age'));
    expect(late.status).toBe(409);
    expect(error(late).current).toMatchObject({ lines: [{ field: 'founded' }] });
    // A version is never given twice, however fast one writes.
    expect((first.body as { tape: SavedTapeView }).tape.savedAt > made.savedAt).toBe(true);
  });
  test('of settings keep each other’s fields', async () => {
    const patch = (body: object) => server.api.patch('/api/settings').send(body);
    await Promise.all([
      patch({ currency: 'CZK' }),
      patch({ numbers: 'point' }),
      patch({ asOf: '2026-06-30' }),
    ]);
    expect((await server.api.get('/api/settings')).body).toMatchObject({
      ...{ currency: 'CZK', numbers: 'point', asOf: '2026-06-30', paper: 'A4' },
    });
    expect(error(await patch({ asOf: '2026-02-30' }))).toMatchObject({ field: 'asOf', value: '2026-02-30' });
    expect(error(await patch({ colour: 'red' }))).toMatchObject({ code: 'unknown-key', field: 'colour' });
    expect((await patch({ currency: 'EUR', numbers: 'comma', asOf: null })).status).toBe(200);
  });
});

describe('requests that nobody should send', () => {
  test('are refused by name, and what they hold is not given back at length', async () => {
    const post = (path: string, body: string) =>
      server.api.post(`/api${path}`).set('content-type', 'application/json').send(body);
    expect(error(await post('/tally', '{"tape":{"lines":[{"__proto__":{"a":1}}]}}'))).toMatchObject({
      ...{ code: 'unknown-key', field: '__proto__' },
    });
    const long = 'x'.repeat(9000);
    const refused = error(
      await post('/tally', JSON.stringify({ tape: tape([{ id: 'a', field: long, test: {} }]) })),
    );
    expect(refused.message.length).toBeLessThan(1100);
    expect(JSON.stringify(refused).length).toBeLessThan(2000);
    // A text may speak of such a key.
    const text = JSON.stringify({ tape: tape([{ id: 'a', field: 'words', test: { text: '"__proto__"' } }]) });
    expect((await post('/tally', text)).status).toBe(200);
  });
  test('forms without a boundary, without a file or cut off are said to be that', async () => {
    const form = (body: string, type = 'multipart/form-data; boundary=x') =>
      server.api.post('/api/uploads').set('content-type', type).send(body);
    for (const answer of [
      await form('x', 'multipart/form-data'),
      await form('--x\r\ncontent-disposition: form-data; name="file"; filename="a.csv"\r\n\r\nname'),
      await form('--x--'),
    ]) {
      expect(answer.status).toBe(400);
      expect(error(answer).field).toBe('file');
    }
  });
  test('a wrong % in an address is an answer too', async () => {
    for (const path of ['/api/companies/%E0%A4%A', '/%E0%A4%A'])
      expect([path, (await server.api.get(path)).status]).toEqual([path, 400]);
  });
});

test('a counting thread that ends is started again; meanwhile calls are told when to ask once more', async () => {
  interface Inside {
    services: { engine: { pair: { first: { worker: { terminate(): Promise<number> } } } } };
  }
  const { first } = (server as unknown as Inside).services.engine.pair;
  const asked = Array.from({ length: 4 }, () => server.api.post('/api/tally').send({ tape: tape([]) }));
  const answers = Promise.all(asked);
  await first.worker.terminate();
  const later = await server.api.post('/api/tally').send({ tape: tape([]) });
  for (const { status, headers, body } of [...(await answers), later]) {
    expect([200, 503]).toContain(status);
    if (status === 503) {
      expect(headers['retry-after']).toBe('1');
      expect(error({ body: body as unknown }).code).toBe('counting-again');
    }
  }
  let health: HealthAnswer;
  do health = (await server.api.get('/api/health')).body as HealthAnswer;
  while (health.status !== 'ok');
  expect(health).toMatchObject({ universe: 2, threads: { first: true, deaths: 1 } });
  const last = await server.api.post('/api/tally').send({ tape: tape([]) });
  expect(last.body).toMatchObject({ tally: 2 });
});
