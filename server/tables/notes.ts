import type { NoteAnswer } from '../../contract/responses.ts';
import { nextVersion } from './version.ts';
import type { Db } from '../db/open.ts';

/** The note on a record. */
export function noteOn(workspace: Db, subject: string, key: string): NoteAnswer {
  return (
    workspace
      .prepare<[string, string], NoteAnswer>(
        'SELECT text, changed_at AS changedAt FROM note WHERE subject = ? AND key = ?',
      )
      .get(subject, key) ?? { text: '', changedAt: null }
  );
}

/** Writes the note on a record; an empty text takes it away. */
export function writeNote(workspace: Db, subject: string, key: string, text: string): void {
  if (text === '') workspace.prepare('DELETE FROM note WHERE subject = ? AND key = ?').run(subject, key);
  else
    workspace
      .prepare(
        'INSERT INTO note VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET text = excluded.text, changed_at = excluded.changed_at',
      )
      .run(subject, key, text, nextVersion());
}

/** Notes on records that were joined to others: they stand with those, under the note that is there. */
export function moveNotes(
  workspace: Db,
  subject: string,
  joined: readonly { gone: string; key: string }[],
): void {
  workspace.transaction(() => {
    for (const { gone, key } of joined) {
      const { text } = noteOn(workspace, subject, gone);
      if (text === '') continue;
      const there = noteOn(workspace, subject, key).text;
      writeNote(workspace, subject, key, there === '' ? text : `${there}\n${text}`);
      writeNote(workspace, subject, gone, '');
    }
  })();
}
