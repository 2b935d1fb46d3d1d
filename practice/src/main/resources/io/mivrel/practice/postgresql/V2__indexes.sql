-- Entries stand in the order in which they were recorded, so that a mark for each stretch of them is enough.
DROP INDEX entry_by_batch;
DROP INDEX entry_by_recorded;
CREATE INDEX entry_by_batch ON entry USING brin (batch_id);
CREATE INDEX entry_by_recorded ON entry USING brin (recorded);
