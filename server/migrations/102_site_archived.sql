ALTER TABLE site
  ADD COLUMN IF NOT EXISTS archived_at DATETIME NULL COMMENT 'UTC; it can be looked at and no longer written to' AFTER units
