ALTER TABLE outbox ADD COLUMN IF NOT EXISTS channel ENUM('mail', 'push') NOT NULL DEFAULT 'mail'
