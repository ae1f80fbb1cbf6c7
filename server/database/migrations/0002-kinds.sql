-- What further kinds of questions need: marks that people give (NULL while somebody has to decide), recordings.

ALTER TABLE mark MODIFY fraction VARCHAR(80) CHARACTER SET ascii NULL;
ALTER TABLE mark MODIFY fraction_rounded DECIMAL(7,4) NULL;
ALTER TABLE mark MODIFY points VARCHAR(80) CHARACTER SET ascii NULL;

CREATE TABLE IF NOT EXISTS hand_mark (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  -- Exact share of the points, "n/d".
  fraction VARCHAR(80) CHARACTER SET ascii NOT NULL,
  -- For the student: shown with the comments.
  comment TEXT NOT NULL,
  given_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  given_at DATETIME(3) NOT NULL,
  PRIMARY KEY (attempt_id, item),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- A student's recording is theirs and their teachers' alone.
ALTER TABLE media ADD COLUMN IF NOT EXISTS own TINYINT NOT NULL DEFAULT 0;
