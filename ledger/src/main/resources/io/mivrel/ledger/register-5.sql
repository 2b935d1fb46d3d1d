-- Format 5: what was sent to ledgers. The table that was kept free for it was never used.
DROP TABLE batch;

CREATE TABLE ledger_batch (
    id BIGINT PRIMARY KEY,
    company TEXT NOT NULL,
    ledger TEXT NOT NULL,
    batch_key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    day TEXT NOT NULL,
    standing TEXT NOT NULL CHECK (standing IN ('draft', 'final')),
    mode TEXT NOT NULL,
    run TEXT NOT NULL,
    began TEXT NOT NULL,
    mark BIGINT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('open', 'ended', 'withdrawn'))
);

CREATE TABLE ledger_document (
    id BIGINT PRIMARY KEY,
    batch_id BIGINT NOT NULL REFERENCES ledger_batch (id),
    document_key TEXT NOT NULL,
    digest TEXT NOT NULL,
    kind TEXT NOT NULL,
    reference TEXT NOT NULL,
    day TEXT NOT NULL,
    amount BIGINT NOT NULL,
    currency TEXT NOT NULL,
    source_file TEXT NOT NULL,
    source_row BIGINT NOT NULL,
    state TEXT NOT NULL
        CHECK (state IN ('intended', 'posted', 'refused', 'differs', 'waiting', 'withdrawn')),
    result TEXT,
    ledger_number TEXT,
    code TEXT,
    words TEXT
);

CREATE INDEX ledger_document_by_key ON ledger_document (document_key);
CREATE UNIQUE INDEX ledger_document_of_batch ON ledger_document (batch_id, document_key);
CREATE INDEX ledger_document_open ON ledger_document (state) WHERE state IN ('intended', 'waiting');

-- The entries as they were about to be sent, packed, with those that they were to replace.
CREATE TABLE ledger_parcel (
    batch_id BIGINT NOT NULL REFERENCES ledger_batch (id),
    place BIGINT NOT NULL,
    content BYTEA NOT NULL,
    PRIMARY KEY (batch_id, place)
);

CREATE TABLE ledger_balance (
    batch_id BIGINT NOT NULL REFERENCES ledger_batch (id),
    account TEXT NOT NULL,
    currency TEXT NOT NULL,
    posted BIGINT NOT NULL,
    drafts BIGINT NOT NULL,
    PRIMARY KEY (batch_id, account, currency)
);

CREATE TABLE ledger_effect (
    batch_id BIGINT NOT NULL REFERENCES ledger_batch (id),
    account TEXT NOT NULL,
    currency TEXT NOT NULL,
    debit BIGINT NOT NULL,
    credit BIGINT NOT NULL,
    lines BIGINT NOT NULL,
    PRIMARY KEY (batch_id, account, currency)
);

CREATE TABLE ledger_closing (
    batch_id BIGINT NOT NULL REFERENCES ledger_batch (id),
    place BIGINT NOT NULL,
    account TEXT NOT NULL,
    first_day TEXT NOT NULL,
    day TEXT NOT NULL,
    opening BIGINT NOT NULL,
    balance BIGINT NOT NULL,
    currency TEXT NOT NULL,
    source_file TEXT NOT NULL,
    PRIMARY KEY (batch_id, place)
);

UPDATE register_format SET format = 5;
