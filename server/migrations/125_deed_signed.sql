ALTER TABLE deed
  ADD COLUMN IF NOT EXISTS signed_by UUID NULL,
  ADD COLUMN IF NOT EXISTS signed_at DATETIME NULL COMMENT 'UTC',
  ADD COLUMN IF NOT EXISTS licence_then VARCHAR(60) NULL COMMENT 'number of the licence with which it was signed',
  ADD FOREIGN KEY IF NOT EXISTS signed (signed_by) REFERENCES person (id)
