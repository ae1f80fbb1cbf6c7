-- What the papers of a quiz are drawn from, from its first rehearsal on: editions make theirs of it, so that a rehearsal
-- shows the papers that students get.
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS draw_secret CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL;
