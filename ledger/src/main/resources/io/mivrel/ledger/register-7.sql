-- Format 7: one index finds a document by its key, in any batch or in one. Keys come in no order, so that each such
-- index is written all over.
DROP INDEX ledger_document_by_key;
DROP INDEX ledger_document_of_batch;
CREATE UNIQUE INDEX ledger_document_by_key ON ledger_document (document_key, batch_id);
CREATE INDEX ledger_document_of_batch ON ledger_document (batch_id);

UPDATE register_format SET format = 7;
