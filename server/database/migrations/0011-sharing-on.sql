-- Whoever shares in a quiz lets others in only where its owner allows it.

ALTER TABLE quiz_teacher ADD COLUMN IF NOT EXISTS may_share TINYINT NOT NULL DEFAULT 0;
