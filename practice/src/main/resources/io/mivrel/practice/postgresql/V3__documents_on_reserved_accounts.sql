-- What is reserved for the receiver's own documents takes their lines, which name a party.
CREATE OR REPLACE FUNCTION require_right_entries() RETURNS trigger LANGUAGE plpgsql SET enable_nestloop = off AS $$
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
            max(a.company_id) AS companies, bool_and(a.status = 'open' OR a.status = 'reserved' AND l.party IS NOT NULL) AS is_open
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
