-- What several questions share: a passage, table, picture or sound, with its versions. And the language in which a student reads a paper.

CREATE TABLE IF NOT EXISTS stimulus (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  name VARCHAR(160) NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  -- What the file that it came from calls it.
  outside_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  UNIQUE KEY stimulus_outside (school_id, outside_id),
  KEY stimulus_name (school_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS stimulus_version (
  stimulus_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  body LONGTEXT NOT NULL,
  PRIMARY KEY (stimulus_id, version),
  FOREIGN KEY (stimulus_id) REFERENCES stimulus (id),
  FOREIGN KEY (made_by) REFERENCES person (id)
) ENGINE=InnoDB;

ALTER TABLE question ADD COLUMN IF NOT EXISTS stimulus_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE question ADD INDEX IF NOT EXISTS question_stimulus (stimulus_id);

ALTER TABLE attempt ADD COLUMN IF NOT EXISTS language VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL;
