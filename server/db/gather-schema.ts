/** Numbered migrations of gather.sqlite; never change one that has shipped, add the next. Times are ms since 1970. */
export const gatherMigrations: readonly string[] = [
  `
  CREATE TABLE gatherer (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    spec TEXT NOT NULL,                 -- JSON, contract/gather.ts
    made_at INTEGER NOT NULL,
    changed_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;

  -- A page as it came: one that examples are pointed at, a saved one, or one that a run has read.
  CREATE TABLE page (
    id INTEGER PRIMARY KEY,
    gatherer TEXT NOT NULL REFERENCES gatherer (id) ON DELETE CASCADE,
    run TEXT REFERENCES run (id) ON DELETE CASCADE,
    url TEXT NOT NULL,
    html BLOB NOT NULL,                 -- gzip
    saved INTEGER NOT NULL,             -- 1 where it is of a file rather than fetched
    fetched_at INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX page_of_gatherer ON page (gatherer, run);

  CREATE TABLE run (
    id TEXT PRIMARY KEY,
    gatherer TEXT NOT NULL REFERENCES gatherer (id) ON DELETE CASCADE,
    nth INTEGER NOT NULL,
    spec TEXT NOT NULL,                 -- as it was when the run began, or was taught anew
    state TEXT NOT NULL,                -- running, paused, asks, done, stopped
    why TEXT,                           -- what it asks, or why it stopped
    person TEXT NOT NULL,
    started_at INTEGER NOT NULL,
    ended_at INTEGER,
    spent_ms INTEGER NOT NULL DEFAULT 0 -- while it was running
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE search (
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    nth INTEGER NOT NULL,
    word TEXT NOT NULL,
    place TEXT NOT NULL,
    PRIMARY KEY (run, nth)
  ) STRICT, WITHOUT ROWID;

  -- One page to be read: the first of a search, the next ones, and those of single companies.
  CREATE TABLE task (
    id INTEGER PRIMARY KEY,
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    search INTEGER NOT NULL,
    kind TEXT NOT NULL,                 -- search, next, detail, saved, site
    nth INTEGER NOT NULL,               -- of the pages of its search
    url TEXT NOT NULL,
    known TEXT NOT NULL DEFAULT '{}',   -- JSON, of a site: what is known of its company, by field
    record INTEGER,                     -- of a page of one company
    state TEXT NOT NULL,                -- waiting, read, failed, not-allowed
    attempts INTEGER NOT NULL DEFAULT 0,
    due_at INTEGER NOT NULL,
    error TEXT,
    page INTEGER REFERENCES page (id) ON DELETE SET NULL,
    read_at INTEGER,
    found INTEGER NOT NULL DEFAULT 0, adverts INTEGER NOT NULL DEFAULT 0,
    twice INTEGER NOT NULL DEFAULT 0, refused INTEGER NOT NULL DEFAULT 0,
    filled TEXT NOT NULL DEFAULT '{}'   -- JSON, in how many rows each field was found
  ) STRICT;
  CREATE UNIQUE INDEX task_once ON task (run, search, kind, url);
  CREATE INDEX task_due ON task (run, state, search, id);
  CREATE INDEX task_read ON task (run, read_at, id);

  CREATE TABLE gathered (
    id INTEGER PRIMARY KEY,
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    cells TEXT NOT NULL,                -- JSON, values by field
    task INTEGER NOT NULL,              -- that found it first
    node INTEGER NOT NULL,
    at INTEGER NOT NULL,
    UNIQUE (run, key)
  ) STRICT;

  CREATE TABLE tag (
    record INTEGER NOT NULL REFERENCES gathered (id) ON DELETE CASCADE,
    search INTEGER NOT NULL,
    PRIMARY KEY (record, search)
  ) STRICT, WITHOUT ROWID;

  -- Rows that came to no record of their own: refused, found before, or adverts.
  CREATE TABLE put_aside (
    id INTEGER PRIMARY KEY,
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    task INTEGER NOT NULL,
    node INTEGER NOT NULL,
    what TEXT NOT NULL,                 -- refused, twice, advert
    reason TEXT NOT NULL,
    cells TEXT NOT NULL
  ) STRICT;
  CREATE INDEX put_aside_of_run ON put_aside (run, what, id);

  -- Machines that pages may be read from, beside the stand-in; those of a private network only where the owner named them so.
  CREATE TABLE host (name TEXT PRIMARY KEY, private INTEGER NOT NULL) STRICT, WITHOUT ROWID;
  `,
];
