ALTER TABLE station_correction
  MODIFY COLUMN kind ENUM('clock', 'unit', 'value') NOT NULL,
  ADD COLUMN IF NOT EXISTS value DOUBLE NULL COMMENT 'of one hour, put in by hand; SI'
