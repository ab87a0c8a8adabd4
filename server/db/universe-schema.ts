/** Numbered migrations of universe.sqlite; never change one that has shipped, add the next. Dates are days since 1970-01-01. */
export const universeMigrations: readonly string[] = [
  `
  CREATE TABLE source (
    id INTEGER PRIMARY KEY,
    key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    subject TEXT NOT NULL DEFAULT 'companies',
    file_name TEXT,
    licence TEXT,
    as_of INTEGER NOT NULL,
    loaded_at TEXT NOT NULL,
    header TEXT NOT NULL,   -- JSON list of headings
    mapping TEXT NOT NULL,  -- JSON, core/records/mapping.ts
    rows_read INTEGER NOT NULL DEFAULT 0,
    rows_refused INTEGER NOT NULL DEFAULT 0
  ) STRICT;

  CREATE TABLE company (
    id INTEGER PRIMARY KEY,
    key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    legal_form TEXT, registration TEXT, status TEXT,
    country TEXT, region TEXT, town TEXT, postcode TEXT, street TEXT, lat REAL, lon REAL,
    phone TEXT, mail TEXT, web TEXT, description TEXT,
    founded INTEGER,
    headcount_low REAL, headcount_high REAL, headcount_point REAL, headcount_basis TEXT, headcount_year INTEGER, headcount_why TEXT,
    revenue_low REAL, revenue_high REAL, revenue_point REAL, revenue_basis TEXT, revenue_year INTEGER, revenue_currency TEXT, revenue_why TEXT,
    revenue_eur_low REAL, revenue_eur_high REAL, revenue_eur_point REAL,
    surveyed_on INTEGER, checked_on INTEGER, checked_how TEXT
  ) STRICT;

  -- A row of a source as it came; the company is made of its records.
  CREATE TABLE record (
    id INTEGER PRIMARY KEY,
    source_id INTEGER NOT NULL REFERENCES source (id),
    company_id INTEGER NOT NULL REFERENCES company (id),
    row INTEGER NOT NULL,
    cells TEXT NOT NULL     -- JSON list in the order of the source's header
  ) STRICT;
  CREATE INDEX record_of_company ON record (company_id);
  CREATE INDEX record_of_source ON record (source_id);

  CREATE TABLE company_code (
    company_id INTEGER NOT NULL REFERENCES company (id),
    scheme TEXT NOT NULL,
    code TEXT NOT NULL,
    rank INTEGER NOT NULL,  -- 0 the main code, then 1, 2 …
    PRIMARY KEY (company_id, scheme, rank)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE technology (
    key TEXT PRIMARY KEY,
    label TEXT NOT NULL,
    category TEXT,
    category_label TEXT
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE company_technology (
    company_id INTEGER NOT NULL REFERENCES company (id),
    technology TEXT NOT NULL REFERENCES technology (key),
    PRIMARY KEY (company_id, technology)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE company_source (
    company_id INTEGER NOT NULL REFERENCES company (id),
    source TEXT NOT NULL REFERENCES source (key),
    PRIMARY KEY (company_id, source)
  ) STRICT, WITHOUT ROWID;

  -- Folded name and description; rowid is the company.
  CREATE VIRTUAL TABLE company_words USING fts5 (name, description, content = '', contentless_delete = 1, tokenize = 'unicode61');
  `,
  `
  -- One row: which universe this is, and how often it was changed.
  CREATE TABLE universe (stamp TEXT NOT NULL, revision INTEGER NOT NULL) STRICT;
  INSERT INTO universe VALUES (lower(hex(randomblob(12))), 0);

  -- Companies remade or removed by the last few changes, so that columns need not be built anew.
  CREATE TABLE company_change (
    revision INTEGER NOT NULL,
    company_id INTEGER NOT NULL,
    PRIMARY KEY (revision, company_id)
  ) STRICT, WITHOUT ROWID;

  -- Removing a source reads all records once; finding them by source cost every load.
  DROP INDEX record_of_source;
  `,
  `
  -- Figures of money like revenue, and how a company stands. Flags are 0 or 1; \`certificates_known\` is 1
  -- where a source says which are held; histories are JSON as core/records/record.ts has them.
  ALTER TABLE company ADD COLUMN profit_low REAL;
  ALTER TABLE company ADD COLUMN profit_high REAL;
  ALTER TABLE company ADD COLUMN profit_point REAL;
  ALTER TABLE company ADD COLUMN profit_basis TEXT;
  ALTER TABLE company ADD COLUMN profit_year INTEGER;
  ALTER TABLE company ADD COLUMN profit_currency TEXT;
  ALTER TABLE company ADD COLUMN profit_why TEXT;
  ALTER TABLE company ADD COLUMN profit_eur_low REAL;
  ALTER TABLE company ADD COLUMN profit_eur_high REAL;
  ALTER TABLE company ADD COLUMN profit_eur_point REAL;
  ALTER TABLE company ADD COLUMN assets_low REAL;
  ALTER TABLE company ADD COLUMN assets_high REAL;
  ALTER TABLE company ADD COLUMN assets_point REAL;
  ALTER TABLE company ADD COLUMN assets_basis TEXT;
  ALTER TABLE company ADD COLUMN assets_year INTEGER;
  ALTER TABLE company ADD COLUMN assets_currency TEXT;
  ALTER TABLE company ADD COLUMN assets_why TEXT;
  ALTER TABLE company ADD COLUMN assets_eur_low REAL;
  ALTER TABLE company ADD COLUMN assets_eur_high REAL;
  ALTER TABLE company ADD COLUMN assets_eur_point REAL;
  ALTER TABLE company ADD COLUMN per_head_low REAL;
  ALTER TABLE company ADD COLUMN per_head_high REAL;
  ALTER TABLE company ADD COLUMN per_head_point REAL;
  ALTER TABLE company ADD COLUMN per_head_basis TEXT;
  ALTER TABLE company ADD COLUMN per_head_year INTEGER;
  ALTER TABLE company ADD COLUMN per_head_currency TEXT;
  ALTER TABLE company ADD COLUMN per_head_why TEXT;
  ALTER TABLE company ADD COLUMN per_head_eur_low REAL;
  ALTER TABLE company ADD COLUMN per_head_eur_high REAL;
  ALTER TABLE company ADD COLUMN per_head_eur_point REAL;
  ALTER TABLE company ADD COLUMN ownership TEXT;
  ALTER TABLE company ADD COLUMN group_name TEXT;
  ALTER TABLE company ADD COLUMN listing TEXT;
  ALTER TABLE company ADD COLUMN ticker TEXT;
  ALTER TABLE company ADD COLUMN certificates_known INTEGER;
  ALTER TABLE company ADD COLUMN dwelling INTEGER;
  ALTER TABLE company ADD COLUMN followers INTEGER;
  ALTER TABLE company ADD COLUMN site_answers INTEGER;
  ALTER TABLE company ADD COLUMN site_checked_on INTEGER;
  ALTER TABLE company ADD COLUMN sources INTEGER;
  ALTER TABLE company ADD COLUMN headcount_history TEXT;
  ALTER TABLE company ADD COLUMN revenue_history TEXT;
  ALTER TABLE company ADD COLUMN revenue_months TEXT;

  ALTER TABLE company_technology ADD COLUMN first_seen INTEGER;
  ALTER TABLE company_technology ADD COLUMN last_seen INTEGER;

  CREATE TABLE company_offer (
    company_id INTEGER NOT NULL REFERENCES company (id),
    offer TEXT NOT NULL,
    PRIMARY KEY (company_id, offer)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE company_certificate (
    company_id INTEGER NOT NULL REFERENCES company (id),
    certificate TEXT NOT NULL,
    PRIMARY KEY (company_id, certificate)
  ) STRICT, WITHOUT ROWID;

  -- Numbers by key: growth in percent ("headcount 1y"), staff by department ("sales").
  CREATE TABLE company_measure (
    company_id INTEGER NOT NULL REFERENCES company (id),
    measure TEXT NOT NULL,
    key TEXT NOT NULL,
    value REAL NOT NULL,
    PRIMARY KEY (company_id, measure, key)
  ) STRICT, WITHOUT ROWID;

  UPDATE company SET sources = (SELECT count(*) FROM company_source v WHERE v.company_id = company.id);
  `,
  `
  -- What hangs on companies. \`key\` is made of the id; \`reference\` is how its source names a company (JSON list of
  -- registration number, domain, name, country), kept so that it can be matched again when companies come or go.
  CREATE TABLE site (
    id INTEGER PRIMARY KEY, key TEXT GENERATED ALWAYS AS ('site-' || id) VIRTUAL, source TEXT NOT NULL, company_id INTEGER, reference TEXT,
    name TEXT, kind TEXT, head INTEGER, country TEXT, region TEXT, town TEXT, postcode TEXT, street TEXT, lat REAL, lon REAL,
    headcount INTEGER, phone TEXT, checked_on INTEGER
  ) STRICT;
  CREATE INDEX site_of_company ON site (company_id);

  CREATE TABLE person (
    id INTEGER PRIMARY KEY, key TEXT GENERATED ALWAYS AS ('person-' || id) VIRTUAL, source TEXT NOT NULL, company_id INTEGER, reference TEXT,
    name TEXT NOT NULL, title TEXT, title_words TEXT, department TEXT, level TEXT, since_on INTEGER,
    mail TEXT, certainty INTEGER, phone TEXT, earlier TEXT, checked_on INTEGER
  ) STRICT;
  CREATE INDEX person_of_company ON person (company_id);

  CREATE TABLE event (
    id INTEGER PRIMARY KEY, key TEXT GENERATED ALWAYS AS ('event-' || id) VIRTUAL, source TEXT NOT NULL, company_id INTEGER, reference TEXT,
    name TEXT NOT NULL, name_words TEXT, kind TEXT, date_on INTEGER
  ) STRICT;
  CREATE INDEX event_of_company ON event (company_id);

  CREATE TABLE deal (
    id INTEGER PRIMARY KEY, key TEXT GENERATED ALWAYS AS ('deal-' || id) VIRTUAL, name TEXT NOT NULL, kind TEXT, date_on INTEGER,
    amount_low REAL, amount_high REAL, amount_point REAL, amount_basis TEXT, amount_year INTEGER, amount_currency TEXT, amount_why TEXT,
    amount_eur_low REAL, amount_eur_high REAL, amount_eur_point REAL,
    bidders INTEGER
  ) STRICT;
  CREATE TABLE deal_party (deal_id INTEGER NOT NULL, company_id INTEGER, role TEXT NOT NULL, reference TEXT) STRICT;
  CREATE INDEX deal_party_of_deal ON deal_party (deal_id);
  CREATE INDEX deal_party_of_company ON deal_party (company_id);
  CREATE TABLE deal_source (
    deal_id INTEGER NOT NULL, source TEXT NOT NULL, PRIMARY KEY (deal_id, source)
  ) STRICT, WITHOUT ROWID;

  CREATE TABLE brand (
    id INTEGER PRIMARY KEY, key TEXT GENERATED ALWAYS AS ('brand-' || id) VIRTUAL, source TEXT NOT NULL, name TEXT NOT NULL, category TEXT,
    products INTEGER, products_change INTEGER, products_history TEXT, share REAL, countries_known INTEGER, checked_on INTEGER
  ) STRICT;
  CREATE TABLE brand_party (brand_id INTEGER NOT NULL, company_id INTEGER, role TEXT NOT NULL, reference TEXT) STRICT;
  CREATE INDEX brand_party_of_brand ON brand_party (brand_id);
  CREATE INDEX brand_party_of_company ON brand_party (company_id);
  CREATE TABLE brand_country (
    brand_id INTEGER NOT NULL, country TEXT NOT NULL, PRIMARY KEY (brand_id, country)
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE brand_measure (
    brand_id INTEGER NOT NULL, measure TEXT NOT NULL, key TEXT NOT NULL, value REAL NOT NULL,
    PRIMARY KEY (brand_id, measure, key)
  ) STRICT, WITHOUT ROWID;

  -- Folded names of people, brands and deals for the jump box; rowid is eight times the record's id, and which of them it is.
  CREATE VIRTUAL TABLE related_words USING fts5 (name, content = '', contentless_delete = 1, tokenize = 'unicode61');

  -- The change of the universe with which the records of a subject were last changed.
  CREATE TABLE subject_change (subject TEXT PRIMARY KEY, revision INTEGER NOT NULL) STRICT, WITHOUT ROWID;

  -- Countries of which a source says that it has every record of a subject.
  CREATE TABLE source_cover (
    source TEXT NOT NULL, subject TEXT NOT NULL, country TEXT NOT NULL, PRIMARY KEY (subject, country, source)
  ) STRICT, WITHOUT ROWID;

  -- 1 where a source covers a subject for the company, and what its sites, brands and deals make of it.
  ALTER TABLE company ADD COLUMN sites_known INTEGER; ALTER TABLE company ADD COLUMN people_known INTEGER;
  ALTER TABLE company ADD COLUMN brands_known INTEGER; ALTER TABLE company ADD COLUMN deals_known INTEGER;
  ALTER TABLE company ADD COLUMN events_known INTEGER;
  ALTER TABLE company ADD COLUMN site_count INTEGER;
  ALTER TABLE company ADD COLUMN brands_owned INTEGER;
  ALTER TABLE company ADD COLUMN brands_resold INTEGER;
  ALTER TABLE company ADD COLUMN own_share REAL;
  ALTER TABLE company ADD COLUMN countries_known INTEGER;
  ALTER TABLE company ADD COLUMN last_round_on INTEGER;
  ALTER TABLE company ADD COLUMN raised_low REAL;
  ALTER TABLE company ADD COLUMN raised_high REAL;
  ALTER TABLE company ADD COLUMN raised_point REAL;
  ALTER TABLE company ADD COLUMN raised_basis TEXT;
  ALTER TABLE company ADD COLUMN raised_year INTEGER;
  ALTER TABLE company ADD COLUMN raised_currency TEXT;
  ALTER TABLE company ADD COLUMN raised_why TEXT;
  ALTER TABLE company ADD COLUMN raised_eur_low REAL;
  ALTER TABLE company ADD COLUMN raised_eur_high REAL;
  ALTER TABLE company ADD COLUMN raised_eur_point REAL;
  CREATE TABLE company_market (
    company_id INTEGER NOT NULL, measure TEXT NOT NULL, key TEXT NOT NULL, value REAL NOT NULL,
    PRIMARY KEY (company_id, measure, key)
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE company_country (
    company_id INTEGER NOT NULL, country TEXT NOT NULL, PRIMARY KEY (company_id, country)
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- Removing a source finds its companies by it.
  CREATE INDEX company_source_source ON company_source (source);
  `,
  `
  -- Jobs whose change is in the universe: written with the change itself, so that what is said of a job is what became of it.
  CREATE TABLE landed_job (job TEXT PRIMARY KEY, result TEXT NOT NULL) STRICT, WITHOUT ROWID;
  `,
  `
  -- Companies that were joined to another by the matcher or by hand: records that come under the key that is gone belong to the
  -- other. A record whose own key is not its company's says so, so that it can be taken apart again.
  CREATE TABLE company_join (
    gone TEXT PRIMARY KEY, key TEXT NOT NULL,
    how TEXT NOT NULL,      -- number, domain or name: what it was sure by; hand
    chance REAL, person TEXT NOT NULL, at TEXT NOT NULL
  ) STRICT, WITHOUT ROWID;
  CREATE INDEX join_of_key ON company_join (key);
  ALTER TABLE record ADD COLUMN own_key TEXT;
  `,
  `
  -- What the last refresh of a source did: counts as JSON, and what became of each company that was touched.
  ALTER TABLE source ADD COLUMN refreshed TEXT;
  CREATE TABLE source_change (
    source TEXT NOT NULL, key TEXT NOT NULL,
    name TEXT NOT NULL,     -- then, since it may have left
    what TEXT NOT NULL,     -- new, changed, gone
    changes TEXT NOT NULL,  -- JSON, core/records/changes.ts
    PRIMARY KEY (source, key)
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- Addresses of people: what a source records stands beside what is made of it by pattern (core/people/address-model.ts).
  ALTER TABLE person ADD COLUMN recorded_mail TEXT;
  ALTER TABLE person ADD COLUMN stated_certainty INTEGER; -- as the source says, in percent
  ALTER TABLE person ADD COLUMN address TEXT;             -- confirmed, recorded, likely, guess, general, refuted
  ALTER TABLE person ADD COLUMN made_by TEXT;             -- the pattern of a made one, and how many follow it
  UPDATE person SET recorded_mail = mail, stated_certainty = certainty, address = CASE WHEN mail IS NOT NULL THEN 'recorded' END;
  -- What became of addresses that were written to.
  CREATE TABLE mail_outcome (
    mail TEXT PRIMARY KEY,  -- lower case
    outcome TEXT NOT NULL,  -- confirmed, refuted
    at INTEGER NOT NULL     -- ms since 1970
  ) STRICT, WITHOUT ROWID;
  `,
  `
  -- What each change of the universe was, in words, and the day of which it speaks.
  CREATE TABLE revision_log (
    revision INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,    -- ms since 1970
    day INTEGER NOT NULL,
    what TEXT NOT NULL
  ) STRICT;
  -- What was and is, of records that a change of the universe changed. \`field\` is a word of core/records/changes.ts, or "gone".
  CREATE TABLE history (
    id INTEGER PRIMARY KEY,
    revision INTEGER NOT NULL,
    subject TEXT NOT NULL, record INTEGER NOT NULL,
    key TEXT NOT NULL, name TEXT NOT NULL,
    field TEXT NOT NULL, was TEXT, now TEXT,
    was_number REAL, now_number REAL  -- of sizes: heads, euros
  ) STRICT;
  CREATE INDEX history_of_record ON history (subject, record, revision);
  CREATE INDEX history_of_revision ON history (revision);
  -- When last what of a company was changed.
  CREATE TABLE company_changed (
    company_id INTEGER NOT NULL, field TEXT NOT NULL, changed_on INTEGER NOT NULL,
    PRIMARY KEY (company_id, field)
  ) STRICT, WITHOUT ROWID;
  -- The change of the universe that an event or deal came with.
  ALTER TABLE event ADD COLUMN came_with INTEGER;
  ALTER TABLE deal ADD COLUMN came_with INTEGER;
  ALTER TABLE company ADD COLUMN came_on INTEGER;
  ALTER TABLE company ADD COLUMN came_with INTEGER; -- the change of the universe
  -- The highest number that a record of a table ever had: numbers are never given again, since runs know their members by them.
  CREATE TABLE last_id (name TEXT PRIMARY KEY, id INTEGER NOT NULL) STRICT, WITHOUT ROWID;
  `,
  `
  -- Numbers of a person’s changes in history are the companies, before and after, of who came, went or changed employer.
  ALTER TABLE site ADD COLUMN came_with INTEGER;
  ALTER TABLE person ADD COLUMN came_with INTEGER;
  ALTER TABLE brand ADD COLUMN came_with INTEGER;
  CREATE INDEX history_from_company ON history (was_number, revision) WHERE subject = 'people' AND field IN ('company', 'gone');
  CREATE INDEX history_to_company ON history (now_number, revision) WHERE subject = 'people' AND field IN ('company', 'came');
  `,
  `
  -- How a website answered, and the address without its page.
  ALTER TABLE company ADD COLUMN site_state TEXT;
  ALTER TABLE company ADD COLUMN site_moved_to TEXT;
  ALTER TABLE company ADD COLUMN domain TEXT;
  UPDATE company SET
    site_state = CASE site_answers WHEN 1 THEN 'works' WHEN 0 THEN 'dead' END,
    domain = CASE WHEN web LIKE 'www.%' THEN substr(substr(web, 5), 1, instr(substr(web, 5) || '/', '/') - 1)
      ELSE substr(web, 1, instr(web || '/', '/') - 1) END
    WHERE web IS NOT NULL OR site_answers IS NOT NULL;
  -- What the sources of a company say differently (core/records/disputes.ts); of one source it is known without looking.
  ALTER TABLE company ADD COLUMN disputes_known INTEGER;
  UPDATE company SET disputes_known = 1 WHERE sources = 1;
  CREATE TABLE company_dispute (
    company_id INTEGER NOT NULL REFERENCES company (id), part TEXT NOT NULL,
    PRIMARY KEY (company_id, part)
  ) STRICT, WITHOUT ROWID;
  -- What we ourselves say of companies, by key, so that it outlives their records: values corrected by hand (core/records/own-values.ts) …
  CREATE TABLE correction (
    company TEXT NOT NULL, field TEXT NOT NULL,
    value TEXT NOT NULL,    -- as typed; empty where the value is known to be wrong and no other is known
    reason TEXT NOT NULL, person TEXT NOT NULL, at TEXT NOT NULL,
    PRIMARY KEY (company, field)
  ) STRICT, WITHOUT ROWID;
  CREATE TABLE company_corrected (
    company_id INTEGER NOT NULL REFERENCES company (id), field TEXT NOT NULL,
    PRIMARY KEY (company_id, field)
  ) STRICT, WITHOUT ROWID;
  -- … and what came of trying their websites.
  CREATE TABLE site_check (
    company TEXT PRIMARY KEY,
    web TEXT NOT NULL, state TEXT NOT NULL, moved_to TEXT, checked_on INTEGER NOT NULL
  ) STRICT, WITHOUT ROWID;
  -- Which source wins, where it is not as usual (core/records/precedence.ts); JSON of a rule.
  CREATE TABLE precedence (part TEXT PRIMARY KEY, rule TEXT NOT NULL) STRICT, WITHOUT ROWID;
  `,
  `
  CREATE INDEX company_domain ON company (domain) WHERE domain IS NOT NULL;
  `,
  `
  -- How we ourselves read titles, over what sources and the table of words say (core/people/titles.ts); of those that are read so,
  -- what was loaded.
  CREATE TABLE title_reading (
    words TEXT PRIMARY KEY,           -- as title_words of person has them
    department TEXT, level TEXT,      -- null where the title says nothing of it
    person TEXT NOT NULL, at TEXT NOT NULL
  ) STRICT, WITHOUT ROWID;
  ALTER TABLE person ADD COLUMN read_here INTEGER;
  ALTER TABLE person ADD COLUMN loaded_department TEXT;
  ALTER TABLE person ADD COLUMN loaded_level TEXT;
  -- Replies to our messages that became events; kept though the source of these events may be removed.
  CREATE TABLE reply_event (reply INTEGER PRIMARY KEY) STRICT;
  -- That of the country of the company (core/people/languages.ts).
  ALTER TABLE person ADD COLUMN language TEXT;
  UPDATE person SET language = (SELECT language_of(c.country) FROM company c WHERE c.id = person.company_id);
  ALTER TABLE person ADD COLUMN earlier_words TEXT;
  UPDATE person SET earlier_words = words_column(earlier) WHERE earlier IS NOT NULL;
  `,
  `
  ALTER TABLE person ADD COLUMN stated_standing TEXT; -- how far the source says that the address is to be trusted …
  ALTER TABLE person ADD COLUMN stated_made_by TEXT;  -- … and what it was made by
  ALTER TABLE source ADD COLUMN fingerprint TEXT; -- SHA-256 of its file as it came
  `,
  `CREATE INDEX company_without_number ON company (id) WHERE registration IS NULL; -- among them doubles are looked for`,
];
