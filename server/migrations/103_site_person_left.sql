ALTER TABLE site_person
  ADD COLUMN IF NOT EXISTS row_version INT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS left_at DATETIME NULL COMMENT 'UTC; who left stays named in what they recorded'
