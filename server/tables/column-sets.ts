import { nanoid } from 'nanoid';
import type { ColumnSetView } from '../../contract/responses.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';

interface ColumnSetRow {
  id: string;
  subject: string;
  name: string;
  columns: string;
  usual: number;
}

/** The user's own column sets, by subject and name. */
export function allColumnSets(workspace: Db): ColumnSetView[] {
  return workspace
    .prepare<[], ColumnSetRow>('SELECT * FROM column_set ORDER BY subject, name')
    .all()
    .map(({ columns, usual, ...rest }) => ({
      ...rest,
      columns: JSON.parse(columns) as string[],
      usual: usual === 1,
    }));
}

/**
 * Writes a set under an id, or under a new one. One that is the usual takes that from the others of its subject.
 * @throws Problem where another set of the subject has the name
 */
export function writeColumnSet(
  workspace: Db,
  set: Omit<ColumnSetView, 'id'> & { id?: string },
): ColumnSetView {
  const written = { ...set, id: set.id ?? nanoid(10) };
  const taken = workspace
    .prepare<[string, string, string], number>(
      'SELECT 1 FROM column_set WHERE subject = ? AND name = ? AND id <> ?',
    )
    .pluck()
    .get(written.subject, written.name, written.id);
  if (taken)
    throw new Problem('name-taken', `There is a column set “${written.name}” already.`, {
      field: 'name',
      value: written.name,
      rule: 'a name that no other column set has',
    });
  workspace.transaction(() => {
    if (written.usual)
      workspace.prepare('UPDATE column_set SET usual = 0 WHERE subject = ?').run(written.subject);
    workspace
      .prepare('INSERT OR REPLACE INTO column_set (id, subject, name, columns, usual) VALUES (?, ?, ?, ?, ?)')
      .run(written.id, written.subject, written.name, JSON.stringify(written.columns), Number(written.usual));
  })();
  return written;
}

/** Whether there was such a set. */
export function removeColumnSet(workspace: Db, id: string): boolean {
  return workspace.prepare('DELETE FROM column_set WHERE id = ?').run(id).changes > 0;
}
