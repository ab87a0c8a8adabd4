import { afterAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openUniverse, openWorkspace } from './db/open.ts';
import { closeServices, openServices } from './services.ts';
import { jobLanded } from './tables/landed-jobs.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-landed-'));
afterAll(() => rmSync(dir, { recursive: true }));

test('a job whose change landed before the program was stopped is done, one without is not, and then nothing is kept of it', async () => {
  const workspace = openWorkspace(dir);
  const add = workspace.prepare(
    "INSERT INTO job (id, kind, title, state, started_at) VALUES (?, 'load', ?, 'running', '2026-10-01T06:00:00Z')",
  );
  add.run('landed', 'Load one.csv');
  add.run('lost', 'Load other.csv');
  workspace.close();
  const universe = openUniverse(dir);
  jobLanded(universe, 'landed', { read: 3 });
  const services = await openServices(dir);
  try {
    expect(services.jobs.get('landed')).toMatchObject({ state: 'done', result: { read: 3 } });
    expect(services.jobs.get('lost')).toMatchObject({ state: 'failed', result: null });
    expect(universe.prepare('SELECT count(*) FROM landed_job').pluck().get()).toBe(0);
  } finally {
    universe.close();
    await closeServices(services);
  }
});
