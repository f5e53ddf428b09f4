ALTER TABLE station ADD COLUMN IF NOT EXISTS checked_version INT UNSIGNED NOT NULL DEFAULT 0 COMMENT 'history_version whose readings were checked last'
