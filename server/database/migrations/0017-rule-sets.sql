-- Rules to start from that a teacher keeps: for themselves, or for the school. One of a teacher's own begins their new quizzes.
CREATE TABLE IF NOT EXISTS rule_set (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  words VARCHAR(300) NOT NULL,
  -- JSON of core's rules without those of one quiz alone.
  body LONGTEXT NOT NULL,
  shared TINYINT NOT NULL DEFAULT 0,
  usual TINYINT NOT NULL DEFAULT 0,
  KEY rule_set_school (school_id, shared),
  UNIQUE KEY rule_set_name (owner_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id),
  FOREIGN KEY (owner_id) REFERENCES person (id)
) ENGINE=InnoDB;
