import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { lockFolder } from '../server/db/lock.ts';
import { openUniverse, openWorkspace } from '../server/db/open.ts';
import { readSettings, writeSettings } from '../server/tables/workspace.ts';
import type { JobMessage } from '../server/jobs/jobs.ts';
import { nextMonthOf } from '../server/runs/months.ts';
import { startWorker } from '../server/threads.ts';
import { loadDemo } from './load-demo.ts';
import { fillWorkspace } from './workspace.ts';

/**
 * Makes the demo workspace in a folder from the terminal: `make DIR COMPANIES [MONTH]`. Does nothing where it is made already, but
 * brings it to a month of its scenario, such as 2026-11, where that is ahead.
 */
const [dir, count, month] = process.argv.slice(2);
const companies = Number(count);
if (!dir || dir.startsWith('-') || !(Number.isInteger(companies) && companies > 0)) {
  console.error('Say a folder and how many companies: make DIR COMPANIES, such as make workspace 48000.');
  process.exit(1);
}
const made = join(dir, 'demo.made');
if (existsSync(made)) {
  console.log(`The demo universe is in ${dir} already.`);
} else {
  const lock = lockFolder(dir);
  for (const file of ['universe.sqlite', 'universe.sqlite-wal', 'universe.sqlite-shm'])
    rmSync(join(dir, file), { force: true });
  const start = Date.now();
  const db = openUniverse(dir);
  let last = 0;
  const { asOf, rows } = await loadDemo(db, companies, (done, total, message) => {
    if (Date.now() - last < 200 && done < total) return;
    last = Date.now();
    const seconds = (last - start) / 1000;
    const left = done > 0 ? Math.ceil((seconds * (total - done)) / done) : null;
    const line = `Making the demo: ${Math.floor((100 * done) / total)} %  ${message}${left === null || done === total ? '' : `, about ${left} s left`}`;
    process.stdout.write(process.stdout.isTTY ? `\r${line.padEnd(78)}` : done === total ? `${line}\n` : '');
  });
  await fillWorkspace(dir, db);
  db.close();
  const workspace = openWorkspace(dir);
  writeSettings(workspace, Object.assign(readSettings(workspace), { asOf, person: 'Ilona' }));
  workspace.close();
  writeFileSync(made, `${companies} companies\n`);
  lock.release();
  console.log(
    `${process.stdout.isTTY ? '\n' : ''}Made ${companies.toLocaleString('en-GB')} companies from ${rows.toLocaleString('en-GB')} records in ${((Date.now() - start) / 1000).toFixed(1)} s.`,
  );
}

if (month !== undefined) {
  if (!/^\d{4}-\d{2}$/.test(month)) {
    console.error(`--month ${month}: a month such as 2026-11 is expected.`);
    process.exit(1);
  }
  const lock = lockFolder(dir);
  const universe = openUniverse(dir, { readonly: true });
  const next = nextMonthOf(universe);
  universe.close();
  if (next === null || month < next) console.log(`The demo is past ${month}.`);
  else {
    const asOf = await comeTo(dir, month);
    const workspace = openWorkspace(dir);
    writeSettings(workspace, Object.assign(readSettings(workspace), { asOf }));
    workspace.close();
    console.log(`The demo is at the end of ${month}.`);
  }
  lock.release();
}

/** Loads the scenario’s months up to one, in a thread. Returns the day that it speaks of then. */
function comeTo(folder: string, to: string): Promise<string> {
  const cancel = new Int32Array(new SharedArrayBuffer(4));
  const worker = startWorker('demo/month-worker', { dir: folder, month: to, job: `months-to-${to}`, cancel });
  return new Promise((resolve, reject) => {
    worker.on('message', (message: JobMessage) => {
      if ('progress' in message) console.log(message.progress.message ?? '');
      else if ('result' in message) resolve(message.result.asOf as string);
      else reject(new Error(message.problem));
    });
    worker.on('error', reject);
  });
}
