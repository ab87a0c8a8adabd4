/** Numbered migrations of outreach.sqlite; never change one that has shipped, add the next. Times are ms since 1970. */
export const outreachMigrations: readonly string[] = [
  `
  CREATE TABLE setting (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT, WITHOUT ROWID;

  CREATE TABLE template (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    language TEXT NOT NULL,             -- ISO 639-1; templates of one name are the same in other languages
    subject TEXT NOT NULL,
    body TEXT NOT NULL,
    made_at INTEGER NOT NULL,
    UNIQUE (name, language)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE proof (
    id TEXT PRIMARY KEY,
    text TEXT NOT NULL,
    industries TEXT NOT NULL,           -- JSON list of beginnings of NACE codes
    technologies TEXT NOT NULL,         -- JSON list of keys
    size_from INTEGER, size_to INTEGER,
    source TEXT NOT NULL,
    since TEXT,                         -- ISO day
    made_at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE campaign (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE COLLATE NOCASE,
    person TEXT NOT NULL,               -- who made it
    made_at INTEGER NOT NULL,
    what TEXT NOT NULL,                 -- in words where its people come from
    functions TEXT,                     -- JSON, core/people/right-person.ts, where they were chosen of companies
    without INTEGER NOT NULL DEFAULT 0, -- companies where nobody holds any of them
    without_keys TEXT NOT NULL DEFAULT '[]',
    template TEXT NOT NULL,             -- its name
    trigger TEXT NOT NULL,              -- named, hinted, out
    certainty INTEGER NOT NULL, words INTEGER NOT NULL, quiet_days INTEGER NOT NULL, ask_proof INTEGER NOT NULL,
    version INTEGER NOT NULL DEFAULT 0
  ) STRICT, WITHOUT ROWID;

  -- Somebody of a campaign with the message to them: a draft until it is put in the outbox.
  CREATE TABLE message (
    id INTEGER PRIMARY KEY,
    campaign TEXT NOT NULL REFERENCES campaign (id) ON DELETE CASCADE,
    nth INTEGER NOT NULL,
    person TEXT NOT NULL,               -- key in the universe
    company TEXT,                       -- key in the universe
    name TEXT NOT NULL, title TEXT, company_name TEXT, country TEXT,
    mail TEXT, certainty INTEGER,       -- as they were when it was put in the outbox; of a draft those of the universe count
    left_out INTEGER NOT NULL DEFAULT 0,
    state TEXT NOT NULL DEFAULT 'draft',-- draft, outbox, sending, sent, perhaps, bounced
    template TEXT, language TEXT, trigger TEXT NOT NULL,
    subject TEXT NOT NULL, body TEXT NOT NULL,
    proof TEXT, proof_text TEXT,
    unfilled TEXT NOT NULL,             -- JSON list of fields
    words INTEGER NOT NULL,
    wording TEXT NOT NULL,              -- without names, to tell same texts
    edited INTEGER NOT NULL DEFAULT 0,
    seen INTEGER NOT NULL DEFAULT 0,
    put_at INTEGER, put_by TEXT,
    tries INTEGER NOT NULL DEFAULT 0, next_at INTEGER, trouble TEXT,
    sent_at INTEGER, message_id TEXT,
    version INTEGER NOT NULL DEFAULT 0,
    UNIQUE (campaign, person)
  ) STRICT;
  CREATE INDEX message_by_state ON message (state, next_at);
  CREATE INDEX message_by_mail ON message (mail, state);
  CREATE INDEX message_by_person ON message (person);
  CREATE UNIQUE INDEX message_by_id ON message (message_id) WHERE message_id IS NOT NULL;

  CREATE TABLE reply (
    id INTEGER PRIMARY KEY,
    message INTEGER REFERENCES message (id) ON DELETE SET NULL,
    sender TEXT NOT NULL,
    subject TEXT NOT NULL, body TEXT NOT NULL,
    kind TEXT NOT NULL,                 -- core/outreach/reply-kind.ts
    back_on TEXT,                       -- ISO day, of somebody out of office
    at INTEGER NOT NULL,
    done INTEGER NOT NULL DEFAULT 0,
    meeting INTEGER NOT NULL DEFAULT 0,
    incoming_id TEXT UNIQUE             -- its own Message-ID, so that it is taken once
  ) STRICT;
  CREATE INDEX reply_of_message ON reply (message);

  -- Addresses whose owners want no more; and what became of those written to or asked for at their mail host.
  CREATE TABLE opted_out (mail TEXT PRIMARY KEY, person TEXT, at INTEGER NOT NULL) STRICT, WITHOUT ROWID;
  CREATE TABLE outcome (
    mail TEXT PRIMARY KEY,
    outcome TEXT NOT NULL,              -- confirmed, refuted
    how TEXT NOT NULL,                  -- in words
    at INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;

  -- Answers that the stand-in mail host has yet to give.
  CREATE TABLE stand_in_answer (id INTEGER PRIMARY KEY, due INTEGER NOT NULL, answer TEXT NOT NULL) STRICT;
  `,
];
