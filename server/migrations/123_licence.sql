ALTER TABLE site_person
  ADD COLUMN IF NOT EXISTS licence_number VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS licence_until DATE NULL COMMENT 'its last day; null: not said'
