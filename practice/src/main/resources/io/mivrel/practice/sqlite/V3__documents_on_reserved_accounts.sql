-- What is reserved for the receiver's own documents takes their lines, which name a party.
DROP TRIGGER entry_is_right;

CREATE TRIGGER entry_is_right BEFORE INSERT ON entry BEGIN
    SELECT CASE
        WHEN count(*) <> NEW.line_count THEN RAISE(ABORT, 'entry: a line or its account is missing')
        WHEN sum(l.minor) <> 0 THEN RAISE(ABORT, 'entry: it does not balance')
        WHEN sum(a.company_id <> NEW.company_id) > 0 THEN RAISE(ABORT, 'entry: an account of another company')
        WHEN sum(a.status = 'closed' OR a.status = 'reserved' AND l.party IS NULL) > 0 THEN RAISE(ABORT, 'entry: an account is not open')
        END
    FROM entry_line l JOIN account a ON a.id = l.account_id WHERE l.entry_id = NEW.id;
    SELECT RAISE(ABORT, 'entry: the period is not open')
    WHERE NOT EXISTS (SELECT 1 FROM period p WHERE p.company_id = NEW.company_id AND p.is_open = 1
        AND p.first_day <= NEW.day AND p.last_day >= NEW.day);
    SELECT RAISE(ABORT, 'entry: what it reverses is missing')
    WHERE NEW.reverses IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM entry WHERE id = NEW.reverses AND company_id = NEW.company_id);
END;
