-- What was told somebody of a quiz: each is told once, whoever sends it. Of times it is how they stood.
CREATE TABLE IF NOT EXISTS told (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  about VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  value TEXT NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (quiz_id, person_id, name, about),
  KEY told_person (person_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- When letters of a quiz are looked for next, and of what it was looked at last (its revision, its school's roster).
CREATE TABLE IF NOT EXISTS quiz_told (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  stamp VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  next_at DATETIME(3) NOT NULL,
  KEY quiz_told_next (next_at),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id)
) ENGINE=InnoDB;

-- Whether reminders are wanted, and the word in the address at which they are called off.
ALTER TABLE person ADD COLUMN IF NOT EXISTS reminders TINYINT NOT NULL DEFAULT 1;
ALTER TABLE person ADD COLUMN IF NOT EXISTS reminder_word VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE person ADD UNIQUE KEY IF NOT EXISTS person_reminder_word (reminder_word);
-- Where its people reach Thistle, as the teacher did who opened a quiz last.
ALTER TABLE school ADD COLUMN IF NOT EXISTS site VARCHAR(200) NOT NULL DEFAULT '';
