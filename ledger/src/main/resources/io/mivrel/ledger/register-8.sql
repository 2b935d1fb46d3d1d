-- Format 8: that a document is only intended stands with its run, which is 'prepared' until its files have their names. So
-- publishing a run changes one row, and not each of its documents.
UPDATE document SET state = 'delivered' WHERE state = 'intended';
UPDATE document_pack SET state = 'delivered' WHERE state = 'intended';

UPDATE register_format SET format = 8;
