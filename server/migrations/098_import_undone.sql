ALTER TABLE weather_import
  ADD COLUMN IF NOT EXISTS undone_at DATETIME NULL COMMENT 'UTC; what it brought is taken out again',
  ADD COLUMN IF NOT EXISTS undone_by UUID NULL
