ALTER TABLE outbox
  ADD COLUMN IF NOT EXISTS recipient VARCHAR(200) NULL COMMENT 'of a letter that tells no alerts',
  ADD COLUMN IF NOT EXISTS subject VARCHAR(200) NULL,
  ADD COLUMN IF NOT EXISTS body TEXT NULL COMMENT 'gone once it is sent or given up: it may hold a way in'
