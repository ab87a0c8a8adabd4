import { afterAll, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import supertest from 'supertest';
import type { JobAnswer, UploadAnswer } from '../contract/responses.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-kill-'));
let server: ChildProcess | undefined;

async function start(): Promise<string> {
  server = spawn('node', ['--import', 'tsx', 'server/main.ts', '--data', dir, '--port', '0'], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const chunk of server.stdout!) {
    const address = /http:\S+/.exec(String(chunk))?.[0];
    if (address) return address;
  }
  throw new Error('The server ended without an address.');
}

afterAll(async () => {
  if (server && server.exitCode === null) {
    server.kill('SIGKILL');
    await once(server, 'exit');
  }
  rmSync(dir, { recursive: true });
});

test('killed during a load, the universe is as it was, and the job says so after the restart', async () => {
  const api = supertest(await start());
  const rows = Array.from({ length: 60_000 }, (_, i) => `Firm ${i},CZ,Brno,${i}`).join('\n');
  const preview = (
    await api
      .post('/api/uploads')
      .attach('file', Buffer.from(`name,country,town,employees\n${rows}`), 'many.csv')
  ).body as UploadAnswer;
  const { upload, encoding, delimiter, hasHeader, mapping } = preview;
  const started = await api
    .post('/api/sources')
    .send({ upload, name: 'Many', asOf: '2026-09-30', read: { encoding, delimiter, hasHeader }, mapping });
  const id = (started.body as JobAnswer).job.id;
  for (let done = 0; done === 0;) done = ((await api.get(`/api/jobs/${id}`)).body as JobAnswer).job.done;
  server!.kill('SIGKILL');
  await once(server!, 'exit');

  const again = supertest(await start());
  expect((await again.get('/api/health')).body).toMatchObject({ universe: 0 });
  expect((await again.get('/api/sources')).body).toEqual({ sources: [] });
  expect((await again.get(`/api/jobs/${id}`)).body).toMatchObject({ job: { state: 'failed' } });
});
