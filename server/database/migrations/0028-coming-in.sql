-- Who created somebody, and who put them into a class: a teacher who is not the administrator, or the student who joined by
-- a code or link; NULL for the roster and the administrator (core/people/password-links.ts).
ALTER TABLE person ADD COLUMN IF NOT EXISTS made_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE enrolment ADD COLUMN IF NOT EXISTS by_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE left_class ADD COLUMN IF NOT EXISTS put_in_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
UPDATE enrolment e JOIN record r ON r.subject = e.person_id AND r.what = 'into a class' AND JSON_VALUE(r.detail, '$.class') = e.class_id
  JOIN person w ON w.id = r.who AND w.admin = 0
  SET e.by_id = w.id WHERE e.by_id IS NULL;

-- Whether the person of a link had a password before, and when they were told of the link.
ALTER TABLE pass ADD COLUMN IF NOT EXISTS again TINYINT NOT NULL DEFAULT 0;
ALTER TABLE pass ADD COLUMN IF NOT EXISTS told_at DATETIME(3) NULL;
ALTER TABLE session ADD COLUMN IF NOT EXISTS begun_at DATETIME(3) NULL;

-- Students of a roster who took their place by the code of their class and their address or number, without a link.
CREATE TABLE IF NOT EXISTS claim (
  person_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
  -- 'address' or 'number': what they knew.
  known_by VARCHAR(10) NOT NULL,
  -- What they wrote themselves, and the address that stood there before.
  name VARCHAR(160) NOT NULL,
  email_before VARCHAR(190) NULL,
  at DATETIME(3) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Links in messages lead to where THISTLE_ADDRESS says, never to where a request came.
ALTER TABLE school DROP COLUMN IF EXISTS site;
