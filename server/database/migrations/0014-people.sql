-- People of a school: who runs it, who has left, what a roster knows them by. Not everybody has an address.
ALTER TABLE person ADD COLUMN IF NOT EXISTS admin TINYINT NOT NULL DEFAULT 0;
ALTER TABLE person ADD COLUMN IF NOT EXISTS state ENUM('here','left') NOT NULL DEFAULT 'here';
ALTER TABLE person ADD COLUMN IF NOT EXISTS outside_id VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
-- Why they need what they need: for the teachers of their classes alone.
ALTER TABLE person ADD COLUMN IF NOT EXISTS need_reason VARCHAR(1000) NOT NULL DEFAULT '';
ALTER TABLE person MODIFY COLUMN email VARCHAR(190) NULL;
ALTER TABLE person ADD UNIQUE KEY IF NOT EXISTS person_outside (school_id, outside_id);

CREATE TABLE IF NOT EXISTS term (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  -- Days of the school's calendar, both included: "2026-09-01".
  starts CHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ends CHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outside_id VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  UNIQUE KEY term_name (school_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

ALTER TABLE class ADD COLUMN IF NOT EXISTS term_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE class ADD COLUMN IF NOT EXISTS touched INT NOT NULL DEFAULT 0;
ALTER TABLE class ADD COLUMN IF NOT EXISTS filed TINYINT NOT NULL DEFAULT 0;
ALTER TABLE class ADD COLUMN IF NOT EXISTS outside_id VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;
-- Who types it joins the class; null where nobody can.
ALTER TABLE class ADD COLUMN IF NOT EXISTS join_code VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE class ADD COLUMN IF NOT EXISTS join_until DATETIME(3) NULL;
ALTER TABLE class ADD UNIQUE KEY IF NOT EXISTS class_code (join_code);
ALTER TABLE class ADD UNIQUE KEY IF NOT EXISTS class_outside (school_id, outside_id);
ALTER TABLE class ADD KEY IF NOT EXISTS class_term (term_id);

-- "help": sees the register, changes nothing of who is in it.
ALTER TABLE class_teacher ADD COLUMN IF NOT EXISTS may ENUM('teach','help') NOT NULL DEFAULT 'teach';

ALTER TABLE enrolment ADD COLUMN IF NOT EXISTS since DATETIME(3) NULL;

-- Who was in a class and is no more: their papers stay theirs, and they can come back.
CREATE TABLE IF NOT EXISTS left_class (
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  since DATETIME(3) NULL,
  left_at DATETIME(3) NOT NULL,
  by_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  PRIMARY KEY (class_id, person_id),
  KEY left_class_person (person_id),
  FOREIGN KEY (class_id) REFERENCES class (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS class_group (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  -- JSON of core's accommodation, or NULL for none.
  accommodation LONGTEXT NULL,
  UNIQUE KEY class_group_name (class_id, name),
  FOREIGN KEY (class_id) REFERENCES class (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS class_group_member (
  group_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (group_id, person_id),
  KEY class_group_member_person (person_id),
  FOREIGN KEY (group_id) REFERENCES class_group (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- A link that is used once: it sets a password. Only its digest is kept.
CREATE TABLE IF NOT EXISTS pass (
  token CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  made_at DATETIME(3) NOT NULL,
  until DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  KEY pass_person (person_id),
  KEY pass_until (until),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Mail that goes out: written with what caused it, sent once.
CREATE TABLE IF NOT EXISTS mail (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  to_address VARCHAR(190) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  body TEXT NOT NULL,
  written_at DATETIME(3) NOT NULL,
  -- When it is tried next; null once it is sent or given up.
  due_at DATETIME(3) NULL,
  sent_at DATETIME(3) NULL,
  tries INT NOT NULL DEFAULT 0,
  fault VARCHAR(400) NOT NULL DEFAULT '',
  KEY mail_due (due_at),
  KEY mail_school (school_id, written_at),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

-- A roster that was taken in, with what undoes it.
CREATE TABLE IF NOT EXISTS roster_taken (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  by_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  name VARCHAR(200) NOT NULL,
  -- JSON: what was added, changed and taken out.
  body LONGTEXT NOT NULL,
  undone_at DATETIME(3) NULL,
  KEY roster_taken_school (school_id, at),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

-- The demo's first teacher runs its school.
UPDATE person p JOIN school s ON s.id = p.school_id AND s.demo <> 0 SET p.admin = 1 WHERE p.id = 'p-maren';

-- Who was made nameless, with what they were called: until it is forgotten it can be taken back.
CREATE TABLE IF NOT EXISTS nameless (
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  by_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  until DATETIME(3) NOT NULL,
  -- JSON of what was taken away.
  body LONGTEXT NOT NULL,
  KEY nameless_until (until),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;
