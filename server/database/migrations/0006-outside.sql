-- Banks that somebody else keeps: what a school has been granted, what it took out of them, faults it has reported.

CREATE TABLE IF NOT EXISTS outside_bank (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  -- Its name at the keeper.
  bank VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(160) NOT NULL,
  asked_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  asked_at DATETIME(3) NOT NULL,
  -- NULL until the keeper has granted it.
  granted_until DATETIME(3) NULL,
  synced_at DATETIME(3) NULL,
  UNIQUE KEY outside_bank_once (school_id, bank),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (asked_by) REFERENCES person (id)
) ENGINE=InnoDB;

-- What a granted bank holds stands among the school's questions, to be found by the same search; nobody here changes it.
ALTER TABLE question MODIFY sharing ENUM('school','named','private','staged','outside') NOT NULL DEFAULT 'school';
ALTER TABLE question ADD COLUMN IF NOT EXISTS origin_bank VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE question ADD COLUMN IF NOT EXISTS origin_item VARCHAR(80) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
-- How many schools have chosen it.
ALTER TABLE question ADD COLUMN IF NOT EXISTS chosen INT NOT NULL DEFAULT 0;
ALTER TABLE question ADD UNIQUE INDEX IF NOT EXISTS question_origin_item (origin_bank, origin_item);

-- A school's own copy of an outside question, and the version that it is a copy of.
CREATE TABLE IF NOT EXISTS question_copy (
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  of_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  of_version INT NOT NULL,
  UNIQUE KEY question_copy_once (of_id),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (of_id) REFERENCES question (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS outside_fault (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  said_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  said_at DATETIME(3) NOT NULL,
  words TEXT NOT NULL,
  KEY outside_fault_question (question_id, said_at),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (said_by) REFERENCES person (id)
) ENGINE=InnoDB;

-- The stand-in for a keeper: what it remembers. A real keeper has this in its own house.
CREATE TABLE IF NOT EXISTS standin_keeper_grant (
  bank VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  school VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  asked_at DATETIME(3) NOT NULL,
  PRIMARY KEY (bank, school)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS standin_keeper_choice (
  bank VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  school VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (bank, item, school)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS standin_keeper_fault (
  bank VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  school VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  said_at DATETIME(3) NOT NULL,
  words TEXT NOT NULL,
  KEY standin_keeper_fault_item (bank, item)
) ENGINE=InnoDB;
