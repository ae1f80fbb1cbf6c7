-- Two languages may be read together.
ALTER TABLE attempt MODIFY COLUMN language VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;

-- Quizzes are kept like questions: described, in a term, tagged, in the folders of the bank; shared with the school.
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS description VARCHAR(2000) NOT NULL DEFAULT '';
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS term VARCHAR(60) NOT NULL DEFAULT '';
-- JSON: a list of words.
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS tags VARCHAR(2000) NOT NULL DEFAULT '[]';
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS folder_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS sharing ENUM('named','school') NOT NULL DEFAULT 'named';
ALTER TABLE quiz ADD KEY IF NOT EXISTS quiz_folder (folder_id);

-- A colleague may look at a quiz and copy it, or work in it.
ALTER TABLE quiz_teacher ADD COLUMN IF NOT EXISTS may ENUM('read','write') NOT NULL DEFAULT 'write';

-- A section's own clock. Answers of a section that has not been entered are taken never, of one that has until it stops.
ALTER TABLE answer ADD COLUMN IF NOT EXISTS stops_at DATETIME(3) NOT NULL DEFAULT '9999-12-31 00:00:00.000';

CREATE TABLE IF NOT EXISTS attempt_section (
  attempt_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  section_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  entered_at DATETIME(3) NOT NULL,
  deadline DATETIME(3) NOT NULL,
  -- The last instant at which anything of it is taken: the deadline and grace, or when it was left.
  stops_at DATETIME(3) NOT NULL,
  left_at DATETIME(3) NULL,
  PRIMARY KEY (attempt_id, section_id),
  FOREIGN KEY (attempt_id) REFERENCES attempt (id)
) ENGINE=InnoDB;

-- Whoever has this address may look at the quiz and copy it; null for nobody.
ALTER TABLE quiz ADD COLUMN IF NOT EXISTS address VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE quiz ADD UNIQUE KEY IF NOT EXISTS quiz_address (address);
