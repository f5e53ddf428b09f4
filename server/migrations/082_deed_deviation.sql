ALTER TABLE deed
  ADD COLUMN IF NOT EXISTS deviation VARCHAR(40) NULL COMMENT 'why the library or the label does not name this use' AFTER status,
  ADD COLUMN IF NOT EXISTS deviation_reason VARCHAR(500) NULL COMMENT 'what whoever did it says to that' AFTER deviation
