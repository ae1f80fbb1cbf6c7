-- What guessing earns on a question, as figures of a quiz need it: taken from its newest version, as its title is.

ALTER TABLE question ADD COLUMN IF NOT EXISTS guessing LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL;

-- Judges' ratings for a pass mark: the chance that a student who only just deserves to pass gets a question right.

CREATE TABLE IF NOT EXISTS quiz_rating (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  chance DECIMAL(4, 3) NOT NULL,
  rated_at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, person_id, question_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- What takes an edit back: for looking at earlier states. Edits of earlier releases have none.

ALTER TABLE quiz_edit ADD COLUMN IF NOT EXISTS inverse LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin DEFAULT NULL;

-- A check that a teacher has set aside, with the reason.

CREATE TABLE IF NOT EXISTS quiz_aside (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  code VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  reason VARCHAR(400) NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, code),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Who is in a quiz just now, on which row: a line a page, which goes when it is not renewed.

CREATE TABLE IF NOT EXISTS quiz_presence (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  page VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  row_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin DEFAULT NULL,
  seen_at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, page),
  KEY quiz_presence_seen (seen_at),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Blueprints that are kept.

CREATE TABLE IF NOT EXISTS blueprint (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  title VARCHAR(160) NOT NULL,
  shared TINYINT NOT NULL DEFAULT 0,
  body LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  PRIMARY KEY (id),
  KEY blueprint_school (school_id, changed_at),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (owner_id) REFERENCES person (id)
) ENGINE=InnoDB;
