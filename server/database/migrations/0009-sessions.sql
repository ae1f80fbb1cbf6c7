-- Who is signed in, where they have signed in before, and how often passwords were tried. Tokens are kept as their
-- SHA-256 alone: who reads this table cannot come in with it.

CREATE TABLE IF NOT EXISTS session (
  token CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  -- What the session was given for: it ends when the person's role or password is another.
  role ENUM('teacher','student') NOT NULL,
  password_mark CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  until DATETIME(3) NOT NULL,
  KEY session_person (person_id),
  KEY session_until (until),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- A browser in which somebody has signed in before: others who fail in their name do not keep them out there.
CREATE TABLE IF NOT EXISTS known_browser (
  token CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (token, person_id),
  KEY known_browser_at (at),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Tries at passwords by what they are counted by (the SHA-256 of its name), from an instant on.
CREATE TABLE IF NOT EXISTS password_try (
  subject CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  since DATETIME(3) NOT NULL,
  tries INT NOT NULL,
  KEY password_try_since (since)
) ENGINE=InnoDB;

DROP TABLE IF EXISTS failed_try;
