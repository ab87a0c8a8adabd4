/** Numbered migrations of matches.sqlite; never change one that has shipped, add the next. Times are ms since 1970. */
export const matchesMigrations: readonly string[] = [
  `
  CREATE TABLE match (
    id TEXT PRIMARY KEY,                -- of the job that made it
    of TEXT NOT NULL,                   -- file: rows of a file; doubles: companies of the universe without a number
    name TEXT NOT NULL,
    file_name TEXT NOT NULL,
    header TEXT NOT NULL,               -- JSON list of headings
    mapping TEXT NOT NULL,              -- JSON, core/records/mapping.ts
    person TEXT NOT NULL,
    made_at INTEGER NOT NULL,
    universe TEXT NOT NULL,             -- the universe and its revision that it was matched against
    companies INTEGER NOT NULL,         -- of the universe then
    rows INTEGER NOT NULL,
    not_data INTEGER NOT NULL,
    model TEXT NOT NULL,                -- JSON, core/match/model.ts
    limits TEXT NOT NULL,               -- JSON, core/match/outcome.ts
    learning TEXT NOT NULL,
    precision REAL NOT NULL,            -- asked of the sure ones
    shared TEXT NOT NULL,               -- JSON: how many companies have a domain or phone of the rows, by its key
    again TEXT,                         -- the job that matched it again last
    list TEXT,                          -- the list that was made of it
    revision INTEGER NOT NULL DEFAULT 0 -- grows with every settled row
  ) STRICT, WITHOUT ROWID;

  -- A row of the file. What a person settled stands beside what the matcher found, and goes before it.
  CREATE TABLE match_row (
    match TEXT NOT NULL REFERENCES match (id) ON DELETE CASCADE,
    row INTEGER NOT NULL,               -- in the file
    cells TEXT NOT NULL,                -- JSON list in the order of the header
    firm TEXT,                          -- JSON, core/match/firm.ts; null where nothing in it tells a company
    outcome TEXT NOT NULL,              -- sure, doubtful, none; unreadable, twice
    by TEXT,                            -- what a sure one is sure by: number, domain, name
    twice_of INTEGER,                   -- the earlier row that says the same
    settled TEXT,                       -- null, 'taken' or 'none'
    key TEXT,                           -- the company: the best candidate's, or the one taken
    chance REAL,                        -- of the best candidate
    settled_by TEXT, settled_at INTEGER,
    was TEXT,                           -- what it came to before it was last matched again, where that moved: state and company
    PRIMARY KEY (match, row)
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX match_row_by_outcome ON match_row (match, outcome, settled);

  CREATE TABLE match_candidate (
    match TEXT NOT NULL, row INTEGER NOT NULL,
    nth INTEGER NOT NULL,               -- from 0, the likeliest first
    key TEXT NOT NULL,
    chance REAL NOT NULL,
    by TEXT,
    agrees TEXT NOT NULL,               -- fields that are equal, by spaces
    PRIMARY KEY (match, row, nth),
    FOREIGN KEY (match, row) REFERENCES match_row (match, row) ON DELETE CASCADE
  ) STRICT, WITHOUT ROWID;

  -- Companies that were taken apart, or said to be none of the others: they are not offered to each other again. a < b.
  CREATE TABLE company_apart (a TEXT NOT NULL, b TEXT NOT NULL, PRIMARY KEY (a, b)) STRICT, WITHOUT ROWID;
  `,
];
