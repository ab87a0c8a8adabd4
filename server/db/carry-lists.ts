import type { Db } from './open.ts';
import { countMembers, noteMembers } from '../tables/lists/changes.ts';
import { addOrigin } from '../tables/lists/origins.ts';

/**
 * Carries lists over from the workspace's own tables, where they were kept before they had a file of their own. Members had
 * the verdict "in" without anybody having judged, and so are not judged. What is done twice does nothing the second time.
 */
export function carryLists(workspace: Db, lists: Db): void {
  const there = workspace
    .prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'list_member'")
    .get();
  if (!there) return;
  const rows = workspace
    .prepare<[], { key: string; name: string; made_at: string }>('SELECT key, name, made_at FROM list')
    .all();
  const members = workspace.prepare<[string], { company: string; origin: string; added_at: string }>(
    'SELECT company, origin, added_at FROM list_member WHERE list = ?',
  );
  lists.transaction(() => {
    for (const { key, name, made_at } of rows) {
      const madeAt = Date.parse(made_at);
      const { changes } = lists
        .prepare(
          `INSERT OR IGNORE INTO list (key, name, subject, made_at, changed_at) VALUES (?, ?, 'companies', ?, ?)`,
        )
        .run(key, name, madeAt, madeAt);
      if (changes === 0) continue;
      const origins = new Map<string, number>();
      const add = lists.prepare('INSERT INTO list_member (list, key, origins, added_at) VALUES (?, ?, ?, ?)');
      for (const { company, origin, added_at } of members.iterate(key)) {
        const at = Date.parse(added_at);
        let id = origins.get(origin);
        if (id === undefined) {
          const wish = { kind: 'tape', what: origin, tape: null, asOf: null, person: '', at } as const;
          origins.set(origin, (id = addOrigin(lists, key, wish, null)));
        }
        add.run(key, company, String(id), at);
      }
      noteMembers(lists, key, null, countMembers(lists, key));
    }
  })();
  workspace.exec('DROP TABLE list_member; DROP TABLE list;');
}
