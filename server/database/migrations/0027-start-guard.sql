-- Who starts writes one of the rows of the quiz and one of the school; who changes rules, state or roster writes them all.
-- So a start and such a change never pass each other unseen, on one server or on a cluster (docs/decisions.md).
CREATE TABLE IF NOT EXISTS start_guard (
  owner_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  slot TINYINT UNSIGNED NOT NULL,
  turn INT UNSIGNED NOT NULL DEFAULT 0,
  PRIMARY KEY (owner_id, slot)
) ENGINE=InnoDB;
INSERT IGNORE INTO start_guard (owner_id, slot) SELECT q.id, s.seq FROM quiz q JOIN seq_0_to_15 s WHERE q.state <> 'draft';
INSERT IGNORE INTO start_guard (owner_id, slot) SELECT o.id, s.seq FROM school o JOIN seq_0_to_15 s;

-- The revision of the rules on which the start of an attempt was decided; NULL for older ones.
ALTER TABLE attempt ADD COLUMN IF NOT EXISTS begun_on INT NULL;
