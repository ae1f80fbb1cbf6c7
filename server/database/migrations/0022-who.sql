-- The audience of a quiz's link is a class that is in no list of classes: whoever comes by the link stands in it.
ALTER TABLE class ADD COLUMN IF NOT EXISTS link_of VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
-- Since when all quizzes of a class are held back.
ALTER TABLE class ADD COLUMN IF NOT EXISTS held_at DATETIME(3) NULL;
-- Somebody who came by a link without signing in: they are in no list of people.
ALTER TABLE person ADD COLUMN IF NOT EXISTS guest TINYINT NOT NULL DEFAULT 0;

CREATE TABLE IF NOT EXISTS quiz_link (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  UNIQUE KEY quiz_link_token (token),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (class_id) REFERENCES class (id)
) ENGINE=InnoDB;

-- What people who came by a link wrote of themselves: JSON of values by the fields' ids.
CREATE TABLE IF NOT EXISTS link_entry (
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  entries LONGTEXT NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (class_id, person_id),
  FOREIGN KEY (class_id) REFERENCES class (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Digests of entries with which nobody comes in twice.
CREATE TABLE IF NOT EXISTS link_unique (
  class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  field_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  digest CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (class_id, field_id, digest),
  FOREIGN KEY (class_id) REFERENCES class (id)
) ENGINE=InnoDB;

-- Whoever begins a quiz of which only so many may sit writes here first: they come one after another, on all nodes.
CREATE TABLE IF NOT EXISTS quiz_turn (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  turn INT UNSIGNED NOT NULL,
  FOREIGN KEY (quiz_id) REFERENCES quiz (id)
) ENGINE=InnoDB;
