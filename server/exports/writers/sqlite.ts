import Database from 'better-sqlite3';
import { howMadeRows } from '../../../core/exports/how-made.ts';
import { typedColumns } from './typed.ts';
import type { OpenWriter } from './writer.ts';

/** A file with one table of the records, one on how they were chosen, and the tape. */
export const openSqlite: OpenWriter = (context) => {
  const { path, subject, how } = context;
  const columns = typedColumns(context);
  const db = new Database(path);
  // The file is thrown away unless it is whole.
  db.pragma('journal_mode = OFF');
  db.pragma('synchronous = OFF');
  const name = (text: string) => `"${text.replaceAll('"', '""')}"`;
  const table = name(subject);
  db.exec(
    `CREATE TABLE ${table} (key TEXT PRIMARY KEY${columns.map((column) => `, ${name(column.name === 'key' ? 'key_2' : column.name)} ${column.kind === 'number' ? 'REAL' : 'TEXT'}`).join('')}) STRICT, WITHOUT ROWID;
     CREATE TABLE how_made (line INTEGER PRIMARY KEY, what TEXT NOT NULL, value TEXT NOT NULL, more TEXT NOT NULL) STRICT;
     CREATE TABLE tape (body TEXT NOT NULL) STRICT`,
  );
  const insert = db.prepare(`INSERT INTO ${table} VALUES (?${', ?'.repeat(columns.length)})`);
  const made = db.prepare('INSERT INTO how_made (what, value, more) VALUES (?, ?, ?)');
  for (const [what = '', value = '', ...more] of howMadeRows(how).filter((row) => row.length > 0))
    made.run(String(what), String(value), more.join('; '));
  db.prepare('INSERT INTO tape VALUES (?)').run(how.tape);
  db.exec('BEGIN');
  return {
    add: (rows) => {
      for (const row of rows) insert.run(row.row.key, ...columns.map((column) => column.value(row)));
    },
    finish: () => {
      db.exec('COMMIT');
      db.close();
    },
    leave: () => void db.close(),
  };
};
