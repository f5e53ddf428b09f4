ALTER TABLE alert_setting ADD COLUMN IF NOT EXISTS push ENUM('none', 'urgent', 'all') NOT NULL DEFAULT 'none' COMMENT 'what comes to their devices at once'
