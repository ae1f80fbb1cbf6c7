-- Quizzes that open by themselves at an instant, as whoever set it.
CREATE TABLE IF NOT EXISTS quiz_opening (
  quiz_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  at DATETIME(3) NOT NULL,
  by_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  tried_at DATETIME(3) NULL,
  KEY quiz_opening_at (at),
  FOREIGN KEY (quiz_id) REFERENCES quiz (id),
  FOREIGN KEY (by_id) REFERENCES person (id)
) ENGINE=InnoDB;
