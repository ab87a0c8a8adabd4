import { spawn } from 'node:child_process';
import { mkdirSync, openAsBlob, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { UploadAnswer } from '../contract/responses.ts';
import { columnFields } from '../core/fields/registry.ts';
import { openUniverse } from '../server/db/open.ts';
import { openColumns } from '../server/engine/opening/open-universe.ts';
import { snapshotPath } from '../server/engine/opening/stored-universe.ts';
import { loadCodeTrees } from '../server/reference.ts';
import { megabytes, printTable, time, times } from './figures.ts';
import { ServerProcess } from './server-process.ts';

/** What happens once a universe: its columns built and reopened, all of it exported, and a file of its size loaded. */
export async function measureFiles(dir: string): Promise<void> {
  const rows: string[][] = [['', 'time', 'beside', '']];
  const db = openUniverse(dir, { readonly: true });
  const trees = loadCodeTrees();
  const open = async () => {
    const start = performance.now();
    const { opened, universe } = await openColumns(dir, db, trees);
    return { opened, size: universe.size, took: performance.now() - start };
  };
  rmSync(snapshotPath(dir), { force: true });
  const built = await open();
  rows.push([`columns ${built.opened} from SQLite and saved`, time(built.took), '', '']);
  const again = await open();
  rows.push([
    `columns reopened (${again.opened})`,
    time(again.took),
    megabytes(statSync(snapshotPath(dir)).size),
    'file',
  ]);
  db.close();

  const { path, took, peak, before } = await exportAll(dir);
  rows.push([
    `CSV export of ${built.size.toLocaleString('en-GB')} rows`,
    time(took),
    `${Math.round(built.size / (took / 1000)).toLocaleString('en-GB')} rows/s`,
    `${megabytes(statSync(path).size)}; memory ${megabytes(before)} before, ${megabytes(peak)} at most`,
  ]);

  const shell = await importByShell(path);
  const load = await loadFile(path);
  rows.push(
    [
      'that CSV read, nothing written',
      time(load.read),
      `${time(shell)} by the sqlite3 shell`,
      times(load.read / shell),
    ],
    [
      'load of that CSV',
      time(load.took),
      `${time(shell)} by the sqlite3 shell`,
      `${times(load.took / shell)}; memory ${megabytes(load.peak)} at most`,
    ],
    ['its removal', time(load.removed), '', ''],
  );
  printTable(rows);
}

async function exportAll(dir: string) {
  const server = await ServerProcess.start(dir);
  const fields = columnFields('companies').map((field) => field.id);
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
  await server.post('/tally', { tape });
  const before = server.peak();
  const start = performance.now();
  const { job, export: id } = await server.post<{ job: { id: string }; export: string }>('/exports', {
    tape,
    name: 'Bench',
    format: 'csv',
    columns: fields,
  });
  await server.done(job.id);
  const took = performance.now() - start;
  const peak = server.peak();
  await server.stop();
  return { path: join(dir, 'exports', `${id}.csv`), took, peak, before };
}

/** The shell's own import of the file into a table of texts: the least that loading can be. */
async function importByShell(csv: string): Promise<number> {
  const target = `${csv}.sqlite`;
  rmSync(target, { force: true });
  const start = performance.now();
  const shell = spawn('sqlite3', [target, `.import --csv ${csv} company`], { stdio: 'inherit' });
  const code = await new Promise((resolve) => shell.on('exit', resolve));
  if (code !== 0) throw new Error('sqlite3 .import failed; is the Debian package sqlite3 installed?');
  const took = performance.now() - start;
  rmSync(target);
  return took;
}

/** The same file through the API into an empty workspace: read as it would be loaded; merged, indexed and counted; and taken out again. */
async function loadFile(csv: string) {
  const dir = `${csv}.workspace`;
  rmSync(dir, { recursive: true, force: true });
  mkdirSync(dir);
  const server = await ServerProcess.start(dir);
  const preview = await server.upload<UploadAnswer>('bench.csv', await openAsBlob(csv));
  const { upload, encoding, delimiter, hasHeader, mapping } = preview;
  const reading = { read: { encoding, delimiter, hasHeader }, mapping };
  const timed = async (job: Promise<{ job: { id: string } }>) => {
    const start = performance.now();
    const done = await server.done((await job).job.id);
    return { took: performance.now() - start, result: done.result };
  };
  const read = await timed(server.post(`/uploads/${upload}/readings`, reading));
  const load = await timed(
    server.post('/sources', { upload, name: 'Bench', asOf: '2026-09-30', ...reading }),
  );
  const peak = server.peak();
  const removed = await timed(server.delete(`/sources/${load.result!.source as string}`));
  await server.stop();
  rmSync(dir, { recursive: true });
  return { read: read.took, took: load.took, removed: removed.took, peak };
}
