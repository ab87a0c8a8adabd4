import { nanoid } from 'nanoid';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { GatherPageView, GathererView, GatherState } from '../../../contract/gather-views.ts';
import { Problem } from '../../../core/tape/problem.ts';
import { searchesOf } from '../../../core/gather/words-places.ts';
import type { Db } from '../../db/open.ts';
import type { GatherSpec } from '../../gather/spec.ts';

/** Gatherers, the pages that they are taught on, and the hosts that may be read. */

export interface GathererRow {
  id: string;
  name: string;
  spec: string;
  made_at: number;
  changed_at: number;
}

const time = (at: number) => new Date(at).toISOString();

export function allGatherers(db: Db): GathererView[] {
  const run = db.prepare<[string], { id: string; state: GatherState; started_at: number; records: number }>(
    `SELECT id, state, started_at, (SELECT count(*) FROM gathered WHERE run = run.id) AS records
     FROM run WHERE gatherer = ? ORDER BY nth DESC LIMIT 1`,
  );
  return db
    .prepare<[], GathererRow>('SELECT * FROM gatherer ORDER BY changed_at DESC, id')
    .all()
    .map(({ id, name, spec, made_at, changed_at }) => {
      const { start, words, places, sites } = JSON.parse(spec) as GatherSpec;
      const last = run.get(id);
      return {
        ...{ id, name, madeAt: time(made_at), changedAt: time(changed_at) },
        start: sites ? 'sites of companies' : start || 'saved pages',
        searches: searchesOf(words, places).length,
        run: last
          ? { id: last.id, state: last.state, records: last.records, startedAt: time(last.started_at) }
          : null,
      };
    });
}

export const gathererById = (db: Db, id: string) =>
  db.prepare<[string], GathererRow>('SELECT * FROM gatherer WHERE id = ?').get(id);

/** @throws Problem where the name is taken */
export function addGatherer(db: Db, name: string, spec: GatherSpec): string {
  const id = nanoid(12);
  onceNamed(name, () =>
    db
      .prepare('INSERT INTO gatherer (id, name, spec, made_at, changed_at) VALUES (?, ?, ?, ?, ?)')
      .run(id, name, JSON.stringify(spec), Date.now(), Date.now()),
  );
  return id;
}

/** @throws Problem where the name is taken */
export function changeGatherer(db: Db, id: string, name: string, spec: GatherSpec): void {
  onceNamed(name, () =>
    db
      .prepare('UPDATE gatherer SET name = ?, spec = ?, changed_at = ? WHERE id = ?')
      .run(name, JSON.stringify(spec), Date.now(), id),
  );
}

export const removeGatherer = (db: Db, id: string) => db.prepare('DELETE FROM gatherer WHERE id = ?').run(id);

function onceNamed(name: string, write: () => unknown): void {
  try {
    write();
  } catch (error) {
    if ((error as { code?: string }).code !== 'SQLITE_CONSTRAINT_UNIQUE') throw error;
    throw new Problem('name-taken', `There is a gatherer called “${name}” already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other gatherer has',
    });
  }
}

interface PageRow {
  id: number;
  url: string;
  saved: number;
  fetched_at: number;
  size: number;
}

const PAGE = 'SELECT id, url, saved, fetched_at, length(html) AS size FROM page';
const viewPage = ({ id, url, saved, fetched_at, size }: PageRow): GatherPageView => ({
  ...{ id, url, size, saved: saved === 1, fetchedAt: time(fetched_at) },
});

/** Pages to point at: those that were fetched or saved for it, not those of its runs. */
export function pagesOf(db: Db, gatherer: string): GatherPageView[] {
  return db
    .prepare<[string], PageRow>(`${PAGE} WHERE gatherer = ? AND run IS NULL ORDER BY id DESC LIMIT 200`)
    .all(gatherer)
    .map(viewPage);
}

export function pageById(db: Db, id: number): GatherPageView | null {
  const row = db.prepare<[number], PageRow>(`${PAGE} WHERE id = ?`).get(id);
  return row ? viewPage(row) : null;
}

export interface NewPage {
  gatherer: string;
  run: string | null;
  url: string;
  html: string;
  saved: boolean;
}

export function addPage(db: Db, { gatherer, run, url, html, saved }: NewPage): number {
  const { lastInsertRowid } = db
    .prepare('INSERT INTO page (gatherer, run, url, html, saved, fetched_at) VALUES (?, ?, ?, ?, ?, ?)')
    .run(gatherer, run, url, gzipSync(html, { level: 4 }), Number(saved), Date.now());
  return Number(lastInsertRowid);
}

/** The text of a page as it came. @throws Problem where it is not there any more */
export function htmlOf(db: Db, id: number): { url: string; html: string } {
  const row = db
    .prepare<[number], { url: string; html: Buffer }>('SELECT url, html FROM page WHERE id = ?')
    .get(id);
  if (!row)
    throw new Problem('unknown-page', `There is no page ${id}; it may have been removed.`, {
      field: 'page',
      value: id,
      rule: 'a page of a gatherer',
    });
  return { url: row.url, html: gunzipSync(row.html).toString('utf8') };
}

/** Saved pages that a run reads, in the order in which they came. */
export const savedPages = (db: Db, gatherer: string) =>
  db
    .prepare<[string], { id: number; url: string }>(
      'SELECT id, url FROM page WHERE gatherer = ? AND run IS NULL AND saved = 1 ORDER BY id',
    )
    .all(gatherer);

export const allGatherHosts = (db: Db) =>
  db
    .prepare<[], { name: string; private: number }>('SELECT name, private FROM host ORDER BY name')
    .all()
    .map(({ name, private: own }) => ({ name, private: own === 1 }));

export const gatherHost = (db: Db, name: string) => allGatherHosts(db).find((host) => host.name === name);

export const writeGatherHost = (db: Db, name: string, own: boolean) =>
  db
    .prepare(
      'INSERT INTO host (name, private) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET private = excluded.private',
    )
    .run(name, Number(own));

export const removeGatherHost = (db: Db, name: string) =>
  db.prepare('DELETE FROM host WHERE name = ?').run(name).changes > 0;
