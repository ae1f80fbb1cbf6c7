-- What an answer was helped with while its paper was sat: checks and hints, and whether it is closed by them.
ALTER TABLE answer ADD COLUMN IF NOT EXISTS checks SMALLINT UNSIGNED NOT NULL DEFAULT 0;
ALTER TABLE answer ADD COLUMN IF NOT EXISTS hints SMALLINT UNSIGNED NOT NULL DEFAULT 0;
ALTER TABLE answer ADD COLUMN IF NOT EXISTS settled TINYINT NOT NULL DEFAULT 0;

CREATE TABLE IF NOT EXISTS answer_check (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  number SMALLINT UNSIGNED NOT NULL,
  response LONGTEXT NOT NULL,
  -- Exact share of the points, "n/d".
  fraction VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  checked_at DATETIME(3) NOT NULL,
  PRIMARY KEY (attempt_id, item, number),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;
