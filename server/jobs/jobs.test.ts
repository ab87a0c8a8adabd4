import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openUniverse, openWorkspace, type Db } from '../db/open.ts';
import { NO_LOG } from '../log.ts';
import { jobLanded, landedResult } from '../tables/landed-jobs.ts';
import { Jobs } from './jobs.ts';

/** What is said of jobs after a stop: what is in the universe decides. */

let dir: string;
let workspace: Db;
let universe: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-jobs-'));
  workspace = openWorkspace(dir);
  universe = openUniverse(dir);
});
afterEach(() => {
  workspace.close();
  universe.close();
  rmSync(dir, { recursive: true });
});

const running = (id: string, kind: string) =>
  workspace
    .prepare("INSERT INTO job (id, kind, title, state, started_at) VALUES (?, ?, ?, 'running', '2026-11-01')")
    .run(id, kind, `Job ${id}`);
const after = (wroteFile: (job: string) => boolean = () => false) =>
  new Jobs(workspace, (job) => landedResult(universe, job), NO_LOG, wroteFile);

test('a load whose change is in the universe is done, with its result; one whose is not has failed', () => {
  running('landed', 'load');
  running('lost', 'load');
  jobLanded(universe, 'landed', { source: 'firms', read: 7 });
  const jobs = after();
  expect(jobs.get('landed')).toMatchObject({ state: 'done', result: { source: 'firms', read: 7 } });
  expect(jobs.get('landed')!.message).toMatch(/all of it is kept/);
  expect(jobs.get('lost')).toMatchObject({ state: 'failed', result: null });
  expect(jobs.get('lost')!.message).toMatch(/Nothing of it was kept/);
  expect([jobs.writing, jobs.count]).toEqual([false, 0]);
});

test('an export is done where its file was written whole', () => {
  running('whole', 'export');
  running('half', 'export');
  const jobs = after((job) => job === 'whole');
  expect([jobs.get('whole')!.state, jobs.get('half')!.state]).toEqual(['done', 'failed']);
});

test('what was said of jobs that ended stays as it was', () => {
  running('old', 'load');
  workspace.prepare("UPDATE job SET state = 'cancelled', message = 'by hand' WHERE id = 'old'").run();
  jobLanded(universe, 'old', {});
  expect(after().get('old')).toMatchObject({ state: 'cancelled', message: 'by hand' });
});

test('nothing that is not running is cancelled', () => {
  running('old', 'load');
  expect([after().cancel('old'), after().cancel('none')]).toEqual([false, false]);
});

test('of readings of files only the last few are kept, and they are not among what was done', () => {
  for (let n = 0; n < 30; n++) {
    running(`read-${n}`, 'read');
    workspace
      .prepare('UPDATE job SET started_at = ? WHERE id = ?')
      .run(`2026-11-01T00:00:${10 + n}`, `read-${n}`);
  }
  const jobs = after();
  expect(jobs.get('read-0')).toMatchObject({ state: 'failed' });
  expect([jobs.writing, jobs.list()]).toEqual([false, []]);
  jobs.forgetReadings();
  expect([jobs.get('read-19'), jobs.get('read-20')?.kind]).toEqual([undefined, 'read']);
});
