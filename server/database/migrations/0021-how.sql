-- When a sitting was last heard of, where it is sat in one go; NULL lets its student in again.
ALTER TABLE attempt ADD COLUMN IF NOT EXISTS seen_at DATETIME(3) NULL;

-- That a student left the page of a supervised sitting: a fact, never a verdict. The token is the page's own, so that what is sent twice is once.
CREATE TABLE IF NOT EXISTS attempt_away (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  left_at DATETIME(3) NOT NULL,
  seconds INT UNSIGNED NOT NULL,
  PRIMARY KEY (attempt_id, token),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- A student's own notes and highlights on a question of a paper: theirs alone.
CREATE TABLE IF NOT EXISTS attempt_note (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note TEXT NOT NULL,
  -- JSON: stretches of the question's text, [from, to].
  marks LONGTEXT NOT NULL,
  PRIMARY KEY (attempt_id, item),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;
