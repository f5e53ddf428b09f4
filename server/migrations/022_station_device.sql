ALTER TABLE station
  ADD COLUMN IF NOT EXISTS token_hash CHAR(64) NULL COMMENT 'SHA-256 of the token with which a device pushes',
  ADD COLUMN IF NOT EXISTS token_by UUID NULL COMMENT 'who let the device push',
  ADD COLUMN IF NOT EXISTS simulated BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN IF NOT EXISTS sensor_height_m DOUBLE NULL,
  ADD COLUMN IF NOT EXISTS last_hour DATETIME NULL COMMENT 'UTC, newest hour that was pushed'
