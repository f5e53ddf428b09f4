ALTER TABLE site ADD COLUMN IF NOT EXISTS shares_first BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'first finds, catches and blooms are told to other sites that do the same: what, the day, about how far'
