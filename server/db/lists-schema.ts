/**
 * Numbered migrations of lists.sqlite; never change one that has shipped, add the next. Lists have a file of their own, so that
 * putting a million on one holds up nothing else that the workspace writes.
 */
export const listsMigrations: readonly string[] = [
  `
  CREATE TABLE list (
    key TEXT PRIMARY KEY,               -- made of its first name; what tapes name, and never changed
    name TEXT NOT NULL,
    subject TEXT NOT NULL,              -- what it holds
    purpose TEXT NOT NULL DEFAULT '',
    folder TEXT NOT NULL DEFAULT '',
    owner TEXT NOT NULL DEFAULT '',
    suppression TEXT,                   -- null, 'members' or 'groups': a suppression list, and whether it holds for whole groups
    stays TEXT,                         -- null, or JSON of core/lists/combine.ts: its members follow other lists
    frozen INTEGER NOT NULL DEFAULT 0,  -- 1: members neither come nor go
    made_at INTEGER NOT NULL,           -- ms since 1970, as all times here
    changed_at INTEGER NOT NULL,
    removed_at INTEGER,                 -- null while it is there
    revision INTEGER NOT NULL DEFAULT 0,
    members INTEGER NOT NULL DEFAULT 0, judged_in INTEGER NOT NULL DEFAULT 0,
    judged_out INTEGER NOT NULL DEFAULT 0, unsure INTEGER NOT NULL DEFAULT 0
  ) STRICT, WITHOUT ROWID;
  CREATE UNIQUE INDEX list_name ON list (name) WHERE removed_at IS NULL;

  -- Origins: what put members on a list. Members name them by number.
  CREATE TABLE list_origin (
    id INTEGER PRIMARY KEY,
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    kind TEXT NOT NULL,                 -- tape, file, hand, gatherer, list
    what TEXT NOT NULL,                 -- in words
    tape TEXT,                          -- JSON tape file, where there is one
    as_of TEXT,
    person TEXT NOT NULL,
    at INTEGER NOT NULL,
    copied INTEGER                      -- the origin of another list that it is the copy of
  ) STRICT;
  CREATE INDEX origin_of_list ON list_origin (list);

  CREATE TABLE list_member (
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    key TEXT NOT NULL,                  -- of the record
    origins TEXT NOT NULL,              -- numbers of its origins by spaces, in their order
    added_at INTEGER NOT NULL,
    verdict TEXT NOT NULL DEFAULT 'not-judged',
    reason TEXT, judged_by TEXT, judged_at INTEGER,
    note TEXT, assigned TEXT,
    PRIMARY KEY (list, key)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE list_tag (
    list TEXT NOT NULL, key TEXT NOT NULL, tag TEXT NOT NULL,
    PRIMARY KEY (list, key, tag),
    FOREIGN KEY (list) REFERENCES list (key) ON DELETE CASCADE
  ) STRICT, WITHOUT ROWID;

  -- Members taken off, by the act that did, as they were.
  CREATE TABLE list_taken (
    id INTEGER PRIMARY KEY,
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    how TEXT NOT NULL,                  -- in words: by hand, moved to …
    person TEXT NOT NULL,
    at INTEGER NOT NULL
  ) STRICT;
  CREATE INDEX taken_of_list ON list_taken (list);
  CREATE TABLE list_taken_member (
    taken INTEGER NOT NULL REFERENCES list_taken (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    list TEXT NOT NULL, origins TEXT NOT NULL, added_at INTEGER NOT NULL,
    verdict TEXT NOT NULL, reason TEXT, judged_by TEXT, judged_at INTEGER, note TEXT, assigned TEXT,
    PRIMARY KEY (taken, key)
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX taken_member_of_list ON list_taken_member (list);

  -- Every verdict ever given, with the one before it.
  CREATE TABLE list_judgement (
    id INTEGER PRIMARY KEY,
    batch INTEGER NOT NULL,             -- those given at once share one; taken back together
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    key TEXT NOT NULL,
    verdict TEXT NOT NULL, reason TEXT, person TEXT NOT NULL, at INTEGER NOT NULL,
    was TEXT NOT NULL, was_reason TEXT, was_by TEXT, was_at INTEGER
  ) STRICT;
  CREATE INDEX judgement_of_batch ON list_judgement (batch);
  CREATE INDEX judgement_of_member ON list_judgement (list, key);

  -- What notes, tags and the like were before they were changed, so that it can be taken back.
  CREATE TABLE list_undo (
    id INTEGER PRIMARY KEY,
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    before TEXT NOT NULL                -- JSON
  ) STRICT;

  -- Reasons for being out, offered by how often they were used.
  CREATE TABLE list_reason (reason TEXT PRIMARY KEY, used INTEGER NOT NULL) STRICT, WITHOUT ROWID;

  -- Which members each change of a list touched, so that readers need not read all of it again; null is all.
  CREATE TABLE list_change (
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    keys TEXT,                          -- JSON
    PRIMARY KEY (list, revision)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE facts (revision INTEGER NOT NULL) STRICT;
  INSERT INTO facts VALUES (0);
  `,
  `
  -- Spot checks: samples of a tape, judged by hand.
  CREATE TABLE spot_check (
    id TEXT PRIMARY KEY,
    tape TEXT NOT NULL,                 -- JSON tape file
    lines TEXT NOT NULL,                -- JSON of subject and lines, by which the checks of a tape are found
    subject TEXT NOT NULL,
    seed INTEGER NOT NULL,
    by_field TEXT,                      -- what it is shared out by; null for a plain sample
    population INTEGER NOT NULL,        -- how many passed the tape when it was drawn
    at_least INTEGER NOT NULL,          -- percent that are asked to fit
    as_of TEXT NOT NULL, person TEXT NOT NULL,
    drawn_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX check_of_lines ON spot_check (lines);
  CREATE TABLE spot_stratum (
    spot_check TEXT NOT NULL REFERENCES spot_check (id) ON DELETE CASCADE,
    key TEXT NOT NULL, label TEXT NOT NULL, size INTEGER NOT NULL,
    PRIMARY KEY (spot_check, key)
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE spot_member (
    spot_check TEXT NOT NULL REFERENCES spot_check (id) ON DELETE CASCADE,
    place INTEGER NOT NULL,             -- in the order of the draw
    key TEXT NOT NULL, stratum TEXT NOT NULL,
    verdict TEXT,                       -- in: fits, out: does not, unsure: nobody can tell; null: not judged
    note TEXT, person TEXT, at INTEGER,
    PRIMARY KEY (spot_check, place)
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- What the file that put a member on a list says of it beside who it is: headings with texts, JSON, by origin.
  CREATE TABLE list_carried (
    list TEXT NOT NULL, key TEXT NOT NULL,
    origin INTEGER NOT NULL REFERENCES list_origin (id) ON DELETE CASCADE,
    cells TEXT NOT NULL,
    PRIMARY KEY (list, key, origin),
    FOREIGN KEY (list) REFERENCES list (key) ON DELETE CASCADE
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- Addresses that a suppression list keeps off beside its members: domains and mail addresses, in small letters.
  CREATE TABLE list_address (
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE, address TEXT NOT NULL,
    PRIMARY KEY (list, address)
  ) STRICT, WITHOUT ROWID;
  ALTER TABLE list ADD COLUMN addresses_at INTEGER; -- when they were last changed; null where there never were any
  `,
  `
  -- What files say of members, made ready to be asked: cell by cell, folded, and as a number where the heading is one of numbers.
  CREATE TABLE list_carried_cell (
    list TEXT NOT NULL, key TEXT NOT NULL, heading TEXT NOT NULL,
    origin INTEGER NOT NULL REFERENCES list_origin (id) ON DELETE CASCADE,
    text TEXT NOT NULL, folded TEXT NOT NULL, number REAL,
    PRIMARY KEY (list, key, heading, origin),
    FOREIGN KEY (list) REFERENCES list (key) ON DELETE CASCADE
  ) STRICT, WITHOUT ROWID;
  -- The headings of each list with what they are; what was carried before this was known is asked by its words.
  CREATE TABLE list_carried_column (
    list TEXT NOT NULL REFERENCES list (key) ON DELETE CASCADE,
    heading TEXT NOT NULL,
    kind TEXT NOT NULL,                 -- number, category, text
    place INTEGER NOT NULL,             -- in the order of the file
    PRIMARY KEY (list, heading)
  ) STRICT, WITHOUT ROWID;
  INSERT OR IGNORE INTO list_carried_cell (list, key, heading, origin, text, folded)
    SELECT f.list, f.key, trim(replace(v.key, '"', '')), f.origin, v.value, lower(trim(replace(v.value, '"', '')))
    FROM list_carried f, json_each(f.cells) v WHERE trim(v.value) <> '';
  INSERT INTO list_carried_column (list, heading, kind, place)
    SELECT list, heading, 'text', 0 FROM list_carried_cell GROUP BY list, heading;
  `,
];
