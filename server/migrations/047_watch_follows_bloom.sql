ALTER TABLE watch
  ADD COLUMN IF NOT EXISTS follows_bloom TINYINT NOT NULL DEFAULT 1 COMMENT 'whether what is seen in bloom moves its forecast'
