ALTER TABLE unknown_find
  ADD COLUMN IF NOT EXISTS recorded_at DATETIME(3) NULL COMMENT 'UTC, by the clock of the device that recorded it',
  ADD COLUMN IF NOT EXISTS queue_order BIGINT UNSIGNED NULL COMMENT 'its place in the queue of a device without signal'
