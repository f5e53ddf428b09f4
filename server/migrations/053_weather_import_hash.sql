ALTER TABLE weather_import
  ADD COLUMN IF NOT EXISTS file_hash CHAR(64) NULL COMMENT 'SHA-256 of the file; an id stands for this file alone'
