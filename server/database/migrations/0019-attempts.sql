-- What each section of a paper earned and could earn: JSON of core's SectionScores, beside the whole score.
ALTER TABLE attempt ADD COLUMN IF NOT EXISTS section_scores LONGTEXT NULL;

-- What somebody has done with a quiz beside sitting it: from which "done" may follow.
CREATE TABLE IF NOT EXISTS quiz_notice (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  confirmed_at DATETIME(3) NULL,
  PRIMARY KEY (quiz_id, person_id),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;
