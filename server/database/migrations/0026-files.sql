-- What a CASE package says of an objective beside: other associations and fields, so that it goes out as it came.
ALTER TABLE objective ADD COLUMN IF NOT EXISTS kept LONGTEXT NULL;
-- Staged files that nobody has taken are cleared after a day: found by when they were touched.
ALTER TABLE import_batch ADD INDEX IF NOT EXISTS import_batch_touched (state, touched_at);
