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
  `
  -- The table of migration 1 keeps tapes that an address was too short for; these are the user's own.
  CREATE TABLE saved_tape (
    id TEXT PRIMARY KEY,
    kind TEXT NOT NULL,         -- tape, or part: lines to be put on other tapes
    name TEXT NOT NULL,
    body TEXT NOT NULL,         -- JSON tape file
    count INTEGER,              -- what it left when it was saved
    universe INTEGER,
    opening INTEGER NOT NULL DEFAULT 0, -- 1 for the one that the program opens with
    saved_at TEXT NOT NULL
  ) STRICT;

  CREATE TABLE list (
    key TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE,
    made_at TEXT NOT NULL
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE list_member (
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    company TEXT NOT NULL,      -- key of a company
    verdict TEXT NOT NULL,      -- in, unsure, out
    origin TEXT NOT NULL,       -- what put it there, in words
    added_at TEXT NOT NULL,
    PRIMARY KEY (list, company)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE country_group (
    key TEXT PRIMARY KEY,
    label TEXT NOT NULL,
    countries TEXT NOT NULL     -- ISO codes, by spaces
  ) STRICT, WITHOUT ROWID;

  -- Grows when lists or groups of countries change, so that counting threads read them anew.
  CREATE TABLE facts (revision INTEGER NOT NULL) STRICT;
  INSERT INTO facts VALUES (0);
  `,
  `
  -- The address book: people whom we know, with the company where the program found them to work.
  CREATE TABLE contact (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    mail TEXT, phone TEXT, title TEXT,
    organisation TEXT,          -- as the address book has it
    company TEXT,               -- key of a company; null where none was found
    book TEXT NOT NULL          -- name of the file
  ) STRICT;
  CREATE INDEX contact_of_company ON contact (company);
  `,
  `
  -- One's own notes on records; \`subject\` and \`key\` name the record.
  CREATE TABLE note (
    subject TEXT NOT NULL,
    key TEXT NOT NULL,
    text TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    PRIMARY KEY (subject, key)
  ) STRICT, WITHOUT ROWID;

  -- Named choices of columns, with their widths; at most one of a subject is the workspace's default.
  CREATE TABLE column_set (
    id TEXT PRIMARY KEY,
    subject TEXT NOT NULL,
    name TEXT NOT NULL,
    columns TEXT NOT NULL,      -- JSON list of ids
    usual INTEGER NOT NULL DEFAULT 0,
    UNIQUE (subject, name)
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- Grow when the members of a list or the address book change, so that the others need not be read again.
  ALTER TABLE list ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;
  ALTER TABLE facts ADD COLUMN contacts INTEGER NOT NULL DEFAULT 0;
  `,
  /* How files were read, by their headings, so that the next file with the same is read so again. */
  `
  CREATE TABLE remembered_reading (
    name TEXT NOT NULL,     -- that of the source that was loaded so
    subject TEXT NOT NULL,
    header TEXT NOT NULL,   -- JSON list of headings
    mapping TEXT NOT NULL,  -- JSON, core/records/mapping.ts
    used_at TEXT NOT NULL,
    PRIMARY KEY (header, name)
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- Lists are in lists.sqlite from here on, and are carried there at the start; an earlier program must not look for them here.
  `,
  `
  -- Whom an export went to, by which template, and all that was asked of it, so that it can be made again.
  ALTER TABLE export ADD COLUMN subject TEXT NOT NULL DEFAULT 'companies';
  ALTER TABLE export ADD COLUMN ending TEXT;      -- of its file; that of the format where null
  ALTER TABLE export ADD COLUMN receiver TEXT NOT NULL DEFAULT '';
  ALTER TABLE export ADD COLUMN template TEXT;
  ALTER TABLE export ADD COLUMN person TEXT NOT NULL DEFAULT '';
  ALTER TABLE export ADD COLUMN wish TEXT;        -- JSON, contract/exports.ts
  ALTER TABLE export ADD COLUMN roll TEXT;        -- JSON, core/lists/roll.ts
  ALTER TABLE export ADD COLUMN repeats TEXT;     -- the export that it is made again of
  ALTER TABLE export ADD COLUMN removed_at TEXT;
  UPDATE export SET subject = COALESCE(json_extract(tape, '$.subject'), 'companies');
  `,
  `
  -- Columns that were made of those of the file; JSON, core/records/made-columns.ts. They stand in the mapping, not in the header.
  ALTER TABLE remembered_reading ADD COLUMN made TEXT NOT NULL DEFAULT '[]';
  `,
  `
  -- Ranked choices of functions, of which a company's right person holds the first that anybody holds there.
  CREATE TABLE right_person (
    key TEXT PRIMARY KEY,
    label TEXT NOT NULL,
    functions TEXT NOT NULL     -- as core/people/functions.ts spells them
  ) STRICT, WITHOUT ROWID;
  `,
];
