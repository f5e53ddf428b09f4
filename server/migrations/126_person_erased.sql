ALTER TABLE person
  ADD COLUMN IF NOT EXISTS erased_at DATETIME NULL COMMENT 'UTC; the name is a number since',
  ADD COLUMN IF NOT EXISTS record_name VARCHAR(120) NULL COMMENT 'kept for records of treatments alone, where the law asks who did them'
