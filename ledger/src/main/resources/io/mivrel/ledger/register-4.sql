-- Format 4: what a document says, whatever it is called and dated, so that one entered twice is found.
ALTER TABLE document ADD COLUMN figures BIGINT NOT NULL DEFAULT 0;

UPDATE register_format SET format = 4;
