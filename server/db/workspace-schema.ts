/** Numbered migrations of workspace.sqlite; never change one that has shipped, add the next. */
export const workspaceMigrations: readonly string[] = [
  `
  CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT, WITHOUT ROWID;

  -- Tapes too long for an address, by a hash of their text.
  CREATE TABLE tape (id TEXT PRIMARY KEY, body TEXT NOT NULL, stored_at TEXT NOT NULL) STRICT, WITHOUT ROWID;

  CREATE TABLE job (
    id TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    title TEXT NOT NULL,
    state TEXT NOT NULL,        -- running, done, failed, cancelled
    done INTEGER NOT NULL DEFAULT 0,
    total INTEGER,              -- null where unknown
    message TEXT,
    result TEXT,                -- JSON
    started_at TEXT NOT NULL,
    ended_at TEXT
  ) STRICT;

  CREATE TABLE export (
    id TEXT PRIMARY KEY,
    job_id TEXT NOT NULL REFERENCES job (id),
    name TEXT NOT NULL,
    format TEXT NOT NULL,
    tape TEXT NOT NULL,         -- JSON tape file
    wording TEXT NOT NULL,      -- JSON list: the tape in words
    columns TEXT NOT NULL,      -- JSON list of field ids
    picked INTEGER,             -- how many were picked by hand; null where the whole tape went out
    count INTEGER,
    made_at TEXT NOT NULL
  ) STRICT;
  `,
];
