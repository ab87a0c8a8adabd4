/** Numbered migrations of runs.sqlite; never change one that has shipped, add the next. Times are ms since 1970, days since 1970-01-01. */
export const runsMigrations: readonly string[] = [
  `
  -- What is to run, and when.
  CREATE TABLE plan (
    key TEXT PRIMARY KEY,               -- made of its first name; what lines name, and never changed
    kind TEXT NOT NULL,                 -- tape, gatherer, batch, refresh, export
    name TEXT NOT NULL,
    target TEXT NOT NULL,               -- JSON: what runs, contract/runs.ts
    schedule TEXT NOT NULL,             -- JSON, core/runs/when.ts
    tell TEXT NOT NULL,                 -- JSON: what one is told of, contract/runs.ts
    person TEXT NOT NULL,
    next_at INTEGER,                    -- null where the clock does not start it
    made_at INTEGER NOT NULL,
    changed_at INTEGER NOT NULL,
    removed_at INTEGER
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX plan_next ON plan (next_at) WHERE next_at IS NOT NULL AND removed_at IS NULL;

  -- One carrying-out of a plan.
  CREATE TABLE run (
    id TEXT PRIMARY KEY,
    plan TEXT NOT NULL REFERENCES plan (key),
    nth INTEGER NOT NULL,
    cause TEXT NOT NULL,                -- hand, clock, after
    state TEXT NOT NULL,                -- waits, running, done, failed, cancelled
    due_at INTEGER NOT NULL,
    started_at INTEGER, ended_at INTEGER,
    message TEXT,                       -- what came of it, or what went wrong
    carried_by TEXT,                    -- JSON: the job, export or gatherer's run that does the work
    -- Of tapes and batches: what was counted, of which state of the universe, and what is not as at the run before.
    subject TEXT, tape TEXT, revision INTEGER, universe TEXT, as_of INTEGER,
    count INTEGER, before INTEGER, joined INTEGER, left_off INTEGER, moved INTEGER,
    compared_to TEXT,                   -- the run before; null for the first
    roll TEXT, moves TEXT,              -- JSON
    log TEXT NOT NULL DEFAULT '[]'      -- JSON: what happened, in words
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX run_of_plan ON run (plan, nth);
  CREATE INDEX run_by_time ON run (due_at);

  -- Which records a run kept: a set of bits by the numbers of records, packed.
  CREATE TABLE run_members (
    run TEXT PRIMARY KEY REFERENCES run (id) ON DELETE CASCADE,
    members BLOB NOT NULL
  ) STRICT, WITHOUT ROWID;

  -- What became of records from the run before to this one.
  CREATE TABLE run_change (
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    nth INTEGER NOT NULL,
    what TEXT NOT NULL,                 -- joined, left, moved
    reason TEXT NOT NULL,               -- new, gone, line <id>, field <name>, tape, time, other
    key TEXT NOT NULL, name TEXT NOT NULL, place TEXT,
    why TEXT NOT NULL, was TEXT, now TEXT,
    there INTEGER NOT NULL,             -- 1 where the universe has it
    PRIMARY KEY (run, nth)
  ) STRICT, WITHOUT ROWID;

  -- Which records joined the tape of a plan, and on which day: as the ledger of exports, for lines.
  CREATE TABLE joined_tape (
    subject TEXT NOT NULL, tape TEXT NOT NULL, key TEXT NOT NULL, day INTEGER NOT NULL,
    PRIMARY KEY (subject, tape, key)
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE facts (joined INTEGER NOT NULL) STRICT;
  INSERT INTO facts VALUES (0);

  -- Sheets of searches. Rows are as they came; \`at\` is the row that the next run goes on with.
  CREATE TABLE batch (
    id TEXT PRIMARY KEY,
    file_name TEXT NOT NULL,
    header TEXT NOT NULL, rows TEXT NOT NULL, -- JSON
    at INTEGER NOT NULL DEFAULT 0,
    made_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE batch_result (
    run TEXT NOT NULL REFERENCES run (id) ON DELETE CASCADE,
    row INTEGER NOT NULL,
    search TEXT NOT NULL,
    state TEXT NOT NULL,                -- done, refused, empty
    found INTEGER, taken INTEGER, added INTEGER,
    said TEXT NOT NULL,                 -- the search in words, or why it is refused
    tape TEXT,
    PRIMARY KEY (run, row)
  ) STRICT, WITHOUT ROWID;

  -- What one wants to be told of.
  CREATE TABLE watch (
    id TEXT PRIMARY KEY,
    subject TEXT NOT NULL,              -- companies, people, lists, tapes
    key TEXT NOT NULL, name TEXT NOT NULL,
    kinds TEXT NOT NULL,                -- JSON, core/runs/happenings.ts
    growth REAL,                        -- percent beyond which growing or shrinking is told
    rate TEXT NOT NULL,                 -- at-once, daily, weekly, never
    ways TEXT NOT NULL,                 -- JSON: bell, mail, feed, or the id of a webhook
    person TEXT NOT NULL,
    seen INTEGER NOT NULL,              -- the change of the universe up to which was looked
    seen_at INTEGER NOT NULL,
    made_at INTEGER NOT NULL,
    UNIQUE (subject, key)
  ) STRICT, WITHOUT ROWID;

  -- What there is to tell, each with why.
  CREATE TABLE notice (
    id TEXT PRIMARY KEY,
    at INTEGER NOT NULL,
    kind TEXT NOT NULL,                 -- run, failure, changes, watch
    title TEXT NOT NULL, why TEXT NOT NULL,
    items TEXT NOT NULL,                -- JSON: what happened, one line each
    link TEXT NOT NULL,                 -- address within the program
    ways TEXT NOT NULL,                 -- JSON
    due_at INTEGER NOT NULL,            -- when it is told
    told_at INTEGER, read_at INTEGER,
    trouble TEXT
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX notice_by_time ON notice (at);
  CREATE INDEX notice_due ON notice (due_at) WHERE told_at IS NULL;

  CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT, WITHOUT ROWID;
  `,
];
