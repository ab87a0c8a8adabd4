import { randomUUID } from 'node:crypto';
import type { ExportTemplateBody } from '../../../contract/exports.ts';
import type { ExportTemplateView } from '../../../contract/export-views.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';

/** Saved templates of exports. */

interface TemplateRow {
  id: string;
  name: string;
  subject: string;
  wish: string;
  changed_at: number;
}

const viewOf = ({ id, name, subject, wish, changed_at }: TemplateRow): ExportTemplateView => ({
  ...{ id, name, subject },
  ...(JSON.parse(wish) as Pick<ExportTemplateView, 'fileName' | 'file'>),
  ready: false,
  changedAt: new Date(changed_at).toISOString(),
});

export function savedTemplates(db: Db): ExportTemplateView[] {
  return db
    .prepare<[], TemplateRow>('SELECT * FROM template ORDER BY subject, name COLLATE NOCASE')
    .all()
    .map(viewOf);
}

/** Writes a template, under a new id or in the place of what `id` names. @throws Problem where another of the subject has the name */
export function writeExportTemplate(
  db: Db,
  { name, subject, fileName, file }: ExportTemplateBody,
  taken: ReadonlySet<string>,
  id: string = randomUUID(),
): ExportTemplateView {
  const other = db
    .prepare<[string, string, string], string>(
      'SELECT id FROM template WHERE subject = ? AND name = ? COLLATE NOCASE AND id <> ?',
    )
    .pluck()
    .get(subject, name, id);
  if (other !== undefined || taken.has(name.toLowerCase()))
    throw new Problem('name-taken', `There is a template “${name}” for ${subject} already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other template of the subject has',
    });
  db.prepare(
    `INSERT INTO template (id, name, subject, wish, changed_at) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, wish = excluded.wish, changed_at = excluded.changed_at`,
  ).run(id, name, subject, JSON.stringify({ fileName, file }), Date.now());
  return savedTemplates(db).find((one) => one.id === id)!;
}

export function removeExportTemplate(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM template WHERE id = ?').run(id).changes > 0;
}
