-- Format 6: runs whose deliveries were taken back. Their documents are 'withdrawn', and go out again.
CREATE TABLE taken_back (
    run_id BIGINT PRIMARY KEY REFERENCES run (id),
    day TEXT NOT NULL,
    who TEXT NOT NULL,
    why TEXT NOT NULL
);

UPDATE register_format SET format = 6;
