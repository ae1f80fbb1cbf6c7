-- The bank for years: folders, tags, sharing, remarks, saved searches, the school's own schemes and fields, stimuli.

CREATE TABLE IF NOT EXISTS folder (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  parent_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  name VARCHAR(120) NOT NULL,
  KEY folder_school (school_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (parent_id) REFERENCES folder (id)
) ENGINE=InnoDB;

ALTER TABLE question ADD COLUMN IF NOT EXISTS folder_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE question ADD COLUMN IF NOT EXISTS language VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'en';
-- Who may see it: everybody of the school, those named in question_share, or its owner alone.
ALTER TABLE question ADD COLUMN IF NOT EXISTS sharing ENUM('school','named','private') NOT NULL DEFAULT 'school';
-- Digest of the stem without numbers, spacing and case: near-duplicates have the same.
ALTER TABLE question ADD COLUMN IF NOT EXISTS near_key CHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '';
-- Colleagues who say that something is wrong, not answered yet.
ALTER TABLE question ADD COLUMN IF NOT EXISTS doubts INT NOT NULL DEFAULT 0;
-- When a quiz that holds it was last opened.
ALTER TABLE question ADD COLUMN IF NOT EXISTS last_used_at DATETIME(3) NULL;
ALTER TABLE question ADD COLUMN IF NOT EXISTS source VARCHAR(200) NOT NULL DEFAULT '';
ALTER TABLE question ADD INDEX IF NOT EXISTS question_recent (school_id, changed_at, id);
ALTER TABLE question ADD INDEX IF NOT EXISTS question_folder (folder_id);
ALTER TABLE question ADD INDEX IF NOT EXISTS question_near (school_id, near_key);
ALTER TABLE question ADD INDEX IF NOT EXISTS question_kind_difficulty (school_id, kind, difficulty);
ALTER TABLE question ADD INDEX IF NOT EXISTS question_difficulty (school_id, difficulty);
-- Objectives and tags once more beside the question, so that a search can count them without further joins: JSON {o, t}.
ALTER TABLE question ADD COLUMN IF NOT EXISTS facets TEXT NOT NULL DEFAULT '{"o":[],"t":[]}';

CREATE TABLE IF NOT EXISTS question_tag (
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  tag VARCHAR(40) NOT NULL,
  PRIMARY KEY (question_id, tag),
  KEY question_tag_tag (tag, question_id),
  FOREIGN KEY (question_id) REFERENCES question (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS question_share (
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  may ENUM('read','write') NOT NULL,
  PRIMARY KEY (question_id, person_id),
  KEY question_share_person (person_id),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Remarks between colleagues; a doubt says that something is wrong, until it is answered.
CREATE TABLE IF NOT EXISTS question_remark (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  said_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  said_at DATETIME(3) NOT NULL,
  words TEXT NOT NULL,
  doubt TINYINT NOT NULL,
  answered_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  answered_at DATETIME(3) NULL,
  KEY question_remark_question (question_id, said_at),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (said_by) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS saved_search (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  body LONGTEXT NOT NULL,
  UNIQUE KEY saved_search_name (person_id, name),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- What undoes a change of many questions at once.
CREATE TABLE IF NOT EXISTS bulk_change (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  -- The questions as they stood before: id, version after the change, and what was changed.
  body LONGTEXT NOT NULL,
  undone_at DATETIME(3) NULL,
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

ALTER TABLE objective ADD COLUMN IF NOT EXISTS essential TINYINT NOT NULL DEFAULT 0;
-- The identifier that an objective brought along from outside (CASE).
ALTER TABLE objective ADD COLUMN IF NOT EXISTS outside_id VARCHAR(80) CHARACTER SET ascii NULL;
ALTER TABLE objective ADD UNIQUE INDEX IF NOT EXISTS objective_outside (school_id, outside_id);

CREATE TABLE IF NOT EXISTS objective_need (
  objective_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  needs_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (objective_id, needs_id),
  FOREIGN KEY (objective_id) REFERENCES objective (id),
  FOREIGN KEY (needs_id) REFERENCES objective (id)
) ENGINE=InnoDB;

-- Kind and difficulty stand in every entry, so that an entry and these filters are read in one place.
ALTER TABLE question_word ADD COLUMN IF NOT EXISTS kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '';
ALTER TABLE question_word ADD COLUMN IF NOT EXISTS difficulty TINYINT NOT NULL DEFAULT 0;
