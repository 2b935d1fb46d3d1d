-- The books of the practice ledger. Amounts are minor units, debit positive; days are written as in ISO 8601.
CREATE TABLE company (
    id BIGINT PRIMARY KEY,
    name TEXT NOT NULL UNIQUE,
    currency TEXT NOT NULL CHECK (length(currency) = 3)
);

CREATE TABLE account (
    id BIGINT PRIMARY KEY,
    company_id BIGINT NOT NULL REFERENCES company (id),
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
    company_id BIGINT NOT NULL REFERENCES company (id),
    code TEXT NOT NULL,
    name TEXT NOT NULL,
    rate TEXT NOT NULL,
    account TEXT,
    PRIMARY KEY (company_id, code)
);

CREATE TABLE party (
    company_id BIGINT NOT NULL REFERENCES company (id),
    code TEXT NOT NULL,
    name TEXT NOT NULL,
    is_customer BIGINT NOT NULL CHECK (is_customer IN (0, 1)),
    PRIMARY KEY (company_id, code)
);

CREATE TABLE period (
    company_id BIGINT NOT NULL REFERENCES company (id),
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL CHECK (last_day >= first_day),
    is_open BIGINT NOT NULL CHECK (is_open IN (0, 1)),
    PRIMARY KEY (company_id, first_day)
);

CREATE TABLE batch (
    id BIGINT PRIMARY KEY,
    company_id BIGINT NOT NULL REFERENCES company (id),
    key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    day TEXT NOT NULL,
    withdrawn BIGINT NOT NULL CHECK (withdrawn IN (0, 1))
);

-- What was done, in its order: the history, to which rows are only added. It says which transaction did it.
CREATE TABLE deed (
    id BIGINT PRIMARY KEY,
    company_id BIGINT NOT NULL REFERENCES company (id),
    at TEXT NOT NULL,
    what TEXT NOT NULL,
    batch_id BIGINT REFERENCES batch (id),
    first_entry BIGINT NOT NULL DEFAULT 1,
    last_entry BIGINT NOT NULL DEFAULT 0,
    done_by XID8 NOT NULL DEFAULT pg_current_xact_id()
);

CREATE TABLE entry (
    id BIGINT PRIMARY KEY,
    company_id BIGINT NOT NULL,
    batch_id BIGINT,
    key TEXT,
    digest TEXT,
    kind TEXT NOT NULL,
    reference TEXT NOT NULL,
    day TEXT NOT NULL CHECK (length(day) = 10),
    currency TEXT NOT NULL CHECK (length(currency) = 3),
    narrative TEXT NOT NULL,
    line_count BIGINT NOT NULL CHECK (line_count > 0),
    standing TEXT NOT NULL CHECK (standing IN ('draft', 'final', 'reversed', 'removed')),
    recorded BIGINT NOT NULL,
    removed BIGINT,
    reverses BIGINT
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
    entry_id BIGINT NOT NULL,
    place BIGINT NOT NULL,
    account_id BIGINT NOT NULL,
    minor BIGINT NOT NULL,
    narrative TEXT NOT NULL,
    tax_code TEXT,
    party TEXT,
    foreign_currency TEXT,
    foreign_minor BIGINT,
    dimensions TEXT,
    PRIMARY KEY (entry_id, place)
);

-- An entry that something later rests upon cannot be taken back alone.
CREATE TABLE dependence (
    entry_id BIGINT NOT NULL REFERENCES entry (id),
    rests_on BIGINT NOT NULL REFERENCES entry (id),
    PRIMARY KEY (entry_id, rests_on)
);

CREATE INDEX dependence_by_base ON dependence (rests_on);

-- What is checked here is checked once for all rows of a statement: a million lines come in a few hundred statements.
CREATE FUNCTION require_new_entries() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    low BIGINT;
    high BIGINT;
BEGIN
    SELECT min(entry_id), max(entry_id) INTO low, high FROM added;
    IF low IS NULL THEN
        RETURN NULL;
    END IF;
    IF NOT EXISTS (SELECT 1 FROM deed WHERE done_by = pg_current_xact_id() AND first_entry <= low AND last_entry >= high) THEN
        RAISE EXCEPTION 'entry: its lines belong to no deed of this transaction';
    END IF;
    IF EXISTS (SELECT 1 FROM entry WHERE id BETWEEN low AND high) THEN
        RAISE EXCEPTION 'entry: its lines are recorded already';
    END IF;
    RETURN NULL;
END $$;

CREATE TRIGGER line_of_a_new_entry AFTER INSERT ON entry_line REFERENCING NEW TABLE AS added
    FOR EACH STATEMENT EXECUTE FUNCTION require_new_entries();

-- Nobody has counted the rows of a statement beforehand, and a loop over them within a loop takes minutes.
CREATE FUNCTION require_right_entries() RETURNS trigger LANGUAGE plpgsql SET enable_nestloop = off AS $$
DECLARE
    low BIGINT;
    high BIGINT;
    wrong TEXT;
BEGIN
    SELECT min(id), max(id) INTO low, high FROM added;
    SELECT CASE
        WHEN coalesce(s.lines, 0) <> n.line_count THEN 'a line or its account is missing'
        WHEN s.difference <> 0 THEN 'it does not balance'
        WHEN s.company <> n.company_id OR s.companies <> n.company_id THEN 'an account of another company'
        ELSE 'an account is not open' END INTO wrong
    FROM added n LEFT JOIN (
        SELECT l.entry_id, count(*) AS lines, sum(l.minor) AS difference, min(a.company_id) AS company,
            max(a.company_id) AS companies, bool_and(a.status = 'open') AS is_open
        FROM entry_line l JOIN account a ON a.id = l.account_id
        WHERE l.entry_id BETWEEN low AND high GROUP BY l.entry_id) s ON s.entry_id = n.id
    WHERE coalesce(s.lines, 0) <> n.line_count OR s.difference <> 0 OR s.company <> n.company_id
        OR s.companies <> n.company_id OR NOT s.is_open
    LIMIT 1;
    IF wrong IS NOT NULL THEN
        RAISE EXCEPTION 'entry: %', wrong;
    END IF;
    IF EXISTS (SELECT 1 FROM (SELECT DISTINCT company_id, day FROM added) d WHERE NOT EXISTS (
        SELECT 1 FROM period p WHERE p.company_id = d.company_id AND p.is_open = 1
            AND p.first_day <= d.day AND p.last_day >= d.day)) THEN
        RAISE EXCEPTION 'entry: the period is not open';
    END IF;
    IF EXISTS (SELECT 1 FROM added n WHERE n.reverses IS NOT NULL AND NOT EXISTS (
        SELECT 1 FROM entry e WHERE e.id = n.reverses AND e.company_id = n.company_id)) THEN
        RAISE EXCEPTION 'entry: what it reverses is missing';
    END IF;
    IF EXISTS (SELECT 1 FROM (SELECT DISTINCT company_id, batch_id, recorded FROM added) d WHERE NOT EXISTS (
        SELECT 1 FROM deed WHERE deed.id = d.recorded AND deed.company_id = d.company_id
            AND deed.done_by = pg_current_xact_id())
        OR d.batch_id IS NOT NULL AND NOT EXISTS (
            SELECT 1 FROM batch WHERE batch.id = d.batch_id AND batch.company_id = d.company_id)) THEN
        RAISE EXCEPTION 'entry: its deed or batch is missing';
    END IF;
    RETURN NULL;
END $$;

CREATE TRIGGER entry_is_right AFTER INSERT ON entry REFERENCING NEW TABLE AS added
    FOR EACH STATEMENT EXECUTE FUNCTION require_right_entries();

-- At the end of the transaction every line of its deed has its entry.
CREATE FUNCTION require_no_line_alone() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF (SELECT count(*) FROM entry_line WHERE entry_id BETWEEN NEW.first_entry AND NEW.last_entry)
        <> (SELECT coalesce(sum(line_count), 0) FROM entry WHERE id BETWEEN NEW.first_entry AND NEW.last_entry) THEN
        RAISE EXCEPTION 'entry: a line without its entry';
    END IF;
    RETURN NULL;
END $$;

CREATE CONSTRAINT TRIGGER deed_is_whole AFTER INSERT ON deed DEFERRABLE INITIALLY DEFERRED
    FOR EACH ROW EXECUTE FUNCTION require_no_line_alone();

CREATE FUNCTION require_change_of_standing() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF (NEW.id, NEW.company_id, NEW.batch_id, NEW.key, NEW.digest, NEW.kind, NEW.reference, NEW.day, NEW.currency,
            NEW.narrative, NEW.line_count, NEW.recorded, NEW.reverses)
        IS DISTINCT FROM (OLD.id, OLD.company_id, OLD.batch_id, OLD.key, OLD.digest, OLD.kind, OLD.reference, OLD.day,
            OLD.currency, OLD.narrative, OLD.line_count, OLD.recorded, OLD.reverses)
        OR NOT (OLD.standing = 'draft' AND NEW.standing IN ('final', 'removed')
            OR OLD.standing = 'final' AND NEW.standing = 'reversed')
        OR (NEW.standing = 'removed') <> (NEW.removed IS NOT NULL) THEN
        RAISE EXCEPTION 'entry: what is recorded does not change';
    END IF;
    IF NEW.standing IN ('final', 'removed') AND NOT EXISTS (SELECT 1 FROM period p WHERE p.company_id = NEW.company_id
        AND p.is_open = 1 AND p.first_day <= NEW.day AND p.last_day >= NEW.day) THEN
        RAISE EXCEPTION 'entry: the period is not open';
    END IF;
    RETURN NEW;
END $$;

CREATE TRIGGER entry_changes_standing_only BEFORE UPDATE ON entry
    FOR EACH ROW EXECUTE FUNCTION require_change_of_standing();

CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION '%: what is recorded stays as it is', TG_TABLE_NAME;
END $$;

CREATE TRIGGER entry_stays BEFORE DELETE OR TRUNCATE ON entry FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER line_stays BEFORE UPDATE OR DELETE OR TRUNCATE ON entry_line
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER deed_stays BEFORE UPDATE OR DELETE OR TRUNCATE ON deed FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER account_stays BEFORE DELETE OR TRUNCATE ON account FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
