ALTER TABLE event_record
  ADD COLUMN IF NOT EXISTS trap_id UUID NULL COMMENT 'in which it was caught; NULL where nobody said',
  ADD COLUMN IF NOT EXISTS trap_key CHAR(36) AS (IFNULL(CAST(trap_id AS CHAR(36)), '')) PERSISTENT,
  ADD COLUMN IF NOT EXISTS counted_by ENUM('person', 'device') NOT NULL DEFAULT 'person'
