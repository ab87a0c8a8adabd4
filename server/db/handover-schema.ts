/** Numbered migrations of handover.sqlite; never change one that has shipped, add the next. Times are ms since 1970, days since 1970-01-01. */
export const handoverMigrations: readonly string[] = [
  `
  CREATE TABLE receiver (
    key TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    revision INTEGER NOT NULL           -- grows when what it was handed changes
  ) STRICT, WITHOUT ROWID;

  -- Grows with every change of what was handed over, so that counting threads read it anew.
  CREATE TABLE change (revision INTEGER NOT NULL) STRICT;
  INSERT INTO change VALUES (0);

  -- What one export handed over. Keys by line feeds and prints of cells, 32 bits each row by row, both gzipped.
  CREATE TABLE handover (
    export TEXT PRIMARY KEY,
    subject TEXT NOT NULL,
    receiver TEXT NOT NULL REFERENCES receiver (key),
    day INTEGER NOT NULL,
    count INTEGER NOT NULL,
    columns TEXT NOT NULL,              -- JSON list of the columns that prints are of
    keys BLOB NOT NULL,
    prints BLOB NOT NULL
  ) STRICT, WITHOUT ROWID;

  -- The same by receiver, each record once with the last day.
  CREATE TABLE handed_over (
    subject TEXT NOT NULL,
    receiver TEXT NOT NULL REFERENCES receiver (key),
    key TEXT NOT NULL,
    day INTEGER NOT NULL,
    PRIMARY KEY (subject, receiver, key)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE template (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    subject TEXT NOT NULL,
    wish TEXT NOT NULL,                 -- JSON, contract/export-requests.ts
    changed_at INTEGER NOT NULL,
    UNIQUE (subject, name)
  ) STRICT, WITHOUT ROWID;

  -- Addresses under which other programs read a tape's records, by the hash of their token.
  CREATE TABLE feed (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    token_hash TEXT NOT NULL UNIQUE,
    wish TEXT NOT NULL,                 -- JSON, contract/exports.ts
    made_at INTEGER NOT NULL,
    read_at INTEGER, times_read INTEGER NOT NULL DEFAULT 0
  ) STRICT, WITHOUT ROWID;

  -- Machines that webhooks may go to; those of a private network only where the owner named them so.
  CREATE TABLE host (name TEXT PRIMARY KEY, private INTEGER NOT NULL) STRICT, WITHOUT ROWID;

  -- Folders of this machine that exports are copied to.
  CREATE TABLE folder (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    path TEXT NOT NULL,
    made_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE hook (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    url TEXT NOT NULL,                  -- 'stand-in' for the receiver that ships
    secret TEXT NOT NULL,
    batch INTEGER NOT NULL,             -- rows of one request
    made_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;

  -- One request of an export to a webhook, a stretch of its file of JSON lines; or its copy in a folder.
  CREATE TABLE delivery (
    id TEXT PRIMARY KEY,
    hook TEXT REFERENCES hook (id) ON DELETE CASCADE,
    folder TEXT REFERENCES folder (id) ON DELETE CASCADE,
    export TEXT NOT NULL,
    nth INTEGER NOT NULL, of INTEGER NOT NULL,
    from_byte INTEGER NOT NULL, to_byte INTEGER NOT NULL, rows INTEGER NOT NULL,
    state TEXT NOT NULL,                -- waiting, delivered, given-up
    attempts INTEGER NOT NULL DEFAULT 0,
    due_at INTEGER NOT NULL,
    tried_at INTEGER,
    answer TEXT
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX delivery_due ON delivery (state, due_at);
  CREATE INDEX delivery_of_export ON delivery (export, nth);
  `,
];
