import { randomUUID } from 'node:crypto';
import type { ProofBody, TemplateBody } from '../../../contract/outreach.ts';
import type { ProofView, TemplateView } from '../../../contract/outreach-views.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';

/** Templates of messages, and facts about one's own work. */

export function allTemplates(db: Db): TemplateView[] {
  return db
    .prepare<[], TemplateView>(
      'SELECT id, name, language, subject, body FROM template ORDER BY made_at, name, language',
    )
    .all();
}

/** Writes a template, under a new id or in the place of what `id` names. @throws Problem where the name has one in that language */
export function writeTemplate(db: Db, wish: TemplateBody, id: string = randomUUID()): TemplateView {
  const { name, language, subject, body } = wish;
  const other = db
    .prepare<[string, string, string], string>(
      'SELECT id FROM template WHERE name = ? COLLATE NOCASE AND language = ? AND id <> ?',
    )
    .pluck()
    .get(name, language, id);
  if (other !== undefined)
    throw new Problem('name-taken', `There is a template “${name}” in that language already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other template of the language has',
    });
  db.prepare(
    `INSERT INTO template (id, name, language, subject, body, made_at) VALUES (?, ?, ?, ?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, language = excluded.language, subject = excluded.subject, body = excluded.body`,
  ).run(id, name, language, subject, body, nextTime(db, 'template'));
  return { id, name, language, subject, body };
}

/** A time later than that of any other row, so that rows stand in the order in which they were made. */
function nextTime(db: Db, table: 'template' | 'proof'): number {
  const last = db.prepare<[], number | null>(`SELECT max(made_at) FROM ${table}`).pluck().get() ?? 0;
  return Math.max(Date.now(), last + 1);
}

export function removeTemplate(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM template WHERE id = ?').run(id).changes > 0;
}

interface ProofRow {
  id: string;
  text: string;
  industries: string;
  technologies: string;
  size_from: number | null;
  size_to: number | null;
  source: string;
  since: string | null;
  named: number;
  answered: number;
}

/** All proofs, with how many sent messages named each and how many of those were answered. */
export function allProofs(db: Db): ProofView[] {
  return db
    .prepare<[], ProofRow>(
      `SELECT p.*, count(m.id) AS named,
         count(CASE WHEN EXISTS (SELECT 1 FROM reply r WHERE r.message = m.id AND r.kind = 'answered') THEN 1 END) AS answered
       FROM proof p LEFT JOIN message m ON m.proof = p.id AND m.state IN ('sent', 'perhaps', 'bounced')
       GROUP BY p.id ORDER BY p.made_at, p.id`,
    )
    .all()
    .map(({ industries, technologies, size_from, size_to, id, text, source, since, named, answered }) => ({
      ...{ id, text, source, since, named, answered, from: size_from, to: size_to },
      industries: JSON.parse(industries) as string[],
      technologies: JSON.parse(technologies) as string[],
    }));
}

export function writeProof(db: Db, wish: ProofBody, id: string = randomUUID()): ProofView {
  const { text, industries, technologies, from, to, source, since } = wish;
  db.prepare(
    `INSERT INTO proof (id, text, industries, technologies, size_from, size_to, source, since, made_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET text = excluded.text, industries = excluded.industries, technologies = excluded.technologies,
       size_from = excluded.size_from, size_to = excluded.size_to, source = excluded.source, since = excluded.since`,
  ).run(
    id,
    text,
    JSON.stringify(industries),
    JSON.stringify(technologies),
    ...[from, to, source, since, nextTime(db, 'proof')],
  );
  return allProofs(db).find((proof) => proof.id === id)!;
}

export function removeProof(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM proof WHERE id = ?').run(id).changes > 0;
}
