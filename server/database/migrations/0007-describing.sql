-- How a school describes its questions: thinking levels, fields of its own, grade levels (one document), and objectives in their order.

CREATE TABLE IF NOT EXISTS school_words (
  school_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  revision INT NOT NULL,
  body LONGTEXT NOT NULL,
  FOREIGN KEY (school_id) REFERENCES school (id)
) ENGINE=InnoDB;

ALTER TABLE objective MODIFY code VARCHAR(40) NOT NULL DEFAULT '';
ALTER TABLE objective MODIFY title VARCHAR(1000) NOT NULL;
