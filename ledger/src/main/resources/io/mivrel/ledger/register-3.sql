-- Format 3 of the register. One statement ends with each semicolon. The types mean the same to SQLite and to PostgreSQL.
-- docs/register.md tells what each column holds.
CREATE TABLE register_format (format BIGINT NOT NULL);

CREATE TABLE run (
    id BIGINT PRIMARY KEY,
    company TEXT NOT NULL,
    name TEXT NOT NULL,
    began TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('prepared', 'published')),
    kind TEXT NOT NULL,
    documents BIGINT NOT NULL,
    checksum BIGINT NOT NULL,
    staged_evidence TEXT,
    evidence TEXT
);

CREATE TABLE delivery (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    name TEXT NOT NULL,
    PRIMARY KEY (run_id, place)
);

CREATE TABLE delivered_file (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    delivery TEXT NOT NULL,
    sheet TEXT NOT NULL,
    part BIGINT NOT NULL,
    hidden TEXT NOT NULL,
    name TEXT NOT NULL,
    bytes BIGINT NOT NULL,
    digest TEXT NOT NULL,
    documents BIGINT NOT NULL,
    sheet_rows BIGINT NOT NULL,
    plus BIGINT NOT NULL,
    minus BIGINT NOT NULL,
    currency TEXT NOT NULL,
    PRIMARY KEY (run_id, place)
);

CREATE TABLE document (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    kind TEXT NOT NULL,
    account TEXT NOT NULL,
    reference TEXT NOT NULL,
    day TEXT NOT NULL,
    amount BIGINT NOT NULL,
    currency TEXT NOT NULL,
    identity BIGINT NOT NULL,
    content BIGINT NOT NULL,
    told_by TEXT NOT NULL,
    source_file TEXT NOT NULL,
    source_row BIGINT NOT NULL,
    deliveries BIGINT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('intended', 'delivered', 'posted', 'refused', 'withdrawn')),
    PRIMARY KEY (run_id, place)
);

CREATE INDEX document_by_reference ON document (reference);

CREATE TABLE document_pack (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    kind TEXT NOT NULL,
    account TEXT NOT NULL,
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL,
    currency TEXT NOT NULL,
    source_file TEXT NOT NULL,
    source_ordinal BIGINT NOT NULL,
    deliveries BIGINT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('intended', 'delivered', 'posted', 'refused', 'withdrawn')),
    documents BIGINT NOT NULL,
    checksum BIGINT NOT NULL,
    content BYTEA NOT NULL,
    PRIMARY KEY (run_id, place)
);

CREATE TABLE account_days (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    account TEXT NOT NULL,
    source_file TEXT NOT NULL,
    told_by TEXT NOT NULL,
    first_day TEXT NOT NULL,
    last_day TEXT NOT NULL,
    closing BIGINT,
    currency TEXT NOT NULL,
    PRIMARY KEY (run_id, place)
);

CREATE TABLE batch (
    id BIGINT PRIMARY KEY,
    run_id BIGINT NOT NULL REFERENCES run (id),
    ledger TEXT NOT NULL,
    name TEXT NOT NULL,
    day TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('intended', 'posted', 'refused', 'withdrawn'))
);

INSERT INTO register_format VALUES (3);
