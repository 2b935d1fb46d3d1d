-- Format 10: what tells which packs may hold a document with a name, so that only those are read. A pack written before is in
-- no such row, and is read at once.
CREATE TABLE document_pack_keys (
    run_id BIGINT NOT NULL REFERENCES run (id),
    place BIGINT NOT NULL,
    packs BIGINT NOT NULL,
    checksum BIGINT NOT NULL,
    keys BYTEA NOT NULL,
    PRIMARY KEY (run_id, place)
);
UPDATE register_format SET format = 10;
