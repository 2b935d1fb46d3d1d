-- The books of the practice ledger. Amounts are minor units, debit positive; days are written as in ISO 8601.
CREATE TABLE company (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL UNIQUE,
    currency TEXT NOT NULL CHECK (length(currency) = 3)
);

CREATE TABLE account (
    id INTEGER PRIMARY KEY,
    company_id INTEGER NOT NULL REFERENCES company (id),
    code TEXT NOT NULL,
    name TEXT NOT NULL,
    type TEXT NOT NULL,
    use TEXT NOT NULL,
    status TEXT NOT NULL CHECK (status IN ('open', 'closed', 'reserved')),
    tax_code TEXT,
    numbers TEXT NOT NULL,
    currency TEXT,
    UNIQUE (company_id, code)
);

CREATE TABLE tax_code (
    company_id INTEGER NOT NULL REFERENCES company (id),
    code TEXT NOT NULL,
    name TEXT NOT NULL,
    rate TEXT NOT NULL,
    account TEXT,
    PRIMARY KEY (company_id, code)
);

CREATE TABLE party (
    company_id INTEGER NOT NULL REFERENCES company (id),
    code TEXT NOT NULL,
    name TEXT NOT NULL,
    is_customer INTEGER NOT NULL CHECK (is_customer IN (0, 1)),
    PRIMARY KEY (company_id, code)
);

CREATE TABLE period (
    company_id INTEGER NOT NULL REFERENCES company (id),
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL CHECK (last_day >= first_day),
    is_open INTEGER NOT NULL CHECK (is_open IN (0, 1)),
    PRIMARY KEY (company_id, first_day)
);

CREATE TABLE batch (
    id INTEGER PRIMARY KEY,
    company_id INTEGER NOT NULL REFERENCES company (id),
    key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    day TEXT NOT NULL,
    withdrawn INTEGER NOT NULL CHECK (withdrawn IN (0, 1))
);

-- What was done, in its order: the history, to which rows are only added.
CREATE TABLE deed (
    id INTEGER PRIMARY KEY,
    company_id INTEGER NOT NULL REFERENCES company (id),
    at TEXT NOT NULL,
    what TEXT NOT NULL,
    batch_id INTEGER REFERENCES batch (id)
);

CREATE TABLE entry (
    id INTEGER PRIMARY KEY,
    company_id INTEGER NOT NULL REFERENCES company (id),
    batch_id INTEGER REFERENCES batch (id),
    key TEXT,
    digest TEXT,
    kind TEXT NOT NULL,
    reference TEXT NOT NULL,
    day TEXT NOT NULL CHECK (length(day) = 10),
    currency TEXT NOT NULL CHECK (length(currency) = 3),
    narrative TEXT NOT NULL,
    line_count INTEGER NOT NULL CHECK (line_count > 0),
    standing TEXT NOT NULL CHECK (standing IN ('draft', 'final', 'reversed', 'removed')),
    recorded INTEGER NOT NULL REFERENCES deed (id),
    removed INTEGER REFERENCES deed (id),
    reverses INTEGER
);

CREATE UNIQUE INDEX entry_by_key ON entry (company_id, key) WHERE standing IN ('draft', 'final');
CREATE UNIQUE INDEX journal_by_reference ON entry (company_id, reference, substr(day, 1, 4))
    WHERE kind = 'journals' AND reverses IS NULL AND standing IN ('draft', 'final');
CREATE UNIQUE INDEX entry_by_reversed ON entry (reverses) WHERE reverses IS NOT NULL;
CREATE INDEX entry_by_batch ON entry (batch_id);
CREATE INDEX entry_by_recorded ON entry (recorded);
CREATE INDEX entry_by_removed ON entry (removed) WHERE removed IS NOT NULL;

-- The lines are written before their entry, which is only accepted when they are right, and then they never change.
CREATE TABLE entry_line (
    entry_id INTEGER NOT NULL REFERENCES entry (id) DEFERRABLE INITIALLY DEFERRED,
    place INTEGER NOT NULL,
    account_id INTEGER NOT NULL,
    minor INTEGER NOT NULL,
    narrative TEXT NOT NULL,
    tax_code TEXT,
    party TEXT,
    foreign_currency TEXT,
    foreign_minor INTEGER,
    dimensions TEXT,
    PRIMARY KEY (entry_id, place)
) WITHOUT ROWID;

-- An entry that something later rests upon cannot be taken back alone.
CREATE TABLE dependence (
    entry_id INTEGER NOT NULL REFERENCES entry (id),
    rests_on INTEGER NOT NULL REFERENCES entry (id),
    PRIMARY KEY (entry_id, rests_on)
);

CREATE INDEX dependence_by_base ON dependence (rests_on);

CREATE TRIGGER entry_is_right BEFORE INSERT ON entry BEGIN
    SELECT CASE
        WHEN count(*) <> NEW.line_count THEN RAISE(ABORT, 'entry: a line or its account is missing')
        WHEN sum(l.minor) <> 0 THEN RAISE(ABORT, 'entry: it does not balance')
        WHEN sum(a.company_id <> NEW.company_id) > 0 THEN RAISE(ABORT, 'entry: an account of another company')
        WHEN sum(a.status <> 'open') > 0 THEN RAISE(ABORT, 'entry: an account is not open')
        END
    FROM entry_line l JOIN account a ON a.id = l.account_id WHERE l.entry_id = NEW.id;
    SELECT RAISE(ABORT, 'entry: the period is not open')
    WHERE NOT EXISTS (SELECT 1 FROM period p WHERE p.company_id = NEW.company_id AND p.is_open = 1
        AND p.first_day <= NEW.day AND p.last_day >= NEW.day);
    SELECT RAISE(ABORT, 'entry: what it reverses is missing')
    WHERE NEW.reverses IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM entry WHERE id = NEW.reverses AND company_id = NEW.company_id);
END;

CREATE TRIGGER entry_changes_standing_only BEFORE UPDATE ON entry
WHEN NEW.id IS NOT OLD.id OR NEW.company_id IS NOT OLD.company_id OR NEW.batch_id IS NOT OLD.batch_id
    OR NEW.key IS NOT OLD.key OR NEW.digest IS NOT OLD.digest OR NEW.kind IS NOT OLD.kind
    OR NEW.reference IS NOT OLD.reference OR NEW.day IS NOT OLD.day OR NEW.currency IS NOT OLD.currency
    OR NEW.narrative IS NOT OLD.narrative OR NEW.line_count IS NOT OLD.line_count
    OR NEW.recorded IS NOT OLD.recorded OR NEW.reverses IS NOT OLD.reverses
    OR NOT (OLD.standing = 'draft' AND NEW.standing IN ('final', 'removed')
        OR OLD.standing = 'final' AND NEW.standing = 'reversed')
    OR (NEW.standing = 'removed') <> (NEW.removed IS NOT NULL)
BEGIN
    SELECT RAISE(ABORT, 'entry: what is recorded does not change');
END;

CREATE TRIGGER entry_in_open_period BEFORE UPDATE ON entry
WHEN NEW.standing IN ('final', 'removed')
    AND NOT EXISTS (SELECT 1 FROM period p WHERE p.company_id = NEW.company_id AND p.is_open = 1
        AND p.first_day <= NEW.day AND p.last_day >= NEW.day)
BEGIN
    SELECT RAISE(ABORT, 'entry: the period is not open');
END;

CREATE TRIGGER entry_stays BEFORE DELETE ON entry BEGIN
    SELECT RAISE(ABORT, 'entry: what is recorded stays');
END;

CREATE TRIGGER line_of_a_new_entry BEFORE INSERT ON entry_line
WHEN EXISTS (SELECT 1 FROM entry WHERE id = NEW.entry_id) BEGIN
    SELECT RAISE(ABORT, 'entry: its lines are recorded already');
END;

CREATE TRIGGER line_does_not_change BEFORE UPDATE ON entry_line BEGIN
    SELECT RAISE(ABORT, 'entry: what is recorded does not change');
END;

CREATE TRIGGER line_stays BEFORE DELETE ON entry_line BEGIN
    SELECT RAISE(ABORT, 'entry: what is recorded stays');
END;

CREATE TRIGGER deed_does_not_change BEFORE UPDATE ON deed BEGIN
    SELECT RAISE(ABORT, 'deed: the history does not change');
END;

CREATE TRIGGER deed_stays BEFORE DELETE ON deed BEGIN
    SELECT RAISE(ABORT, 'deed: the history stays');
END;

CREATE TRIGGER account_stays BEFORE DELETE ON account BEGIN
    SELECT RAISE(ABORT, 'account: it stays');
END;
