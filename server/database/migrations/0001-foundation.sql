-- The tables of the thinnest path. Ids are random text made by the server: nothing relies on the order of
-- AUTO_INCREMENT. Every statement can be run again.

CREATE TABLE IF NOT EXISTS school (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  name VARCHAR(160) NOT NULL,
  zone VARCHAR(60) NOT NULL,
  demo TINYINT NOT NULL DEFAULT 0
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS person (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  role ENUM('teacher','student') NOT NULL,
  name VARCHAR(160) NOT NULL,
  email VARCHAR(190) NOT NULL,
  password_hash VARCHAR(400) NOT NULL,
  -- JSON of core's accommodation, or NULL for none.
  accommodation LONGTEXT NULL,
  UNIQUE KEY person_email (email),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS class (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(160) NOT NULL,
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS class_teacher (
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (class_id, person_id),
  KEY class_teacher_person (person_id),
  FOREIGN KEY (class_id) REFERENCES class (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS enrolment (
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (class_id, person_id),
  KEY enrolment_person (person_id),
  FOREIGN KEY (class_id) REFERENCES class (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS objective (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  parent_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  code VARCHAR(20) NOT NULL,
  title VARCHAR(200) NOT NULL,
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (parent_id) REFERENCES objective (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS question (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  state ENUM('work','usable','retired') NOT NULL,
  version INT NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  -- What lists show and filters ask, taken from the newest version.
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  title VARCHAR(400) NOT NULL,
  internal_name VARCHAR(160) NOT NULL,
  key_text VARCHAR(400) NOT NULL,
  points DECIMAL(7,2) NOT NULL,
  seconds INT NOT NULL,
  difficulty TINYINT NOT NULL,
  KEY question_list (school_id, state, changed_at),
  KEY question_kind (school_id, kind),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (owner_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS question_version (
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  body LONGTEXT NOT NULL,
  PRIMARY KEY (question_id, version),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (made_by) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS question_objective (
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  objective_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  PRIMARY KEY (question_id, objective_id),
  KEY question_objective_other (objective_id, question_id),
  FOREIGN KEY (question_id) REFERENCES question (id),
  FOREIGN KEY (objective_id) REFERENCES objective (id)
) ENGINE=InnoDB;

-- Words of stems, options, keys, names and tags: built-in full text drops words under three letters, and "HW" matters.
CREATE TABLE IF NOT EXISTS question_word (
  word VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci NOT NULL,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (word, question_id),
  KEY question_word_question (question_id),
  FOREIGN KEY (question_id) REFERENCES question (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS media (
  id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  type VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  bytes LONGBLOB NOT NULL,
  added_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  added_at DATETIME(3) NOT NULL,
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  title VARCHAR(160) NOT NULL,
  state ENUM('draft','published','withdrawn','filed') NOT NULL,
  revision INT NOT NULL,
  body LONGTEXT NOT NULL,
  edition_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  -- The revision that the newest edition froze.
  edition_revision INT NULL,
  changed_at DATETIME(3) NOT NULL,
  KEY quiz_list (school_id, changed_at),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (owner_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz_teacher (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (quiz_id, person_id),
  KEY quiz_teacher_person (person_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz_edit (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  revision INT NOT NULL,
  -- Made by the page, once an edit: a save that is sent again is the same save.
  token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  body LONGTEXT NOT NULL,
  PRIMARY KEY (quiz_id, revision),
  UNIQUE KEY quiz_edit_token (quiz_id, token),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz_class (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (quiz_id, class_id),
  KEY quiz_class_class (class_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (class_id) REFERENCES class (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz_question (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (quiz_id, question_id),
  KEY quiz_question_question (question_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (question_id) REFERENCES question (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS edition (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  number INT NOT NULL,
  body LONGTEXT NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY edition_number (quiz_id, number),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS rules_version (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  body LONGTEXT NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, version),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id)
) ENGINE=InnoDB;

-- "When the teacher releases it", per class.
CREATE TABLE IF NOT EXISTS released (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, class_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (class_id) REFERENCES class (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS attempt (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  edition_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  student_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  number INT NOT NULL,
  window_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  state ENUM('open','handed','unsent') NOT NULL,
  started_at DATETIME(3) NOT NULL,
  -- 9999-12-31 stands for never.
  deadline DATETIME(3) NOT NULL,
  on_time_until DATETIME(3) NOT NULL,
  hard_stop DATETIME(3) NOT NULL,
  handed_in_at DATETIME(3) NULL,
  ended_by ENUM('student','clock','teacher') NULL,
  lease INT NOT NULL,
  device VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  page INT NOT NULL DEFAULT 0,
  touched INT NOT NULL DEFAULT 0,
  paper LONGTEXT NOT NULL,
  score VARCHAR(80) CHARACTER SET ascii NULL,
  score_rounded DECIMAL(10,3) NULL,
  possible VARCHAR(80) CHARACTER SET ascii NULL,
  marked_at DATETIME(3) NULL,
  days_late INT NOT NULL DEFAULT 0,
  minutes_over INT NOT NULL DEFAULT 0,
  UNIQUE KEY attempt_number (quiz_id, student_id, number),
  KEY attempt_student (student_id, quiz_id),
  KEY attempt_sweep (state, hard_stop),
  KEY attempt_unmarked (state, marked_at),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (edition_id) REFERENCES edition (id),
  FOREIGN KEY (student_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS answer (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  page INT NOT NULL,
  response LONGTEXT NULL,
  flagged TINYINT NOT NULL DEFAULT 0,
  lease INT NOT NULL DEFAULT 0,
  seq INT NOT NULL DEFAULT 0,
  kept_at DATETIME(3) NULL,
  PRIMARY KEY (attempt_id, item),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- What arrived too late or from an older lease: for the teacher to see, never dropped.
CREATE TABLE IF NOT EXISTS answer_aside (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  response LONGTEXT NULL,
  lease INT NOT NULL,
  seq INT NOT NULL,
  arrived_at DATETIME(3) NOT NULL,
  reason VARCHAR(20) CHARACTER SET ascii NOT NULL,
  UNIQUE KEY answer_aside_once (attempt_id, item, lease, seq),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS mark (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  question_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  answered TINYINT NOT NULL,
  fraction VARCHAR(80) CHARACTER SET ascii NOT NULL,
  fraction_rounded DECIMAL(7,4) NOT NULL,
  points VARCHAR(80) CHARACTER SET ascii NOT NULL,
  possible VARCHAR(80) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (attempt_id, item),
  KEY mark_question (question_id, fraction_rounded),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- First viewings of a facet: who has seen the key already.
CREATE TABLE IF NOT EXISTS viewed (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  facet VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (attempt_id, facet),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- Append-only: who, when, what, why, of everything that matters to a grade.
CREATE TABLE IF NOT EXISTS record (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  at DATETIME(3) NOT NULL,
  who VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  what VARCHAR(60) NOT NULL,
  subject VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  detail LONGTEXT NOT NULL,
  KEY record_subject (subject, at)
) ENGINE=InnoDB;

-- Failed tries at passwords, counted for every process alike.
CREATE TABLE IF NOT EXISTS failed_try (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  subject VARCHAR(190) NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY failed_try_subject (subject, at)
) ENGINE=InnoDB;
