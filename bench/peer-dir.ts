import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { openUniverse } from '../server/db/open.ts';

/** The folder of what other databases need of a universe, as it stands: another for every change of it. */
export function peerDir(dir: string): string {
  const db = openUniverse(dir, { readonly: true });
  const { stamp, revision } = db
    .prepare<[], { stamp: string; revision: number }>('SELECT stamp, revision FROM universe')
    .get()!;
  db.close();
  const path = join(dir, 'bench', `${stamp}-${revision}`);
  mkdirSync(path, { recursive: true });
  return path;
}
