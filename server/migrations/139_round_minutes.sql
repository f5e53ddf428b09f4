ALTER TABLE round ADD COLUMN IF NOT EXISTS minutes SMALLINT UNSIGNED NULL COMMENT 'that the walk took; null where nobody measured'
