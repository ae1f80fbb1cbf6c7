-- The address of a calendar that somebody subscribes to: whoever has it reads it. Only the digest of its token is kept.
CREATE TABLE IF NOT EXISTS calendar_address (
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  token CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY calendar_address_token (token),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;
