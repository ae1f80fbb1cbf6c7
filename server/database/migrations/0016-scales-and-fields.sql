-- Grade scales of a school: bands as JSON of core's scale. A quiz keeps a copy of the one it uses.
CREATE TABLE IF NOT EXISTS grade_scale (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  bands LONGTEXT NOT NULL,
  UNIQUE KEY grade_scale_name (school_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

-- Fields that a school keeps of its students, beside what Thistle needs. One that is taken out keeps its values.
CREATE TABLE IF NOT EXISTS own_field (
  id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  sort VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  -- JSON list of what may be chosen; empty for other sorts.
  choices LONGTEXT NOT NULL,
  taken_out TINYINT NOT NULL DEFAULT 0,
  UNIQUE KEY own_field_name (school_id, name),
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS own_value (
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  field_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  value VARCHAR(200) NOT NULL,
  PRIMARY KEY (person_id, field_id),
  KEY own_value_field (field_id),
  FOREIGN KEY (person_id) REFERENCES person (id),
  FOREIGN KEY (field_id) REFERENCES own_field (id)
) ENGINE=InnoDB;
