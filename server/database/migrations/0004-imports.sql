-- Imports are staged, then made visible by one change.

-- 'outside' is used from 0006 on; it stands here too, so that this step can be run again at any time.
ALTER TABLE question MODIFY sharing ENUM('school','named','private','staged','outside') NOT NULL DEFAULT 'school';
ALTER TABLE question ADD COLUMN IF NOT EXISTS import_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE question ADD INDEX IF NOT EXISTS question_import (import_id);

CREATE TABLE IF NOT EXISTS import_batch (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(200) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  state ENUM('staged','running','stopping','done','undone') NOT NULL,
  -- How many of those to be taken are there; grows while it runs.
  progress INT NOT NULL DEFAULT 0,
  total INT NOT NULL DEFAULT 0,
  touched_at DATETIME(3) NOT NULL,
  -- Items with their questions, as read from the file.
  body LONGTEXT NOT NULL,
  -- What undoes it, once it is done.
  result LONGTEXT NULL,
  KEY import_person (person_id, made_at),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- What files call a question, so that a second import finds the first.
CREATE TABLE IF NOT EXISTS question_outside (
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outside_id VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (school_id, outside_id),
  KEY question_outside_question (question_id),
  FOREIGN KEY (question_id) REFERENCES question (id)
) ENGINE=InnoDB;
