-- Groups and single students for whom quizzes are meant, beside classes: looked up by what students see.
CREATE TABLE IF NOT EXISTS quiz_group (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  group_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (quiz_id, group_id),
  KEY quiz_group_group (group_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (group_id) REFERENCES class_group (id) ON DELETE CASCADE
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS quiz_student (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (quiz_id, person_id),
  KEY quiz_student_person (person_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- A break of a sitting, which stops its clock. It is over when the student ends it, or at `until`, when there is none left.
-- The limits are those that the sitting had when it began.
CREATE TABLE IF NOT EXISTS attempt_break (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  number SMALLINT UNSIGNED NOT NULL,
  began_at DATETIME(3) NOT NULL,
  until DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  deadline DATETIME(3) NOT NULL,
  on_time_until DATETIME(3) NOT NULL,
  hard_stop DATETIME(3) NOT NULL,
  PRIMARY KEY (attempt_id, number),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;
