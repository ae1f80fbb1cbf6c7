-- Lists read what is theirs alone.

-- Grows whenever somebody enters or leaves a class, or what they need changes: what was worked out of everybody in the
-- school holds as long as it stays.
ALTER TABLE school ADD COLUMN IF NOT EXISTS roster INT NOT NULL DEFAULT 0;
ALTER TABLE attempt ADD INDEX IF NOT EXISTS attempt_open (quiz_id, state, hard_stop);
ALTER TABLE import_batch ADD INDEX IF NOT EXISTS import_state (state, touched_at);
